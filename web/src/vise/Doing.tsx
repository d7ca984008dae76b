import { useState } from "react";
import type { Action, Plan } from "../api/types.gen";
import { Swatch } from "../ui/fields";
import { length, said, type Units } from "../ui/units";
import { gates, lines, type Place, placeAt } from "./steps";

/** After so many times a move is said in short. */
const often = 3;

/** Doing is what is to be done now, up to so many actions: its cord, its words and what to look at; then what comes next. */
export function Doing(p: { place: Place; plan: Plan; done: number; to: number; units: Units }) {
  const { place, plan, done, to, units } = p;
  const { step, action, round, part } = place;
  const all = lines(plan, done, to);
  const next = placeAt(plan, to);
  const words = (a: Action, t: string, mm = step.mm) => {
    const fold = plan.cords.find((c) => c.id === a.cord)?.fold_at_mm;
    return said(t.replaceAll("{length}", length(mm ?? 0, units, true)), units, fold);
  };
  return (
    <>
      <div>
        <p className="text-lg opacity-80">
          {step.section < 0 ? "on the table" : `section ${step.section + 1}, ${step.name}`}
        </p>
        <p className="figure font-bold text-5xl" data-testid="counter">
          {step.repeats > 1 ? (
            <>
              {round}
              <span className="font-normal text-2xl opacity-80"> of {step.repeats}</span>
            </>
          ) : (
            <>
              {part}
              <span className="font-normal text-2xl opacity-80"> of {step.actions.length}</span>
            </>
          )}
        </p>
        {step.repeats > 1 && (
          <p className="text-lg">
            move {part} of {step.actions.length}
          </p>
        )}
      </div>
      {all.length === 1 ? (
        <One key={done} action={action} again={round > often} words={words} />
      ) : (
        <ol className="flex flex-col gap-3" data-testid="stride">
          {all.map((l, i) => (
            <li key={i} className="flex items-start gap-3">
              <Swatches action={l.action} />
              <p className="font-semibold text-2xl leading-snug">
                {words(l.action, l.action.text)}
                {l.times > 1 && <span className="font-normal text-xl opacity-80"> {l.times} times in all.</span>}
              </p>
            </li>
          ))}
        </ol>
      )}
      {gates(plan, to).map((g) => (
        <p key={g} className="rounded-box border-2 border-secondary p-3 text-xl" data-gate>
          <strong>Look before you go on: </strong>
          {words(action, g)}
        </p>
      ))}
      <p className="text-base opacity-80" data-testid="next">
        <strong>Then: </strong>
        {next ? words(next.action, next.action.text, next.step.mm) : "it is tied; look it over."}
      </p>
    </>
  );
}

/** Swatches are those of the cords that a move leads. */
function Swatches({ action, large }: { action: Action; large?: boolean }) {
  if (!action.cord || !action.colour) {
    return null;
  }
  return (
    <span className="flex flex-col gap-1">
      <Swatch colour={action.colour} id={action.cord} large={large} />
      {action.beside?.map((b) => (
        <Swatch key={b.cord} colour={b.colour} id={b.cord} large={large} />
      ))}
    </span>
  );
}

/** One is a single move, in short where it was made a few times already. */
function One(p: { action: Action; again: boolean; words: (a: Action, t: string) => string }) {
  const { action, words } = p;
  const [full, setFull] = useState(false);
  const short = p.again && action.again && !full;
  return (
    <>
      <div className="flex items-start gap-4">
        <Swatches action={action} large />
        <p className="font-semibold text-3xl leading-snug" data-testid="move">
          {words(action, short ? (action.again ?? "") : action.text)}
        </p>
      </div>
      {short ? (
        <button type="button" className="btn btn-sm self-start" onClick={() => setFull(true)}>
          Say it in full
        </button>
      ) : (
        action.detail && <p className="text-xl">{words(action, action.detail)}</p>
      )}
    </>
  );
}
