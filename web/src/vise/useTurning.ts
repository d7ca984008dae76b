import { type PointerEvent, useEffect, useRef, useState } from "react";
import { stepped, turned } from "../hang/turn";

/** By how much the work is turned at once at the vise, degrees: coarse, so that a drag is followed. */
export const turnStep = 15;

/** How far one drags for one degree, pixels. */
const perDegree = 1.6;

/** useTurning turns the work about its axis by a drag; a section begins with its face. */
export function useTurning(section: number) {
  const [turn, setTurn] = useState(0);
  const from = useRef<{ x: number; turn: number } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another section begins anew
  useEffect(() => setTurn(0), [section]);
  const drag = {
    onPointerDown: (e: PointerEvent<HTMLElement>) => {
      // What is pressed or moved on the picture is not dragged.
      if ((e.target as Element).closest("button, input, label, fieldset")) return;
      from.current = { x: e.clientX, turn };
      e.currentTarget.setPointerCapture(e.pointerId);
    },
    onPointerMove: (e: PointerEvent<HTMLElement>) => {
      if (from.current) setTurn(stepped(turned(from.current.turn, (e.clientX - from.current.x) / perDegree), turnStep));
    },
    onPointerUp: () => {
      from.current = null;
    },
    onPointerCancel: () => {
      from.current = null;
    },
  };
  return { turn, setTurn, drag };
}
