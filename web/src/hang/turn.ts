import { useEffect } from "react";

/**
 * useCatchUp asks for what is wanted once the answer to what was asked is there, so that only one is on its way
 * while something turns. It tells whether what is wanted is there.
 */
export function useCatchUp<T>(wanted: T, asked: T, ask: (v: T) => void, busy: boolean): boolean {
  useEffect(() => {
    if (!busy && asked !== wanted) ask(wanted);
  }, [busy, asked, wanted, ask]);
  return !busy && asked === wanted;
}

/** turned is an angle a little on, from 0 up to a whole turn. */
export function turned(from: number, by: number): number {
  const whole = (from + by) % 360;
  return whole < 0 ? whole + 360 : whole;
}

/** stepped is the nearest whole step. */
export function stepped(angle: number, step: number): number {
  return (Math.round(angle / step) * step) % 360;
}
