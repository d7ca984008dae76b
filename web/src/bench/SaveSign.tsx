import { useWork } from "./work";

const words = {
  saved: "saved",
  saving: "saving…",
  offline: "not saved yet: the server is out of reach; it will be tried again",
  conflict: "two versions",
} as const;

/** SaveSign says quietly how the last change fared. */
export function SaveSign() {
  const { piece } = useWork();
  const loud = piece.state === "offline" || piece.state === "conflict";
  return (
    <span
      role="status"
      data-testid="save-sign"
      data-state={piece.state}
      className={`text-sm ${loud ? "rounded-field bg-warning px-2 py-0.5 text-warning-content" : "opacity-80"}`}
    >
      {words[piece.state]}
    </span>
  );
}
