import { useCautionsRead, useReadCaution, useSettings } from "../api/queries";
import type { Caution } from "../api/types.gen";
import { Alert } from "./Alert";
import { said } from "./units";

/** Sign marks a caution, so that it is not known by its colour alone. */
function Sign() {
  return (
    <svg width="18" height="18" viewBox="0 0 16 16" aria-hidden="true" className="inline shrink-0 text-warning">
      <path d="M8 1l7 13H1z" fill="none" stroke="currentColor" strokeWidth="1.6" />
      <path d="M8 6v4M8 11.5v1" stroke="currentColor" strokeWidth="1.8" />
    </svg>
  );
}

/**
 * Cautions are those of a stage, or all that are given. One that was never read stands open till it is; from then on it is folded. None
 * can be put away unseen.
 */
export function Cautions({ all, at, large }: { all: Caution[]; at?: Caution["at"][number]; large?: boolean }) {
  const { units } = useSettings();
  const read = useCautionsRead();
  const note = useReadCaution();
  const here = all.filter((c) => !at || c.at.includes(at));
  if (here.length === 0 || !read) return null;
  return (
    <section aria-label="Safety" className="flex flex-col gap-1 rounded-box border border-warning p-3">
      <h3 className={large ? "font-semibold text-xl" : "font-semibold"}>Safety</h3>
      {here.map((c) =>
        read.includes(c.id) ? (
          <details key={c.id} className={large ? "text-lg" : "text-sm"} data-caution={c.id}>
            <summary className="min-h-6 cursor-pointer">
              <Sign /> {c.title}
            </summary>
            <p className="pl-6">{said(c.says, units)}</p>
          </details>
        ) : (
          <div key={c.id} className={large ? "text-lg" : "text-sm"} data-caution={c.id} data-open>
            <p>
              <Sign /> <strong>{c.title}.</strong> {said(c.says, units)}
            </p>
            <button
              type="button"
              className="btn btn-outline btn-xs mt-1"
              aria-label={`I have read it: ${c.title}`}
              disabled={note.isPending}
              onClick={() => note.mutate(c.id)}
            >
              I have read it
            </button>
          </div>
        ),
      )}
      {note.error && <Alert>{note.error.message}</Alert>}
    </section>
  );
}
