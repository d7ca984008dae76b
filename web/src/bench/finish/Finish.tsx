import { useCatalogue, useKnots, useSettings } from "../../api/queries";
import type { CatalogueKnot, Document, Plan, Section } from "../../api/types.gen";
import { Choice, Panel, Swatch } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { length, said } from "../../ui/units";
import { useWork } from "../work";

type Knots = ReadonlyMap<string, CatalogueKnot>;

interface End {
  /** its name: its place when the first finish begins, from the left; it keeps it */
  place: number;
  /** the run of finishes that it is finished in, and its place when that begins */
  block: number;
  at: number;
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
  const knots = useKnots();
  const first = document.sequence.findIndex((s) => knots.get(s.do)?.ends);
  const ends = plan ? endsOf(document, plan, knots) : [];
  const ways = catalogue?.finishes ?? [];
  const set = (end: End, v: { how?: string; lengthMM?: number }) =>
    edit((d) =>
      respread(
        d,
        ends.map((e) => (e.place === end.place ? { ...e, ...v } : e)),
        knots,
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
                knots,
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
            plan.sections.filter((s) => knots.get(s.do)?.ends).reduce((m, s) => Math.max(m, s.height_mm), 0),
            units,
          )}{" "}
          below the last knot.
        </p>
      )}
    </Panel>
  );
}

/** Block is a run of finishes with nothing tied between them. */
interface Block {
  from: number;
  to: number;
}

function blocksOf(d: Document, knots: Knots): Block[] {
  const out: Block[] = [];
  d.sequence.forEach((s, i) => {
    if (!knots.get(s.do)?.ends) return;
    const last = out.at(-1);
    if (last && last.to === i) last.to = i + 1;
    else out.push({ from: i, to: i + 1 });
  });
  const last = out.at(-1);
  if (!last || last.to < d.sequence.length) out.push({ from: d.sequence.length, to: d.sequence.length });
  return out;
}

/** endsOf gives each strand that hangs before the first finish the finish it gets, wherever in the piece that is. */
function endsOf(d: Document, plan: Plan, knots: Knots): End[] {
  const blocks = blocksOf(d, knots);
  const orderBefore = (i: number) => plan.sections.filter((s) => s.index < i).at(-1)?.order_after ?? [];
  const names = orderBefore(blocks[0].from);
  const out: End[] = [];
  const put = (leg: string, block: number, at: number, section: number, s: Section | undefined) => {
    const named = names.indexOf(leg);
    out.push({
      place: named >= 0 ? named + 1 : names.length + out.length + 1,
      block,
      at,
      cord: leg.split(".")[0],
      leg,
      section,
      how: (s?.how as string | undefined) ?? "",
      lengthMM: s?.length_mm as number | undefined,
    });
  };
  blocks.forEach((b, n) => {
    let hanging = orderBefore(b.from).map((leg, k) => ({ leg, at: k + 1 }));
    for (let i = b.from; i < b.to; i++) {
      const s = d.sequence[i];
      const places = Array.isArray(s.ends) && s.ends.length > 0 ? (s.ends as number[]) : null;
      const taken = hanging.filter((_, k) => places === null || places.includes(k + 1));
      for (const e of taken) put(e.leg, n, e.at, i, s);
      hanging = hanging.filter((e) => !taken.includes(e));
    }
    if (n === blocks.length - 1) for (const e of hanging) put(e.leg, n, e.at, -1, undefined);
  });
  return out.sort((a, b) => a.place - b.place);
}

/** respread writes the finishes of all ends as the fewest sections, each in the run of finishes that it is in. */
function respread(d: Document, ends: End[], knots: Knots): Document {
  const blocks = blocksOf(d, knots);
  const last = blocks.length - 1;
  const ending = [...knots.values()].find((k) => k.ends)?.id ?? "";
  let sequence = d.sequence;
  for (let n = last; n >= 0; n--) {
    const here = ends.filter((e) => e.block === n).sort((a, b) => a.at - b.at);
    // Before the last run others hang there too, which go on.
    const all = n === last ? here : null;
    const groups = new Map<string, End[]>();
    for (const e of here) {
      if (e.how === "") continue;
      const key = `${e.how} ${e.lengthMM ?? ""}`;
      groups.set(key, [...(groups.get(key) ?? []), e]);
    }
    const gone: number[] = [];
    const made: Section[] = [];
    for (const group of groups.values()) {
      const places = group.map((e) => e.at - gone.filter((g) => g < e.at).length);
      gone.push(...group.map((e) => e.at));
      const whole = all !== null && gone.length === all.length;
      // What the section that was there says beside stays with it.
      const was = group[0].section >= 0 ? d.sequence[group[0].section] : { do: ending };
      const { ends: _, length_mm: __, ...rest } = was as Section;
      made.push({
        ...rest,
        how: group[0].how,
        ...(group[0].lengthMM ? { length_mm: group[0].lengthMM } : {}),
        ...(whole ? {} : { ends: places }),
      } as Section);
    }
    sequence = [...sequence.slice(0, blocks[n].from), ...made, ...sequence.slice(blocks[n].to)];
  }
  return { ...d, sequence };
}
