import { useState } from "react";
import { api } from "../../api/client";
import { useChange, useDrawer, useGoesWith, usePalettes } from "../../api/queries";
import type { Chosen, Palette, Spool } from "../../api/types.gen";
import { ColourInput } from "../../ui/ColourInput";
import { Swatch, TextInput } from "../../ui/fields";
import { Problems } from "../../ui/Problems";

/** Chosens are the colours to lay out: the piece's own, or some of the drawer. */
export function Chosens({ chosen, onSet }: { chosen: Chosen[]; onSet: (c: Chosen[]) => void }) {
  const drawer = useDrawer().data ?? [];
  const [open, setOpen] = useState(false);
  const one = (a: Chosen, b: Chosen) => a.colour === b.colour && (a.name ?? "") === (b.name ?? "");
  const of = (s: Spool): Chosen => ({ colour: s.stuff.colour, name: s.name });
  const toggle = (c: Chosen) =>
    onSet(chosen.some((o) => one(o, c)) ? chosen.filter((o) => !one(o, c)) : [...chosen, c]);
  const foreign = chosen.filter((c) => !drawer.some((s) => one(of(s), c)));
  return (
    <section aria-label="Colours" className="rounded-box border border-base-300 p-3">
      <button
        type="button"
        className="btn btn-ghost btn-sm h-auto min-h-8 w-full justify-start text-left"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {`Colours: ${chosen.length === 0 ? "those of the piece" : chosen.map((c) => c.name ?? c.colour).join(", ")}`}
        <span aria-hidden="true">{open ? "▴" : "▾"}</span>
      </button>
      {open && (
        <div className="mt-2 flex flex-col gap-2">
          <p className="text-sm">
            {chosen.length === 0
              ? "Its own colours are given to its cords in other ways. Or choose some of the drawer:"
              : "Each is used at least once:"}
          </p>
          <div className="flex flex-wrap gap-1">
            {drawer.map((s) => {
              const on = chosen.some((o) => one(o, of(s)));
              return (
                <button
                  key={s.id}
                  type="button"
                  aria-pressed={on}
                  className={`btn btn-xs ${on ? "btn-neutral" : ""}`}
                  onClick={() => toggle(of(s))}
                >
                  <Swatch colour={s.stuff.colour} beside={s.stuff.sheath?.colours} /> {s.name}
                </button>
              );
            })}
          </div>
          <ColourInput
            key={chosen.length}
            label="Another colour, that is not in the drawer"
            value="#ffffff"
            onSet={(colour) => !chosen.some((c) => c.colour === colour) && onSet([...chosen, { colour }])}
          />
          {foreign.length > 0 && (
            <div className="flex flex-wrap gap-1">
              {foreign.map((c) => (
                <button
                  key={c.colour + c.name}
                  type="button"
                  aria-pressed
                  className="btn btn-xs btn-neutral"
                  onClick={() => toggle(c)}
                >
                  <Swatch colour={c.colour} /> {c.name ?? c.colour}
                </button>
              ))}
            </div>
          )}
          {chosen.length > 0 && (
            <>
              <GoesWith chosen={chosen} onAdd={toggle} />
              <button type="button" className="btn btn-ghost btn-xs self-start" onClick={() => onSet([])}>
                Back to the piece's own
              </button>
            </>
          )}
          <Palettes chosen={chosen} onSet={onSet} />
        </div>
      )}
    </section>
  );
}

/** GoesWith tells which cords of the drawer go with the colour that was chosen last, and how. */
function GoesWith({ chosen, onAdd }: { chosen: Chosen[]; onAdd: (c: Chosen) => void }) {
  const last = chosen[chosen.length - 1];
  const all = (useGoesWith(last.colour).data ?? []).filter((m) => !chosen.some((c) => c.colour === m.colour));
  if (all.length === 0) return null;
  return (
    <div className="text-sm" data-testid="goes-with">
      <p>With {last.name ?? last.colour} goes:</p>
      <div className="flex flex-wrap gap-1">
        {all.slice(0, 6).map((m) => (
          <button
            key={m.colour}
            type="button"
            className="btn btn-ghost btn-xs"
            onClick={() => onAdd({ colour: m.colour, name: m.name })}
          >
            <Swatch colour={m.colour} /> {m.name}, {m.goes}
          </button>
        ))}
      </div>
    </div>
  );
}

/** Palettes are kept by a name: what is chosen is kept, and what is kept is chosen again. */
function Palettes({ chosen, onSet }: { chosen: Chosen[]; onSet: (c: Chosen[]) => void }) {
  const palettes = usePalettes().data ?? [];
  const keep = useChange((name: string) => api.post("/palettes", { name, colours: chosen }), [["palettes"]]);
  const drop = useChange((id: number) => api.drop(`/palettes/${id}`), [["palettes"]]);
  if (palettes.length === 0 && chosen.length === 0) return null;
  return (
    <div className="flex flex-col gap-1">
      <Problems error={keep.error ?? drop.error} />
      {palettes.map((p: Palette) => (
        <div key={p.id} className="flex items-center gap-1">
          <button type="button" className="btn btn-xs flex-1 justify-start" onClick={() => onSet(p.colours)}>
            {p.colours.map((c) => (
              <Swatch key={c.colour} colour={c.colour} />
            ))}
            {p.name}
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            aria-label={`Delete palette ${p.name}`}
            onClick={() => drop.mutate(p.id)}
          >
            Delete
          </button>
        </div>
      ))}
      {chosen.length > 0 && (
        <TextInput
          key={palettes.length}
          label="Keep these as a palette, by the name"
          value=""
          most={80}
          onSet={(name) => name && keep.mutate(name)}
        />
      )}
    </div>
  );
}
