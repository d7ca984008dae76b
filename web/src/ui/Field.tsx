import { type ReactNode, useId } from "react";
import { useRefusal } from "./refusals";

export interface FieldProps {
  label: string;
  /** the label is only for screen readers, where the place says what it is */
  bare?: boolean;
  /** of its value in the document, so that a refusal of the server is said here */
  path?: string;
}

/** What an input of a field carries. */
interface Input {
  id: string;
  "aria-invalid": boolean;
  "aria-describedby": string | undefined;
}

/** Field is an input with its name above it and, below, what was refused or a hint. */
export function Field(
  p: FieldProps & { wrong?: string; hint?: string; as?: string; children: (input: Input) => ReactNode },
) {
  const id = useId();
  const refused = useRefusal(p.path);
  const wrong = p.wrong || refused;
  const said = wrong || p.hint;
  return (
    <div className={p.bare ? "relative" : "fieldset grid-rows-[1fr_auto] content-start gap-1 p-0"}>
      <label htmlFor={id} className={p.bare ? "sr-only" : "fieldset-legend items-end p-0 font-normal text-sm"}>
        {p.label}
      </label>
      {p.children({ id, "aria-invalid": wrong !== "", "aria-describedby": said ? `${id}-said` : undefined })}
      {said && (
        <p
          id={`${id}-said`}
          role={wrong ? "alert" : undefined}
          className={`mt-0 text-xs ${wrong ? "validator-hint" : "opacity-80"} ${p.bare ? "absolute top-full right-0 z-20 w-44 rounded-field border border-error bg-base-100 p-1" : ""}`}
        >
          {said}
        </p>
      )}
    </div>
  );
}
