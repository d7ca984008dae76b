import { useState } from "react";
import { useCatalogue } from "../../api/queries";
import type { Ask, Fitting, Hardware, PurposeKind, Purpose as PurposeOf } from "../../api/types.gen";
import { Cautions } from "../../ui/Cautions";
import { Choice, Panel, TextInput } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NoLonger } from "../NoLonger";
import { Drawer } from "../stuff/Drawer";
import { useWork } from "../work";
import { Measure } from "./Measure";
import { Through } from "./Through";
import { ToWanted } from "./ToWanted";

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
          <div className="flex items-start gap-3">
            <Measure drawing="between" />
            <div className="min-w-0 flex-1">
              <LengthInput
                label="From wire to wire"
                path="purpose.between_mm"
                mm={p.between_mm}
                optional
                onSet={(v) => onSet({ between_mm: v })}
                hint="Leave it empty if the count decides. The section run back leads the strands there and back."
              />
            </div>
          </div>
        </>
      )}
    </>
  );
}

/** Asked is a size that a kind of piece asks for, with a drawing of what to measure. */
function Asked(props: { ask: Ask; mm: number | undefined; onSet: (mm: number | undefined) => void }) {
  const { ask, mm, onSet } = props;
  return (
    <div className="flex items-start gap-3">
      <Measure drawing={ask.drawing} />
      <div className="min-w-0 flex-1">
        <LengthInput
          label={ask.label}
          path={`purpose.${ask.key}`}
          mm={mm || undefined}
          optional
          onSet={onSet}
          hint={ask.hint}
          fine
        />
      </div>
    </div>
  );
}

/** Purpose: what it is for, what it hangs on, and the sizes that fix all others. */
export function Purpose() {
  const { document, edit, plan } = useWork();
  const p = document.purpose;
  const [drawer, setDrawer] = useState(false);
  const set = (v: Partial<PurposeOf>) => edit((d) => ({ ...d, purpose: { ...d.purpose, ...v } }));
  const hang = (v: Partial<Hardware>) => set({ hangs_on: { ...p.hangs_on, ...v } });
  const catalogue = useCatalogue().data;
  const kinds = catalogue?.kinds ?? [];
  const kind = kinds.find((k) => k.id === p.kind);
  const fittings = catalogue?.fittings ?? [];
  const fitting = fittings.find((f) => f.id === p.hangs_on.type);
  const usual = kind?.hangs ?? [];
  const ranked = [...fittings].sort((a, b) => rank(usual, a.id) - rank(usual, b.id));
  return (
    <Panel title="Purpose" lead="What it is for fixes all other sizes.">
      <Choice
        label="It is a"
        path="purpose.kind"
        value={p.kind}
        options={kind ? kinds : [{ id: p.kind, name: p.kind.replaceAll("-", " ") }, ...kinds]}
        onSet={(id) => set({ kind: id })}
      />
      <NoLonger />
      <Choice
        label="It hangs on"
        path="purpose.hangs_on.type"
        value={p.hangs_on.type}
        options={ranked}
        onSet={(type) => hang(fitted(type, fittings, p.hangs_on))}
      />
      {fitting?.inner && (
        <div className="flex items-start gap-3">
          <Measure drawing={fitting.depth ? "hole" : "ring"} />
          <div className="min-w-0 flex-1">
            <Sizes fitting={fitting} path="purpose.hangs_on" on={p.hangs_on} onSet={hang} />
          </div>
        </div>
      )}
      <button type="button" className="btn btn-xs self-start" onClick={() => setDrawer(true)}>
        Hardware from the drawer
      </button>
      {drawer && (
        <Drawer
          shelf="hardware"
          onClose={() => setDrawer(false)}
          onHardware={(h) => {
            hang(h);
            setDrawer(false);
          }}
        />
      )}
      {(kind?.ends_on || p.ends_on) && <FarEnd purpose={p} fittings={fittings} onSet={set} />}
      {asked(p, kind, kinds).map((a) => (
        <Asked
          key={a.key}
          ask={a}
          mm={p[a.key as keyof PurposeOf] as number | undefined}
          onSet={(v) => set({ [a.key]: v })}
        />
      ))}
      {p.length_mm ? <ToWanted /> : null}
      {plan?.heads ? (
        <p className="text-sm opacity-80">
          It holds {plan.heads_fit} lark's head{plan.heads_fit === 1 ? "" : "s"} of this cord side by side; {plan.heads}{" "}
          {plan.heads === 1 ? "hangs" : "hang"} on it.
        </p>
      ) : null}
      {plan && <Cautions all={plan.cautions} at="purpose" />}
      {document.cords.length > 0 && <Through />}
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

/** rank puts what is usual first, in its order. */
function rank(usual: string[], id: string) {
  const n = usual.indexOf(id);
  return n < 0 ? usual.length : n;
}

/** asked are the sizes that a kind asks for, then those that are said all the same. */
function asked(p: PurposeOf, kind: PurposeKind | undefined, kinds: PurposeKind[]): Ask[] {
  const asks = kind?.asks ?? [];
  const others = kinds.flatMap((k) => k.asks).filter((a) => p[a.key as keyof PurposeOf]);
  return [...asks, ...others].filter((a, i, all) => all.findIndex((b) => b.key === a.key) === i);
}
