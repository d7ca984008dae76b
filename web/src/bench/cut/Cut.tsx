import { type ReactNode, useState } from "react";
import { Link } from "wouter";
import { useSettings } from "../../api/queries";
import type { Cord, Cutting, PlannedCord } from "../../api/types.gen";
import { PrintLabel } from "../../devices/PrintLabel";
import { Folded } from "../../strips/Laid";
import { Dialog } from "../../ui/Dialog";
import { Choice, Panel, Swatch } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { holds, risks } from "../../ui/SettingsMenu";
import { cutTo, length, said } from "../../ui/units";
import { useWork } from "../work";
import { InHand } from "./InHand";
import { Middle } from "./Middle";
import { TableCard } from "./TableCard";
import { Bar, Fills, Why } from "./Why";

function legsKind(l: Cord["legs"]): string {
  return typeof l === "object" ? "given" : l === "equal" ? "equal" : "found";
}

/** Cut: how long each cord, where it folds, what will be left, and why. */
export function Cut() {
  const { plan, id, revision, edit } = useWork();
  const { units } = useSettings();
  const [open, setOpen] = useState<"hand" | "middle" | "card" | null>(null);
  const cords = plan?.cords.filter((c) => c.role !== "unused") ?? [];
  return (
    <Panel
      title="Cut"
      lead={`Needs: the likely length.${plan ? ` Cut: enough for ${plan.one_in - 1} pieces in ${plan.one_in}.` : ""}`}
    >
      <Fills />
      <table className="table table-sm">
        <thead>
          <tr>
            <th>cord</th>
            <th className="text-right">needs</th>
            <th className="text-right">cut</th>
            <th className="text-right">left over</th>
          </tr>
        </thead>
        <tbody className="figure">
          {cords.map((c) => (
            <tr key={c.id} className="align-top">
              <th scope="row">
                <Swatch colour={c.colour} id={c.id} />
              </th>
              <td className="text-right">
                {length(c.needs_mm, units)}
                <span className="block whitespace-nowrap text-xs opacity-80">± {length(c.spread_mm, units)}</span>
              </td>
              <td className="text-right">
                <span className="font-bold text-lg">{cutTo(c.cut_mm, units)}</span>
                <Bar cord={c} />
              </td>
              <td className="text-right">{length(c.left_mm, units)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Chosen />
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-sm" onClick={() => setOpen("hand")}>
          From cord in hand
        </button>
        <button type="button" className="btn btn-sm" onClick={() => setOpen("middle")}>
          Running short
        </button>
        <button type="button" className="btn btn-sm" onClick={() => setOpen("card")}>
          Table card
        </button>
        <Link href={`/piece/${id}/sheet`} className="btn btn-sm">
          Cut sheet to print
        </Link>
        <PrintLabel id={id} />
      </div>
      {cords.map((c) => (
        <Card key={c.id} cord={c} />
      ))}
      {open === "hand" && <InHand onClose={() => setOpen(null)} />}
      {open === "middle" && <Middle onClose={() => setOpen(null)} />}
      {open === "card" && (
        <Dialog title="What lies on the table" onClose={() => setOpen(null)} wide>
          <TableCard id={id} revision={revision} edit={edit} />
        </Dialog>
      )}
    </Panel>
  );
}

/** Chosen are the risk and the hold of this piece, and whether what was measured counts. */
function Chosen() {
  const { document, edit, plan } = useWork();
  const { one_in, hold } = useSettings();
  const cutting = document.cutting ?? {};
  const set = (part: Partial<Cutting>) =>
    edit((d) => {
      const next = Object.fromEntries(Object.entries({ ...d.cutting, ...part }).filter(([, v]) => v));
      const { cutting: _, ...rest } = d;
      return Object.keys(next).length > 0 ? { ...rest, cutting: next } : rest;
    });
  const measured = plan?.cords.some((c) => c.rests.swatches + c.rests.logs > 0.005) ?? false;
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice
        label="This piece may run short"
        path="cutting.one_in"
        value={String(cutting.one_in ?? "")}
        options={[
          { id: "", name: `Settings: once in ${one_in}` },
          ...risks.map((r) => ({ id: String(r), name: `once in ${r}` })),
        ]}
        onSet={(v) => set({ one_in: v === "" ? undefined : (Number(v) as Cutting["one_in"]) })}
      />
      <Choice
        label="Ends held with"
        path="cutting.hold"
        value={cutting.hold ?? ""}
        options={[{ id: "", name: `Settings: ${holds.find((h) => h.id === hold)?.name ?? hold}` }, ...holds]}
        onSet={(v) => set({ hold: v === "" ? undefined : (v as Cutting["hold"]) })}
      />
      {(measured || cutting.geometry) && (
        <button
          type="button"
          aria-pressed={cutting.geometry ?? false}
          className={`btn btn-sm col-span-2 justify-self-start ${cutting.geometry ? "btn-neutral" : ""}`}
          onClick={() => set({ geometry: !cutting.geometry })}
        >
          {cutting.geometry ? "By geometry alone: let swatches and logs count" : "Take it back to geometry alone"}
        </button>
      )}
    </div>
  );
}

/** Card is one cord: how it is measured out, why it is cut so long, and on what that rests. */
function Card({ cord: c }: { cord: PlannedCord }) {
  const { document, plan, edit } = useWork();
  const { units } = useSettings();
  const cord = document.cords.find((k) => k.id === c.id);
  const setLegs = (legs: Cord["legs"] | undefined) =>
    edit((d) => ({
      ...d,
      cords: d.cords.map((k) => {
        if (k.id !== c.id) return k;
        const { legs: _, ...rest } = k;
        return legs === undefined ? rest : { ...rest, legs };
      }),
    }));
  if (!cord || !plan) return null;
  return (
    <div className="flex flex-col gap-2 rounded-box border border-base-300 p-3">
      <div className="flex items-center gap-3">
        <Swatch colour={c.colour} id={c.id} />
        <span data-testid={`measure-${c.id}`}>{said(c.measure ?? "", units, c.fold_at_mm)}</span>
      </div>
      {c.legs.length === 2 && <Folded cord={c} units={units} wide={480} />}
      {c.role === "legs" && (
        <>
          <Choice
            label="Legs"
            value={legsKind(cord.legs)}
            options={[
              { id: "found", name: "each leg what it needs, the plan finds the fold" },
              { id: "equal", name: "both legs equal" },
              { id: "given", name: `${c.legs[0].side} leg of a length` },
            ]}
            onSet={(v) =>
              setLegs(v === "given" ? { first_mm: Math.ceil(c.legs[0].cut_mm) } : v === "equal" ? "equal" : undefined)
            }
          />
          {typeof cord.legs === "object" && (
            <LengthInput
              label={`The ${c.legs[0].side} leg`}
              mm={cord.legs.first_mm}
              onSet={(v) => v && setLegs({ first_mm: v })}
            />
          )}
          <p className="text-sm">
            {c.legs.map((l, n) => (
              <span key={n} className="mr-3">
                {l.side} leg, {l.name ?? l.role}: <span className="figure">{length(l.cut_mm, units)}</span>
                {l.short_mm ? <strong className="text-error"> short by {length(l.short_mm, units)}</strong> : null}
              </span>
            ))}
          </p>
          {c.wasted_mm ? (
            <p className="text-sm">That wastes {length(c.wasted_mm, units)} against legs of what each needs.</p>
          ) : c.saved_mm ? (
            <p className="text-sm opacity-80">The fold saves {length(c.saved_mm, units)} against equal legs.</p>
          ) : null}
        </>
      )}
      <Why cord={c} units={units} />
      <Rest cord={c} />
      {c.thumb && (
        <p className="text-sm" data-testid={`thumb-${c.id}`}>
          By thumb rule it would be cut <span className="figure">{cutTo(c.thumb.cut_mm, units)}</span>:{" "}
          {c.thumb.left_mm >= 0
            ? `${length(c.thumb.left_mm, units)} over the needs, ${length(c.left_mm, units)} here.`
            : `${length(-c.thumb.left_mm, units)} less than it needs.`}{" "}
          <span className="opacity-80">{c.thumb.says}</span>
        </p>
      )}
    </div>
  );
}

const percent = (v: number) => `${(100 * v).toFixed(100 * v < 10 ? 1 : 0)} %`;

/** Rest tells on what a figure rests, and how far that has narrowed it. */
function Rest({ cord: c }: { cord: PlannedCord }) {
  const { rests } = c;
  const all: [string, number][] = [
    ["geometry", rests.geometry],
    ["swatches", rests.swatches],
    ["logs", rests.logs],
  ];
  const told: ReactNode =
    rests.geometry > 0.995 ? (
      "Nothing was measured for it yet: a swatch of this cord narrows it."
    ) : (
      <>
        By geometry alone it was {percent(c.by_geometry)}. It rests on{" "}
        {all
          .filter(([, v]) => v >= 0.005)
          .map(([name, v]) => `${name} ${Math.round(100 * v)} %`)
          .join(", ")}
        .
      </>
    );
  return (
    <p className="text-sm" data-testid={`rests-${c.id}`}>
      Allowed over the needs, hold aside: <strong className="figure">{percent(c.allowed)}</strong>. {told}
    </p>
  );
}
