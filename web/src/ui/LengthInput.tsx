import { useSettings } from "../api/queries";
import { Field, type FieldProps } from "./Field";
import { readLength, written } from "./units";
import { useDraft } from "./useDraft";

interface Props extends FieldProps {
  mm: number | undefined;
  onSet: (mm: number | undefined) => void;
  /** the field may be left empty */
  optional?: boolean;
  hint?: string;
  /** decimals of millimetres */
  fine?: boolean;
  /** nothing at all is a length too */
  zero?: boolean;
}

/** LengthInput takes a length as a maker writes it and hands it on when the field is left. */
export function LengthInput({ label, path, mm, onSet, optional, hint, fine, zero }: Props) {
  const { units } = useSettings();
  const none = zero && mm === 0 ? "0" : written(mm, units, fine);
  const { wrong, input } = useDraft(
    none,
    (text) => {
      const t = text.trim();
      const v = t === "" && optional ? undefined : zero && /^0+\s*(mm|cm|in)?$/.test(t) ? 0 : readLength(t, units);
      if (v === null) return units === "inch" ? "Write 4, 3/4 or 1-1/2 in, or 30 mm." : "Write 30, 3 cm or 1-1/2 in.";
      onSet(v);
      return "";
    },
    path,
  );
  return (
    <Field label={label} path={path} wrong={wrong} hint={hint}>
      {(f) => <input data-takes="mm" className="input input-sm validator figure w-full" {...f} {...input} />}
    </Field>
  );
}
