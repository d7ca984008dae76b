import { type ReactNode, useLayoutEffect, useRef } from "react";
import { heading } from "./heading";
import { opener } from "./opener";
import { opened } from "./topDialog";

/** Dialog is a modal that closes with Escape or beside it, and gives the focus back. */
export function Dialog(p: { title: string; onClose: () => void; children: ReactNode; wide?: boolean }) {
  const box = useRef<HTMLDialogElement>(null);
  // Before it is seen: keys that are pressed at once are its own.
  useLayoutEffect(() => {
    const d = box.current;
    if (!d) return;
    const from = opener();
    if (!d.open) {
      d.showModal();
      // The way in is the first field, or the title; never a button, which the Enter that opened it would press.
      const first = ".modal-box :is(input, select, textarea):not(:disabled, .sr-only)";
      const way = ["[data-focus]", first, "h2"].map((s) => d.querySelector<HTMLElement>(s)).find(Boolean);
      way?.focus();
    }
    const closed = opened(d);
    return () => {
      closed();
      d.close();
      // Not at once: the Enter that closed it would press what it was opened from once more.
      requestAnimationFrame(() => {
        if (document.querySelector("dialog[open]")) return;
        // Where it was opened from may be gone by what was done in it.
        if (from?.isConnected) from.focus();
        else if (document.activeElement === document.body) heading()?.focus();
      });
    };
  }, []);
  return (
    <dialog
      ref={box}
      className="modal"
      aria-label={p.title}
      onCancel={(e) => {
        e.preventDefault();
        p.onClose();
      }}
    >
      <div
        className={`modal-box max-h-[90vh] w-[calc(100%-2rem)] border border-base-300 p-5 shadow-none ${p.wide ? "max-w-4xl" : "max-w-lg"}`}
      >
        <div className="mb-3 flex items-start justify-between gap-4">
          <h2 className="font-semibold text-xl" tabIndex={-1}>
            {p.title}
          </h2>
          <button type="button" className="btn btn-ghost btn-sm" onClick={p.onClose}>
            Close
          </button>
        </div>
        {p.children}
      </div>
      <form
        method="dialog"
        className="modal-backdrop"
        onSubmit={(e) => {
          e.preventDefault();
          p.onClose();
        }}
      >
        <button type="submit" tabIndex={-1} aria-hidden="true">
          Close
        </button>
      </form>
    </dialog>
  );
}
