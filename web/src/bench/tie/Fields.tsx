import { useState } from "react";
import { useLimits } from "../../api/queries";
import type { Bead, CatalogueKnot, Field, Section } from "../../api/types.gen";
import { ColourInput } from "../../ui/ColourInput";
import { type FieldProps, Field as Labelled } from "../../ui/Field";
import { Choice } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { useDraft } from "../../ui/useDraft";
import { Drawer } from "../stuff/Drawer";
import { setPath, useWork } from "../work";

interface Props {
  /** of the section in the document */
  path: string;
  section: Section;
  change: (v: Partial<Section>) => void;
}

/** Fields are the settings of a section beside its count, as the catalogue names them. */
export function Fields({ k, path, section, change }: Props & { k: CatalogueKnot }) {
  return (
    <div className="grid grid-cols-2 gap-2">
      {k.fields
        .filter((f) => counts(f, section))
        .map((f) => (
          <FieldInput key={f.key} f={f} path={path} section={section} change={change} />
        ))}
      {k.fields.some((f) => f.key === "bead.hole_mm" && counts(f, section)) && (
        <BeadFromDrawer onBead={(bead) => change({ bead })} />
      )}
      {k.repeats && k.holds !== "again" && (
        <LengthInput
          label="or fill a length"
          path={`${path}.fit_mm`}
          optional
          mm={section.fit_mm}
          onSet={(v) => change(v ? { fit_mm: v, count: undefined } : { fit_mm: undefined, count: section.count || 1 })}
        />
      )}
    </div>
  );
}

/** BeadFromDrawer takes a bead that the maker has. */
function BeadFromDrawer({ onBead }: { onBead: (b: Bead) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="btn btn-xs col-span-2 justify-self-start" onClick={() => setOpen(true)}>
        A bead from the drawer
      </button>
      {open && (
        <Drawer
          shelf="beads"
          onClose={() => setOpen(false)}
          onBead={(b) => {
            onBead(b);
            setOpen(false);
          }}
        />
      )}
    </>
  );
}

type Shown = Pick<FieldProps, "label" | "path">;

/** counts tells whether a field means anything with the choices that are made. */
function counts(f: Field, section: Section): boolean {
  const [key, choices] = f.if?.split("=") ?? [];
  return !key || choices.split(",").includes(String(section[key]));
}

function FieldInput({ f, path, section, change }: Props & { f: Field }) {
  const { document } = useWork();
  const limits = useLimits();
  const value = f.key
    .split(".")
    .reduce<unknown>((v, key) => (v as Record<string, unknown> | undefined)?.[key], section as unknown);
  const set = (v: unknown) => change(setPath(section, f.key, v));
  const shown = { label: f.label, path: `${path}.${f.key}` };
  switch (f.kind) {
    case "choice":
      return (
        <Choice
          {...shown}
          value={String(value ?? f.default ?? "")}
          options={[
            ...(f.default ? [] : [{ id: "", name: "Default" }]),
            ...(f.choices ?? []).map((c) => ({ id: c, name: c.replaceAll("-", " ") })),
          ]}
          onSet={(v) => set(v || undefined)}
        />
      );
    case "length":
      return (
        <LengthInput
          {...shown}
          mm={value as number | undefined}
          optional={!f.needed}
          fine={f.key.includes(".")}
          onSet={(v) => (v || !f.needed) && set(v)}
        />
      );
    case "cord":
      return (
        <Choice
          {...shown}
          value={String(value ?? "")}
          options={document.cords.map((c) => ({ id: c.id, name: c.id }))}
          onSet={(v) => set(v)}
        />
      );
    case "colour":
      return <ColourInput {...shown} value={String(value || "#c8a06a")} onSet={set} />;
    case "count":
    case "place":
      return (
        <NumberInput
          {...shown}
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
          {...shown}
          value={Array.isArray(value) ? (value as number[]) : []}
          onSet={(ps) => change({ [f.key]: ps.length > 0 ? ps : undefined })}
        />
      );
    case "cords": {
      const text = Array.isArray(value) ? value.join(" ") : "";
      return <CordsInput {...shown} value={text} onSet={(words) => change({ [f.key]: words })} />;
    }
  }
  return null;
}

/** PlacesInput takes places counted from the left, all where none are named. */
export function PlacesInput({ value, onSet, ...shown }: Shown & { value: number[]; onSet: (p: number[]) => void }) {
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
  return <WordsInput {...shown} value={value.join(" ")} placeholder="all" read={read} onSet={onSet} />;
}

function CordsInput({ value, onSet, ...shown }: Shown & { value: string; onSet: (words: string[]) => void }) {
  const { document } = useWork();
  const read = (words: string[]): string[] | string => {
    const wrong = words.find((w) => !document.cords.some((c) => c.id === w));
    if (!wrong) return words;
    return `There is no cord ${wrong}; there are ${document.cords.map((c) => c.id).join(", ")}.`;
  };
  return <WordsInput {...shown} value={value} read={read} onSet={onSet} />;
}

interface WordsProps<T> extends Shown {
  value: string;
  placeholder?: string;
  /** what the words mean, or a sentence about what is wrong with them */
  read: (words: string[]) => T[] | string;
  onSet: (v: T[]) => void;
}

/** WordsInput takes words with spaces between; what they cannot be is said where they stand. */
function WordsInput<T>({ label, path, value, placeholder, read, onSet }: WordsProps<T>) {
  const { wrong, input } = useDraft(
    value,
    (text) => {
      const got = read(text.split(/[\s,+]+/).filter(Boolean));
      if (typeof got === "string") return got;
      onSet(got);
      return "";
    },
    path,
  );
  return (
    <Labelled label={label} path={path} wrong={wrong}>
      {(f) => <input className="input input-sm validator figure w-full" placeholder={placeholder} {...f} {...input} />}
    </Labelled>
  );
}
