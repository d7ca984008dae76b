import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useState } from "react";
import { useFistPicture, useSettings, useTurnStep } from "../api/queries";
import type { FistAnswer, FistBall, FistRequest, FistWarning } from "../api/types.gen";
import { Fitted } from "../hang/Plate";
import { stepped, turned, useCatchUp } from "../hang/turn";
import { across, length, said } from "../ui/units";

type Set = (part: Partial<FistRequest>) => void;

/** Answer is the ball: how it looks, its six faces, its figures and what to beware of. */
export function Answer(p: { ask: FistRequest; answer: FistAnswer; settled: boolean; onSet: Set }) {
  const { ball, refusal } = p.answer;
  if (!ball)
    return (
      <div role="alert" className="alert flex flex-col items-start gap-2 border border-base-content">
        <p className="font-semibold">There is no such ball</p>
        <p>{refusal ? `${refusal.why[0].toUpperCase()}${refusal.why.slice(1)}.` : ""}</p>
        <Instead {...p} passes={refusal?.passes} core={refusal?.core_mm} />
      </div>
    );
  return (
    <>
      <Look {...p} ball={ball} />
      <div className="flex flex-wrap items-start gap-4">
        <Figures ball={ball} />
        <Widths ball={ball} />
      </div>
      <Warnings {...p} warnings={ball.warnings} />
    </>
  );
}

function Instead(p: { ask: FistRequest; onSet: Set; passes?: number; core?: number; kind?: string }) {
  const { units } = useSettings();
  const mm = p.core && Math.floor(p.core * 10) / 10;
  return (
    <span className="flex flex-wrap gap-2">
      {p.passes ? (
        <button type="button" className="btn btn-sm" onClick={() => p.onSet({ passes: p.passes })}>
          Tie {p.passes} passes
        </button>
      ) : null}
      {mm ? (
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => p.onSet({ core: { ...p.ask.core, diameter_mm: mm } })}
        >
          Take a core of {across(mm, units)}
        </button>
      ) : null}
      {p.kind ? (
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => p.onSet({ core: { ...p.ask.core, kind: p.kind as FistRequest["core"]["kind"] } })}
        >
          Take a core of {p.kind}
        </button>
      ) : null}
    </span>
  );
}

function Look({ ask, ball, settled }: { ask: FistRequest; ball: FistBall; settled: boolean }) {
  const colours = [ask.stuff.colour, ask.second ?? ask.stuff.colour];
  return (
    <div className="grid grid-cols-[1fr_10.5rem] gap-3">
      <Turned ask={ask} ball={ball} settled={settled} />
      <figure>
        <figcaption className="mb-1 text-sm">Six faces, {ball.passes} turns on each</figcaption>
        <Cross ask={ask} ball={ball} settled={settled} colours={colours} />
      </figure>
    </div>
  );
}

/** Turned is the ball, turned by drags and keys. While it turns only one picture is on its way. */
function Turned({ ask, ball, settled }: { ask: FistRequest; ball: FistBall; settled: boolean }) {
  const [look, setLook] = useState({ turn: 0, tilt: 0 });
  const [asked, setAsked] = useState(look);
  const least = useTurnStep();
  const query = useFistPicture(ask, 0, settled, stepped(asked.turn, least), stepped(asked.tilt, least));
  const there = useCatchUp(look, asked, setAsked, query.isFetching);
  const by = (turn: number, tilt: number) =>
    setLook((v) => ({ turn: turned(v.turn, turn), tilt: turned(v.tilt, tilt) }));
  const bind = useDrag(({ delta: [x, y] }) => by(x * 0.7, -y * 0.7), { filterTaps: true });
  const keys = (e: KeyboardEvent) => {
    const step = 5 * least;
    const way = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[e.key];
    if (way) by(way[0], way[1]);
    else if (e.key === "0") setLook({ turn: 0, tilt: 0 });
    else return;
    e.preventDefault();
  };
  return (
    <div
      {...bind()}
      role="group"
      tabIndex={0}
      aria-label="The ball; arrows turn it, 0 shows it as it hangs"
      data-testid="ball"
      data-turn={`${stepped(look.turn, least)} ${stepped(look.tilt, least)}`}
      data-wait={query.data && there ? undefined : true}
      className="mat relative h-56 cursor-move touch-none rounded-box border border-base-300 p-2"
      onKeyDown={keys}
    >
      {query.data ? (
        <Fitted picture={query.data} label={`The ball of ${ball.passes} passes as it hangs`} />
      ) : (
        <p role="status" className="p-2 text-sm">
          Drawing it…
        </p>
      )}
      <p className="pointer-events-none absolute right-1 bottom-1 rounded-field bg-base-100 px-1 text-xs">
        drag to turn it
      </p>
    </div>
  );
}

/** where the faces of a ball lie when it is laid out flat, columns and rows from 1 */
const flat = [
  [1, 2],
  [3, 2],
  [2, 1],
  [2, 3],
  [2, 2],
  [2, 4],
];

function Cross(p: { ask: FistRequest; ball: FistBall; settled: boolean; colours: string[] }) {
  return (
    <div className="grid grid-cols-3 grid-rows-4 gap-0.5" data-testid="fist-faces">
      {p.ball.faces.map((_, i) => (
        <Side key={i} n={i + 1} {...p} />
      ))}
    </div>
  );
}

function Side({ n, ask, ball, settled }: { n: number; ask: FistRequest; ball: FistBall; settled: boolean }) {
  const picture = useFistPicture(ask, n, settled).data;
  const f = ball.faces[n - 1];
  const of = [...new Set(f.cords)].map((c) => `cord ${c + 1}`).join(" and ");
  return (
    <div
      className="mat relative h-[3.3rem] overflow-hidden border border-base-300"
      data-wait={picture ? undefined : true}
      style={{ gridColumn: flat[n - 1][0], gridRow: flat[n - 1][1] }}
    >
      {picture && (
        <Fitted
          picture={picture}
          label={`Face ${n}: ${f.flaw ?? `${f.cords.length} turns of band ${f.band + 1}, ${of}`}`}
        />
      )}
      <span className="figure absolute top-0 left-0.5 rounded bg-base-100 px-0.5 text-xs" aria-hidden="true">
        {n}
      </span>
    </div>
  );
}

function Figures({ ball }: { ball: FistBall }) {
  const { units } = useSettings();
  const rows: [string, string, string?][] = [
    [
      "cord in the ball",
      length(ball.cord_mm, units),
      ball.cords_mm.length > 1 ? ball.cords_mm.map((v) => length(v, units)).join(" and ") : undefined,
    ],
    ["by band", ball.bands_mm.map((v) => length(v, units)).join(", ")],
    ["one turn", length(ball.loop_mm, units, true)],
    [
      "across the faces",
      across(ball.outer_face_mm, units),
      `across the corners ${across(ball.outer_corner_mm, units)}`,
    ],
    [
      "core",
      `${across(ball.core.diameter_mm, units)} ${ball.core_name}`,
      ball.stopper ? `knotted as ${ball.stopper}` : undefined,
    ],
    [
      "cores that close",
      `${across(ball.range.core_min_mm, units)} to ${across(ball.range.core_max_mm, units)}`,
      `best ${across(ball.range.core_best_mm, units)}`,
    ],
    ["weight", `${ball.weight_g.toFixed(ball.weight_g < 20 ? 1 : 0)} g`],
    ["strands out", String(ball.strands)],
  ];
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 text-sm" data-testid="fist-figures">
      {rows.map(([what, v, more]) => (
        <div key={what} className="contents">
          <dt>{what}</dt>
          <dd className="figure">
            {v}
            {more && <span className="opacity-80">, {more}</span>}
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** How large the drawing of the widths is, the room about it and that for its words, px. */
const drawn = 88;
const edge = 6;
const named = 130;

/** Widths draws where a ball is measured: across two faces, and across two corners. Its outline is constructed from the two. */
function Widths({ ball }: { ball: FistBall }) {
  const { units } = useSettings();
  const [face, corner] = [ball.outer_face_mm, ball.outer_corner_mm];
  const scale = drawn / Math.max(face, corner);
  const c = drawn / 2 + edge;
  const r = (deg: number) => (scale / 4) * (face + corner + (face - corner) * Math.cos((4 * deg * Math.PI) / 180));
  const at = (deg: number, far = 0) => {
    const a = (deg * Math.PI) / 180;
    return `${(c + (r(deg) + far) * Math.cos(a)).toFixed(1)} ${(c + (r(deg) + far) * Math.sin(a)).toFixed(1)}`;
  };
  const outline = Array.from({ length: 72 }, (_, i) => at(5 * i)).join("L");
  return (
    <svg
      width={drawn + 2 * edge + named}
      height={drawn + 2 * edge}
      role="img"
      aria-label={`Across the faces ${across(face, units)}, across the corners ${across(corner, units)}`}
    >
      <path d={`M${outline}z`} fill="none" stroke="currentColor" strokeWidth="2" />
      <g stroke="var(--color-secondary)" strokeWidth="1.5">
        <path d={`M${at(180)}L${at(0)}`} />
        <path d={`M${at(225)}L${at(45)}`} strokeDasharray="5 3" />
      </g>
      <g fontSize="13" fill="currentColor" className="figure">
        <text x={c + drawn / 2 + 6} y={c + 4}>
          faces {across(face, units)}
        </text>
        <text x={c + drawn * 0.4} y={c + drawn * 0.48}>
          corners {across(corner, units)}
        </text>
      </g>
    </svg>
  );
}

function Warnings(p: { ask: FistRequest; onSet: Set; warnings: FistWarning[] }) {
  const { units } = useSettings();
  if (p.warnings.length === 0) return null;
  return (
    <ul className="flex flex-col gap-2" aria-label="Warnings">
      {p.warnings.map((w) => (
        <li key={w.code} className="border-warning border-l-4 pl-2 text-sm" data-warning={w.code}>
          <p>{said(w.message, units)}</p>
          <Instead ask={p.ask} onSet={p.onSet} passes={w.passes} core={w.core_mm} kind={w.kind} />
        </li>
      ))}
    </ul>
  );
}
