import { useEffect, useRef, useState } from "react";
import { useCatalogue, useSettings } from "../../api/queries";
import type { Catalogue, CatalogueKnot, Document, Field, Section } from "../../api/types.gen";
import { Turn } from "../../hang/Turn";
import { Choice, Panel } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { length } from "../../ui/units";
import { insert, move, remove } from "../keys";
import { useWork } from "../work";
import { Glyph } from "./Glyph";
import { TypedLine } from "./TypedLine";

/** Tie: the sequence, as rows and as one typed line; both always say the same. */
export function Tie() {
  const { document, plan, edit, selected, select } = useWork();
  const catalogue = useCatalogue().data;
  return (
    <Panel title="Tie" lead="Section by section, from the mount to the ends.">
      <TypedLine notation={plan?.notation ?? ""} />
      <ol className="flex flex-col" aria-label="Sequence" data-testid="sequence">
        {document.sequence.map((s, i) => (
          <Row key={i} index={i} section={s} catalogue={catalogue} />
        ))}
      </ol>
      {document.sequence.length === 0 && <p>Nothing is tied yet. Add a mount to begin.</p>}
      {catalogue && (
        <Adder
          catalogue={catalogue}
          onAdd={(s) => {
            const at = document.sequence.length === 0 ? 0 : selected + 1;
            edit((d) => insert(d, at, s.do === "mount" || s.do === "gather" ? withCords(d, s) : s));
            select(at);
          }}
        />
      )}
    </Panel>
  );
}

/** withCords names cords that nothing uses yet in a section that needs some. */
function withCords(d: Document, s: Section): Section {
  const free = d.cords.map((c) => c.id).filter((id) => !d.sequence.some((q) => q.cord === id || q.cords?.includes(id)));
  if (s.do === "gather") return { ...s, cord: free[0] ?? "" };
  const second = d.sequence.some((q) => q.do === "mount");
  return { ...s, cords: second ? free.slice(0, 1) : free, hitch: second ? "laid-behind" : s.hitch };
}

function Adder({ catalogue, onAdd }: { catalogue: Catalogue; onAdd: (s: Section) => void }) {
  return (
    <div className="flex flex-wrap gap-1.5" role="group" aria-label="Add a section after the chosen one">
      {catalogue.knots.map((k) => (
        <button
          key={k.id}
          type="button"
          className="btn btn-outline btn-xs h-7"
          title={k.for}
          onClick={() => onAdd(k.template)}
        >
          + {k.name}
        </button>
      ))}
    </div>
  );
}

function Row({ index, section, catalogue }: { index: number; section: Section; catalogue: Catalogue | undefined }) {
  const { selected, select, lit, setLit, edit, plan, setCount, document } = useWork();
  const { units } = useSettings();
  const planned = plan?.sections.find((p) => p.index === index);
  const k = catalogue?.knots.find((q) => q.id === section.do);
  const here = selected === index;
  const [turning, setTurning] = useState(false);
  const row = useRef<HTMLLIElement>(null);
  const was = useRef(here);
  useEffect(() => {
    // Chosen by key it comes into sight; a page that opens stays where it is.
    if (here && !was.current) row.current?.scrollIntoView({ block: "nearest" });
    was.current = here;
  }, [here]);
  const change = (v: Partial<Section>) =>
    edit((d) => ({ ...d, sequence: d.sequence.map((s, i) => (i === index ? { ...s, ...v } : s)) }));
  const name = k?.name ?? section.do;
  return (
    <li
      ref={row}
      data-row={index}
      data-lit={lit === index}
      className={`border-base-300 border-b border-l-4 py-1.5 pl-2 ${here ? "border-l-secondary" : "border-l-transparent"} ${lit === index ? "bg-base-200" : ""}`}
      onPointerEnter={() => setLit(index)}
      onPointerLeave={() => setLit(null)}
    >
      <div className="flex items-center gap-2">
        <button
          type="button"
          className="flex min-h-7 min-w-0 flex-1 items-center gap-2 text-left"
          aria-expanded={here}
          onClick={() => select(index)}
          onFocus={() => setLit(index)}
          onBlur={() => setLit(null)}
        >
          <span className="figure w-5 text-right text-sm opacity-80">
            <span className="sr-only">Section </span>
            {index + 1}
          </span>
          <Glyph of={section.do} />
          <span className={`whitespace-nowrap ${here ? "font-semibold" : ""}`}>{name}</span>
          <Short section={section} />
        </button>
        {k?.repeats && planned && (
          <span className="join">
            <button
              type="button"
              className="btn join-item btn-xs h-7 w-7"
              aria-label={`A knot less in section ${index + 1}`}
              disabled={planned.count <= 1}
              onClick={() => setCount(index, planned.count - 1)}
            >
              &minus;
            </button>
            <CountField index={index} count={section.count || planned.count} />
            <button
              type="button"
              className="btn join-item btn-xs h-7 w-7"
              aria-label={`A knot more in section ${index + 1}`}
              onClick={() => setCount(index, planned.count + 1)}
            >
              +
            </button>
          </span>
        )}
        <span className="figure w-16 shrink-0 text-right text-sm">
          {planned ? length(planned.height_mm, units) : ""}
        </span>
      </div>
      {here && k && (
        <div className="mt-2 mb-1 ml-7 flex flex-col gap-2">
          <Fields k={k} section={section} change={change} />
          <div className="flex flex-wrap gap-1">
            <button
              type="button"
              className="btn btn-ghost btn-xs h-7"
              disabled={index === 0}
              onClick={() => {
                edit((d) => move(d, index, index - 1));
                select(index - 1);
              }}
            >
              Up
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-xs h-7"
              disabled={index === document.sequence.length - 1}
              onClick={() => {
                edit((d) => move(d, index, index + 1));
                select(index + 1);
              }}
            >
              Down
            </button>
            <button type="button" className="btn btn-ghost btn-xs h-7" onClick={() => edit((d) => remove(d, index))}>
              Take out
            </button>
            <button type="button" className="btn btn-ghost btn-xs h-7" onClick={() => setTurning(true)}>
              Turn in space
            </button>
            {turning && <Turn section={index} name={name} onClose={() => setTurning(false)} />}
          </div>
          {planned?.shows && planned.shows.length > 0 && (
            <p className="text-sm opacity-80">
              Face: {planned.shows.map((v) => `${v.where} ${v.face}`).join(", ")}. Back:{" "}
              {planned.shows.map((v) => `${v.where} ${v.back}`).join(", ")}.
            </p>
          )}
          {k.schools?.map((v) => (
            <p key={v.field} className="text-sm opacity-80">
              {v.field} {v.default} is usual: {v.why}.
            </p>
          ))}
        </div>
      )}
    </li>
  );
}

/** Short says in a word or two what is set beside the count. */
function Short({ section: s }: { section: Section }) {
  const { units } = useSettings();
  const say = [
    s.cords?.join(" "),
    s.cord,
    s.hitch && s.hitch !== "larks-head" ? s.hitch.replaceAll("-", " ") : "",
    s.start === "right" || s.hand === "right" ? "right" : "",
    s.turns ? `${s.turns} turns` : "",
    s.how?.replaceAll("-", " "),
    s.length_mm ? length(s.length_mm, units) : "",
    s.fit_mm ? `fills ${length(s.fit_mm, units)}` : "",
  ].filter(Boolean);
  return <span className="truncate text-sm opacity-80">{say.join(", ")}</span>;
}

function CountField({ index, count }: { index: number; count: number }) {
  const { setCount } = useWork();
  return (
    <input
      key={count}
      className="input join-item input-xs figure h-7 w-13 text-center"
      aria-label={`Knots in section ${index + 1}`}
      inputMode="numeric"
      defaultValue={count}
      onFocus={(e) => e.target.select()}
      onBlur={(e) => {
        const n = Number(e.target.value);
        if (Number.isInteger(n) && n > 0 && n <= 10_000) setCount(index, n);
        else e.target.value = String(count);
      }}
      onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
    />
  );
}

function Fields({ k, section, change }: { k: CatalogueKnot; section: Section; change: (v: Partial<Section>) => void }) {
  return (
    <div className="grid grid-cols-2 gap-2">
      {k.fields.map((f) => (
        <FieldInput key={f.key} f={f} section={section} change={change} />
      ))}
      {k.repeats && (
        <LengthInput
          label="or fill a length"
          optional
          mm={section.fit_mm}
          onSet={(v) => change(v ? { fit_mm: v, count: undefined } : { fit_mm: undefined, count: section.count || 1 })}
        />
      )}
    </div>
  );
}

function FieldInput({ f, section, change }: { f: Field; section: Section; change: (v: Partial<Section>) => void }) {
  const { document } = useWork();
  const value = (section as unknown as Record<string, unknown>)[f.key];
  switch (f.kind) {
    case "choice":
      return (
        <Choice
          label={f.label}
          value={String(value ?? f.default ?? "")}
          options={(f.choices ?? []).map((c) => ({ id: c, name: c.replaceAll("-", " ") }))}
          onSet={(v) => change({ [f.key]: v })}
        />
      );
    case "length":
      return (
        <LengthInput
          label={f.label}
          mm={value as number | undefined}
          optional={section.do !== "gap"}
          onSet={(v) => (v || section.do !== "gap") && change({ [f.key]: v })}
        />
      );
    case "cord":
      return (
        <Choice
          label={f.label}
          value={String(value ?? "")}
          options={document.cords.map((c) => ({ id: c.id, name: c.id }))}
          onSet={(v) => change({ [f.key]: v })}
        />
      );
    case "count":
      return (
        <label className="flex flex-col gap-1 text-sm">
          {f.label}
          <input
            key={String(value)}
            className="input input-sm figure"
            inputMode="numeric"
            defaultValue={String(value ?? f.default ?? "")}
            onBlur={(e) => {
              const n = Number(e.target.value);
              if (Number.isInteger(n) && n > 0) change({ [f.key]: n });
              else e.target.value = String(value ?? "");
            }}
          />
        </label>
      );
    case "places":
    case "cords": {
      const numbers = f.kind === "places";
      const text = Array.isArray(value) ? value.join(" ") : "";
      return (
        <label className="flex flex-col gap-1 text-sm">
          {f.label}
          <input
            key={text}
            className="input input-sm figure"
            placeholder={numbers ? "all" : ""}
            defaultValue={text}
            onBlur={(e) => {
              const words = e.target.value.split(/[\s,+]+/).filter(Boolean);
              if (words.join(" ") === text) return;
              if (numbers)
                change({
                  [f.key]:
                    words.length === 0 || words[0] === "all"
                      ? f.key === "ends"
                        ? "all"
                        : undefined
                      : words.map(Number),
                });
              else change({ [f.key]: words });
            }}
          />
        </label>
      );
    }
  }
  return null;
}
