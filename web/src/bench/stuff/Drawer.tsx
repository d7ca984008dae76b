import { useState } from "react";
import { api } from "../../api/client";
import { useCatalogue, useChange, useDrawer, useSettings } from "../../api/queries";
import type { Bead, Hardware, Spool, Stuff as StuffOf } from "../../api/types.gen";
import { Alert } from "../../ui/Alert";
import { Dialog } from "../../ui/Dialog";
import { Swatch, TextInput } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { diameter } from "../../ui/units";
import { Cores } from "./Cores";
import { StuffFields } from "./StuffFields";
import { Things } from "./Things";
import { taken } from "./used";

const shelves = [
  { id: "cords", name: "Cords" },
  { id: "cores", name: "Cores" },
  { id: "beads", name: "Beads" },
  { id: "hardware", name: "Hardware" },
  { id: "tools", name: "Tools" },
] as const;
type Shelf = (typeof shelves)[number]["id"];

/** Drawer is what the maker has: cords, cores, beads, hardware and tools, to take from and to change. */
export function Drawer(p: {
  onClose: () => void;
  shelf?: Shelf;
  onTake?: (s: StuffOf) => void;
  onBead?: (b: Bead) => void;
  onHardware?: (h: Hardware) => void;
}) {
  const [shelf, setShelf] = useState<Shelf>(p.shelf ?? "cords");
  return (
    <Dialog title="The drawer" onClose={p.onClose} wide>
      <fieldset className="join mb-3 flex-wrap">
        <legend className="sr-only">Shelf</legend>
        {shelves.map((s) => (
          <button
            key={s.id}
            type="button"
            aria-pressed={shelf === s.id}
            className={`btn join-item btn-sm ${shelf === s.id ? "btn-neutral" : ""}`}
            onClick={() => setShelf(s.id)}
          >
            {s.name}
          </button>
        ))}
      </fieldset>
      {shelf === "cords" && <Cords onTake={p.onTake} />}
      {shelf === "cores" && <Cores />}
      {shelf !== "cords" && shelf !== "cores" && (
        <Things key={shelf} shelf={shelf} onBead={p.onBead} onHardware={p.onHardware} />
      )}
      <p className="mt-3 text-sm opacity-80">A piece keeps what it was planned with, whatever is deleted here.</p>
    </Dialog>
  );
}

/** Cords are those that are kept, to take one or to change them. */
function Cords({ onTake }: { onTake?: (s: StuffOf) => void }) {
  const drawer = useDrawer();
  const put = useChange((s: Spool) => (s.id ? api.put(`/drawer/${s.id}`, s) : api.post("/drawer", s)), [["drawer"]]);
  const drop = useChange((id: number) => api.drop(`/drawer/${id}`), [["drawer"]]);
  const [open, setOpen] = useState<Spool | null>(null);
  const usual = useCatalogue().data?.stuff;
  const { units } = useSettings();
  const failed = put.error ?? drop.error;
  return (
    <>
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
          <div className="grid grid-cols-2 gap-2">
            <LengthInput
              label="Measured across, laid free"
              mm={open.measured_mm}
              optional
              fine
              onSet={(v) => setOpen({ ...open, measured_mm: v })}
              hint="Taken in place of the label's diameter."
            />
            <NumberInput
              label="Price of a metre"
              value={open.price_per_m}
              optional
              most={1e6}
              onSet={(v) => setOpen({ ...open, price_per_m: v })}
            />
            <NumberInput
              label="Metres left"
              value={open.left_m}
              optional
              most={1e6}
              onSet={(v) => setOpen({ ...open, left_m: v })}
            />
          </div>
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
                    <span className="figure">{diameter(s.measured_mm ?? s.stuff.diameter_mm, units)}</span>
                    {s.left_m ? `, ${s.left_m} m left` : ""}
                    {s.price_per_m ? `, ${s.price_per_m} a metre` : ""}
                  </span>
                </span>
                <span className="flex flex-col gap-1">
                  {onTake && (
                    <button
                      type="button"
                      className="btn btn-primary btn-xs"
                      onClick={() => onTake(taken(s))}
                      aria-label={`Take ${s.name}`}
                    >
                      Take
                    </button>
                  )}
                  <span className="flex gap-1">
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs"
                      onClick={() => setOpen(s)}
                      aria-label={`Change ${s.name}`}
                    >
                      Change
                    </button>
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs"
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
    </>
  );
}
