import { useState } from "react";
import { useKnots, useLimits, useOffers } from "../../api/queries";
import type { Catalogue, Section } from "../../api/types.gen";
import { Choice } from "../../ui/fields";
import { NumberInput } from "../../ui/NumberInput";
import { freeCords } from "../stuff/used";
import { useWork } from "../work";
import { Fields } from "./Fields";
import { Glyph } from "./Glyph";

/** Nested edits the sections inside a repeat or a row. */
export function Nested(p: {
  label: string;
  /** of the sequence in the document */
  path: string;
  sequence: Section[];
  catalogue: Catalogue;
  strands: number;
  onSet: (s: Section[]) => void;
}) {
  const { document } = useWork();
  const limits = useLimits();
  const [open, setOpen] = useState<number | null>(null);
  const set = (at: number, v: Partial<Section>) => p.onSet(p.sequence.map((s, i) => (i === at ? { ...s, ...v } : s)));
  const move = (from: number, to: number) => {
    const out = [...p.sequence];
    const [s] = out.splice(from, 1);
    out.splice(to, 0, s);
    p.onSet(out);
  };
  const choices = p.catalogue.knots.filter((k) => k.nests);
  const free = freeCords(document, useKnots()).map((c) => c.id);
  const offers = useOffers(p.strands, free).data;
  return (
    <fieldset className="fieldset min-w-0 gap-1 rounded-box border border-base-300 p-2">
      <legend className="fieldset-legend px-1 py-0 font-normal text-sm">{p.label}</legend>
      {p.sequence.map((s, i) => {
        const k = p.catalogue.knots.find((q) => q.id === s.do);
        return (
          <div key={i} className="flex flex-col gap-1 border-base-300 border-b pb-1 last:border-b-0">
            <button
              type="button"
              className="flex min-h-7 items-center gap-1 text-left leading-tight"
              aria-expanded={open === i}
              onClick={() => setOpen(open === i ? null : i)}
            >
              <Glyph of={k?.glyph} />
              {k?.name ?? s.do}
            </button>
            <div className="flex items-center gap-1">
              {k?.repeats && (
                <NumberInput
                  bare
                  whole
                  className="input-xs h-7 w-12 text-center"
                  label={`Knots in ${p.label}, section ${i + 1}`}
                  value={s.count ?? 1}
                  least={1}
                  most={limits.knots}
                  onSet={(n) => n && set(i, { count: n })}
                />
              )}
              <span className="flex-1" />
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                disabled={i === 0}
                aria-label={`Move ${k?.name ?? s.do} up`}
                onClick={() => move(i, i - 1)}
              >
                &uarr;
              </button>
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                disabled={p.sequence.length === 1}
                aria-label={`Delete ${k?.name ?? s.do} from ${p.label}`}
                onClick={() => p.onSet(p.sequence.filter((_, n) => n !== i))}
              >
                &times;
              </button>
            </div>
            {open === i && k && <Fields k={k} path={`${p.path}[${i}]`} section={s} change={(v) => set(i, v)} />}
          </div>
        );
      })}
      <Choice
        bare
        label={`Add to ${p.label}`}
        value=""
        options={[{ id: "", name: "add…" }, ...choices.map((k) => ({ id: k.id, name: k.name }))]}
        onSet={(id) => {
          const k = choices.find((q) => q.id === id);
          if (k) p.onSet([...p.sequence, ...(offers?.find((o) => o.id === id)?.sections ?? [k.template])]);
        }}
      />
    </fieldset>
  );
}
