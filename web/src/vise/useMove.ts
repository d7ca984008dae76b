import { useEffect, useRef, useState } from "react";
import { alongSteps } from "../api/queries";

/** How long a frame of a film is looked at, ms. */
const frame = 1000 / 24;

/** How many frames a film goes on by at most. */
const stride = 3;

/** Move is how far the move in hand is shown, in frames, and whether it plays. */
export interface Move {
  along: number;
  setAlong: (n: number) => void;
  playing: boolean;
  play: () => void;
  /** step is how many frames the film went on by last: 1, more where they are drawn slowly */
  step: number;
  /** goOn shows a frame of the film that plays; at its last it stops. */
  goOn: (to: number) => void;
}

/** begun is a move that is come to: it plays once by itself, unless motion is to be reduced. */
function begun(done: number) {
  const still = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
  return { done, along: still ? 0 : 1, playing: !still, step: 1 };
}

/** useMove is how far the move after so many actions is shown. */
export function useMove(done: number): Move {
  const [kept, set] = useState(() => begun(done));
  const at = kept.done === done ? kept : begun(done); // not a frame of the move before
  if (at !== kept) set(at);
  const { along, playing, step } = at;
  return {
    along,
    playing,
    step,
    setAlong: (n) => set({ ...at, along: n, playing: false }),
    play: () => set({ ...at, along: along >= alongSteps || along === 0 ? 1 : along, playing: !playing, step: 1 }),
    goOn: (to) => set({ ...at, along: to, playing: to < alongSteps, step: to - along }),
  };
}

/**
 * useFilm plays a move, 24 frames a second. It leaves no frame before that was seen, so that a move never plays past
 * an empty picture; after one that was drawn slowly it leaves some out.
 */
export function useFilm({ playing, along, goOn }: Move, seen: boolean) {
  const due = useRef(0); // when the frame that is shown was to be seen
  const on = useRef(goOn);
  useEffect(() => {
    on.current = goOn;
  });
  useEffect(() => {
    if (!playing || !seen) return;
    const now = performance.now();
    const late = along === 1 ? 0 : Math.max(0, now - due.current);
    due.current = Math.max(due.current + frame, now + frame / 2);
    const step = Math.min(stride, 1 + Math.floor(late / frame));
    const timer = setTimeout(() => on.current(Math.min(alongSteps, along + step)), due.current - now);
    return () => clearTimeout(timer);
  }, [playing, seen, along]);
}
