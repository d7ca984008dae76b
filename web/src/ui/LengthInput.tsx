import { useEffect, useId, useState } from "react";
import { useSettings } from "../api/queries";
import { inches, readLength } from "./units";

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
  const [text, setText] = useState(written);
  const [wrong, setWrong] = useState(false);
  useEffect(() => {
    setText(written);
    setWrong(false);
  }, [written]);
  const done = () => {
    if (text === written) return;
    if (text.trim() === "" && optional) {
      onSet(undefined);
      return;
    }
    const v = readLength(text, units);
    if (v === null) {
      setWrong(true);
      return;
    }
    setWrong(false);
    onSet(v);
    setText(written);
  };
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-sm">
        {label}
      </label>
      <input
        id={id}
        className={`input input-sm figure w-full ${wrong ? "input-error" : ""}`}
        value={text}
        aria-invalid={wrong}
        aria-describedby={wrong || hint ? `${id}-hint` : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => {
          if (e.key === "Enter") done();
          if (e.key === "Escape") {
            setText(written);
            setWrong(false);
          }
        }}
      />
      {(wrong || hint) && (
        <p id={`${id}-hint`} className={`text-xs ${wrong ? "text-error" : "opacity-80"}`}>
          {wrong ? (units === "inch" ? "Write 4, 3/4 or 1-1/2 in, or 30 mm." : "Write 30, 3 cm or 1-1/2 in.") : hint}
        </p>
      )}
    </div>
  );
}
