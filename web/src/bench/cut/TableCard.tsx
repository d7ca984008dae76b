import { useCard, useSettings } from "../../api/queries";
import { said } from "../../ui/units";

/** TableCard is what lies on the table before the first cut, with a box to tick for each. */
export function TableCard({
  id,
  revision,
  cords = true,
}: {
  id: number;
  revision: number | undefined;
  cords?: boolean;
}) {
  const card = useCard(id, revision).data;
  const { units } = useSettings();
  if (!card) return null;
  const groups: { name: string; lines: { key: string; what?: string; says: string }[] }[] = [
    { name: "Cords", lines: cords ? card.cords.map((c) => ({ key: c.what, what: c.what, says: c.says })) : [] },
    { name: "Beside them", lines: card.things.map((t) => ({ key: t, says: t })) },
    { name: "Tools", lines: card.tools.map((t) => ({ key: t, says: t })) },
    { name: "Work on", lines: [{ key: card.surface, says: card.surface }] },
    { name: "Held", lines: card.held.map((h) => ({ key: h.what, what: h.what, says: h.says })) },
    { name: "Look at", lines: card.looks.map((l) => ({ key: l.what + l.says, what: l.what, says: l.says })) },
  ];
  return (
    <section aria-label="Table card" data-testid="card">
      <h2 className="mt-4 font-semibold">Table card</h2>
      {groups
        .filter((g) => g.lines.length > 0)
        .map((g) => (
          <fieldset key={g.name} className="mt-2 break-inside-avoid">
            <legend className="text-sm font-semibold">{g.name}</legend>
            <ul className="text-sm">
              {g.lines.map((l) => (
                <li key={l.key}>
                  <label className="flex items-start gap-2 py-0.5">
                    <input type="checkbox" className="checkbox mt-0.5 size-6 shrink-0 rounded-none print:size-4" />
                    <span>
                      {l.what && <strong>{l.what}: </strong>}
                      {said(l.says, units)}
                    </span>
                  </label>
                </li>
              ))}
            </ul>
          </fieldset>
        ))}
    </section>
  );
}
