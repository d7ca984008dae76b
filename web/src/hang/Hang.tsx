import {
  type KeyboardEvent,
  memo,
  type PointerEvent,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { useLimits, usePicture, useSettings } from "../api/queries";
import type { Band, Picture, Plan } from "../api/types.gen";
import { useWork } from "../bench/work";
import { length, type Units } from "../ui/units";
import { useLast } from "../ui/useLast";
import { useSize } from "../ui/useSize";
import { Plates } from "./Plate";
import { Ruler } from "./Ruler";

export type Side = "face" | "back" | "both";

/** Hang shows the piece hanging over the mat, to scale, with its ruler. */
export function Hang({ side }: { side: Side }) {
  const { box, w, h } = useSize();
  const { plan, planError } = useWork();
  return (
    <div ref={box} className="mat relative h-full min-h-0 w-full overflow-hidden" data-testid="hang">
      {!plan && planError && <p className="p-6">{planError.message}</p>}
      {plan && h > 0 && <Mat side={side} plan={plan} w={w} h={h} />}
    </div>
  );
}

const rulerPx = 46;

/** The scales that pictures are asked for at, in pixels a millimetre. */
const asked = [0.7, 1.5, 2.5, 4, 7, 11];

/** scaleFor finds the pixels a millimetre at which the whole piece is seen, in steps so that pictures are shared. */
function scaleFor(pics: Picture[], w: number, h: number): number {
  const wide = Math.max(...pics.map((p) => p.width / 100)) + 14;
  const tall = Math.max(...pics.map((p) => p.height / 100)) + 8;
  const named = pics.length > 1 ? 16 : 0; // for the words face and back
  const fit = Math.min((w - rulerPx) / pics.length / wide, (h - named) / tall, 14);
  return Math.max(0.4, fit);
}

function Mat({ side, plan, w, h }: { side: Side; plan: Plan; w: number; h: number }) {
  const { id, revision } = useWork();
  // Asked for at a round scale, drawn at the one that fits.
  const [ask, setAsk] = useState(4);
  const face = usePicture(id, side === "back" ? undefined : revision, { view: "face", scale: ask });
  const back = usePicture(id, side === "face" ? undefined : revision, { view: "back", scale: ask });
  // What cannot be drawn leaves the last good picture where it is.
  const faceSeen = useDeferredValue(useLast(face.data));
  const backSeen = useDeferredValue(useLast(back.data));
  const pics = [side !== "back" ? faceSeen : undefined, side !== "face" ? backSeen : undefined].filter(
    (p): p is Picture => p !== undefined && p.places.length > 0,
  );
  const perMM = pics.length > 0 ? scaleFor(pics, w, h) : 0;
  useEffect(() => {
    if (perMM > 0) setAsk(asked.find((a) => a >= 0.8 * perMM) ?? 11);
  }, [perMM]);
  const failed = face.error ?? back.error;
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
  const top = Math.min(...pics.map((p) => p.top)) / 100 - 4;
  const each = (w - rulerPx) / pics.length;
  return (
    <>
      {failed && (
        <p className="absolute inset-x-0 top-0 z-10 bg-base-100/90 px-3 py-1 text-sm" data-testid="as-before">
          As it was before the last change; what keeps it from being drawn is said above.
        </p>
      )}
      <svg width={w} height={h} className="block" role="group" aria-label={`${plan.name}, hanging`}>
        <Grid w={w} h={h} perMM={perMM} top={top} />
        <Ruler h={h} perMM={perMM} top={top} width={rulerPx} lengthMM={plan.length_mm} />
        {pics.map((p, i) => (
          <View
            key={p.view}
            picture={p}
            plan={plan}
            x={rulerPx + each * (i + 0.5)}
            perMM={perMM}
            top={top}
            named={pics.length > 1}
          />
        ))}
      </svg>
    </>
  );
}

function Grid({ w, h, perMM, top }: { w: number; h: number; perMM: number; top: number }) {
  const step = 10 * perMM;
  const first = -top * perMM; // y of the wire's middle
  const lines: { at: number; bold: boolean; v: boolean }[] = [];
  const from = -Math.floor(first / step);
  for (let n = from; first + n * step < h; n++) lines.push({ at: first + n * step, bold: n % 5 === 0, v: false });
  for (let n = 0; rulerPx + n * step < w; n++) lines.push({ at: rulerPx + n * step, bold: n % 5 === 0, v: true });
  return (
    <g aria-hidden="true">
      {lines.map((l) => (
        <path
          key={`${l.v}${l.at}`}
          d={l.v ? `M${l.at} 0V${h}` : `M${rulerPx} ${l.at}H${w}`}
          stroke={l.bold ? "var(--mat-bold)" : "var(--mat-line)"}
          strokeWidth="1"
        />
      ))}
    </g>
  );
}

interface ViewProps {
  picture: Picture;
  plan: Plan;
  x: number;
  perMM: number;
  top: number;
  named: boolean;
}

/** View is one side of the piece with its sections to point at and to pull. */
function View({ picture, plan, x, perMM, top, named }: ViewProps) {
  const { lit, setLit, selected, select, document, setCount, addCount } = useWork();
  const { units } = useSettings();
  const sections = useMemo(() => new Map(plan.sections.map((s) => [s.index, s])), [plan]);
  const scale = perMM / 100;
  const middle = picture.left + picture.width / 2;
  const shown = lit ?? null;
  const band = picture.bands.find((b) => b.section === shown);
  return (
    <g transform={`translate(${x} ${-top * perMM}) scale(${scale}) translate(${-middle} 0)`}>
      <Plates picture={picture} scale={scale} zero={top * 100} />
      {band && <Dim picture={picture} band={band} />}
      {picture.bands.map((b) => (
        <Spot key={b.section} {...b} setLit={setLit} select={select} />
      ))}
      {picture.bands.map((b) => {
        const s = sections.get(b.section);
        if (!s?.knot_mm || !document.sequence[b.section] || (named && picture.view !== "face")) return null;
        return (
          <Pull
            key={b.section}
            {...b}
            knotMM={s.knot_mm}
            count={document.sequence[b.section].count || s.count}
            perMM={perMM}
            active={selected === b.section}
            setCount={setCount}
            addCount={addCount}
            units={units}
          />
        );
      })}
      {named && (
        <text
          x={middle}
          y={picture.top + picture.height + 13 / scale}
          fontSize={13 / scale}
          textAnchor="middle"
          fill="currentColor"
        >
          {picture.view}
        </text>
      )}
    </g>
  );
}

/** Dim lays paper over all but the lit section. */
function Dim({ picture, band }: { picture: Picture; band: Band }) {
  const { left, top, width, height } = picture;
  return (
    <g fill="var(--mat)" opacity="0.62" pointerEvents="none">
      <rect x={left - 400} y={top - 400} width={width + 800} height={Math.max(0, band.top - top + 400)} />
      <rect x={left - 400} y={band.bottom} width={width + 800} height={Math.max(0, top + height - band.bottom + 800)} />
    </g>
  );
}

interface SpotProps extends Band {
  setLit: (n: number | null) => void;
  select: (n: number) => void;
}

/** Spot is where a section is pointed at. */
const Spot = memo(function Spot({ section, left, right, top, bottom, setLit, select }: SpotProps) {
  return (
    <rect
      data-section={section}
      x={left - 200}
      y={top}
      width={right - left + 400}
      height={Math.max(1, bottom - top)}
      fill="transparent"
      onPointerEnter={() => setLit(section)}
      onPointerLeave={() => setLit(null)}
      onPointerDown={() => select(section)}
    />
  );
});

interface PullProps extends Band {
  setCount: (section: number, count: number) => void;
  addCount: (section: number, by: number, planned: number | undefined) => void;
  units: Units;
  knotMM: number;
  count: number;
  perMM: number;
  active: boolean;
}

/** Pull is the lower edge of a section: drawn down it takes knots in, pushed up it lets them go. */
const Pull = memo(function Pull(p: PullProps) {
  const { knotMM, count, perMM, active, setCount, addCount, units, ...band } = p;
  const grip = useRef<{ y: number; count: number } | null>(null);
  const most = useLimits().knots;
  const px = 100 / perMM;
  const y = band.bottom;
  const down = (e: PointerEvent<SVGGElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    grip.current = { y: e.clientY, count };
    e.preventDefault();
    e.currentTarget.focus();
  };
  const move = (e: PointerEvent<SVGGElement>) => {
    if (!grip.current) return;
    const n = Math.max(1, grip.current.count + Math.round((e.clientY - grip.current.y) / perMM / knotMM));
    if (n !== count) setCount(band.section, n);
  };
  // As sliders go: up and right for more, and the ends of the way.
  const key = (e: KeyboardEvent) => {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 5, PageDown: -5 }[e.key];
    if (!by && e.key !== "Home") return;
    e.preventDefault();
    e.stopPropagation();
    if (by) addCount(band.section, by, count);
    else setCount(band.section, 1);
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Knots in section ${band.section + 1}`}
      aria-valuenow={count}
      aria-valuemin={1}
      aria-valuemax={most}
      aria-valuetext={`${count} knots, ${length(count * knotMM, units)}`}
      data-pull={band.section}
      className="cursor-ns-resize"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={() => {
        grip.current = null;
      }}
      onPointerCancel={() => {
        grip.current = null;
      }}
      onKeyDown={key}
    >
      <rect
        x={band.left - 30 * px}
        y={y - 12 * px}
        width={band.right - band.left + 60 * px}
        height={24 * px}
        fill="transparent"
      />
      <path
        d={`M${band.left - 16 * px} ${y}H${band.left - 3 * px}M${band.right + 3 * px} ${y}H${band.right + 16 * px}`}
        stroke={active ? "var(--color-secondary)" : "currentColor"}
        strokeWidth={(active ? 3 : 1.6) * px}
      />
      <path
        d={`M${band.right + 18 * px} ${y - 2 * px}l${5 * px} ${-6 * px} ${5 * px} ${6 * px}zM${band.right + 18 * px} ${y + 2 * px}l${5 * px} ${6 * px} ${5 * px} ${-6 * px}z`}
        fill={active ? "var(--color-secondary)" : "currentColor"}
      />
    </g>
  );
});
