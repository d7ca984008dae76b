import { useState } from "react";
import { useChanged, useSettings } from "../api/queries";
import type { Document } from "../api/types.gen";
import { said } from "../ui/units";
import { useWork } from "./work";

/** decided is what of a piece its purpose and its cords decide. */
function decided(d: Document) {
  return JSON.stringify([d.purpose.kind, d.purpose.hangs_on, d.cords.map((c) => c.stuff)]);
}

/**
 * NoLonger says what no longer holds since another purpose or another cord was chosen, with the ways out. The
 * sequence stays as it is.
 */
export function NoLonger() {
  const { document, apply } = useWork();
  const { units } = useSettings();
  const [before, setBefore] = useState(document);
  const chosen = decided(before) !== decided(document);
  const changed = chosen || JSON.stringify(before.purpose) !== JSON.stringify(document.purpose);
  // What the sequence says now is held against what it was with the purpose and the cords from before.
  const was = { ...document, purpose: before.purpose, cords: before.cords };
  const told = useChanged(changed ? { before: was, after: document } : null).data ?? [];
  if (!changed || (!chosen && told.length === 0)) return null;
  return (
    <section
      aria-label="What no longer holds"
      aria-live="polite"
      className="flex flex-col gap-1 rounded-box border border-warning p-3 text-sm"
      data-testid="no-longer"
    >
      <h3 className="font-semibold">What no longer holds</h3>
      {told.length === 0 ? <p>Nothing: the sequence stays as it is, and all of it still holds.</p> : null}
      <ul className="flex flex-col gap-1">
        {told.map((c) => (
          <li key={c.section + c.says} className="flex flex-wrap items-center gap-2">
            <span className="min-w-0 flex-1">
              {c.where ? `${c.where} ` : ""}
              {said(c.says, units)}
            </span>
            {c.fix && (
              <button type="button" className="btn btn-outline btn-xs" onClick={() => c.fix && apply(c.fix)}>
                {c.fix.label}
              </button>
            )}
          </li>
        ))}
      </ul>
      <button type="button" className="btn btn-ghost btn-xs self-start" onClick={() => setBefore(document)}>
        Close this list
      </button>
    </section>
  );
}
