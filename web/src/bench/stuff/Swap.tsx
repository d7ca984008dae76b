import { useEffect, useState } from "react";
import { api } from "../../api/client";
import { useChange, useDrawer, useKnots, useSettings } from "../../api/queries";
import type { Cord, Swapped, SwapRequest } from "../../api/types.gen";
import { Dialog } from "../../ui/Dialog";
import { Choice, Swatch } from "../../ui/fields";
import { Problems } from "../../ui/Problems";
import { cutTo, diameter, length } from "../../ui/units";
import { Draft } from "../cut/Draft";
import { useWork } from "../work";
import { taken } from "./used";

/** Swap shows the same piece of another cord of the drawer, with its counts and with its length kept. */
export function Swap({ cord, onClose }: { cord: Cord; onClose: () => void }) {
  const { id, document, plan, edit } = useWork();
  const { units } = useSettings();
  const knots = useKnots();
  const drawer = useDrawer().data ?? [];
  const [spool, setSpool] = useState("");
  const [all, setAll] = useState("one");
  const ask = useChange((s: SwapRequest) => api.post<Swapped[]>(`/pieces/${id}/swap`, s), []);
  const { mutate } = ask;
  const to = drawer.find((s) => String(s.id) === spool);
  const alike = document.cords.filter(
    (c) => c.stuff.make === cord.stuff.make && c.stuff.diameter_mm === cord.stuff.diameter_mm,
  );
  const ids = all === "all" ? alike.map((c) => c.id) : [cord.id];
  const asked = to ? JSON.stringify({ cords: ids, stuff: taken(to) }) : "";
  useEffect(() => {
    if (asked !== "") mutate(JSON.parse(asked) as SwapRequest);
  }, [asked, mutate]);
  const rows = document.sequence.flatMap((s, i) => (knots.get(s.do)?.repeats ? [i] : []));
  return (
    <Dialog title={`Another cord for ${cord.id}`} onClose={onClose} wide>
      <div className="flex flex-col gap-3">
        <div className="grid gap-2 sm:grid-cols-2">
          <Choice
            label="Cord of the drawer"
            value={spool}
            options={[
              { id: "", name: "choose one" },
              ...drawer.map((s) => ({ id: String(s.id), name: `${s.name}, ${diameter(s.stuff.diameter_mm, units)}` })),
            ]}
            onSet={setSpool}
          />
          {alike.length > 1 && (
            <Choice
              label="In the place of"
              value={all}
              options={[
                { id: "one", name: `cord ${cord.id}` },
                { id: "all", name: `all of that make: ${alike.map((c) => c.id).join(", ")}` },
              ]}
              onSet={setAll}
            />
          )}
        </div>
        <Problems error={ask.error} />
        {to && ask.data && !ask.error && (
          <div className="grid gap-3 sm:grid-cols-2" data-testid="swapped">
            {ask.data.map((s) => (
              <article key={s.keeps} className="flex gap-3 rounded-box border border-base-300 p-3">
                <Draft document={s.document} high={220} />
                <div className="flex min-w-0 flex-col gap-1.5 text-sm">
                  <h3 className="font-semibold text-base">
                    {s.keeps === "counts" ? "The same knots" : "The same length"}
                  </h3>
                  <p>
                    <span className="figure">{length(s.length_mm, units)}</span> long
                    {plan ? `, now ${length(plan.length_mm, units)}` : ""}; {length(s.width_mm, units)} wide,{" "}
                    {s.weight_g.toFixed(1)} g
                  </p>
                  <p>{rows.map((i) => `${s.counts[i]} × ${knots.get(document.sequence[i].do)?.name}`).join(", ")}</p>
                  <ul>
                    {s.cords.map((c) => (
                      <li key={c.id} className="flex items-center gap-1">
                        <Swatch
                          colour={s.document.cords.find((k) => k.id === c.id)?.stuff.colour ?? "#888888"}
                          id={c.id}
                        />
                        needs {length(c.needs_mm, units)}, cut{" "}
                        <strong className="figure">{cutTo(c.cut_mm, units)}</strong>
                      </li>
                    ))}
                  </ul>
                  <button
                    type="button"
                    className="btn btn-primary btn-sm mt-auto self-start"
                    onClick={() => {
                      edit((d) => ({ ...d, cords: s.document.cords, sequence: s.document.sequence }));
                      onClose();
                    }}
                  >
                    {s.keeps === "counts" ? "Swap, keep the knots" : "Swap, keep the length"}
                  </button>
                </div>
              </article>
            ))}
          </div>
        )}
      </div>
    </Dialog>
  );
}
