import type { CatalogueKnot, Field, Section } from "../../api/types.gen";
import { Choice } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
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
        .filter((f) => !f.key.startsWith("bead.") || section.do === "bead" || section.inside === "bead")
        .map((f) => (
          <FieldInput key={f.key} f={f} section={section} change={change} />
        ))}
      {k.repeats && k.id !== "repeat" && (
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
      return (
        <label className="flex flex-col gap-1 text-sm">
          {f.label}
          <input
            type="color"
            className="input input-sm w-full p-0.5"
            value={String(value || "#c8a06a")}
            onChange={(e) => set(e.target.value)}
          />
        </label>
      );
    case "count":
    case "place":
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
              if (e.target.value === "" && !f.needed) set(undefined);
              else if (Number.isInteger(n) && n > 0) set(n);
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
