import { useSettings, useToWanted } from "../../api/queries";
import { length } from "../../ui/units";
import { useWork } from "../work";

/** ToWanted offers the counts that bring the piece nearest to the length that is wanted. */
export function ToWanted() {
  const { id, revision, setCount } = useWork();
  const { units } = useSettings();
  const ways = useToWanted(id, revision).data ?? [];
  if (ways.length === 0) return null;
  return (
    <ul className="flex flex-col gap-1" aria-label="To come to the wanted length">
      {ways.map((w) => (
        <li key={w.section} className="flex flex-wrap items-center gap-2 text-sm">
          <button type="button" className="btn btn-xs" onClick={() => setCount(w.section, w.count)}>
            Tie {w.count}
          </button>
          <span>
            of the {w.name} in section {w.section + 1}: it comes to{" "}
            <span className="figure">{length(w.length_mm, units)}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
