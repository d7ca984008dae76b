import type { Look } from "../api/queries";
import type { Plan } from "../api/types.gen";
import { placeAt } from "./steps";

/** How large the work is drawn at the vise, pixels a millimetre. */
const scale = 9;

/** stepLook is the picture of the work when so many moves are made: as far as the last has come, or all of it led. */
export function stepLook(until: number, along?: number, turn = 0): Look {
  return { turn, scale, until, along };
}

/** stillLook is how the work stands still when so many moves are made, looked at from where it is tied. */
export function stillLook(plan: Plan, until: number): Look {
  const section = placeAt(plan, until - 1)?.step.section;
  const fromEnd = plan.sections.find((s) => s.index === section)?.from_end;
  return { ...stepLook(until), ...(fromEnd ? { as: "end" as const, section } : {}) };
}
