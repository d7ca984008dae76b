import { useState } from "react";
import { api } from "../api/client";
import { useChange, useSettings } from "../api/queries";
import type { DrawerCore, FistRequest, JudgedCore } from "../api/types.gen";
import { Alert } from "../ui/Alert";
import { LengthInput } from "../ui/LengthInput";
import { across, said } from "../ui/units";

/** CoreDrawer lists the makers' cores, those that suit first, each with the reason. */
export function CoreDrawer({
  ask,
  judged,
  onSet,
}: {
  ask: FistRequest;
  judged: JudgedCore[];
  onSet: (part: Partial<FistRequest>) => void;
}) {
  const { units } = useSettings();
  const [mm, setMM] = useState<number | undefined>();
  const put = useChange((c: Omit<DrawerCore, "id">) => api.post<DrawerCore>("/cores", c), [["fist"], ["cores"]]);
  const take = useChange((id: number) => api.drop(`/cores/${id}`), [["fist"], ["cores"]]);
  return (
    <section aria-label="Drawer of cores" className="flex flex-col gap-2">
      <h2 className="font-semibold">The drawer of cores</h2>
      {judged.length === 0 && (
        <p className="text-sm">It is empty. Add what you have, and it is sorted by how well each suits this cord.</p>
      )}
      <ul className="flex flex-col">
        {judged.map((j) => (
          <li
            key={j.id}
            className="grid grid-cols-[3rem_4.5rem_minmax(0,1fr)_minmax(0,1.3fr)_1.5rem] items-center gap-2 border-base-300 border-b text-sm"
          >
            <span className={j.suits ? "font-semibold" : "opacity-80"}>{j.suits ? "suits" : "not"}</span>
            <button
              type="button"
              className="link figure min-h-6 text-left"
              onClick={() => onSet({ core: j.core, ...(j.passes ? { passes: j.passes } : {}) })}
            >
              {across(j.core.diameter_mm, units)}
            </button>
            <span>{j.name || j.core.kind}</span>
            <span title={said(j.why, units)}>{said(j.short, units)}</span>
            <button
              type="button"
              className="btn btn-ghost btn-xs w-7 p-0"
              aria-label={`Delete ${j.name || j.core.kind} of ${across(j.core.diameter_mm, units)} from the drawer`}
              onClick={() => take.mutate(j.id)}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (!mm) return;
          put.mutate(
            { name: "", core: { kind: ask.core.kind, diameter_mm: mm } },
            { onSuccess: () => setMM(undefined) },
          );
        }}
      >
        <div className="w-40">
          <LengthInput label={`A ${ask.core.kind} core of`} mm={mm} optional fine onSet={setMM} />
        </div>
        <button type="submit" className="btn btn-sm" disabled={!mm || put.isPending}>
          Add
        </button>
      </form>
      {(put.error ?? take.error) && <Alert>{(put.error ?? take.error)?.message}</Alert>}
    </section>
  );
}
