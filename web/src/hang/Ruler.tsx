import { useSettings } from "../api/queries";
import { length } from "../ui/units";

interface Props {
  h: number;
  perMM: number;
  /** pixels at which the wire's middle lies */
  zero: number;
  width: number;
  /** how long the piece is; left out where what is shown is no whole piece */
  lengthMM?: number;
}

/** Ruler lies along the work with its zero at the wire; in inches it shows eighths. */
export function Ruler({ h, perMM, zero, width, lengthMM }: Props) {
  const { units } = useSettings();
  const unit = units === "inch" ? 25.4 : 10;
  // A figure at every unit that leaves room for it.
  const every = [1, 2, 5, 10, 20, 50].find((n) => n * unit * perMM >= 26) ?? 100;
  const parts = unit * perMM >= 48 ? (units === "inch" ? 8 : 10) : unit * perMM >= 16 ? 2 : 1;
  const ticks = [];
  for (let n = Math.max(0, Math.ceil((-zero / perMM / unit) * parts)); zero + (n / parts) * unit * perMM < h; n++) {
    const y = zero + (n / parts) * unit * perMM;
    const whole = n % parts === 0;
    const half = (n * 2) % parts === 0;
    ticks.push(
      <path
        key={n}
        d={`M${width} ${y}h${-(whole ? 12 : half ? 8 : 5)}`}
        stroke="currentColor"
        strokeWidth={whole ? 1.2 : 0.7}
      />,
    );
    if (whole && (n / parts) % every === 0) {
      ticks.push(
        <text
          key={`t${n}`}
          x={width - 15}
          y={y + 4}
          fontSize="11"
          textAnchor="end"
          className="figure"
          fill="currentColor"
        >
          {(n / parts) * (units === "inch" ? 1 : 10)}
        </text>,
      );
    }
  }
  const end = zero + (lengthMM ?? 0) * perMM;
  const says = lengthMM === undefined ? "A ruler" : `The piece is ${length(lengthMM, units)} long`;
  return (
    <g role="img" aria-label={says}>
      <rect width={width} height={h} fill="var(--color-base-200)" />
      <path d={`M${width} 0V${h}`} stroke="currentColor" strokeWidth="1" />
      {ticks}
      {lengthMM !== undefined && (
        <>
          <path d={`M0 ${end}H${width + 10}`} stroke="var(--color-secondary)" strokeWidth="2" />
          <path d={`M${width + 10} ${end}l-9 -5v10z`} fill="var(--color-secondary)" />
        </>
      )}
    </g>
  );
}
