import type { FistAnswer, FistRequest } from "../api/types.gen";
import { across, type Units } from "../ui/units";

/** fits says how a core goes with the passes that it is tied with. */
export function fits(answer: FistAnswer, ask: FistRequest, units: Units): string {
  if (!answer.ball) return `${ask.passes} passes: no ball.`;
  const { range: r, fit, core } = answer.ball;
  const how = { [-1]: "too small", 0: "it closes", 1: "too large" }[fit];
  return `${answer.ball.passes} passes, core ${across(core.diameter_mm, units)}: ${how}; ${across(r.core_min_mm, units)} to ${across(r.core_max_mm, units)} close.`;
}
