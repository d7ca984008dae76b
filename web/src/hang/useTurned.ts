import { useEffect, useState } from "react";
import { usePicture } from "../api/queries";

/** by how much the piece is turned at once, degrees; the server draws these steps */
export const turnStep = 3;

/**
 * useTurned is the piece turned about the axis that it hangs on. While it turns only one picture is on its way;
 * when it is there, the one that is wanted by then is asked for.
 */
export function useTurned(id: number, revision: number | undefined, turn: number, scale: number, seen: boolean) {
  const [asked, setAsked] = useState(turn);
  const picture = usePicture(id, revision, { turn: asked, scale }, seen);
  const idle = !picture.isFetching;
  useEffect(() => {
    if (idle && asked !== turn) setAsked(turn);
  }, [idle, asked, turn]);
  return { ...picture, settled: idle && asked === turn };
}

/** turned is an angle a little on, in whole steps from 0 up to a whole turn. */
export function turned(from: number, by: number): number {
  const whole = (from + by) % 360;
  return whole < 0 ? whole + 360 : whole;
}

/** stepped is the nearest whole step. */
export function stepped(angle: number): number {
  return (Math.round(angle / turnStep) * turnStep) % 360;
}
