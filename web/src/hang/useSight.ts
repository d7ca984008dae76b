import { useGesture } from "@use-gesture/react";
import { type RefObject, useCallback, useState } from "react";
import { useKeys } from "../ui/useKeys";

/** Sight is how closely the mat is looked at: so many times the fit, and moved by so many pixels. */
export interface Sight {
  zoom: number;
  x: number;
  y: number;
}

const fitted: Sight = { zoom: 1, x: 0, y: 0 };
const mostZoom = 24;

/** Where a zoom is about: pixels of the mat, x from the middle of the side that is pointed at. */
export interface About {
  x: number;
  y: number;
}

/** zoomed looks so many times closer, what is under a place staying there. */
export function zoomed(s: Sight, by: number, at: About): Sight {
  const zoom = Math.max(1, Math.min(mostZoom, s.zoom * by));
  const k = zoom / s.zoom;
  if (zoom === 1) return fitted;
  return { zoom, x: at.x - (at.x - s.x) * k, y: at.y - (at.y - s.y) * k };
}

interface Props {
  box: RefObject<HTMLDivElement | null>;
  /** about turns a place on the screen to one on the mat */
  about: (x: number, y: number) => About;
  /** the middle of the mat, for keys */
  middle: () => About;
  /** what sideways drags do instead of panning, where they do: the piece is turned by pixels */
  turnBy?: (px: number) => void;
  /** what the fit to the width would be, in times the fit to the whole */
  widest: number;
}

/** useSight zooms and pans by wheel, pinch, drag and keys. */
export function useSight({ box, about, middle, turnBy, widest }: Props) {
  const [sight, setSight] = useState<Sight>(fitted);
  const pan = useCallback(
    (x: number, y: number) => setSight((s) => (s.zoom === 1 ? s : { ...s, x: s.x + x, y: s.y + y })),
    [],
  );
  const close = (by: number) => setSight((s) => zoomed(s, by, middle()));
  useGesture(
    {
      onWheel: ({ event, delta: [dx, dy] }) => {
        event.preventDefault();
        if (event.shiftKey) pan(-dx || -dy, 0);
        else setSight((s) => zoomed(s, Math.exp(-dy * 0.0022), about(event.clientX, event.clientY)));
      },
      onPinch: ({ delta: [by], origin: [x, y], offset: [scale], memo = scale }) => {
        if (by !== 0 && memo > 0) setSight((s) => zoomed(s, scale / memo, about(x, y)));
        return scale;
      },
      onDrag: ({ delta: [dx, dy], pinching, cancel, event }) => {
        if (pinching || (event.target as Element).closest("[data-pull]")) return cancel();
        if (turnBy) turnBy(dx);
        else pan(dx, dy);
      },
    },
    {
      target: box,
      drag: { filterTaps: true, pointer: { buttons: [1, 4] } },
      wheel: { eventOptions: { passive: false } },
      pinch: { scaleBounds: { min: 0.02, max: 50 } },
    },
  );
  useKeys({
    z: () => close(1.3),
    "shift~z": () => close(1 / 1.3),
    // One key back to the whole; pressed there it fits the width.
    "0": () => setSight((s) => (s.zoom === 1 && s.x === 0 ? zoomed(s, widest, { x: 0, y: 0 }) : fitted)),
  });
  return { sight, pan, reset: () => setSight(fitted) };
}
