import { useCatalogue } from "../../api/queries";
import type { Fitting, Hardware, Purpose as PurposeOf } from "../../api/types.gen";
import { Choice, Panel, TextInput } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { useWork } from "../work";

/** fitted is hardware of another kind: what is thick there has a size from the first. */
function fitted(type: string, fittings: Fitting[], on: Hardware): Partial<Hardware> {
  const deep = fittings.find((f) => f.id === type)?.depth;
  return { type: type as Hardware["type"], depth_mm: deep ? (on.depth_mm ?? 10) : undefined };
}

/** Sizes are those of hardware, as its kind calls them. */
function Sizes(props: { fitting?: Fitting; path: string; on: Hardware; onSet: (v: Partial<Hardware>) => void }) {
  const { fitting, path, on, onSet } = props;
  const sizes = [
    ["inner_mm", fitting?.inner],
    ["wire_mm", fitting?.wire],
    ["depth_mm", fitting?.depth],
  ] as const;
  if (!fitting?.inner) return null;
  return (
    <div className="grid grid-cols-2 gap-3">
      {fitting.hangs && <p className="col-span-2 text-sm opacity-80">{fitting.hangs}</p>}
      {sizes.map(
        ([key, label]) =>
          label && (
            <LengthInput
              key={key}
              label={label}
              path={`${path}.${key}`}
              mm={on[key]}
              onSet={(v) => v && onSet({ [key]: v })}
              fine
            />
          ),
      )}
    </div>
  );
}

/** FarEnd is what a piece between two pieces of hardware ends on, and how far that is from the first. */
function FarEnd(props: { purpose: PurposeOf; fittings: Fitting[]; onSet: (v: Partial<PurposeOf>) => void }) {
  const { purpose: p, fittings, onSet } = props;
  const far = p.ends_on;
  const wires = fittings.filter((f) => f.wire && !f.depth);
  const end = (type: string) =>
    onSet(
      type === "none"
        ? { ends_on: undefined, between_mm: undefined }
        : { ends_on: { inner_mm: 20, wire_mm: 2, ...far, type: type as Hardware["type"] } },
    );
  return (
    <>
      <Choice
        label="It ends on"
        path="purpose.ends_on.type"
        value={far?.type ?? "none"}
        options={[{ id: "none", name: "nothing" }, ...wires]}
        onSet={end}
      />
      {far && (
        <>
          <Sizes
            fitting={fittings.find((f) => f.id === far.type)}
            path="purpose.ends_on"
            on={far}
            onSet={(v) => onSet({ ends_on: { ...far, ...v } })}
          />
          <LengthInput
            label="From wire to wire"
            path="purpose.between_mm"
            mm={p.between_mm}
            optional
            onSet={(v) => onSet({ between_mm: v })}
            hint="Leave it empty if the count decides. The section run back leads the strands there and back."
          />
        </>
      )}
    </>
  );
}

/** Purpose: what it hangs on, how long it shall be. */
export function Purpose() {
  const { document, edit, plan } = useWork();
  const p = document.purpose;
  const set = (v: Partial<PurposeOf>) => edit((d) => ({ ...d, purpose: { ...d.purpose, ...v } }));
  const hang = (v: Partial<Hardware>) => set({ hangs_on: { ...p.hangs_on, ...v } });
  const catalogue = useCatalogue().data;
  const kinds = catalogue?.kinds ?? [];
  const fittings = catalogue?.fittings ?? [];
  const fitting = fittings.find((f) => f.id === p.hangs_on.type);
  const known = kinds.includes(p.kind) ? kinds : [p.kind, ...kinds];
  return (
    <Panel title="Purpose" lead="What it is for fixes all other sizes.">
      <Choice
        label="It is a"
        path="purpose.kind"
        value={p.kind}
        options={known.map((k) => ({ id: k, name: k.replace("-", " ") }))}
        onSet={(kind) => set({ kind })}
      />
      <Choice
        label="It hangs on"
        path="purpose.hangs_on.type"
        value={p.hangs_on.type}
        options={fittings}
        onSet={(type) => hang(fitted(type, fittings, p.hangs_on))}
      />
      <Sizes fitting={fitting} path="purpose.hangs_on" on={p.hangs_on} onSet={hang} />
      {(p.kind === "tether" || p.ends_on) && <FarEnd purpose={p} fittings={fittings} onSet={set} />}
      {(p.kind === "stopper" || p.stops_mm) && (
        <LengthInput
          label="It must not pass a hole of"
          path="purpose.stops_mm"
          mm={p.stops_mm}
          optional
          onSet={(v) => set({ stops_mm: v })}
          hint="The width of the hole. The plan says whether a knot stops at it when it is pulled hard. Leave it empty where there is no hole."
          fine
        />
      )}
      {(p.kind === "lanyard" || p.blade_mm) && (
        <LengthInput
          label="A blade's path, from the hole"
          path="purpose.blade_mm"
          mm={p.blade_mm}
          optional
          onSet={(v) => set({ blade_mm: v })}
          hint="Of a folding knife: how far from the hole the blade passes. Leave it empty where there is no blade. Keep it closed or sheathed while you tie."
        />
      )}
      {plan?.heads ? (
        <p className="text-sm opacity-80">
          It holds {plan.heads_fit} lark's head{plan.heads_fit === 1 ? "" : "s"} of this cord side by side; {plan.heads}{" "}
          {plan.heads === 1 ? "hangs" : "hang"} on it.
        </p>
      ) : null}
      <LengthInput
        label="Wanted length"
        path="purpose.length_mm"
        mm={p.length_mm}
        optional
        onSet={(v) => set({ length_mm: v })}
        hint="From the middle of the wire to the lowest tip. Leave it empty if the count decides."
      />
      <TextInput
        label="Note"
        path="purpose.note"
        area
        most={2000}
        value={p.note ?? ""}
        onSet={(note) => set({ note: note || undefined })}
      />
    </Panel>
  );
}
