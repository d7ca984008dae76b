import { useKept } from "../ui/kept";
import type { Stage } from "./stages";

/** walkWords are what a first piece is told at each stage. */
export const walkWords: Record<Stage, string> = {
  purpose: "Say what it hangs on, and how long it should be. The picture in the middle follows at once.",
  stuff: "These are its cords. Take them from your drawer, or describe yours: make, diameter and colour.",
  colour: "Which cord goes where. Nothing is to be done where you like it as it hangs.",
  cut: "So long is each cord cut, and there it folds. The bar under a figure says what it is made of.",
  tie: "What is tied, section by section. Open one to change its count, or press Change into for another knot.",
  finish: "How each end is finished. What does not suit your cord says so.",
  check:
    "All is planned: press To the vise, and it is cut, folded and tied move by move. Come back to look it over, right beside wrong.",
  log: "Write down what was left of each cord and how long it took: your next figures get better by it.",
};

/** Walk is which piece is walked through: 0 for the one that is opened next, -1 for none any more. */
interface Walk {
  piece: number;
}

/** useWalk is the walk through a first piece; undefined where none was ever begun. */
export function useWalk() {
  return useKept<Walk | undefined>("walk", undefined);
}
