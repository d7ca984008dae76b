import { useEffect, useState } from "react";
import { useKnots, useSettings } from "../api/queries";
import { length } from "../ui/units";
import { useWork } from "./work";

/** How long figures must stand still before they are told, ms: not every one on the way of a change. */
const still = 700;

/** Announce tells a screen reader, politely, what a change has done: how long the piece is, what is wrong, what is chosen. */
export function Announce() {
  const { plan, document, selected } = useWork();
  const knots = useKnots();
  const { units } = useSettings();
  const chosen = document.sequence[selected];
  const warnings = plan?.warnings.length ?? 0;
  const now = plan
    ? [
        `${length(plan.length_mm, units)} long`,
        warnings > 0 && `${warnings} ${warnings === 1 ? "warning" : "warnings"}`,
        chosen && `section ${selected + 1}, ${knots.get(chosen.do)?.name ?? chosen.do}, is chosen`,
      ]
        .filter(Boolean)
        .join("; ")
    : "";
  const [told, setTold] = useState("");
  useEffect(() => {
    const wait = setTimeout(() => setTold(now), still);
    return () => clearTimeout(wait);
  }, [now]);
  return (
    <p role="status" className="sr-only" data-testid="told">
      {told}
    </p>
  );
}
