import { api } from "../../api/client";
import { useCatalogue, useEnds, useKnots, useSettings } from "../../api/queries";
import type { End, Section } from "../../api/types.gen";
import { Cautions } from "../../ui/Cautions";
import { Choice, Panel, Swatch } from "../../ui/fields";
import { diameter, length } from "../../ui/units";
import { useWork } from "../work";
import { Asks, How, Measures } from "./How";

/** Finish: one decision per end. */
export function Finish() {
  const { id, revision, document, plan, piece } = useWork();
  const { units } = useSettings();
  const catalogue = useCatalogue().data;
  const knots = useKnots();
  const first = document.sequence.findIndex((s) => knots.get(s.do)?.ends);
  const ends = useEnds(id, revision).data ?? [];
  const ways = catalogue?.finishes ?? [];
  // The rule of which sections that makes is the server's.
  const set = (wanted: End[]) =>
    piece.ask(async (d) => ({ ...d, sequence: await api.post<Section[]>("/finish", { document: d, ends: wanted }) }));
  // Ends that are made one are chosen together: neighbours, or all that hang there. Of two that need not be
  // neighbours each is chosen by itself.
  const choose = (e: End, how: string) => {
    const way = ways.find((w) => w.id === how);
    const together = way?.together ?? 0;
    const beside = ends.filter((o) => o.below === e.below);
    const n = beside.findIndex((o) => o.place === e.place);
    const pair = beside.slice(n - (n % 2), n - (n % 2) + 2);
    set((together < 0 ? beside : way?.neighbours ? pair : [e]).map((o) => chosen(o, how)));
  };
  // What is said of a size is said of all ends that it is one size for.
  const alike = (e: End) =>
    together(
      e,
      ways.find((w) => w.id === e.how),
    )
      ? ends.filter((o) => o.section === e.section)
      : [e];
  const nameOf = (how: string) => ways.find((w) => w.id === how)?.name ?? how;
  return (
    <Panel title="Finish" lead="One decision per end, by material and place.">
      {plan && <Cautions all={plan.cautions} at="finish" />}
      {ends.length > 1 && (
        <Choice
          label="All ends alike"
          value={ends.every((e) => e.how === ends[0].how) ? ends[0].how : ""}
          options={[{ id: "", name: "each its own" }, ...ways.map((w) => ({ id: w.id, name: w.name }))]}
          onSet={(how) => how && set(ends.map((e) => chosen(e, how)))}
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
              <div className="flex flex-col gap-1">
                <Choice
                  bare
                  label={`Finish of end ${e.place}`}
                  value={e.how}
                  options={[
                    ...(e.how === "" ? [{ id: "", name: "not finished" }] : []),
                    ...(e.ways ?? []).map((w, n) => ({
                      id: w.id,
                      name: `${nameOf(w.id)}${w.fit ? (n === 0 ? ", best for this cord" : "") : ` (ruled out: ${w.why})`}`,
                    })),
                  ]}
                  onSet={(how) => choose(e, how)}
                />
                <p className="text-sm opacity-80">
                  {place(e.at)} of {e.of} from the left
                  {e.below >= 0 ? `, below the ${knots.get(document.sequence[e.below].do)?.name ?? ""}` : ""}
                  {together(e, way)
                    ? `, made one with end${(e.with ?? []).length > 1 ? "s" : ""} ${(e.with ?? []).join(" and ")}`
                    : ""}
                </p>
                {way && <Measures end={e} />}
                {way && <Asks end={e} way={way} onSet={(v) => set(alike(e).map((o) => ({ ...o, ...v })))} />}
                {way && <How way={way} ways={e.ways ?? []} nameOf={nameOf} />}
              </div>
            </li>
          );
        })}
      </ul>
      {ends.length === 0 && (
        <p>
          {plan?.done.includes("finish")
            ? "Every end is finished in what is tied: how, its section says."
            : "No end hangs there yet."}
        </p>
      )}
      {plan && plan.prepared.length > 0 && (
        <section aria-label="Ends to prepare" className="text-sm" data-testid="prepared">
          <h3 className="font-semibold">Ends to prepare</h3>
          <ul className="list-disc pl-4">
            {plan.prepared.map((r) => (
              <li key={r.section + r.legs.join()}>
                {r.legs.join(", ")}, for the {knots.get(document.sequence[r.section].do)?.name}: {r.way.name}.{" "}
                {r.way.how} Afterwards {diameter(r.way.off_mm, units)} of each is cut off again.
              </li>
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

/** chosen is an end with another finish, and none of the sizes of the one before. */
function chosen(e: End, how: string): End {
  return { ...e, how, length_mm: undefined, under: undefined, bead: undefined };
}

/** together tells whether an end is made one with others. */
function together(e: End, way: { together: number } | undefined) {
  return (way?.together ?? 0) !== 0 && (e.with ?? []).length > 0;
}

/** place is a place as it is said. */
function place(n: number) {
  const tens = Math.floor(n / 10) % 10;
  const th = tens === 1 ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th");
  return `${n}${th}`;
}
