import type { Plan } from "../api/types.gen";
import { Folded, Straight } from "../strips/Laid";
import type { Units } from "../ui/units";
import { useMedia } from "../ui/useMedia";

/** So many cords lie in sight at once. */
const most = 3;

/** OnTheTable draws the cords as they lie before the first knot, when so many moves on the table are made: the one in hand, and those beside it. */
export function OnTheTable({ made, plan, units }: { made: number; plan: Plan; units: Units }) {
  // Drawn narrower, its words are larger on a phone.
  const wide = useMedia("(max-width: 767px)") ? 470 : undefined;
  const cords = plan.cords.filter((c) => c.role !== "unused");
  const inHand = cords.findIndex((c) => c.id === plan.ready[made]?.cord);
  const from = Math.max(0, Math.min(inHand - 1, cords.length - most));
  return (
    <div className="flex w-full max-w-2xl flex-col gap-8" data-testid="table">
      {cords.slice(from, from + most).map((c, i) => {
        // It lies folded when its fold is made, and while it is.
        const fold = plan.ready.findIndex((a) => a.table === "fold" && a.cord === c.id);
        const Lies = fold >= 0 && fold <= made ? Folded : Straight;
        return (
          <div
            key={c.id}
            className={`border-l-4 pl-2 ${from + i === inHand ? "border-secondary" : "border-transparent max-md:hidden"}`}
            aria-hidden={from + i !== inHand}
          >
            <Lies cord={c} units={units} wide={wide} />
          </div>
        );
      })}
    </div>
  );
}
