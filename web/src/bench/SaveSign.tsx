import { useWork } from "./work";

/** SaveSign says quietly how the last change fared, and loudly when it is not saved. */
export function SaveSign() {
  const { piece } = useWork();
  const { state, why } = piece;
  const words = {
    loading: "",
    saved: "saved",
    saving: "saving…",
    unsaved: `not saved yet: ${why}; it is tried again`,
    conflict: "two versions",
  }[state];
  const loud = state === "unsaved" || state === "conflict";
  return (
    <span className="flex min-w-0 items-center gap-1">
      <span
        role="status"
        data-testid="save-sign"
        data-state={state}
        className={`min-w-0 text-sm ${loud ? "rounded-field bg-warning px-2 py-0.5 text-warning-content" : "opacity-80"}`}
      >
        {words}
      </span>
      {state === "unsaved" && (
        <button type="button" className="btn btn-xs" onClick={piece.again}>
          Try now
        </button>
      )}
      {state === "conflict" && (
        <button type="button" className="btn btn-xs" onClick={() => piece.choose(true)}>
          Choose
        </button>
      )}
    </span>
  );
}
