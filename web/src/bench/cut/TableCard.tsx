import { useState } from "react";
import { useCard, useSettings } from "../../api/queries";
import type { CardLine, Document, Line } from "../../api/types.gen";
import { Choice, TextInput } from "../../ui/fields";
import { useTicks } from "../../ui/kept";
import { said } from "../../ui/units";

type Edit = (change: (d: Document) => Document) => void;

/** changed is a document with another state of its table card; what says nothing is left out of it. */
function changed(d: Document, change: (c: { without: string[]; own: CardLine[] }) => void): Document {
  const c = { without: [...(d.card?.without ?? [])], own: [...(d.card?.own ?? [])] };
  change(c);
  const { card: _, ...rest } = d;
  return c.without.length + c.own.length > 0 ? { ...rest, card: { ...d.card, ...c } } : rest;
}

/**
 * TableCard is what lies on the table before the first cut, with a box to tick for each line. With edit, lines
 * are left out and added; cautions always stay.
 */
export function TableCard(p: { id: number; revision: number | undefined; cords?: boolean; edit?: Edit }) {
  const { id, revision, cords = true, edit } = p;
  const card = useCard(id, revision).data;
  const { ticks, tick } = useTicks(`card-${id}`);
  if (!card) return null;
  // The sheet says the cords and the cautions itself.
  const left = cords ? [] : ["cords", "cautions"];
  const shown = card.groups.filter((g) => !left.includes(g.id) && g.lines.some((l) => edit || !l.out));
  return (
    <section aria-label="Table card" data-testid="card">
      <h2 className="mt-4 font-semibold print:mt-0">Table card</h2>
      <div className="md:columns-2 md:gap-8 print:columns-2 print:gap-6">
        {shown.map((g) => (
          <fieldset key={g.id} className="mt-2">
            <legend className="font-semibold text-sm">{g.name}</legend>
            <ul className="text-sm">
              {g.lines
                .filter((l) => edit || !l.out)
                .map((l) => (
                  <CardRow
                    key={l.key}
                    line={l}
                    ticked={ticks.includes(l.key)}
                    onTick={() => tick(l.key)}
                    onToggle={edit && g.id !== "cautions" ? () => edit((d) => toggled(d, g.id, l)) : undefined}
                  />
                ))}
            </ul>
          </fieldset>
        ))}
      </div>
      {edit && <Add groups={card.groups} edit={edit} />}
    </section>
  );
}

/** toggled leaves a derived line out or takes it in again; a line of the maker's own is deleted. */
function toggled(d: Document, group: string, l: Line): Document {
  return changed(d, (c) => {
    if (l.own) c.own = c.own.filter((o) => o.group !== group || o.says !== l.says);
    else if (l.out) c.without = c.without.filter((k) => k !== l.key);
    else c.without.push(l.key);
  });
}

function CardRow(p: { line: Line; ticked: boolean; onTick: () => void; onToggle?: () => void }) {
  const { line: l, ticked, onTick, onToggle } = p;
  const { units } = useSettings();
  const says = said(l.says, units);
  return (
    <li className="flex break-inside-avoid items-start gap-2">
      <label className={`flex flex-1 items-start gap-2 py-0.5 ${l.out ? "line-through opacity-70" : ""}`}>
        <input
          type="checkbox"
          checked={ticked}
          onChange={onTick}
          disabled={l.out}
          className="checkbox mt-0.5 size-6 shrink-0 rounded-none print:size-4"
        />
        <span>
          {l.what && <strong>{l.what}: </strong>}
          {says}
        </span>
      </label>
      {onToggle && (
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          aria-label={`${l.own ? "Delete" : l.out ? "Take in" : "Leave out"}: ${says}`}
          onClick={onToggle}
        >
          {l.own ? "Delete" : l.out ? "Take in" : "Leave out"}
        </button>
      )}
    </li>
  );
}

/** Add writes a line of the maker's own. */
function Add({ groups, edit }: { groups: { id: string; name: string }[]; edit: Edit }) {
  const [group, setGroup] = useState("tools");
  return (
    <div className="mt-3 grid grid-cols-[10rem_1fr] gap-2">
      <Choice
        label="Add to"
        value={group}
        options={groups.filter((g) => g.id !== "cautions").map((g) => ({ id: g.id, name: g.name }))}
        onSet={setGroup}
      />
      <TextInput
        key={group}
        label="A line of your own"
        most={300}
        value=""
        onSet={(says) =>
          says &&
          edit((d) =>
            changed(d, (c) => {
              if (!c.own.some((o) => o.group === group && o.says === says)) c.own.push({ group, says });
            }),
          )
        }
      />
    </div>
  );
}
