import { api } from "../../api/client";
import { useCatalogue, useEnds, useKnots, useSettings } from "../../api/queries";
import type { End, FinishChoice, Finish as FinishOf, Section } from "../../api/types.gen";
import { Choice, Panel, Swatch } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { length, said } from "../../ui/units";
import { useWork } from "../work";

/** How tells why a finish stands where it does, and opened, what it asks for and why not another. */
function How({ way, ways, nameOf }: { way: FinishOf; ways: FinishChoice[]; nameOf: (how: string) => string }) {
  const why = ways.find((w) => w.id === way.id)?.why;
  return (
    <div className="text-sm">
      {why && <p>Because: {why}.</p>}
      <p className="opacity-80">{way.note}</p>
      <details>
        <summary className="cursor-pointer py-1">Tools, how to look, and the other finishes</summary>
        <p>
          Have ready: {way.tools.join(", ")}.{way.wait ? ` Leave it ${way.wait}.` : ""}
        </p>
        <p>Look: {way.look}</p>
        <p>To undo it: {way.undo}</p>
        <ul className="list-disc pl-4">
          {ways
            .filter((w) => w.id !== way.id)
            .map((w) => (
              <li key={w.id}>
                <strong>{nameOf(w.id)}</strong>
                {w.fit ? "" : ", ruled out"}: {w.why}.
              </li>
            ))}
        </ul>
      </details>
    </div>
  );
}

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
  const nameOf = (how: string) => ways.find((w) => w.id === how)?.name ?? how;
  return (
    <Panel title="Finish" lead="One decision per end, by material and place.">
      {ends.length > 1 && (
        <Choice
          label="All ends alike"
          value={ends.every((e) => e.how === ends[0].how) ? ends[0].how : ""}
          options={[{ id: "", name: "each its own" }, ...ways.map((w) => ({ id: w.id, name: w.name }))]}
          onSet={(how) => how && set(ends.map((e) => ({ ...e, how, length_mm: undefined })))}
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
                  onSet={(how) => set([{ ...e, how, length_mm: undefined }])}
                />
                {way?.wants_length && (
                  <LengthInput label="Hangs" mm={e.length_mm ?? 30} onSet={(v) => set([{ ...e, length_mm: v }])} />
                )}
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
      {plan && (
        <section aria-label="Cautions" className="rounded-box border border-warning p-3">
          <h3 className="font-semibold text-warning">Cautions</h3>
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
