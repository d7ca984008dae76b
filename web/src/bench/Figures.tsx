import { Failed } from "../api/client";
import { useSettings } from "../api/queries";
import type { Side } from "../hang/Hang";
import { Alert } from "../ui/Alert";
import { length, said } from "../ui/units";
import { Announce } from "./Announce";
import { useWork } from "./work";

/** sides are the ways to look at a piece; those of what goes round only where something does. */
function sides(around: boolean): Side[] {
  return around ? ["face", "back", "both", "turned", "end", "unrolled"] : ["face", "back", "both", "turned"];
}

/** Figures are what matters of the piece, over the hang: length, weight, and what will go wrong. */
export function Figures() {
  const { plan, planError, document, apply, setLit, drawing, side, setSide, lens, toggleLens } = useWork();
  const { units } = useSettings();
  return (
    <div className="flex flex-col gap-1 border-base-300 border-b px-3 py-1.5">
      <Announce />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        {plan ? (
          <dl className="flex flex-wrap items-baseline gap-x-4" data-testid="figures">
            <Figure name="long" value={length(plan.length_mm, units)} strong />
            {document.purpose.length_mm ? (
              <Figure name="wanted" value={length(document.purpose.length_mm, units)} />
            ) : null}
            <Figure name="wide" value={length(plan.width_mm, units)} />
            <Figure name="weighs" value={`${plan.weight_g.toFixed(1)} g`} />
          </dl>
        ) : (
          <p className="text-sm">{planError ? "" : "Working it out…"}</p>
        )}
        <span className="flex-1" />
        {plan?.left_handed && (
          <span className="rounded-field border border-base-content px-1.5 text-xs">mirrored for the left hand</span>
        )}
        <fieldset className="join">
          <legend className="sr-only">Side shown</legend>
          {sides(plan?.sections.some((s) => s.around) ?? false).map((s) => (
            <button
              key={s}
              type="button"
              aria-pressed={side === s}
              className={`btn join-item btn-xs ${side === s ? "btn-neutral" : ""}`}
              onClick={() => setSide(s)}
            >
              {s === "end" ? "from the end" : s}
            </button>
          ))}
        </fieldset>
        <button
          type="button"
          aria-pressed={lens}
          className={`btn btn-xs ${lens ? "btn-neutral" : ""}`}
          onClick={toggleLens}
        >
          lens
        </button>
      </div>
      {drawing && (
        <p role="status" className="text-sm" data-testid="drawing">
          A knot is being drawn up for just these cords: {drawing}.
        </p>
      )}
      {planError && <Refused error={planError} />}
      {plan && plan.warnings.length > 0 && (
        <ul className="flex max-h-24 flex-col gap-1 overflow-y-auto" aria-label="Warnings" data-testid="warnings">
          {plan.warnings.map((w) => (
            <li
              key={w.code + w.section + w.message}
              className="flex flex-wrap items-center gap-2 text-sm"
              onPointerEnter={() => setLit(w.section >= 0 ? w.section : null)}
              onPointerLeave={() => setLit(null)}
            >
              <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" className="shrink-0 text-warning">
                <path d="M8 1l7 13H1z" fill="none" stroke="currentColor" strokeWidth="1.6" />
                <path d="M8 6v4M8 11.5v1" stroke="currentColor" strokeWidth="1.8" />
              </svg>
              <span className="min-w-0 flex-1">{said(w.message, units)}</span>
              {w.fix && (
                <button type="button" className="btn btn-outline btn-xs" onClick={() => w.fix && apply(w.fix)}>
                  {w.fix.label}
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function Figure({ name, value, strong }: { name: string; value: string; strong?: boolean }) {
  return (
    <div className="flex items-baseline gap-1.5">
      <dt className="text-sm opacity-80">{name}</dt>
      <dd className={`figure ${strong ? "font-bold text-xl" : ""}`}>{value}</dd>
    </div>
  );
}

/** Refused says what cannot be tied, where, and offers the way out. */
function Refused({ error }: { error: Error }) {
  const { apply } = useWork();
  const problems = error instanceof Failed ? (error.problem.errors ?? []) : [];
  if (problems.length === 0) {
    return <Alert>{error.message}</Alert>;
  }
  return (
    <ul role="alert" aria-label="Errors" className="flex flex-col gap-1" data-testid="refused">
      {problems.map((p) => (
        <li key={p.path + p.message} className="flex flex-wrap items-center gap-2 text-sm">
          <span className="min-w-0 flex-1 text-error">
            {p.where ? <strong className="first-letter:uppercase">{p.where}</strong> : p.path} {p.message}. The picture
            and the cords are still those of before.
          </span>
          {p.fix && (
            <button type="button" className="btn btn-outline btn-xs" onClick={() => p.fix && apply(p.fix)}>
              {p.fix.label}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
