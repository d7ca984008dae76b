import type { Look } from "../api/queries";

/** How large the work is drawn at the vise, pixels a millimetre. */
const scale = 9;

/** stepLook is the picture of the work when so many moves are made: as far as the last has come, or all of it led. */
export function stepLook(until: number, along?: number, turn = 0): Look {
  return { turn, scale, until, along };
}
