import { useKnots, usePaces, useTimes } from "../../api/queries";
import { spent } from "../../ui/units";

/** AtTheVise offers the minutes that were counted at the vise. */
export function AtTheVise({ id, onTake }: { id: number; onTake: (minutes: number) => void }) {
  const times = useTimes(id).data;
  if (!times || times.worked_s < 1) return null;
  const minutes = Math.max(1, Math.round(times.worked_s / 60));
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm" data-testid="at-the-vise">
      <span>
        At the vise it took {spent(times.worked_s)}
        {times.pauses > 0 &&
          `, beside ${times.pauses} pause${times.pauses === 1 ? "" : "s"} of ${spent(times.paused_s)} in all`}
        .
      </span>
      <button type="button" className="btn btn-sm" onClick={() => onTake(minutes)}>
        Write {minutes} min
      </button>
    </div>
  );
}

/** Paces lists how long the maker takes for each knot that was tied at the vise. */
export function Paces() {
  const knots = useKnots();
  const all = usePaces().data?.filter((p) => p.moves > 0) ?? [];
  if (all.length === 0) return null;
  return (
    <details className="rounded-box border border-base-300 p-2 text-sm">
      <summary className="cursor-pointer">How long each knot takes you</summary>
      <table className="table table-xs mt-1" data-testid="paces">
        <thead>
          <tr>
            <th scope="col">Knot</th>
            <th scope="col">Tied</th>
            <th scope="col">One takes</th>
            <th scope="col">Pauses</th>
          </tr>
        </thead>
        <tbody>
          {all.map((p) => (
            <tr key={p.knot}>
              <th scope="row" className="font-normal">
                {knots.get(p.knot)?.name ?? p.knot}
              </th>
              <td className="figure">{Math.round(p.knots * 10) / 10}</td>
              <td className="figure">{p.per_knot_s === undefined ? "not known yet" : spent(p.per_knot_s)}</td>
              <td className="figure">{p.pauses}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
