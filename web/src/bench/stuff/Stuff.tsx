import { useState } from "react";
import { useCatalogue, useKnots, useSettings, useSwatches } from "../../api/queries";
import type { Cord, Stuff as StuffOf } from "../../api/types.gen";
import { Choice, Panel, Swatch } from "../../ui/fields";
import { diameter } from "../../ui/units";
import { NoLonger } from "../NoLonger";
import { useWork } from "../work";
import { Drawer } from "./Drawer";
import { JointAt } from "./JointAt";
import { PutIn } from "./PutIn";
import { StuffFields } from "./StuffFields";
import { Swap } from "./Swap";
import { Swatches } from "./Swatches";
import { fuse, fusedWith, usedCords } from "./used";

export function nextId(cords: Cord[]): string {
  for (let i = 0; ; i++) {
    const id = i < 26 ? String.fromCharCode(65 + i) : `C${i}`;
    if (!cords.some((c) => c.id === id)) return id;
  }
}

/** Stuff: the cords of the piece, taken from the drawer or described here. */
export function Stuff() {
  const { document, edit, plan } = useWork();
  const { units } = useSettings();
  const knots = useKnots();
  const used = usedCords(document, knots);
  const usual = useCatalogue().data?.stuff;
  const [drawer, setDrawer] = useState<{ cord: number | null } | null>(null);
  const [of, setOf] = useState<{ id: string; what: "swatches" | "swap" } | null>(null);
  const cordOf = document.cords.find((c) => c.id === of?.id);
  const swatches = useSwatches().data ?? [];
  const set = (i: number, stuff: StuffOf) =>
    edit((d) => ({ ...d, cords: d.cords.map((c, k) => (k === i ? { ...c, stuff } : c)) }));
  const add = (stuff: StuffOf) => edit((d) => ({ ...d, cords: [...d.cords, { id: nextId(d.cords), stuff }] }));
  return (
    <Panel title="Stuff" lead="The cords, by make, label diameter and colour.">
      <NoLonger />
      <ul className="flex flex-col gap-3">
        {document.cords.map((c, i) => {
          const planned = plan?.cords.find((p) => p.id === c.id);
          return (
            <li key={c.id}>
              {/* Its fields are called alike for every cord: the group says of which. */}
              <fieldset
                aria-label={`Cord ${c.id}`}
                className="flex flex-col gap-2 rounded-box border border-base-300 p-3"
              >
                <div className="flex items-center gap-2">
                  <Swatch colour={c.stuff.colour} id={c.id} />
                  {planned && (
                    <span className="text-sm opacity-80">
                      drawn up <span className="figure">{diameter(planned.drawn_up_mm, units)}</span>
                    </span>
                  )}
                  <span className="flex-1" />
                  <button type="button" className="btn btn-xs" onClick={() => setDrawer({ cord: i })}>
                    From the drawer
                  </button>
                  {knots.size > 0 && !used.has(c.id) && (
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs"
                      aria-label={`Delete cord ${c.id}`}
                      onClick={() => edit((d) => ({ ...d, cords: d.cords.filter((_, k) => k !== i) }))}
                    >
                      Delete
                    </button>
                  )}
                </div>
                <div className="flex flex-wrap gap-2">
                  <button type="button" className="btn btn-xs" onClick={() => setOf({ id: c.id, what: "swatches" })}>
                    Swatches of {c.id}: {swatches.filter((s) => s.kind === planned?.known.kind).length}
                  </button>
                  <button type="button" className="btn btn-xs" onClick={() => setOf({ id: c.id, what: "swap" })}>
                    Another cord for {c.id}
                  </button>
                  <PutIn cord={c} colour={planned?.colour_name} />
                </div>
                <StuffFields path={`cords[${i}].stuff`} stuff={c.stuff} onSet={(s) => set(i, s)} />
                {document.cords.length > 1 && (
                  <Choice
                    label="Fused end to end"
                    path={`cords[${i}].joined_to`}
                    value={fusedWith(document.cords, c) ?? ""}
                    options={[
                      { id: "", name: "to none" },
                      ...document.cords
                        .filter((o) => o.id !== c.id)
                        .map((o) => ({ id: o.id, name: `to cord ${o.id}` })),
                    ]}
                    onSet={(to) => edit((d) => ({ ...d, cords: fuse(d.cords, c.id, to) }))}
                  />
                )}
                {c.joined_to && <JointAt cord={c} i={i} />}
              </fieldset>
            </li>
          );
        })}
      </ul>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-sm" onClick={() => setDrawer({ cord: null })}>
          Take a cord from the drawer
        </button>
        <button type="button" className="btn btn-ghost btn-sm" disabled={!usual} onClick={() => usual && add(usual)}>
          Describe another
        </button>
      </div>
      {cordOf && of?.what === "swatches" && (
        <Swatches cord={cordOf} planned={plan?.cords.find((p) => p.id === cordOf.id)} onClose={() => setOf(null)} />
      )}
      {cordOf && of?.what === "swap" && <Swap cord={cordOf} onClose={() => setOf(null)} />}
      {drawer && (
        <Drawer
          onClose={() => setDrawer(null)}
          onTake={(s) => {
            if (drawer.cord === null) add(s);
            else set(drawer.cord, s);
            setDrawer(null);
          }}
        />
      )}
    </Panel>
  );
}
