import { useEffect, useRef, useState } from "react";
import { useCatalogue } from "../../api/queries";
import type { Problem } from "../../api/types.gen";
import { setPath, useWork } from "../work";

/** TypedLine is the whole sequence as one line, for those who think faster than they click. */
export function TypedLine({ notation }: { notation: string }) {
  const { piece, document, edit } = useWork();
  const example = useCatalogue().data?.example ?? "";
  const [text, setText] = useState(notation);
  const [typing, setTyping] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  // The line that the problem is of; what is typed since stands elsewhere.
  const [asked, setAsked] = useState("");
  const dropped = useRef(false);
  const latest = useRef(text); // what is typed while a save is under way is not lost
  useEffect(() => {
    if (!typing) setText(notation);
  }, [notation, typing]);
  const [asking, setAsking] = useState(false);
  const blank = /^[\s,]*$/.test(text);
  const save = async (sure = false) => {
    if (blank && notation.trim() !== "" && !sure) {
      setAsking(true);
      return;
    }
    setAsking(false);
    if (text.trim() === notation.trim()) {
      setProblem(null);
      setTyping(false);
      return;
    }
    setAsked(text);
    const p = await piece.spell(text);
    setProblem(p);
    if (!p && latest.current.trim() === text.trim()) setTyping(false);
  };
  const first = problem?.errors?.[0];
  const slip = problem?.errors?.find((e) => e.path === "line");
  const at = slip?.column ? slip.column - 1 : -1;
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor="typed-line" className="text-sm">
        The sequence, typed
      </label>
      <textarea
        id="typed-line"
        data-testid="typed-line"
        className={`textarea textarea-sm figure field-sizing-content max-h-32 min-h-0 w-full leading-snug ${problem ? "textarea-error" : ""}`}
        rows={2}
        spellCheck={false}
        value={text}
        aria-invalid={problem !== null}
        aria-describedby="typed-line-hint"
        onChange={(e) => {
          setTyping(true);
          latest.current = e.target.value.replaceAll("\n", " ");
          setText(latest.current);
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter") {
            e.preventDefault();
            save();
          }
          if (e.key === "Escape") {
            setText(notation);
            setTyping(false);
            setAsking(false);
            setProblem(null);
            dropped.current = true; // leaving it does not save it
            e.currentTarget.blur();
          }
        }}
        onBlur={() => {
          if (typing && !blank && !dropped.current) save();
          dropped.current = false;
        }}
      />
      {asking && (
        <p
          role="alert"
          className="alert alert-warning alert-outline flex flex-wrap px-3 py-1.5 text-sm"
          data-testid="asking"
        >
          <span className="flex-1">The line is empty. Delete all {document.sequence.length} sections?</span>
          <button type="button" className="btn btn-xs" onClick={() => save(true)}>
            Delete them
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            onClick={() => {
              setText(notation);
              setTyping(false);
              setAsking(false);
            }}
          >
            Cancel
          </button>
        </p>
      )}
      <p
        id="typed-line-hint"
        className={`text-xs ${problem ? "text-error" : "opacity-80"}`}
        role={problem ? "alert" : undefined}
      >
        {first?.fix && (
          <button
            type="button"
            className="btn btn-outline btn-xs mb-1"
            onClick={() => {
              const fix = first.fix;
              if (!fix) return;
              edit((d) => fix.set.reduce((doc, s) => setPath(doc, s.path, s.value), d));
              save();
            }}
          >
            {first.fix.label}
          </button>
        )}
        {problem ? (
          <>
            {slip && at >= 0 ? (
              <>
                At “<strong>{asked.slice(at, at + 14)}</strong>”: {slip.message}.
              </>
            ) : (problem.errors?.length ?? 0) > 0 ? (
              problem.errors?.map((e) => (
                <span key={e.path + e.message} className="block">
                  <strong className="first-letter:uppercase">{e.where ?? e.path}</strong> {e.message}.
                </span>
              ))
            ) : (
              problem.detail
            )}{" "}
            Escape brings the saved line back.
          </>
        ) : (
          `Enter saves it. For example: ${example}`
        )}
      </p>
    </div>
  );
}
