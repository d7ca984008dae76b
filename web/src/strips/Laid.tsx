import type { PlannedCord } from "../api/types.gen";
import { cutTo, foldAt, length, type Units } from "../ui/units";
import { inchMM } from "../ui/units.gen";

// How wide a cord on the table is drawn, the room at its sides, and how thick it is.
const usual = 640;
const margin = 24;
const thick = 14;

/** tickSteps are the distances between two marks of a tape measure, mm, and between two in inches. */
const tickSteps = { mm: [10, 50, 100, 500, 1000, 5000], inch: [1, 6, 12, 60, 120, 600].map((n) => n * inchMM) };

/** Tape is a tape measure with 0 at x, and so many millimetres towards way. */
function Tape(p: { x: number; y: number; mm: number; perMM: number; way: 1 | -1; units: Units }) {
  const { x, y, mm, perMM, way } = p;
  const steps = p.units === "inch" ? tickSteps.inch : tickSteps.mm;
  const step = steps.find((s) => mm / s <= 40) ?? steps[steps.length - 1];
  const marks = Array.from({ length: Math.floor(mm / step) + 1 }, (_, i) => x + way * i * step * perMM);
  const end = x + way * mm * perMM;
  return (
    <g>
      <rect
        x={Math.min(x, end)}
        y={y}
        width={Math.abs(end - x)}
        height="20"
        fill="var(--color-base-100)"
        stroke="currentColor"
        strokeWidth="1"
      />
      <path d={marks.map((m, i) => `M${m} ${y}v${i % 5 ? 6 : 11}`).join("")} stroke="currentColor" strokeWidth="1" />
    </g>
  );
}

/** Words are a line under or over what is drawn. */
function Words(p: { x: number; y: number; at?: "start" | "middle" | "end"; children: string; bold?: boolean }) {
  return (
    <text
      x={p.x}
      y={p.y}
      fontSize="17"
      textAnchor={p.at ?? "start"}
      fill="currentColor"
      fontWeight={p.bold ? 700 : 400}
      className="figure"
    >
      {p.children}
    </text>
  );
}

/** Straight is a cord laid along a tape measure, to be cut at its figure. */
export function Straight({ cord, units, wide = usual }: { cord: PlannedCord; units: Units; wide?: number }) {
  const perMM = (wide - 2 * margin) / cord.cut_mm;
  const end = wide - margin;
  return (
    <svg
      viewBox={`0 0 ${wide} 130`}
      className="w-full"
      role="img"
      aria-label={`Cord ${cord.id} along a tape measure, cut at ${cutTo(cord.cut_mm, units)}`}
    >
      <rect
        x={margin}
        y="34"
        width={wide - margin}
        height={thick}
        fill={cord.colour}
        stroke="currentColor"
        strokeWidth="1.6"
      />
      <Tape x={margin} y={56} mm={cord.cut_mm} perMM={perMM} way={1} units={units} />
      <path d={`M${end} 16V88`} stroke="var(--moving)" strokeWidth="2.5" strokeDasharray="7 4" />
      <Words x={margin} y={104}>
        0
      </Words>
      <Words x={end} y={108} at="end" bold>
        {`cut at ${cutTo(cord.cut_mm, units)}`}
      </Words>
      <Words x={margin} y={24}>
        {`cord ${cord.id}`}
      </Words>
    </svg>
  );
}

/** Folded is a cord folded on the table: its legs one under the other, the tape measure along the one that is measured. */
export function Folded({ cord, units, wide = usual }: { cord: PlannedCord; units: Units; wide?: number }) {
  const measured = cord.legs[cord.fold_leg ?? 0];
  const other = cord.legs[1 - (cord.fold_leg ?? 0)];
  if (!measured || !other) return null;
  const fold = margin + 26;
  const perMM = (wide - margin - fold) / Math.max(measured.cut_mm, other.cut_mm);
  const end = fold + measured.cut_mm * perMM;
  const top = 66;
  const low = top + 56;
  const path = `M${end} ${top}H${fold}A28 28 0 0 0 ${fold} ${low}H${fold + other.cut_mm * perMM}`;
  const says = (leg: typeof measured) =>
    `${leg.side} leg${leg.name ? `, the ${leg.name}` : ""}: ${length(leg.cut_mm, units)}`;
  return (
    <svg
      viewBox={`0 0 ${wide} 164`}
      className="w-full"
      role="img"
      aria-label={`Cord ${cord.id} folded ${foldAt(cord.fold_at_mm, units)} from the end of its ${cord.fold_side} leg`}
    >
      <path d={path} fill="none" stroke="currentColor" strokeWidth={thick + 3} />
      <path d={path} fill="none" stroke={cord.colour} strokeWidth={thick} />
      <Tape x={end} y={30} mm={measured.cut_mm} perMM={perMM} way={-1} units={units} />
      <path d={`M${fold} 24V${low + 14}`} stroke="var(--color-secondary)" strokeWidth="2.5" strokeDasharray="7 4" />
      <Words x={fold} y={20} bold>
        {`fold at ${foldAt(cord.fold_at_mm, units)}`}
      </Words>
      <Words x={end + 6} y={47}>
        0
      </Words>
      <Words x={fold + 12} y={top + 28}>
        {says(measured)}
      </Words>
      <Words x={fold + 12} y={low + 30}>
        {says(other)}
      </Words>
    </svg>
  );
}
