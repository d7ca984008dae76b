import { useCatalogue } from "../../api/queries";
import type { Sheath } from "../../api/types.gen";
import { ColourInput } from "../../ui/ColourInput";
import { Choice } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";

/** SheathFields are what a cord shows beside its own colour, and how far it is till that comes again. */
export function SheathFields(p: { path?: string; sheath: Sheath | undefined; onSet: (s: Sheath | undefined) => void }) {
  const { path, sheath, onSet } = p;
  const known = useCatalogue().data;
  const of = (pattern: string) => known?.sheaths.find((s) => s.id === pattern);
  const most = sheath ? (of(sheath.pattern)?.most ?? 1) : 0;
  const colour = (at: number, v: string) =>
    sheath && onSet({ ...sheath, colours: sheath.colours.map((c, i) => (i === at ? v : c)) });
  return (
    <>
      <div className={sheath ? "" : "col-span-2"}>
        <Choice
          label="Sheath"
          path={path && `${path}.pattern`}
          value={sheath?.pattern ?? ""}
          options={[{ id: "", name: "of one colour" }, ...(known?.sheaths ?? [])]}
          onSet={(v) => {
            if (v === "" || !known) return onSet(undefined);
            const from = sheath ?? known.sheath;
            onSet({
              ...from,
              pattern: v as Sheath["pattern"],
              colours: from.colours.slice(0, of(v)?.most ?? 1),
            });
          }}
        />
      </div>
      {sheath && (
        <>
          <LengthInput
            label="Comes again after"
            path={path && `${path}.repeat_mm`}
            mm={sheath.repeat_mm}
            onSet={(v) => v !== undefined && onSet({ ...sheath, repeat_mm: v })}
            zero
          />
          {sheath.colours.map((c, i) => (
            <div key={i} className="col-span-2 flex items-end gap-2">
              <div className="min-w-0 flex-1">
                <ColourInput
                  label={sheath.colours.length > 1 ? `Colour ${i + 2}` : "Second colour"}
                  path={path && `${path}.colours[${i}]`}
                  value={c}
                  onSet={(v) => colour(i, v)}
                />
              </div>
              {sheath.colours.length > 1 && (
                <button
                  type="button"
                  className="btn btn-ghost btn-xs"
                  aria-label={`Delete colour ${i + 2}`}
                  onClick={() => onSet({ ...sheath, colours: sheath.colours.filter((_, k) => k !== i) })}
                >
                  Delete
                </button>
              )}
            </div>
          ))}
          {sheath.colours.length < most && (
            <button
              type="button"
              className="btn btn-xs col-span-2 justify-self-start"
              onClick={() => onSet({ ...sheath, colours: [...sheath.colours, sheath.colours[0] ?? "#ffffff"] })}
            >
              Add a colour
            </button>
          )}
        </>
      )}
    </>
  );
}
