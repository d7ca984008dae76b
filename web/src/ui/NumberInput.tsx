import { Field, type FieldProps } from "./Field";
import { useDraft } from "./useDraft";

interface Props extends FieldProps {
  value: number | undefined;
  onSet: (v: number | undefined) => void;
  least?: number;
  most?: number;
  /** no parts, like a count */
  whole?: boolean;
  /** it may be left empty: then it is not known */
  optional?: boolean;
  className?: string;
  /** the unit of readings that it takes */
  takes?: "g";
}

/** readNumber reads a number as it is written, with a point or a comma. */
export function readNumber(text: string): number | null {
  return /^\d+([.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(",", ".")) : null;
}

/** NumberInput takes a number; what is no number is refused where it stands, and nothing is made of it. */
export function NumberInput(p: Props) {
  const { value, onSet, least = 0, most = Number.MAX_SAFE_INTEGER, whole, optional, bare, className } = p;
  const { wrong, input } = useDraft(
    value === undefined ? "" : String(value),
    (text) => {
      const t = text.trim();
      if (t === "") {
        if (optional) onSet(undefined);
        return optional ? "" : "Write a number.";
      }
      const n = readNumber(t);
      if (n === null) return `“${t}” is no number.`;
      if (whole && !Number.isInteger(n)) return "Write a whole number.";
      if (n < least || n > most) return `It goes from ${least} to ${most.toLocaleString("en")}.`;
      onSet(n);
      return "";
    },
    p.path,
  );
  return (
    <Field label={p.label} bare={bare} path={p.path} wrong={wrong}>
      {(f) => (
        <input
          className={`input validator figure ${className ?? "input-sm w-full"}`}
          data-takes={p.takes}
          inputMode={whole ? "numeric" : "decimal"}
          onFocus={(e) => bare && e.target.select()}
          {...f}
          {...input}
          onKeyDown={(e) => (bare && e.key === "Enter" ? e.currentTarget.blur() : input.onKeyDown(e))}
        />
      )}
    </Field>
  );
}
