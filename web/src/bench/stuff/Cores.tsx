import { api } from "../../api/client";
import { useChange, useCores, useSettings } from "../../api/queries";
import { Alert } from "../../ui/Alert";
import { across } from "../../ui/units";

/** Cores are those that are kept. They are put in where they are chosen for a ball. */
export function Cores() {
  const { units } = useSettings();
  const cores = useCores().data ?? [];
  const drop = useChange((id: number) => api.drop(`/cores/${id}`), [["cores"], ["fist"]]);
  return (
    <>
      {drop.error && <Alert>{drop.error.message}</Alert>}
      <ul className="grid gap-2 sm:grid-cols-2">
        {cores.map((c) => (
          <li key={c.id} className="flex items-center gap-2 rounded-box border border-base-300 p-2">
            <span className="min-w-0 flex-1 truncate">
              <strong>{c.name || c.core.kind}</strong>, {c.core.kind}, {across(c.core.diameter_mm, units)}
            </span>
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              aria-label={`Delete ${c.name || c.core.kind} of ${across(c.core.diameter_mm, units)}`}
              onClick={() => drop.mutate(c.id)}
            >
              Delete
            </button>
          </li>
        ))}
        {cores.length === 0 && <li>There is no core yet.</li>}
      </ul>
      <p className="mt-2 text-sm">
        Cores are added on the page of balls, where each is judged:{" "}
        <a className="link" href="/balls">
          to the balls
        </a>
        .
      </p>
    </>
  );
}
