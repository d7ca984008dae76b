import { useState } from "react";
import { api } from "../../api/client";
import { useCatalogue, useChange, useDrawer, useKnots, useSettings, useSwatches } from "../../api/queries";
import type { Cord, Spool, Stuff as StuffOf } from "../../api/types.gen";
import { Alert } from "../../ui/Alert";
import { ColourInput } from "../../ui/ColourInput";
import { Dialog } from "../../ui/Dialog";
import { Choice, Panel, Swatch, TextInput } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { diameter } from "../../ui/units";
import { NoLonger } from "../NoLonger";
import { useWork } from "../work";
import { JointAt } from "./JointAt";
import { Swap } from "./Swap";
import { Swatches } from "./Swatches";
import { fuse, fusedWith, taken, usedCords } from "./used";

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
            <li key={c.id} className="flex flex-col gap-2 rounded-box border border-base-300 p-3">
              <div className="flex items-center gap-2">
                <Swatch colour={c.stuff.colour} id={c.id} />
                {planned && (
                  <span className="text-sm opacity-80">
                    drawn up <span className="figure">{diameter(planned.drawn_up_mm, units)}</span>
                  </span>
                )}
                <span className="flex-1" />
                <button type="button" className="btn btn-outline btn-xs h-7" onClick={() => setDrawer({ cord: i })}>
                  From the drawer
                </button>
                {knots.size > 0 && !used.has(c.id) && (
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs h-7"
                    aria-label={`Delete cord ${c.id}`}
                    onClick={() => edit((d) => ({ ...d, cords: d.cords.filter((_, k) => k !== i) }))}
                  >
                    Delete
                  </button>
                )}
              </div>
              <div className="flex flex-wrap gap-2">
                <button type="button" className="btn btn-xs h-7" onClick={() => setOf({ id: c.id, what: "swatches" })}>
                  Swatches of {c.id}: {swatches.filter((s) => s.kind === planned?.known.kind).length}
                </button>
                <button type="button" className="btn btn-xs h-7" onClick={() => setOf({ id: c.id, what: "swap" })}>
                  Another cord for {c.id}
                </button>
              </div>
              <StuffFields path={`cords[${i}].stuff`} stuff={c.stuff} onSet={(s) => set(i, s)} />
              {document.cords.length > 1 && (
                <Choice
                  label="Fused end to end"
                  path={`cords[${i}].joined_to`}
                  value={fusedWith(document.cords, c) ?? ""}
                  options={[
                    { id: "", name: "to none" },
                    ...document.cords.filter((o) => o.id !== c.id).map((o) => ({ id: o.id, name: `to cord ${o.id}` })),
                  ]}
                  onSet={(to) => edit((d) => ({ ...d, cords: fuse(d.cords, c.id, to) }))}
                />
              )}
              {c.joined_to && <JointAt cord={c} i={i} />}
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

function StuffFields({ path, stuff, onSet }: { path?: string; stuff: StuffOf; onSet: (s: StuffOf) => void }) {
  const known = useCatalogue().data;
  const flat = known?.makes.find((m) => m.id === stuff.make)?.flat ?? false;
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice
        label="Make"
        path={path && `${path}.make`}
        value={stuff.make}
        options={known?.makes ?? [{ id: stuff.make, name: stuff.make }]}
        onSet={(make) => {
          const next = known?.makes.find((m) => m.id === make);
          onSet({
            ...stuff,
            make: make as StuffOf["make"],
            material: next?.usual ?? stuff.material,
            thickness_mm: next?.flat ? stuff.thickness_mm : undefined,
          });
        }}
      />
      <Choice
        label="Material"
        path={path && `${path}.material`}
        value={stuff.material}
        options={(known?.materials ?? [{ id: stuff.material, melts: false }]).map((m) => ({
          id: m.id,
          name: m.melts ? `${m.id} (melts)` : m.id,
        }))}
        onSet={(m) => onSet({ ...stuff, material: m as StuffOf["material"] })}
      />
      <TextInput
        label="Label, to tell cords apart"
        path={path && `${path}.label`}
        value={stuff.label ?? ""}
        most={80}
        onSet={(label) => onSet({ ...stuff, label: label || undefined })}
      />
      <LengthInput
        label={flat ? "Width" : "Label diameter"}
        path={path && `${path}.diameter_mm`}
        mm={stuff.diameter_mm}
        onSet={(v) => v && onSet({ ...stuff, diameter_mm: v })}
        fine
      />
      {flat && (
        <LengthInput
          label="Thickness"
          path={path && `${path}.thickness_mm`}
          mm={stuff.thickness_mm}
          optional
          onSet={(v) => onSet({ ...stuff, thickness_mm: v })}
          fine
        />
      )}
      <NumberInput
        label="Weighed, g per m"
        path={path && `${path}.grams_per_metre`}
        value={stuff.grams_per_metre}
        optional
        least={0.01}
        most={5000}
        onSet={(g) => onSet({ ...stuff, grams_per_metre: g })}
      />
      <ColourInput label="Colour" value={stuff.colour} onSet={(colour) => onSet({ ...stuff, colour })} />
    </div>
  );
}

/** Drawer shows the cords that are kept, to take one or to change them. */
function Drawer({ onClose, onTake }: { onClose: () => void; onTake: (s: StuffOf) => void }) {
  const drawer = useDrawer();
  const put = useChange((s: Spool) => (s.id ? api.put(`/drawer/${s.id}`, s) : api.post("/drawer", s)), [["drawer"]]);
  const drop = useChange((id: number) => api.drop(`/drawer/${id}`), [["drawer"]]);
  const [open, setOpen] = useState<Spool | null>(null);
  const usual = useCatalogue().data?.stuff;
  const { units } = useSettings();
  const failed = put.error ?? drop.error;
  return (
    <Dialog title="The drawer of cords" onClose={onClose} wide>
      {failed && <Alert>{failed.message}</Alert>}
      {open ? (
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            put.mutate(open, { onSuccess: () => setOpen(null) });
          }}
        >
          <TextInput
            label="Name on the spool"
            value={open.name}
            most={80}
            onSet={(name) => setOpen({ ...open, name })}
          />
          <StuffFields stuff={open.stuff} onSet={(stuff) => setOpen({ ...open, stuff })} />
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary btn-sm">
              Save
            </button>
            <button type="button" className="btn btn-ghost btn-sm" onClick={() => setOpen(null)}>
              Cancel
            </button>
          </div>
        </form>
      ) : (
        <>
          <ul className="grid gap-2 sm:grid-cols-2">
            {drawer.data?.map((s) => (
              <li key={s.id} className="flex items-center gap-2 rounded-box border border-base-300 p-2">
                <Swatch colour={s.stuff.colour} />
                <span className="min-w-0 flex-1">
                  <span className="block truncate font-semibold">{s.name}</span>
                  <span className="block text-sm opacity-80">
                    {s.stuff.make} {s.stuff.material},{" "}
                    <span className="figure">{diameter(s.stuff.diameter_mm, units)}</span>
                  </span>
                </span>
                <span className="flex flex-col gap-1">
                  <button
                    type="button"
                    className="btn btn-primary btn-xs h-7"
                    onClick={() => onTake(taken(s))}
                    aria-label={`Take ${s.name}`}
                  >
                    Take
                  </button>
                  <span className="flex gap-1">
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs h-6"
                      onClick={() => setOpen(s)}
                      aria-label={`Change ${s.name}`}
                    >
                      Change
                    </button>
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs h-6"
                      onClick={() => drop.mutate(s.id)}
                      aria-label={`Delete ${s.name}`}
                    >
                      Delete
                    </button>
                  </span>
                </span>
              </li>
            ))}
            {drawer.data?.length === 0 && <li>The drawer is empty. Add the first cord.</li>}
          </ul>
          <button
            type="button"
            className="btn btn-sm mt-3"
            disabled={!usual}
            onClick={() => usual && setOpen({ id: 0, name: "", stuff: usual })}
          >
            Add a cord
          </button>
        </>
      )}
    </Dialog>
  );
}
