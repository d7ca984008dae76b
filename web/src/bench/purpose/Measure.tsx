import type { Ask } from "../../api/types.gen";

type Drawing = Ask["drawing"] | "between" | "hole" | "ring";

/** What each drawing says to who cannot see it. */
const says: Record<Drawing, string> = {
  hang: "From the middle of the wire down to the lowest tip of the piece.",
  hand: "A tape round a hand over the knuckles, the thumb laid into the palm.",
  head: "A tape round a head over the forehead.",
  handle: "A tape round a handle where the knot shall sit.",
  roll: "A tape round the middle of a rolled napkin.",
  stop: "The width of the hole that the knot must not pass.",
  blade: "From the middle of the hole to where the point of the blade passes.",
  between: "From the middle of one wire to the middle of the other.",
  hole: "The width of the hole, from its edge to the outside, and how thick it is there.",
  ring: "The inner width of a ring, and the thickness of its wire.",
};

const line = { fill: "none", stroke: "currentColor", strokeWidth: 1.6, strokeLinecap: "round" as const };
const thing = { ...line, opacity: 0.55 };

/** Dim is a measuring line with a mark across each end. */
function Dim({ x1, y1, x2, y2 }: { x1: number; y1: number; x2: number; y2: number }) {
  const long = Math.hypot(x2 - x1, y2 - y1);
  const [nx, ny] = [(-(y2 - y1) / long) * 5, ((x2 - x1) / long) * 5];
  return (
    <path
      {...line}
      className="text-accent"
      strokeWidth={2}
      d={`M${x1} ${y1}L${x2} ${y2}M${x1 - nx} ${y1 - ny}L${x1 + nx} ${y1 + ny}M${x2 - nx} ${y2 - ny}L${x2 + nx} ${y2 + ny}`}
    />
  );
}

/** Tape is a measuring tape round something, seen a little from above: its front half and its back half. */
function Tape({ cx, cy, rx, ry }: { cx: number; cy: number; rx: number; ry: number }) {
  return (
    <g className="text-accent">
      <path {...line} strokeWidth={2.4} d={`M${cx - rx} ${cy}A${rx} ${ry} 0 0 0 ${cx + rx} ${cy}`} />
      <path {...line} strokeDasharray="3 4" d={`M${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}`} />
    </g>
  );
}

const drawings: Record<Drawing, React.JSX.Element> = {
  hang: (
    <>
      <circle {...thing} cx="46" cy="20" r="13" />
      <path {...thing} d="M40 33v40M52 33v40M40 42h12M40 50h12M40 58h12M40 66h12M42 73l-3 11M50 73l3 11" />
      <Dim x1={82} y1={33} x2={82} y2={84} />
    </>
  ),
  hand: (
    <>
      <path
        {...thing}
        d="M45 88V70c-7-4-11-12-11-22l2-20c0-4 6-4 6 0v16-24c0-5 7-5 7 0v22-26c0-5 7-5 7 0v26-22c0-5 7-5 7 0v24-14c0-4 6-4 6 0l1 18c0 10-3 17-9 22v18"
      />
      <path {...thing} d="M36 50c8-2 14 2 18 10" />
      <Tape cx={52} cy={50} rx={20} ry={6} />
    </>
  ),
  head: (
    <>
      <path
        {...thing}
        d="M40 88V74c-8-4-14-14-14-28 0-18 10-32 26-32s26 14 26 32c0 14-6 24-14 28v14M46 56h2M58 56h2M49 66h7"
      />
      <Tape cx={52} cy={36} rx={26} ry={7} />
    </>
  ),
  handle: (
    <>
      <path {...thing} d="M40 8v80M66 8v80M40 8c0-3 26-3 26 0M40 88c0 3 26 3 26 0" />
      <Tape cx={53} cy={48} rx={13} ry={5} />
    </>
  ),
  roll: (
    <>
      <path {...thing} d="M34 12c0-4 36-4 36 0v72c0 4-36 4-36 0zM34 12c0 4 36 4 36 0M44 12c4-2 12-2 14 0-2 2-6 2-8 1" />
      <Tape cx={52} cy={48} rx={18} ry={6} />
    </>
  ),
  stop: (
    <>
      <path {...thing} d="M10 60h26M74 60h24M10 72h26M74 72h24M36 60v12M74 60v12M50 6v32M60 6v32" />
      <circle {...thing} cx="55" cy="45" r="14" />
      <Dim x1={36} y1={84} x2={74} y2={84} />
    </>
  ),
  blade: (
    <>
      <rect {...thing} x="10" y="34" width="62" height="20" rx="9" />
      <circle {...thing} cx="20" cy="44" r="4" />
      <path {...thing} d="M68 36c14-8 26-14 34-26-2 14-10 24-32 34" />
      <path {...thing} strokeDasharray="3 4" d="M102 10A60 60 0 0 1 64 74" />
      <Dim x1={20} y1={72} x2={64} y2={72} />
    </>
  ),
  between: (
    <>
      <circle {...thing} cx="20" cy="34" r="12" />
      <circle {...thing} cx="92" cy="34" r="12" />
      <path {...thing} d="M32 30h48M32 38h48M40 30v8M50 30v8M60 30v8M70 30v8" />
      <Dim x1={32} y1={66} x2={80} y2={66} />
    </>
  ),
  hole: (
    <>
      <path {...thing} d="M8 20h56c12 0 18 8 18 18s-6 18-18 18H8M82 38h10v10c0 8-6 12-12 14" />
      <circle {...thing} cx="58" cy="38" r="9" />
      <Dim x1={49} y1={72} x2={67} y2={72} />
      <Dim x1={67} y1={82} x2={82} y2={82} />
      <Dim x1={100} y1={38} x2={100} y2={56} />
    </>
  ),
  ring: (
    <>
      <circle {...thing} cx="55" cy="40" r="30" />
      <circle {...thing} cx="55" cy="40" r="25" />
      <Dim x1={30} y1={40} x2={80} y2={40} />
      <Dim x1={80} y1={82} x2={85} y2={82} />
    </>
  ),
};

/** Measure shows what to measure: the thing in grey, the measure over it. */
export function Measure({ drawing }: { drawing: Drawing }) {
  return (
    <svg
      viewBox="0 0 110 94"
      width="110"
      height="94"
      role="img"
      aria-label={`What to measure: ${says[drawing]}`}
      className="shrink-0 rounded-box border border-base-300"
    >
      {drawings[drawing]}
    </svg>
  );
}
