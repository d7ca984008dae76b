import { type KeyboardEvent, memo, type PointerEvent, useMemo, useRef } from "react";
import { useKnots, useLimits, useSettings } from "../api/queries";
import type { Band, CatalogueKnot, Fault, Picture, Plan, PlannedSection } from "../api/types.gen";
import { useWork } from "../bench/work";
import { length, type Units } from "../ui/units";
import { Plates } from "./Plate";

interface ViewProps {
  picture: Picture;
  plan: Plan;
  /** pixels of the mat at which the axis of the piece and the wire's middle lie */
  x: number;
  y: number;
  perMM: number;
  /** pointed at and pulled here */
  live: boolean;
}

/** View is one side of the piece with its sections to point at and to pull. */
export function View({ picture, plan, x, y, perMM, live }: ViewProps) {
  const { lit, setLit, selected, select, document, setCount, addCount } = useWork();
  const { units } = useSettings();
  const sections = useMemo(() => new Map(plan.sections.map((s) => [s.index, s])), [plan]);
  const scale = perMM / 100;
  const knots = useKnots();
  const band = picture.bands.find((b) => b.section === lit);
  return (
    <g transform={`translate(${x} ${y}) scale(${scale})`}>
      <Plates picture={picture} scale={scale} zero={-y / scale} />
      {band && <Dim picture={picture} band={band} />}
      {picture.faults?.map((f) => (
        <Missing key={f.top} fault={f} px={1 / scale} />
      ))}
      {live &&
        picture.bands.map((b) => (
          <Spot
            key={b.section}
            {...b}
            setLit={setLit}
            select={select}
            name={named(b.section, sections.get(b.section), knots)}
          />
        ))}
      {live &&
        picture.bands.map((b) => {
          const s = sections.get(b.section);
          if (!s?.knot_mm || !document.sequence[b.section]) return null;
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
    </g>
  );
}

/** named is what a section is called beside the piece and its cords: its number, its knot and how many. */
export function named(section: number, s: PlannedSection | undefined, knots: ReadonlyMap<string, CatalogueKnot>) {
  const name = s ? (knots.get(s.do)?.name ?? s.do) : "";
  return `${section + 1}. ${name}${s && s.count > 1 ? `, ${s.count} times` : ""}`;
}

/** Missing stands where a stretch could not be drawn, and says why. */
function Missing({ fault, px }: { fault: Fault; px: number }) {
  const where = fault.section >= 0 ? `Section ${fault.section + 1}: ` : "";
  return (
    <g role="alert" data-testid="fault">
      <path
        d={`M${-40 * px} ${fault.top}H${40 * px}V${fault.bottom}H${-40 * px}z`}
        fill="none"
        stroke="var(--moving)"
        strokeWidth={1.5 * px}
        strokeDasharray={`${6 * px} ${4 * px}`}
      />
      <text x="0" y={(fault.top + fault.bottom) / 2} fontSize={12 * px} textAnchor="middle" fill="currentColor">
        {where}
        {fault.why}
      </text>
    </g>
  );
}

/** Dim lays paper over all but the lit section. */
export function Dim({ picture, band }: { picture: Picture; band: Band }) {
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
  name: string;
}

/** Spot is where a section is pointed at. */
const Spot = memo(function Spot({ section, left, right, top, bottom, setLit, select, name }: SpotProps) {
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
    >
      <title>{name}</title>
    </rect>
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
