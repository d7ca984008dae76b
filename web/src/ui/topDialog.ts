import { useSyncExternalStore } from "react";

// A modal dialog makes all of the page beside it inert. What must be reached all the same is
// put into the dialog that was opened last.

let open: readonly HTMLElement[] = [];
const listeners = new Set<() => void>();

function set(next: readonly HTMLElement[]) {
  open = next;
  for (const l of listeners) l();
}

/** opened tells that a dialog is open till the returned function is called. */
export function opened(dialog: HTMLElement) {
  set([...open, dialog]);
  return () => set(open.filter((d) => d !== dialog));
}

/** useTopDialog is the dialog that was opened last; null where none is open. */
export function useTopDialog(): HTMLElement | null {
  return useSyncExternalStore(
    (f) => {
      listeners.add(f);
      return () => listeners.delete(f);
    },
    () => open[open.length - 1] ?? null,
  );
}
