import { useState } from "react";
import { api } from "../../api/client";
import { useCatalogue, useChange, useSettings, useThings } from "../../api/queries";
import type { Bead, Hardware, Thing } from "../../api/types.gen";
import { Choice, TextInput } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { Problems } from "../../ui/Problems";
import { diameter } from "../../ui/units";
import { BeadSizes } from "./BeadSizes";

type Shelf = "beads" | "hardware" | "tools";

/** fresh is a new thing of a shelf, with sizes that are common. */
function fresh(shelf: Shelf): Thing {
  const thing: Thing = { id: 0, name: "" };
  if (shelf === "beads") return { ...thing, bead: { hole_mm: 7, length_mm: 10, width_mm: 12 } };
  if (shelf === "hardware") return { ...thing, hardware: { type: "split-ring", inner_mm: 25, wire_mm: 2 } };
  return thing;
}

const one: Record<Shelf, string> = { beads: "bead", hardware: "piece of hardware", tools: "tool" };

/** Things are the beads, the hardware or the tools that are kept. */
export function Things(p: { shelf: Shelf; onBead?: (b: Bead) => void; onHardware?: (h: Hardware) => void }) {
  const { shelf } = p;
  const { units } = useSettings();
  const things = useThings(shelf).data ?? [];
  const again = [["things", shelf]];
  const put = useChange((t: Thing) => (t.id ? api.put(`/${shelf}/${t.id}`, t) : api.post(`/${shelf}`, t)), again);
  const drop = useChange((id: number) => api.drop(`/${shelf}/${id}`), again);
  const [open, setOpen] = useState<Thing | null>(null);
  const take = (t: Thing) =>
    t.bead && p.onBead
      ? () => p.onBead?.(t.bead as Bead)
      : t.hardware && p.onHardware
        ? () => p.onHardware?.(t.hardware as Hardware)
        : null;
  if (open) {
    return (
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          put.mutate(open, { onSuccess: () => setOpen(null) });
        }}
      >
        <Problems error={put.error} />
        <TextInput label="Name" value={open.name} most={80} onSet={(name) => setOpen({ ...open, name })} />
        <Sizes thing={open} onSet={setOpen} />
        <div className="grid grid-cols-2 gap-2">
          <NumberInput
            label="How many are left"
            whole
            optional
            most={1e6}
            value={open.left}
            onSet={(left) => setOpen({ ...open, left })}
          />
          <NumberInput
            label="Price of one"
            optional
            most={1e6}
            value={open.price}
            onSet={(price) => setOpen({ ...open, price })}
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
    );
  }
  return (
    <>
      <Problems error={drop.error} />
      <ul className="grid gap-2 sm:grid-cols-2">
        {things.map((t) => {
          const onTake = take(t);
          return (
            <li key={t.id} className="flex items-center gap-2 rounded-box border border-base-300 p-2">
              <span className="min-w-0 flex-1">
                <span className="block truncate font-semibold">{t.name}</span>
                <span className="block text-sm opacity-80">
                  {t.bead &&
                    `hole ${diameter(t.bead.hole_mm, units)}, ${diameter(t.bead.length_mm, units)} long, ${diameter(t.bead.width_mm, units)} wide`}
                  {t.hardware &&
                    `${t.hardware.type.replaceAll("-", " ")}, ${diameter(t.hardware.inner_mm, units)} inside`}
                  {t.left ? `${t.bead || t.hardware ? ", " : ""}${t.left} left` : ""}
                </span>
              </span>
              {onTake && (
                <button type="button" className="btn btn-primary btn-xs" aria-label={`Take ${t.name}`} onClick={onTake}>
                  Take
                </button>
              )}
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                aria-label={`Change ${t.name}`}
                onClick={() => setOpen(t)}
              >
                Change
              </button>
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                aria-label={`Delete ${t.name}`}
                onClick={() => drop.mutate(t.id)}
              >
                Delete
              </button>
            </li>
          );
        })}
        {things.length === 0 && <li>This shelf is empty.</li>}
      </ul>
      <button type="button" className="btn btn-sm mt-3" onClick={() => setOpen(fresh(shelf))}>
        Add a {one[shelf]}
      </button>
    </>
  );
}

/** Sizes are those of a bead or of hardware; a tool has none. */
function Sizes({ thing, onSet }: { thing: Thing; onSet: (t: Thing) => void }) {
  const fittings = useCatalogue().data?.fittings ?? [];
  const { bead, hardware } = thing;
  if (bead) return <BeadSizes bead={bead} onSet={(b) => onSet({ ...thing, bead: b })} />;
  if (!hardware) return null;
  const fitting = fittings.find((f) => f.id === hardware.type);
  return (
    <div className="grid grid-cols-3 gap-2">
      <Choice
        label="Kind"
        value={hardware.type}
        options={fittings.filter((f) => f.inner)}
        onSet={(type) =>
          onSet({
            ...thing,
            hardware: {
              ...hardware,
              type: type as Hardware["type"],
              depth_mm: fittings.find((f) => f.id === type)?.depth ? 10 : undefined,
            },
          })
        }
      />
      <LengthInput
        label={fitting?.inner ?? "Inner width"}
        mm={hardware.inner_mm}
        fine
        onSet={(v) => v && onSet({ ...thing, hardware: { ...hardware, inner_mm: v } })}
      />
      <LengthInput
        label={fitting?.wire ?? "Wire"}
        mm={hardware.wire_mm}
        fine
        onSet={(v) => v && onSet({ ...thing, hardware: { ...hardware, wire_mm: v } })}
      />
    </div>
  );
}
