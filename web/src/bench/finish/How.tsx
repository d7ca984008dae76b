import { useSettings } from "../../api/queries";
import type { End, FinishChoice, Finish as FinishOf } from "../../api/types.gen";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { length } from "../../ui/units";
import { BeadSizes } from "../stuff/BeadSizes";

/** Measures is what a finish leaves, melts, trims and hides of an end, where the scissors are. */
export function Measures({ end }: { end: End }) {
  const { units } = useSettings();
  const m = end.measures;
  if (!m) return <p className="text-sm">As it is chosen it cannot be made: the line above the hang says why.</p>;
  const figures: [string, number | undefined][] = [
    ["cut from the knot", m.cut_mm],
    ["melts", m.melts_mm],
    ["hangs in the end", m.leaves_mm],
    ["hidden under the knots", m.hides_mm],
    ["falls off, at least", m.trims_mm],
  ];
  return (
    <dl className="flex flex-wrap gap-x-3 text-sm" data-testid={`measures-${end.place}`}>
      {figures.map(([name, mm]) =>
        mm ? (
          <div key={name} className="flex gap-1">
            <dt className="opacity-80">{name}</dt>
            <dd className="figure">{length(mm, units, true)}</dd>
          </div>
        ) : null,
      )}
    </dl>
  );
}

/** Asks are the sizes that a finish wants of the maker. */
export function Asks({ end, way, onSet }: { end: End; way: FinishOf; onSet: (v: Partial<End>) => void }) {
  return (
    <>
      {way.wants_length && (
        <LengthInput
          label={way.length}
          mm={end.length_mm ?? end.measures?.asked_mm}
          onSet={(v) => onSet({ length_mm: v })}
        />
      )}
      {way.wants_under && (
        <NumberInput
          label="Under so many crossings"
          whole
          least={1}
          value={end.under || end.measures?.under}
          onSet={(n) => n && onSet({ under: n })}
        />
      )}
      {way.wants_bead && end.bead && <BeadSizes bead={end.bead} onSet={(bead) => onSet({ bead })} />}
    </>
  );
}

/** How tells why a finish stands where it does, and opened, what it asks for and why not another. */
export function How({ way, ways, nameOf }: { way: FinishOf; ways: FinishChoice[]; nameOf: (how: string) => string }) {
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
        {way.care.length > 0 && <p>Take care, as said above: {way.care.join(", ").toLowerCase()}.</p>}
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
