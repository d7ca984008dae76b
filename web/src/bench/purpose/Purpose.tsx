import type { Hardware, Purpose as PurposeOf } from "../../api/types.gen";
import { Choice, Panel, TextInput } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { useWork } from "../work";

const kinds = ["key-fob", "charm", "lanyard", "zip-pull", "wrist-strap", "stopper", "fist", "rope-ball", "napkin-ring"];
const hangers: { id: Hardware["type"]; name: string }[] = [
  { id: "split-ring", name: "a split ring" },
  { id: "swivel-clip", name: "a swivel clip with a flat eye" },
  { id: "carabiner", name: "a carabiner" },
  { id: "rod", name: "a rod or pin" },
  { id: "none", name: "nothing" },
];

/** Purpose: what it hangs on, how long it shall be. */
export function Purpose() {
  const { document, edit, plan } = useWork();
  const p = document.purpose;
  const set = (v: Partial<PurposeOf>) => edit((d) => ({ ...d, purpose: { ...d.purpose, ...v } }));
  const hang = (v: Partial<Hardware>) => set({ hangs_on: { ...p.hangs_on, ...v } });
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
        options={hangers}
        onSet={(type) => hang({ type: type as Hardware["type"] })}
      />
      {p.hangs_on.type !== "none" && (
        <div className="grid grid-cols-2 gap-3">
          <LengthInput
            label={p.hangs_on.type === "rod" ? "Its length" : "Inner width"}
            path="purpose.hangs_on.inner_mm"
            mm={p.hangs_on.inner_mm}
            onSet={(v) => v && hang({ inner_mm: v })}
            fine
          />
          <LengthInput
            label={p.hangs_on.type === "rod" ? "Its thickness" : "Wire"}
            path="purpose.hangs_on.wire_mm"
            mm={p.hangs_on.wire_mm}
            onSet={(v) => v && hang({ wire_mm: v })}
            fine
          />
        </div>
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
