import { type ReactNode, useEffect, useRef } from "react";

/** Dialog is a modal sheet that closes with Escape and gives the focus back. */
export function Dialog(p: { title: string; onClose: () => void; children: ReactNode; wide?: boolean }) {
  const box = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const d = box.current;
    if (d && !d.open) {
      d.showModal();
      d.querySelector<HTMLElement>("[data-focus]")?.focus();
    }
    return () => d?.close();
  }, []);
  return (
    <dialog
      ref={box}
      className={`m-auto max-h-[90vh] w-[calc(100%-2rem)] overflow-auto rounded-box border border-base-300 bg-base-100 p-5 text-base-content backdrop:bg-black/40 ${p.wide ? "max-w-4xl" : "max-w-lg"}`}
      aria-label={p.title}
      onCancel={(e) => {
        e.preventDefault();
        p.onClose();
      }}
    >
      <div className="mb-3 flex items-start justify-between gap-4">
        <h2 className="text-xl font-semibold">{p.title}</h2>
        <button type="button" className="btn btn-ghost btn-sm" onClick={p.onClose}>
          Close
        </button>
      </div>
      {p.children}
    </dialog>
  );
}
