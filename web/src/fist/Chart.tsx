import { useId } from "react";
import type { Column, FistAnswer, FistRequest } from "../api/types.gen";
import { across, length, type Units } from "../ui/units";
import { fits } from "./fits";

const wide = 560;
const tall = 400;
const left = 62;
const bottom = 44;
const top = 14;

/**
 * Chart lays every number of passes beside the cores: a bar is what closes, its notch the best, and the
 * drawer's cores lie across. Arrow keys walk through it.
 */
export function Chart(p: {
  ask: FistRequest;
  answer: FistAnswer;
  units: Units;
  onSet: (part: Partial<FistRequest>) => void;
}) {
  const { ask, answer, units } = p;
  const hatch = useId();
  const cols = answer.chart;
  const most = answer.cores[answer.cores.length - 1] ?? 1;
  const y = (mm: number) => tall - bottom - ((tall - bottom - top) * mm) / most;
  const x = (i: number) => left + ((wide - left - 8) * (i + 0.5)) / cols.length;
  const step = Math.min(46, (wide - left) / cols.length - 12);
  const core = ask.core.diameter_mm || answer.ball?.core.diameter_mm || 0;
  const here = cols.findIndex((c) => c.passes === ask.passes);
  const pick = (passes: number, mm: number) =>
    p.onSet({ passes, core: { ...ask.core, diameter_mm: Math.round(mm * 10) / 10 } });
  const walk = (e: React.KeyboardEvent) => {
    const by = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 0.5],
      ArrowDown: [0, -0.5],
      PageUp: [0, 2],
      PageDown: [0, -2],
    }[e.key];
    const at = cols[Math.min(cols.length - 1, Math.max(0, here + (by?.[0] ?? 0)))];
    if (e.key === "Home") p.onSet({ core: { ...ask.core, diameter_mm: 0 } });
    else if (by?.[0]) p.onSet({ passes: at.passes });
    else if (by) pick(ask.passes, Math.min(most, Math.max(1, core + by[1])));
    else return;
    e.preventDefault();
  };
  const ticks = [];
  const each = most > 60 ? 20 : most > 28 ? 5 : most > 10 ? 2 : 1;
  for (let mm = each; mm <= most; mm += each) ticks.push(mm);
  return (
    <>
      <div
        role="application"
        tabIndex={0}
        data-testid="fist-chart"
        aria-label="Core diameter against passes; left and right arrows change the passes, up and down the core, Home takes the best core"
        onKeyDown={walk}
        className="mat rounded-box border border-base-300"
      >
        <svg viewBox={`0 0 ${wide} ${tall}`} aria-hidden="true" className="block max-h-[52vh] w-full">
          <defs>
            <pattern id={hatch} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <path d="M0 0V6" stroke="currentColor" strokeWidth="1.6" opacity="0.55" />
            </pattern>
          </defs>
          {ticks.map((mm) => (
            <g key={mm}>
              <path d={`M${left} ${y(mm)}H${wide}`} stroke="currentColor" strokeWidth="0.5" opacity="0.25" />
              <text x={left - 6} y={y(mm) + 4} textAnchor="end" fontSize="12" fill="currentColor" className="figure">
                {units === "inch" ? across(mm, units).replace(" in", "″") : mm}
              </text>
            </g>
          ))}
          <text x={4} y={top + 4} fontSize="12" fill="currentColor">
            core, {units === "inch" ? "in" : "mm"}
          </text>
          <path d={`M${left} ${tall - bottom}H${wide}`} stroke="currentColor" />
          {answer.drawer.map((j, i) => (
            <path
              key={i}
              d={`M${left} ${y(j.core.diameter_mm)}H${wide}`}
              stroke="var(--color-accent)"
              strokeWidth="1.6"
              strokeDasharray="7 5"
            />
          ))}
          {cols.map((c, i) => (
            <Bar
              key={c.passes}
              column={c}
              x={x(i)}
              y={y}
              wide={step}
              hatch={hatch}
              now={c.passes === ask.passes}
              onPick={(mm) => pick(c.passes, mm)}
            />
          ))}
          {answer.drawer.map((j, i) => (
            <circle
              key={i}
              cx={left + 5 + (i % 2) * 12}
              cy={y(j.core.diameter_mm)}
              r="5"
              fill="var(--color-base-100)"
              stroke="currentColor"
              strokeWidth="1.6"
            />
          ))}
          {here >= 0 && core > 0 && core <= most && (
            <g fill="none" stroke="currentColor">
              <path
                d={`M${left} ${y(core)}H${x(here) - 9}M${x(here)} ${tall - bottom}V${y(core) + 9}`}
                strokeWidth="1"
              />
              <circle cx={x(here)} cy={y(core)} r="9" strokeWidth="2.6" fill="var(--color-base-100)" />
              <circle cx={x(here)} cy={y(core)} r="3" fill="currentColor" />
            </g>
          )}
          <text x={(left + wide) / 2} y={tall - 6} textAnchor="middle" fontSize="12" fill="currentColor">
            passes
          </text>
        </svg>
      </div>
      <p role="status" className="-mt-1 text-sm" data-testid="fist-said">
        {fits(answer, ask, units)}
      </p>
      <details className="text-sm">
        <summary className="cursor-pointer">The chart as a table</summary>
        <table className="table table-xs mt-1">
          <thead>
            <tr>
              <th>passes</th>
              <th>core from</th>
              <th>best</th>
              <th>to</th>
              <th>ball</th>
              <th>cord in it</th>
            </tr>
          </thead>
          <tbody className="figure">
            {cols.map((c) => (
              <tr key={c.passes}>
                <th scope="row">{c.passes}</th>
                <td>{across(c.range.core_min_mm, units)}</td>
                <td>{across(c.range.core_best_mm, units)}</td>
                <td>{across(c.range.core_max_mm, units)}</td>
                <td>{across(c.outer_face_mm, units)}</td>
                <td>{length(c.cord_mm, units)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  );
}

function Bar(p: {
  column: Column;
  x: number;
  y: (mm: number) => number;
  wide: number;
  hatch: string;
  now: boolean;
  onPick: (mm: number) => void;
}) {
  const { core_min_mm: lo, core_max_mm: hi, core_best_mm: best } = p.column.range;
  const half = p.wide / 2;
  const [up, down] = [p.y(hi), Math.max(p.y(lo), p.y(hi) + 4)];
  return (
    <g onClick={() => p.onPick(best)} className="cursor-pointer">
      <rect x={p.x - half} y={0} width={p.wide} height={tall - bottom} fill="transparent" />
      <rect
        x={p.x - half}
        y={up}
        width={p.wide}
        height={down - up}
        fill="var(--color-base-100)"
        stroke="currentColor"
        strokeWidth={p.now ? 2.4 : 1.2}
      />
      <rect x={p.x - half} y={up} width={p.wide} height={down - up} fill={`url(#${p.hatch})`} />
      <path d={`M${p.x - half - 5} ${p.y(best)}H${p.x + half + 5}`} stroke="currentColor" strokeWidth="2.4" />
      <text
        x={p.x}
        y={tall - bottom + 18}
        textAnchor="middle"
        fontSize="14"
        fontWeight={p.now ? 700 : 400}
        fill="currentColor"
        className="figure"
      >
        {p.column.passes}
      </text>
    </g>
  );
}
