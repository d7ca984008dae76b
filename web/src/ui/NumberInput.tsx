import { useId } from "react";
import { useDraft } from "./useDraft";

interface Props {
  label: string;
  value: number | undefined;
  onSet: (v: number | undefined) => void;
  least?: number;
  most?: number;
  /** no parts, like a count */
  whole?: boolean;
  /** it may be left empty: then it is not known */
  optional?: boolean;
  /** only for screen readers, where the place says what it is */
  bare?: boolean;
  className?: string;
}

/** readNumber reads a number as it is written, with a point or a comma. */
export function readNumber(text: string): number | null {
  return /^\d+([.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(",", ".")) : null;
}

/** NumberInput takes a number; what is no number is refused where it stands, and nothing is made of it. */
export function NumberInput(p: Props) {
  const { label, value, onSet, least = 0, most = Number.MAX_SAFE_INTEGER, whole, optional, bare, className } = p;
  const id = useId();
  const written = value === undefined ? "" : String(value);
  const { wrong, input } = useDraft(written, (text) => {
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
  });
  return (
    <div className={bare ? "relative" : "flex flex-col gap-1"}>
      <label htmlFor={id} className={bare ? "sr-only" : "text-sm"}>
        {label}
      </label>
      <input
        id={id}
        className={`input figure ${wrong ? "input-error" : ""} ${className ?? "input-sm w-full"}`}
        inputMode={whole ? "numeric" : "decimal"}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        onFocus={(e) => bare && e.target.select()}
        {...input}
        onKeyDown={(e) => (bare && e.key === "Enter" ? e.currentTarget.blur() : input.onKeyDown(e))}
      />
      {wrong && (
        <p
          id={`${id}-wrong`}
          role="alert"
          className={`text-error text-xs ${bare ? "absolute top-full right-0 z-20 w-44 rounded-field border border-error bg-base-100 p-1" : ""}`}
        >
          {wrong}
        </p>
      )}
    </div>
  );
}
