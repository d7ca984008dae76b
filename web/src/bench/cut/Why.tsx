import type { PlannedCord } from "../../api/types.gen";
import { length, type Units } from "../../ui/units";

/** reasons are what a cut is made of, in the order in which it is laid out. */
const reasons = [
  { key: "knotwork_mm", name: "knotwork", says: "what the knots take, in the middle", fill: "solid" },
  { key: "measured_mm", name: "bare", says: "what lies bare between them", fill: "thin" },
  { key: "finish_mm", name: "left and trimmed", says: "what the finish leaves and cuts off", fill: "dots" },
  { key: "spread_mm", name: "spread", says: "so that it runs short no more often than you accept", fill: "slant" },
  { key: "hold_mm", name: "hold", says: "what the hand needs beyond the finish", fill: "cross" },
  { key: "even_mm", name: "legs", says: "what legs that are not found cost", fill: "bars" },
  { key: "rounding_mm", name: "rounding", says: "up to what you cut to", fill: "none" },
] as const;

/** Bar shows what a cut is made of, laid out to scale; its patterns are those of [Fills]. */
export function Bar({ cord }: { cord: PlannedCord }) {
  const parts = made(cord);
  const whole = parts.reduce((n, r) => n + Math.max(0, r.mm), 0);
  let at = 0;
  return (
    <svg
      className="block h-2.5 w-full border border-base-content"
      viewBox="0 0 400 10"
      preserveAspectRatio="none"
      aria-hidden="true"
      data-testid={`bar-${cord.id}`}
    >
      {parts.map((r) => {
        const wide = (400 * Math.max(0, r.mm)) / whole;
        at += wide;
        return (
          <g key={r.key}>
            <rect x={at - wide} width={wide} height="10" fill={fills[r.fill]} />
            <path d={`M${at} 0V10`} stroke="currentColor" vectorEffect="non-scaling-stroke" />
          </g>
        );
      })}
    </svg>
  );
}

function made(cord: PlannedCord) {
  return reasons.map((r) => ({ ...r, mm: cord.why[r.key] })).filter((r) => Math.abs(r.mm) >= 0.5);
}

/** Why tells in a line each what a cut is made of. */
export function Why({ cord, units }: { cord: PlannedCord; units: Units }) {
  return (
    <ul className="text-sm" aria-label={`What the cut of ${cord.id} is made of`} data-testid={`why-${cord.id}`}>
      {made(cord).map((r) => (
        <li key={r.key} className="flex items-baseline gap-2">
          <svg width="12" height="12" viewBox="0 0 12 12" className="shrink-0 self-center" aria-hidden="true">
            <rect x="0.5" y="0.5" width="11" height="11" fill={fills[r.fill]} stroke="currentColor" />
          </svg>
          <span className="figure w-20 shrink-0 text-right">{length(r.mm, units)}</span>
          <span className="min-w-0">
            {r.name}
            <span className="opacity-80">: {r.says}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}

const fills = {
  solid: "currentColor",
  thin: "url(#why-thin)",
  dots: "url(#why-dots)",
  slant: "url(#why-slant)",
  cross: "url(#why-cross)",
  bars: "url(#why-bars)",
  none: "transparent",
};

/** Fills are the patterns that tell the parts of a bar apart without colour; they stand once on a page. */
export function Fills() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true">
      <defs>
        <pattern id="why-thin" width="4" height="4" patternUnits="userSpaceOnUse">
          <path d="M0 2H4" stroke="currentColor" strokeWidth="0.8" />
        </pattern>
        <pattern id="why-dots" width="4" height="4" patternUnits="userSpaceOnUse">
          <circle cx="2" cy="2" r="1" fill="currentColor" />
        </pattern>
        <pattern id="why-slant" width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M-1 6L6 -1" stroke="currentColor" strokeWidth="1" />
        </pattern>
        <pattern id="why-cross" width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 0L5 5M5 0L0 5" stroke="currentColor" strokeWidth="0.8" />
        </pattern>
        <pattern id="why-bars" width="4" height="4" patternUnits="userSpaceOnUse">
          <path d="M2 0V4" stroke="currentColor" strokeWidth="1.2" />
        </pattern>
      </defs>
    </svg>
  );
}
