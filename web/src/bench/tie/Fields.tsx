import { useId } from "react";
import { useLimits } from "../../api/queries";
import type { CatalogueKnot, Field, Section } from "../../api/types.gen";
import { ColourInput } from "../../ui/ColourInput";
import { Choice } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { useDraft } from "../../ui/useDraft";
import { setPath, useWork } from "../work";

/** Fields are the settings of a section beside its count, as the catalogue names them. */
export function Fields({
  k,
  section,
  change,
}: {
  k: CatalogueKnot;
  section: Section;
  change: (v: Partial<Section>) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-2">
      {k.fields
        .filter((f) => counts(f, section))
        .map((f) => (
          <FieldInput key={f.key} f={f} section={section} change={change} />
        ))}
      {k.repeats && k.holds !== "again" && (
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

/** counts tells whether a field means anything with the choices that are made. */
function counts(f: Field, section: Section): boolean {
  const [key, choice] = f.if?.split("=") ?? [];
  return !key || section[key] === choice;
}

function FieldInput({ f, section, change }: { f: Field; section: Section; change: (v: Partial<Section>) => void }) {
  const { document } = useWork();
  const limits = useLimits();
  const value = f.key
    .split(".")
    .reduce<unknown>((v, key) => (v as Record<string, unknown> | undefined)?.[key], section as unknown);
  const set = (v: unknown) => change(setPath(section, f.key, v));
  switch (f.kind) {
    case "choice":
      return (
        <Choice
          label={f.label}
          value={String(value ?? f.default ?? "")}
          options={[
            ...(f.default ? [] : [{ id: "", name: "as usual" }]),
            ...(f.choices ?? []).map((c) => ({ id: c, name: c.replaceAll("-", " ") })),
          ]}
          onSet={(v) => set(v || undefined)}
        />
      );
    case "length":
      return (
        <LengthInput
          label={f.label}
          mm={value as number | undefined}
          optional={!f.needed}
          fine={f.key.includes(".")}
          onSet={(v) => (v || !f.needed) && set(v)}
        />
      );
    case "cord":
      return (
        <Choice
          label={f.label}
          value={String(value ?? "")}
          options={document.cords.map((c) => ({ id: c.id, name: c.id }))}
          onSet={(v) => set(v)}
        />
      );
    case "colour":
      return <ColourInput label={f.label} value={String(value || "#c8a06a")} onSet={set} />;
    case "count":
    case "place":
      return (
        <NumberInput
          label={f.label}
          value={(value as number | undefined) ?? (f.default ? Number(f.default) : undefined)}
          whole
          optional={!f.needed}
          least={f.least || 1}
          most={f.most || limits.strands}
          onSet={set}
        />
      );
    case "places":
      return (
        <PlacesInput
          label={f.label}
          value={Array.isArray(value) ? (value as number[]) : []}
          onSet={(ps) => change({ [f.key]: ps.length > 0 ? ps : undefined })}
        />
      );
    case "cords": {
      const text = Array.isArray(value) ? value.join(" ") : "";
      return <CordsInput label={f.label} value={text} onSet={(words) => change({ [f.key]: words })} />;
    }
  }
  return null;
}

/** PlacesInput takes places counted from the left, all where none are named. */
export function PlacesInput({ label, value, onSet }: { label: string; value: number[]; onSet: (p: number[]) => void }) {
  const limits = useLimits();
  const read = (words: string[]): number[] | string => {
    if (words.length === 0 || (words.length === 1 && words[0].toLowerCase() === "all")) return [];
    const out: number[] = [];
    for (const w of words) {
      const run = w.match(/^(\d+)(?:-(\d+))?$/);
      if (!run) return `“${w}” is no place; write 1 2 3, 1-4 or all.`;
      const from = Number(run[1]);
      const to = Number(run[2] ?? run[1]);
      if (from < 1 || to < from || to > limits.strands)
        return `“${w}” is no place; they count from 1 to ${limits.strands}.`;
      for (let n = from; n <= to; n++) out.push(n);
    }
    return out;
  };
  return <WordsInput label={label} value={value.join(" ")} placeholder="all" read={read} onSet={onSet} />;
}

function CordsInput({ label, value, onSet }: { label: string; value: string; onSet: (words: string[]) => void }) {
  const { document } = useWork();
  const read = (words: string[]): string[] | string => {
    const wrong = words.find((w) => !document.cords.some((c) => c.id === w));
    if (!wrong) return words;
    return `There is no cord ${wrong}; there are ${document.cords.map((c) => c.id).join(", ")}.`;
  };
  return <WordsInput label={label} value={value} read={read} onSet={onSet} />;
}

interface WordsProps<T> {
  label: string;
  value: string;
  placeholder?: string;
  /** what the words mean, or a sentence about what is wrong with them */
  read: (words: string[]) => T[] | string;
  onSet: (v: T[]) => void;
}

/** WordsInput takes words with spaces between; what they cannot be is said where they stand. */
function WordsInput<T>({ label, value, placeholder, read, onSet }: WordsProps<T>) {
  const id = useId();
  const { wrong, input } = useDraft(value, (text) => {
    const got = read(text.split(/[\s,+]+/).filter(Boolean));
    if (typeof got === "string") return got;
    onSet(got);
    return "";
  });
  return (
    <div className="flex flex-col gap-1 text-sm">
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        className={`input input-sm figure w-full ${wrong ? "input-error" : ""}`}
        placeholder={placeholder}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        {...input}
      />
      {wrong && (
        <p id={`${id}-wrong`} role="alert" className="text-error text-xs">
          {wrong}
        </p>
      )}
    </div>
  );
}
