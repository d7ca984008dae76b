import { Link } from "wouter";
import { useSettings } from "../../api/queries";
import type { Cord, Plan } from "../../api/types.gen";
import { Choice, Panel, Swatch } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { cutTo, length, said } from "../../ui/units";
import { useWork } from "../work";

function legsKind(l: Cord["legs"]): string {
  return typeof l === "object" ? "given" : (l ?? "equal");
}

/** legSide is the side on which a leg hangs: the first one on the left, or on the right where the left hand leads. */
export function legSide(n: number, plan: Plan): "left" | "right" {
  return (n === 0) !== (plan.left_handed ?? false) ? "left" : "right";
}

/** Cut: how long each cord, where it folds, what will be left. */
export function Cut() {
  const { document, plan, edit, id } = useWork();
  const { units } = useSettings();
  const setLegs = (cord: string, legs: Cord["legs"]) =>
    edit((d) => ({ ...d, cords: d.cords.map((c) => (c.id === cord ? { ...c, legs } : c)) }));
  return (
    <Panel title="Cut" lead="Needs is the middle of what it will take; the cut runs short about once in forty pieces.">
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
          {plan?.cords
            .filter((c) => c.role !== "unused")
            .map((c) => (
              <tr key={c.id}>
                <th scope="row">
                  <Swatch colour={c.colour} id={c.id} />
                </th>
                <td className="text-right">
                  {length(c.needs_mm, units)}
                  <span className="block text-xs opacity-80">± {length(c.spread_mm, units)}</span>
                </td>
                <td className="text-right font-bold text-lg">{cutTo(c.cut_mm, units)}</td>
                <td className="text-right">{length(c.left_mm, units)}</td>
              </tr>
            ))}
        </tbody>
      </table>
      {plan?.cords
        .filter((c) => c.role === "legs")
        .map((c) => {
          const cord = document.cords.find((k) => k.id === c.id);
          if (!cord) return null;
          const kind = legsKind(cord.legs);
          return (
            <div key={c.id} className="flex flex-col gap-2 rounded-box border border-base-300 p-3">
              <div className="flex items-center gap-3">
                <Swatch colour={c.colour} id={c.id} />
                <span data-testid={`measure-${c.id}`}>{said(c.measure ?? "", units, c.fold_at_mm)}</span>
              </div>
              {c.saved_mm ? (
                <p className="text-sm opacity-80">The fold saves {length(c.saved_mm, units)} against equal legs.</p>
              ) : null}
              <Choice
                label="Legs"
                value={kind}
                options={[
                  { id: "short-inside", name: "short filler leg, the plan finds the fold" },
                  { id: "equal", name: "both legs equal" },
                  { id: "given", name: `${legSide(0, plan)} leg given` },
                ]}
                onSet={(v) =>
                  setLegs(
                    c.id,
                    v === "given" ? { first_mm: Math.ceil(c.legs[0].cut_mm) } : (v as "equal" | "short-inside"),
                  )
                }
              />
              {typeof cord.legs === "object" && (
                <LengthInput
                  label={`The ${legSide(0, plan)} leg`}
                  mm={cord.legs.first_mm}
                  onSet={(v) => v && setLegs(c.id, { first_mm: v })}
                />
              )}
              <p className="text-sm">
                {c.legs.map((l, n) => (
                  <span key={n} className="mr-3">
                    {legSide(n, plan)} leg, {l.role}: <span className="figure">{length(l.cut_mm, units)}</span>
                    {l.short_mm ? <strong className="text-error"> short by {length(l.short_mm, units)}</strong> : null}
                  </span>
                ))}
              </p>
            </div>
          );
        })}
      {plan?.cords
        .filter((c) => c.role !== "legs" && c.measure)
        .map((c) => (
          <div key={c.id} className="flex items-center gap-3 rounded-box border border-base-300 p-3">
            <Swatch colour={c.colour} id={c.id} />
            <span data-testid={`measure-${c.id}`}>{said(c.measure ?? "", units)}</span>
          </div>
        ))}
      <Link href={`/piece/${id}/sheet`} className="btn btn-sm self-start">
        Cut sheet to print
      </Link>
    </Panel>
  );
}
