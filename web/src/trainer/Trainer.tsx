import { Link } from "wouter";
import { useTrained } from "../api/queries";
import type { Trained } from "../api/types.gen";
import { Problems } from "../ui/Problems";
import { SettingsMenu } from "../ui/SettingsMenu";
import { useTitle } from "../ui/useTitle";

/** Trainer lists the knots that can be led: what is due, and how surely each is known. */
export function Trainer() {
  const all = useTrained();
  useTitle("Trainer");
  const due = (all.data ?? []).filter((t) => t.is_due).length;
  return (
    <div className="screen flex h-full flex-col">
      <header className="flex flex-wrap items-center gap-3 border-base-300 border-b px-4 py-2">
        <Link href="/" className="btn btn-ghost btn-sm">
          <span aria-hidden="true">&larr;</span> Rack
        </Link>
        <h1 className="font-bold text-xl">Trainer</h1>
        <span className="flex-1" />
        <SettingsMenu />
      </header>
      <main className="min-h-0 flex-1 overflow-y-auto p-4">
        <div className="mx-auto flex max-w-3xl flex-col gap-3">
          <p>
            Lead the strands of a loose knot yourself, over or under at each crossing. What you lead without a slip
            comes again later each time; a slip brings it back at once.
          </p>
          <Problems error={all.error} />
          {all.isPending && (
            <p role="status" data-wait>
              Laying the knots out…
            </p>
          )}
          {all.data && (
            <p role="status" data-testid="due">
              {due === 0 ? "Nothing is due." : `${due} of ${all.data.length} knots are due.`}
            </p>
          )}
          <ul className="flex flex-col gap-2" data-testid="lessons">
            {(all.data ?? []).map((t) => (
              <Known key={t.knot} t={t} />
            ))}
          </ul>
        </div>
      </main>
    </div>
  );
}

/** days is when a knot is due, in words. */
export function days(t: Trained): string {
  if (t.is_due) return t.led ? "due now" : "not led yet";
  const n = Math.max(1, Math.round((Date.parse(t.due) - Date.now()) / 86_400_000));
  return n === 1 ? "due in 1 day" : `due in ${n} days`;
}

function Known({ t }: { t: Trained }) {
  const sure = Math.round(100 * t.sure);
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 rounded-box border border-base-300 p-3">
      <Link href={`/trainer/${t.knot}`} className="btn btn-sm">
        Lead the {t.name}
      </Link>
      <span className="min-w-56 flex-1 text-sm">
        {t.crossings} crossings, {t.strands} strand{t.strands === 1 ? "" : "s"}; {days(t)}
        {t.led > 0 && `; led ${t.led} time${t.led === 1 ? "" : "s"}, ${t.slips} slip${t.slips === 1 ? "" : "s"}`}
      </span>
      <span className="flex items-center gap-2 text-sm">
        <meter min={0} max={100} value={sure} className="w-24" aria-label={`How surely the ${t.name} is known`}>
          {sure} %
        </meter>
        <span className="figure w-12 text-right">{sure} %</span>
      </span>
    </li>
  );
}
