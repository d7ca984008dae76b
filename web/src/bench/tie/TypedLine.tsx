import { useEffect, useState } from "react";
import type { Problem } from "../../api/types.gen";
import { useWork } from "../work";

/** TypedLine is the whole sequence as one line, for those who think faster than they click. */
export function TypedLine({ notation }: { notation: string }) {
  const { piece } = useWork();
  const [text, setText] = useState(notation);
  const [typing, setTyping] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  useEffect(() => {
    if (!typing) setText(notation);
  }, [notation, typing]);
  const save = async () => {
    if (text.trim() === notation.trim()) {
      setProblem(null);
      setTyping(false);
      return;
    }
    const p = await piece.spell(text);
    setProblem(p);
    if (!p) setTyping(false);
  };
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
        className={`textarea textarea-sm figure w-full leading-snug ${problem ? "textarea-error" : ""}`}
        rows={2}
        spellCheck={false}
        value={text}
        aria-invalid={problem !== null}
        aria-describedby="typed-line-hint"
        onChange={(e) => {
          setTyping(true);
          setText(e.target.value.replaceAll("\n", " "));
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter") {
            e.preventDefault();
            save();
          }
          if (e.key === "Escape") {
            setText(notation);
            setTyping(false);
            setProblem(null);
            e.currentTarget.blur();
          }
        }}
        onBlur={() => typing && save()}
      />
      <p
        id="typed-line-hint"
        className={`text-xs ${problem ? "text-error" : "opacity-80"}`}
        role={problem ? "alert" : undefined}
      >
        {problem ? (
          <>
            {slip && at >= 0 ? (
              <>
                At “<strong>{text.slice(at, at + 14)}</strong>”: {slip.message}.
              </>
            ) : (
              problem.detail
            )}{" "}
            Escape brings the saved line back.
          </>
        ) : (
          "Enter saves it. For example: square-knot 10 start=right, gap 12mm"
        )}
      </p>
    </div>
  );
}
