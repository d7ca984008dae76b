import type { Action, Plan, Step } from "../api/types.gen";

/** Place is where one is at the vise. */
export interface Place {
  step: Step;
  action: Action;
  /** which repeat of the step, from 1 */
  round: number;
  /** which action of the round, from 1 */
  part: number;
  /** the actions of all steps before this one's */
  before: number;
}

/** How much is done at once. */
export type Stride = "move" | "half" | "knot" | "section";

export const strides: { id: Stride; name: string }[] = [
  { id: "move", name: "move by move" },
  { id: "half", name: "by half knots" },
  { id: "knot", name: "knot by knot" },
  { id: "section", name: "by sections" },
];

/** onTheTable is the step before the first one that ties: to measure, to cut and to fold. Its places are below 0. */
function onTheTable(plan: Plan): Step {
  return { section: -1, do: "", name: "", repeats: 1, actions: plan.ready };
}

/** placeAt finds what is to be done after so many actions. */
export function placeAt(plan: Plan, done: number): Place | null {
  const first = -plan.ready.length;
  if (done < first) return null;
  if (done < 0)
    return {
      step: onTheTable(plan),
      action: plan.ready[done - first],
      round: 1,
      part: done - first + 1,
      before: first,
    };
  let before = 0;
  for (const step of plan.steps) {
    const n = step.actions.length;
    const at = done - before;
    if (at < n * step.repeats) {
      const repeat = Math.floor(at / n);
      const turns = [step.actions, ...(step.turns ?? [])];
      return { step, action: turns[step.made?.[repeat] ?? 0][at % n], round: repeat + 1, part: (at % n) + 1, before };
    }
    before += n * step.repeats;
  }
  return null;
}

/** placeSaid says where the place is in a piece that was changed since. */
export function placeSaid(plan: Plan, done: number): string {
  const place = placeAt(plan, done);
  if (!place) return "All that is left of it is tied.";
  if (done < 0) return "The place is on the table: a cord is cut otherwise now.";
  const { step, round, part } = place;
  const of = step.repeats > 1 ? `${round} of ${step.repeats}` : `move ${part} of ${step.actions.length}`;
  return `The place is in section ${step.section + 1}, ${step.name}, ${of}.`;
}

/** span is the stride that a place lies in: the actions that are done before it and with it. */
function span(place: Place, done: number, stride: Stride): [number, number] {
  const n = place.step.actions.length;
  const round = place.before + (place.round - 1) * n;
  if (stride === "section") return [place.before, place.before + n * place.step.repeats];
  if (stride === "knot") return [round, round + n];
  const half = place.step.half ?? 0;
  if (stride === "half" && half > 0) {
    const from = round + Math.floor((place.part - 1) / half) * half;
    return [from, from + half];
  }
  return [done, done + 1];
}

/** onwards is how many actions are done when the stride is that is in hand. */
export function onwards(plan: Plan, done: number, stride: Stride): number {
  const place = placeAt(plan, done);
  return place ? span(place, done, stride)[1] : done;
}

/** backwards is how many actions were done before the stride in hand, or before the last one where none of it is. */
export function backwards(plan: Plan, done: number, stride: Stride): number {
  const here = placeAt(plan, done);
  if (here && span(here, done, stride)[0] < done) return span(here, done, stride)[0];
  const last = placeAt(plan, done - 1);
  return last ? span(last, done - 1, stride)[0] : done;
}

/** Line is what a stride says of some of its actions: one of them, so many times over. */
interface Line {
  action: Action;
  times: number;
}

/** lines are what is to be done from a place to the end of its stride; whole rounds are said once. */
export function lines(plan: Plan, done: number, to: number): Line[] {
  const out: Line[] = [];
  for (let at = done; at < to; at++) {
    const place = placeAt(plan, at);
    if (!place) break;
    const seen = out.find((l) => l.action === place.action);
    if (seen) seen.times++;
    else out.push({ action: place.action, times: 1 });
  }
  return out;
}

/** gates are what is looked at when the stride is done: those of its last action and between its last round and the next. */
export function gates(plan: Plan, to: number): string[] {
  const last = placeAt(plan, to - 1);
  if (!last) return [];
  const { step, action, round, part } = last;
  const between =
    part < step.actions.length
      ? []
      : (step.gates ?? []).filter((g) => g.at === round || (g.every && round % g.every === 0)).map((g) => g.says);
  return [action.gate ?? "", ...between].filter((g) => g !== "");
}
