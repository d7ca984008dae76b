import { useId } from "react";
import { useSettings } from "../api/queries";
import { inches, readLength } from "./units";
import { useDraft } from "./useDraft";

interface Props {
  label: string;
  mm: number | undefined;
  onSet: (mm: number | undefined) => void;
  /** the field may be left empty */
  optional?: boolean;
  hint?: string;
  /** decimals of millimetres */
  fine?: boolean;
}

/** LengthInput takes a length as a maker writes it and hands it on when the field is left. */
export function LengthInput({ label, mm, onSet, optional, hint, fine }: Props) {
  const { units } = useSettings();
  const id = useId();
  const written =
    mm === undefined || mm === 0
      ? ""
      : units === "inch"
        ? `${inches(mm, fine ? 32 : 16)} in`
        : `${Number(mm.toFixed(fine ? 2 : 1))} mm`;
  const { wrong, input } = useDraft(written, (text) => {
    const v = text.trim() === "" && optional ? undefined : readLength(text, units);
    if (v === null) return units === "inch" ? "Write 4, 3/4 or 1-1/2 in, or 30 mm." : "Write 30, 3 cm or 1-1/2 in.";
    onSet(v);
    return "";
  });
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-sm">
        {label}
      </label>
      <input
        id={id}
        className={`input input-sm figure w-full ${wrong ? "input-error" : ""}`}
        aria-describedby={wrong || hint ? `${id}-hint` : undefined}
        {...input}
      />
      {(wrong || hint) && (
        <p id={`${id}-hint`} className={`text-xs ${wrong ? "text-error" : "opacity-80"}`}>
          {wrong || hint}
        </p>
      )}
    </div>
  );
}
