import { type KeyboardEvent, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { useEyes, usePicture, useSettings, useTurnStep } from "../api/queries";
import type { Picture, Plan } from "../api/types.gen";
import { useWork } from "../bench/work";
import { said } from "../ui/units";
import { useLast } from "../ui/useLast";
import { useSize } from "../ui/useSize";
import { Grid } from "./Grid";
import { Lens } from "./Lens";
import { Plates } from "./Plate";
import { Ruler } from "./Ruler";
import { Save } from "./Save";
import { stepped, turned, useCatchUp } from "./turn";
import { useSight } from "./useSight";
import { View } from "./View";

/** What the eyes are called by which a piece can be shown. */
export const eyeNames = {
  usual: "usual eyes",
  protan: "eyes that miss red",
  deutan: "eyes that miss green",
  tritan: "eyes that miss blue",
};

/**
 * What is shown of a piece: one side, both beside each other, the piece turned by hand, or one section that goes
 * round, from its working end or with its outside rolled off.
 */
export type Side = "face" | "back" | "both" | "turned" | Around;
export type Around = "end" | "unrolled";

/** around tells whether a side is one section by itself. */
export const around = (s: Side): s is Around => s === "end" || s === "unrolled";

/** What a section is called that is looked at so. */
export const lookedAt = { end: "from its working end", unrolled: "rolled off; its left edge meets its right" };

interface Props {
  side: Side;
  lens: boolean;
}

/** Hang shows the piece hanging over the mat, to scale, with its ruler. */
export function Hang({ side, lens }: Props) {
  const { box, w, h } = useSize();
  const { plan, planError } = useWork();
  return (
    <div ref={box} className="mat relative h-full min-h-0 w-full overflow-hidden" data-testid="hang">
      {!plan && planError && <p className="p-6">{planError.message}</p>}
      {plan && h > 0 && <Mat side={side} lens={lens} plan={plan} w={w} h={h} />}
    </div>
  );
}

const rulerPx = 46;

/** The scales that pictures are asked for at, in pixels a millimetre. */
const asked = [0.7, 1.5, 2.5, 4, 7, 11, 18, 30, 50];

/** Room that is left round the piece, pixels. */
const room = { side: 22, top: 14, bottom: 20 };

/** The scales at which the whole piece is seen, and at which it is as wide as it may be. */
function fits(pics: Picture[], columns: number, w: number, h: number) {
  const wide = Math.max(...pics.map((p) => Math.max(-p.left, p.left + p.width) * 2)) / 100;
  const tall = Math.max(...pics.map((p) => p.height)) / 100;
  const width = Math.min((w - rulerPx) / columns - 2 * room.side, 2000) / wide;
  const height = (h - room.top - room.bottom) / tall;
  const whole = Math.max(0.4, Math.min(width, height, 22));
  return { whole, width: Math.max(whole, Math.min(width, 22)) };
}

/**
 * usePictures are the sides that are shown: beside the face stands the back, or what shows the shape best. What
 * cannot be drawn leaves the last good picture where it is.
 */
function usePictures(side: Side, ask: number, turn: number, best: number, section: number) {
  const { id, revision } = useWork();
  const face = usePicture(id, side === "face" || side === "both" ? revision : undefined, { turn: 0, scale: ask });
  const back = usePicture(id, side === "back" || side === "both" ? revision : undefined, {
    turn: side === "both" && best ? best : 180,
    scale: ask,
  });
  const [turnAsked, askTurn] = useState(turn);
  const round = usePicture(id, revision, { turn: turnAsked, scale: ask }, side === "turned");
  const alone = usePicture(
    id,
    revision,
    { turn: 0, scale: ask, as: around(side) ? side : undefined, section },
    around(side),
  );
  const settled = useCatchUp(turn, turnAsked, askTurn, round.isFetching);
  const faceSeen = useDeferredValue(useLast(face.data));
  const backSeen = useDeferredValue(useLast(back.data));
  const roundSeen = useLast(round.data);
  const shown = {
    face: [faceSeen],
    back: [backSeen],
    both: [faceSeen, backSeen],
    turned: [roundSeen],
    end: [alone.data],
    unrolled: [alone.data],
  }[side];
  return {
    pics: shown.filter((p): p is Picture => p !== undefined && p.places.length > 0),
    failed: face.error ?? back.error ?? round.error ?? alone.error,
    settled,
  };
}

function Mat({ side, lens, plan, w, h }: Props & { plan: Plan; w: number; h: number }) {
  const { units } = useSettings();
  // Asked for at a round scale, drawn at the one that fits.
  const [ask, setAsk] = useState(4);
  const [angle, setAngle] = useState(plan.turn || 36);
  const step = useTurnStep();
  const turn = stepped(angle, step);
  const section = useAround(plan);
  const { pics: drawn, failed, settled } = usePictures(side, ask, turn, plan.turn ?? 0, section);
  const { eye, setEye } = useWork();
  const as = useEyes(
    eye,
    drawn.flatMap((p) => p.colours),
  );
  const pics = useMemo(
    () => (as ? drawn.map((p) => ({ ...p, colours: p.colours.map((c) => as[c] ?? c) })) : drawn),
    [as, drawn],
  );
  const at = useRef<{ x: number; y: number } | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const [under, setUnder] = useState<{ x: number; y: number } | null>(null);
  // Each side has its column, whether its picture is there yet or not.
  const n = side === "both" ? 2 : 1;
  const each = (w - rulerPx) / n;
  // A turned piece swings in a frame of its own size: that of its widest side.
  const frame = useWidest(pics, side);
  const fit = frame.length > 0 ? fits(frame, n, w, h) : { whole: 0, width: 0 };
  const about = useCallback(
    (x: number, y: number) => {
      const r = box.current?.getBoundingClientRect();
      const px = x - (r?.left ?? 0) - rulerPx;
      const which = Math.max(0, Math.min(n - 1, Math.floor(px / each)));
      return { x: px - each * (which + 0.5), y: y - (r?.top ?? 0) };
    },
    [n, each],
  );
  const middle = () => (at.current ? about(at.current.x, at.current.y) : { x: 0, y: h / 2 });
  const { sight, pan } = useSight({
    box,
    about,
    middle,
    widest: fit.whole > 0 ? fit.width / fit.whole : 1,
    turnBy: side === "turned" ? (px) => setAngle((a) => turned(a, px * 0.6)) : undefined,
  });
  const perMM = fit.whole * sight.zoom;
  useEffect(() => {
    if (perMM > 0) setAsk(asked.find((a) => a >= 0.8 * perMM) ?? 50);
  }, [perMM]);
  if (failed && pics.length === 0) {
    return <p className="p-6">The piece cannot be drawn: {failed.message}</p>;
  }
  if (pics.length === 0) {
    return (
      <p className="p-6" role="status" data-wait={plan.sections.length === 0 ? undefined : true}>
        {plan.sections.length === 0 ? "Nothing hangs here yet: mount a cord in Tie." : "Drawing the knots up…"}
      </p>
    );
  }
  const top = Math.min(...pics.map((p) => p.top)) / 100;
  // Of a piece that fits the width, what is over of the height lies below it; one section lies in the middle.
  const over = around(side) ? Math.max(0, (h - room.top - room.bottom - (pics[0].height / 100) * fit.whole) / 2) : 0;
  const y = room.top + over - top * perMM + sight.y;
  const column = (p: Picture) => (n === 2 && p.view !== "face" ? 1 : 0);
  const xOf = (p: Picture) => rulerPx + each * (column(p) + 0.5) + sight.x;
  const keys = (e: KeyboardEvent) => {
    const way = { ArrowLeft: [1, 0], ArrowRight: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key];
    if (!way || e.target !== e.currentTarget || e.altKey) return;
    e.preventDefault();
    if (side === "turned" && way[0] !== 0) setAngle((a) => stepped(turned(a, -way[0] * 5 * step), step));
    else pan(way[0] * 40, way[1] * 40);
  };
  const label =
    side === "turned"
      ? `${plan.name}, turned by ${turn} degrees; left and right turn it`
      : around(side)
        ? `${plan.name}, section ${section + 1} ${lookedAt[side]}; Z looks closer, arrows move it, 0 shows the whole`
        : `${plan.name}, hanging; Z looks closer, arrows move it, 0 shows the whole`;
  return (
    <div
      ref={box}
      role="group"
      aria-label={label}
      aria-describedby="described"
      tabIndex={0}
      data-focus
      data-zoom={sight.zoom.toFixed(2)}
      data-turn={side === "turned" ? turn : undefined}
      data-settled={side === "turned" ? settled : undefined}
      className={`h-full w-full ${sight.zoom > 1 || side === "turned" ? "touch-none" : "touch-pan-y"} ${side === "turned" ? "cursor-ew-resize" : ""}`}
      onKeyDown={keys}
      onPointerMove={(e) => {
        at.current = { x: e.clientX, y: e.clientY };
        const r = e.currentTarget.getBoundingClientRect();
        if (lens) setUnder({ x: e.clientX - r.left, y: e.clientY - r.top });
      }}
      onPointerLeave={() => {
        at.current = null;
        setUnder(null);
      }}
    >
      <p id="described" className="sr-only">
        {said(plan.described, units)}
      </p>
      {failed && (
        <p className="absolute inset-x-0 top-0 z-10 bg-base-100/90 px-3 py-1 text-sm" data-testid="as-before">
          As it was before the last change; what keeps it from being drawn is said above.
        </p>
      )}
      {pics.some((p) => p.coarse) && (
        <p className="absolute inset-x-0 top-0 z-10 bg-base-100/90 px-3 py-1 text-sm" role="status">
          This piece is too large to be drawn closely as a whole; it is drawn in parts, some more coarsely than the
          rest.
        </p>
      )}
      <svg width={w} height={h} className="block" role="group" aria-label={`${plan.name}, hanging`}>
        <Grid w={w} h={h} left={rulerPx} perMM={perMM} x={xOf(pics[0])} y={y} />
        {pics.map((p) => (
          <Column key={p.view} n={column(p)} x={rulerPx + each * column(p)} w={each} h={h} clip={sight.zoom > 1}>
            <View
              picture={p}
              plan={plan}
              x={xOf(p)}
              y={y}
              perMM={perMM}
              live={column(p) === 0 && side !== "turned" && !around(side)}
            />
            {n > 1 && (
              <text x={rulerPx + each * column(p) + 10} y={h - 10} fontSize={13} fill="currentColor">
                {p.view}
              </text>
            )}
          </Column>
        ))}
        {around(side) && (
          <text x={rulerPx + 10} y={h - 10} fontSize={13} fill="currentColor">
            section {section + 1}, {lookedAt[side]}
          </text>
        )}
        <Ruler h={h} perMM={perMM} zero={y} width={rulerPx} lengthMM={around(side) ? undefined : plan.length_mm} />
        {lens && under && (
          <Lens x={under.x} y={under.y}>
            {pics.map((p) => (
              <g key={p.view} transform={`translate(${xOf(p)} ${y}) scale(${perMM / 100})`}>
                <Plates picture={p} scale={perMM / 100} zero={-y / (perMM / 100)} />
              </g>
            ))}
          </Lens>
        )}
      </svg>
      {eye !== "usual" && (
        <p
          className="absolute top-0 right-0 left-12 z-10 flex items-center gap-2 bg-base-100/90 px-3 py-1 text-sm"
          role="status"
        >
          As seen by {eyeNames[eye]}.
          <button type="button" className="btn btn-xs" onClick={() => setEye("usual")}>
            Show it as it is
          </button>
        </p>
      )}
      <Save side={side} turn={turn} section={section} />
    </div>
  );
}

/** useAround is the section that is looked at alone: the selected one where it goes round, else the first that does. */
function useAround(plan: Plan): number {
  const { selected } = useWork();
  const round = plan.sections.filter((s) => s.around);
  return (round.find((s) => s.index === selected) ?? round[0])?.index ?? 0;
}

/** Column is the part of the mat in which one side hangs; looked at closely it ends where the next begins. */
function Column(p: { n: number; x: number; w: number; h: number; clip: boolean; children: React.ReactNode }) {
  return (
    <g clipPath={p.clip ? `url(#column${p.n})` : undefined}>
      <clipPath id={`column${p.n}`}>
        <rect x={p.x} y="0" width={p.w} height={p.h} />
      </clipPath>
      {p.children}
    </g>
  );
}

/** useWidest is what the scale follows: the pictures, or while one turns the widest of those that were seen. */
function useWidest(pics: Picture[], side: Side): Picture[] {
  const seen = useRef<Picture | null>(null);
  const [widest, setWidest] = useState<Picture | null>(null);
  const now = side === "turned" ? pics[0] : undefined;
  useEffect(() => {
    if (!now) {
      seen.current = null;
      setWidest(null);
      return;
    }
    const old = seen.current;
    const reach = (p: Picture) => Math.max(-p.left, p.left + p.width);
    if (!old || reach(now) > reach(old) || old.height !== now.height) {
      seen.current = now;
      setWidest(now);
    }
  }, [now]);
  return side === "turned" && widest && pics.length > 0 ? [widest] : pics;
}
