import { memo, useEffect, useMemo, useRef } from "react";
import { useCatalogue, useLimits, useSettings } from "../../api/queries";
import type { Catalogue, CatalogueKnot, Section } from "../../api/types.gen";
import { Panel } from "../../ui/fields";
import { NumberInput } from "../../ui/NumberInput";
import { across, length, type Units } from "../../ui/units";
import { insert, move, remove } from "../keys";
import { useWork } from "../work";
import { Fields, PlacesInput } from "./Fields";
import { Glyph } from "./Glyph";
import { Nested } from "./Nested";
import { TypedLine } from "./TypedLine";

/** Tie: the sequence, as rows and as one typed line; both always say the same. */
export function Tie() {
  const { document, plan, piece, openPalette, selected, select, lit, setLit, setCount, addCount, refusedAt } =
    useWork();
  const { units } = useSettings();
  const catalogue = useCatalogue().data;
  const knots = useMemo(() => new Map(catalogue?.knots.map((k) => [k.id, k])), [catalogue]);
  const planned = useMemo(() => new Map(plan?.sections.map((p) => [p.index, p])), [plan]);
  return (
    <Panel title="Tie" lead="Section by section, from the mount to the ends.">
      <TypedLine notation={piece.bench?.notation ?? ""} />
      <ol className="flex flex-col" aria-label="Sequence" data-testid="sequence">
        {document.sequence.map((s, i) => (
          <Row
            key={i}
            index={i}
            section={s}
            k={knots.get(s.do)}
            count={planned.get(i)?.count}
            height={planned.get(i)?.height_mm}
            here={selected === i}
            lit={lit === i}
            units={units}
            setLit={setLit}
            select={select}
            setCount={setCount}
            addCount={addCount}
            wrong={refusedAt.get(i)?.message}
          />
        ))}
      </ol>
      {document.sequence.length === 0 && <p>Nothing is tied yet. Add a mount to begin.</p>}
      <button type="button" className="btn btn-sm self-start" data-testid="add" onClick={openPalette}>
        Add a section
      </button>
    </Panel>
  );
}

interface RowProps {
  index: number;
  section: Section;
  k: CatalogueKnot | undefined;
  count: number | undefined;
  height: number | undefined;
  here: boolean;
  lit: boolean;
  units: Units;
  setLit: (n: number | null) => void;
  select: (n: number) => void;
  setCount: (section: number, count: number) => void;
  addCount: (section: number, by: number, planned: number | undefined) => void;
  /** why it cannot be tied */
  wrong: string | undefined;
}

/** Row is one section; it is drawn again only when something of it changes. */
const Row = memo(function Row(p: RowProps) {
  const { index, section, k, count, height, here, lit, units, setLit, select, setCount, addCount, wrong } = p;
  const shown = section.count || count;
  const limits = useLimits();
  const row = useRef<HTMLLIElement>(null);
  const was = useRef(here);
  useEffect(() => {
    // Chosen by key it comes into sight; a page that opens stays where it is.
    if (here && !was.current) row.current?.scrollIntoView({ block: "nearest" });
    was.current = here;
  }, [here]);
  return (
    <li
      ref={row}
      data-row={index}
      data-lit={lit}
      className={`offstage border-base-300 border-b border-l-4 py-1.5 pl-2 ${wrong ? "border-l-error" : here ? "border-l-secondary" : "border-l-transparent"} ${lit ? "bg-base-200" : ""}`}
      onPointerEnter={() => setLit(index)}
      onPointerLeave={() => setLit(null)}
    >
      <div className="flex items-center gap-2">
        <button
          type="button"
          className="flex min-h-7 min-w-0 flex-1 items-center gap-2 text-left max-[360px]:gap-1"
          aria-expanded={here}
          onClick={() => select(index)}
          onFocus={() => setLit(index)}
          onBlur={() => setLit(null)}
        >
          <span className="figure w-5 text-right text-sm opacity-80">
            <span className="sr-only">Section </span>
            {index + 1}
          </span>
          <Glyph of={k?.glyph} />
          <span className={`min-w-min ${here ? "font-semibold" : ""}`}>{k?.name ?? section.do}</span>
          <Short section={section} k={k} units={units} />
        </button>
        {k?.repeats && shown !== undefined && (
          <span className="join">
            <button
              type="button"
              className="btn join-item btn-xs w-7"
              aria-label={`A knot less in section ${index + 1}`}
              disabled={shown <= 1}
              onClick={() => addCount(index, -1, count)}
            >
              &minus;
            </button>
            <NumberInput
              bare
              whole
              className="join-item input-xs h-7 w-13 text-center"
              label={`Knots in section ${index + 1}`}
              value={shown}
              least={1}
              most={limits.knots}
              onSet={(n) => n && setCount(index, n)}
            />
            <button
              type="button"
              className="btn join-item btn-xs w-7"
              aria-label={`A knot more in section ${index + 1}`}
              onClick={() => addCount(index, 1, count)}
            >
              +
            </button>
          </span>
        )}
        <span className="figure w-16 shrink-0 text-right text-sm">
          {height === undefined ? "" : length(height, units)}
        </span>
      </div>
      {wrong && (
        <p className="ml-7 flex items-start gap-1.5 text-error text-sm" data-testid="wrong">
          <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" className="mt-0.5 shrink-0">
            <circle cx="8" cy="8" r="6.5" fill="none" stroke="currentColor" strokeWidth="1.6" />
            <path d="M5 5l6 6M11 5l-6 6" stroke="currentColor" strokeWidth="1.6" />
          </svg>
          <span>It {wrong}.</span>
        </p>
      )}
      {here && k && <Open index={index} section={section} k={k} />}
    </li>
  );
});

/** Open is all that can be set of the chosen section. */
function Open({ index, section, k }: { index: number; section: Section; k: CatalogueKnot }) {
  const { select, edit, plan, document, setSide, openInto } = useWork();
  const { units } = useSettings();
  const catalogue = useCatalogue().data;
  const planned = plan?.sections.find((p) => p.index === index);
  const change = (v: Partial<Section>) =>
    edit((d) => ({ ...d, sequence: d.sequence.map((s, i) => (i === index ? { ...s, ...v } : s)) }));
  return (
    <div className="mt-2 mb-1 ml-7 flex flex-col gap-2">
      <Fields k={k} path={`sequence[${index}]`} section={section} change={change} />
      {catalogue && k.holds && (
        <Inside path={`sequence[${index}]`} holds={k.holds} section={section} catalogue={catalogue} change={change} />
      )}
      <div className="flex flex-wrap gap-1">
        <button
          type="button"
          className="btn btn-ghost btn-xs px-1.5"
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
          className="btn btn-ghost btn-xs px-1.5"
          disabled={index === document.sequence.length - 1}
          onClick={() => {
            edit((d) => move(d, index, index + 1));
            select(index + 1);
          }}
        >
          Down
        </button>
        <button type="button" className="btn btn-ghost btn-xs px-1.5" onClick={() => edit((d) => remove(d, index))}>
          Delete
        </button>
        <button type="button" className="btn btn-ghost btn-xs px-1.5" onClick={openInto}>
          Change into
        </button>
        <Grouping index={index} section={section} k={k} />
        <button type="button" className="btn btn-ghost btn-xs px-1.5" onClick={() => setSide("turned")}>
          Turn by hand
        </button>
      </div>
      {planned?.stops_mm && (document.purpose.kind === "stopper" || document.purpose.stops_mm) && (
        <p className="text-sm opacity-80">
          Pulled hard it stops at a hole of {across(planned.stops_mm, units)}; loose it passes one of{" "}
          {across(planned.passes_mm ?? 0, units)}.
        </p>
      )}
      {planned?.counted && <p className="text-sm opacity-80">Counted: {planned.counted}.</p>}
      {planned?.shows && planned.shows.length > 0 && (
        <p className="text-sm opacity-80">
          Face: {planned.shows.map((v) => `${v.where} ${v.face}`).join(", ")}. Back:{" "}
          {planned.shows.map((v) => `${v.where} ${v.back}`).join(", ")}.
        </p>
      )}
      {k.schools && k.schools.length > 0 && (
        <details className="text-sm">
          <summary className="min-h-6 cursor-pointer">Why these defaults</summary>
          {k.schools.map((v) => (
            <p key={v.field} className="opacity-80">
              {k.fields?.find((f) => f.key === v.field)?.label ?? v.field} {v.default} is the default: {v.why}.
            </p>
          ))}
        </details>
      )}
    </div>
  );
}

/** Inside edits what a repeat or rows hold. */
function Inside(p: {
  path: string;
  holds: "again" | "rows";
  section: Section;
  catalogue: Catalogue;
  change: (v: Partial<Section>) => void;
}) {
  const { section, catalogue, change } = p;
  if (p.holds === "again") {
    return (
      <Nested
        label="what is repeated"
        path={`${p.path}.sequence`}
        sequence={section.sequence ?? []}
        catalogue={catalogue}
        strands={4}
        onSet={(sequence) => change({ sequence })}
      />
    );
  }
  const rows = section.rows ?? [];
  const set = (r: number, v: Partial<(typeof rows)[number]>) =>
    change({ rows: rows.map((row, i) => (i === r ? { ...row, ...v } : row)) });
  return (
    <div className="grid grid-cols-1 gap-2 sm:grid-cols-2">
      {rows.map((row, r) => (
        <div key={r} className="flex min-w-0 flex-col gap-1">
          <PlacesInput
            label={`row ${r + 1}, strands`}
            path={`${p.path}.rows[${r}].strands`}
            value={row.strands}
            onSet={(strands) => strands.length > 0 && set(r, { strands })}
          />
          <Nested
            label={`row ${r + 1}`}
            path={`${p.path}.rows[${r}].sequence`}
            sequence={row.sequence}
            catalogue={catalogue}
            strands={row.strands.length}
            onSet={(sequence) => set(r, { sequence })}
          />
        </div>
      ))}
    </div>
  );
}

/** Grouping copies a section, puts it into a repeat, takes the next one in, and ungroups a repeat. */
function Grouping({ index, section, k }: { index: number; section: Section; k: CatalogueKnot }) {
  const { document, edit, select } = useWork();
  const next = document.sequence[index + 1];
  const catalogue = useCatalogue().data;
  const groups = (s: Section) => catalogue?.knots.find((q) => q.id === s.do)?.groups ?? true;
  const again = catalogue?.knots.find((q) => q.holds === "again")?.id;
  const act = (name: string, on: () => void, off?: boolean) => (
    <button type="button" className="btn btn-ghost btn-xs px-1.5" disabled={off} onClick={on}>
      {name}
    </button>
  );
  // put replaces so many sections from this one on by what is made of them.
  const put = (many: number, made: (s: Section[]) => Section[]) =>
    edit((d) => ({
      ...d,
      sequence: [
        ...d.sequence.slice(0, index),
        ...made(d.sequence.slice(index, index + many)),
        ...d.sequence.slice(index + many),
      ],
    }));
  return (
    <>
      {k.copies &&
        act("Copy", () => {
          edit((d) => insert(d, index + 1, d.sequence[index]));
          select(index + 1);
        })}
      {k.holds === "again"
        ? act("Ungroup", () => put(1, ([s]) => s.sequence ?? [s]))
        : again && groups(section) && act("Repeat", () => put(1, (sequence) => [{ do: again, count: 2, sequence }]))}
      {k.holds === "again" &&
        act(
          "Add the next to it",
          () => put(2, ([s, after]) => [{ ...s, sequence: [...(s.sequence ?? []), after] }]),
          !next || !groups(next),
        )}
    </>
  );
}

/** Short says in a word or two what is set beside the count: what is not the default, and what has no default. */
function Short({ section: s, k, units }: { section: Section; k?: CatalogueKnot; units: Units }) {
  const say = (k?.fields ?? []).map((f) => {
    const value = f.key
      .split(".")
      .reduce<unknown>((v, key) => (v as Record<string, unknown> | undefined)?.[key], s as unknown);
    if (value === undefined || value === "" || value === 0 || (f.short && String(value) === f.default)) return "";
    switch (f.kind) {
      case "choice":
        return String(value).replaceAll("-", " ");
      case "length":
        return length(Number(value), units);
      case "places":
        return Array.isArray(value) && value.length > 0 ? `on ${value.join(" ")}` : "";
      case "cords":
        return Array.isArray(value) ? value.join(" ") : "";
      case "count":
      case "place":
        return `${f.label} ${value}`;
      case "cord":
        return String(value);
    }
    return "";
  });
  say.push(
    s.sequence?.map((q) => q.do.replaceAll("-", " ")).join(", ") ?? "",
    s.rows?.map((r) => r.strands.length).join(" + ") ?? "",
    s.fit_mm ? `fills ${length(s.fit_mm, units)}` : "",
  );
  return <span className="truncate text-sm opacity-80">{say.filter(Boolean).join(", ")}</span>;
}
