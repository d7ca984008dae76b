import { useCatalogue, useSettings } from "../../api/queries";
import type { Document, Section } from "../../api/types.gen";
import { Choice, Panel, Swatch } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { length, said } from "../../ui/units";
import { useWork } from "../work";

interface End {
  /** place when the first finish begins, from the left */
  place: number;
  cord: string;
  leg: string;
  section: number;
  how: string;
  lengthMM: number | undefined;
}

/** Finish: one decision per end. */
export function Finish() {
  const { document, plan, edit } = useWork();
  const { units } = useSettings();
  const catalogue = useCatalogue().data;
  const first = document.sequence.findIndex((s) => s.do === "finish");
  const before = first < 0 ? plan?.sections.at(-1) : plan?.sections.find((s) => s.index === first - 1);
  const ends = before ? endsOf(document, before.order_after, first) : [];
  const ways = catalogue?.finishes ?? [];
  const set = (end: End, v: { how?: string; lengthMM?: number }) =>
    edit((d) =>
      respread(
        d,
        ends.map((e) => (e.place === end.place ? { ...e, ...v } : e)),
        first,
      ),
    );
  const melts = (cord: string) => {
    const m = document.cords.find((c) => c.id === cord)?.stuff.material;
    return catalogue?.materials.find((q) => q.id === m)?.melts ?? false;
  };
  return (
    <Panel title="Finish" lead="One decision per end, by material and place.">
      {ends.length > 1 && (
        <Choice
          label="All ends alike"
          value={ends.every((e) => e.how === ends[0].how) ? ends[0].how : ""}
          options={[{ id: "", name: "each its own" }, ...ways.map((w) => ({ id: w.id, name: w.name }))]}
          onSet={(how) =>
            how &&
            edit((d) =>
              respread(
                d,
                ends.map((e) => ({ ...e, how, lengthMM: undefined })),
                first,
              ),
            )
          }
        />
      )}
      <ul className="flex flex-col gap-2">
        {ends.map((e) => {
          const way = ways.find((w) => w.id === e.how);
          const colour = document.cords.find((c) => c.id === e.cord)?.stuff.colour ?? "#888888";
          return (
            <li
              key={e.place}
              className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1 rounded-box border border-base-300 p-2"
            >
              <span className="flex flex-col items-start text-sm">
                end {e.place}
                <Swatch colour={colour} id={e.leg} />
              </span>
              <span className="flex flex-col gap-1">
                <Choice
                  bare
                  label={`Finish of end ${e.place}`}
                  value={e.how}
                  options={[
                    ...(e.how === "" ? [{ id: "", name: "not finished" }] : []),
                    ...ways.map((w) => ({
                      id: w.id,
                      name: w.flame && !melts(e.cord) ? `${w.name} (this cord burns)` : w.name,
                    })),
                  ]}
                  onSet={(how) => set(e, { how, lengthMM: undefined })}
                />
                {way?.wants_length && (
                  <LengthInput label="Hangs" mm={e.lengthMM ?? 30} onSet={(v) => set(e, { lengthMM: v })} />
                )}
                {way && <span className="text-sm opacity-80">{way.note}</span>}
              </span>
            </li>
          );
        })}
      </ul>
      {ends.length === 0 && <p>No end hangs there yet.</p>}
      {plan && (
        <section aria-label="Cautions" className="rounded-box border border-warning p-3">
          <h3 className="font-semibold text-warning">Mind</h3>
          <ul className="list-disc pl-4 text-sm">
            {plan.cautions.map((c) => (
              <li key={c}>{said(c, units)}</li>
            ))}
          </ul>
        </section>
      )}
      {plan && first >= 0 && (
        <p className="text-sm opacity-80">
          The ends hang{" "}
          {length(
            plan.sections.filter((s) => s.do === "finish").reduce((m, s) => Math.max(m, s.height_mm), 0),
            units,
          )}{" "}
          below the last knot.
        </p>
      )}
    </Panel>
  );
}

/** endsOf gives each strand that hangs before the first finish the finish it gets. */
function endsOf(d: Document, order: string[], first: number): End[] {
  const ends: End[] = order.map((leg, i) => ({
    place: i + 1,
    cord: leg.split(".")[0],
    leg,
    section: -1,
    how: "",
    lengthMM: undefined,
  }));
  if (first < 0) return ends;
  let hanging = [...ends];
  for (let i = first; i < d.sequence.length; i++) {
    const s = d.sequence[i];
    if (s.do !== "finish") return ends;
    const taken =
      Array.isArray(s.ends) && s.ends.length > 0
        ? hanging.filter((_, k) => (s.ends as number[]).includes(k + 1))
        : hanging;
    for (const e of taken) {
      e.section = i;
      e.how = s.how ?? "";
      e.lengthMM = s.length_mm;
    }
    hanging = hanging.filter((e) => !taken.includes(e));
  }
  return ends;
}

/** respread writes the finishes of all ends as the fewest sections. */
function respread(d: Document, ends: End[], first: number): Document {
  const at = first < 0 ? d.sequence.length : first;
  const kept = d.sequence.filter((s, i) => i < at || s.do !== "finish");
  const groups = new Map<string, End[]>();
  for (const e of ends) {
    if (e.how === "") continue;
    const key = `${e.how} ${e.lengthMM ?? ""}`;
    groups.set(key, [...(groups.get(key) ?? []), e]);
  }
  let hanging = [...ends];
  const sections: Section[] = [];
  for (const group of groups.values()) {
    const places = group.map((e) => hanging.indexOf(e) + 1);
    hanging = hanging.filter((e) => !group.includes(e));
    sections.push({
      do: "finish",
      how: group[0].how,
      ...(group[0].lengthMM ? { length_mm: group[0].lengthMM } : {}),
      ...(hanging.length > 0 ? { ends: places } : {}),
    });
  }
  return { ...d, sequence: [...kept.slice(0, at), ...sections, ...kept.slice(at)] };
}
