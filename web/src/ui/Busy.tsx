import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

/** After so long a wait is shown, and every so long it is said how long it has taken, ms. */
const shown = 100;
const told = 1000;

/** What happens within so long is looked at once, ms. */
const gather = 30;

/** waits tells whether something is on its way which somebody waits for; what waits for the network itself is said elsewhere. */
function waits(client: QueryClient): boolean {
  const asked = client.getQueryCache().getAll();
  const changed = client.getMutationCache().getAll();
  return (
    asked.some((q) => q.state.fetchStatus === "fetching" && q.state.data === undefined && q.getObserversCount() > 0) ||
    changed.some((m) => m.state.status === "pending" && !m.state.isPaused && m.state.failureCount === 0)
  );
}

/** Busy shows that a change is being made or an answer looked for. It does not move. */
export function Busy() {
  const client = useQueryClient();
  // The seconds that it has taken, -1 where nothing is shown.
  const [seconds, setSeconds] = useState(-1);
  useEffect(() => {
    let begun = 0;
    let first: ReturnType<typeof setTimeout> | undefined;
    let beat: ReturnType<typeof setInterval> | undefined;
    let next: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      next = undefined;
      if (!waits(client)) {
        clearTimeout(first);
        clearInterval(beat);
        begun = 0;
        setSeconds(-1);
      } else if (begun === 0) {
        begun = Date.now();
        first = setTimeout(() => setSeconds(0), shown);
        beat = setInterval(() => setSeconds(Math.round((Date.now() - begun) / told)), told);
      }
    };
    const heard = () => {
      next ??= setTimeout(look, gather);
    };
    const ends = [client.getQueryCache().subscribe(heard), client.getMutationCache().subscribe(heard)];
    heard();
    return () => {
      for (const end of ends) end();
      clearTimeout(first);
      clearTimeout(next);
      clearInterval(beat);
    };
  }, [client]);
  if (seconds < 0) return null;
  return (
    <div className="no-print pointer-events-none fixed inset-x-0 top-0 z-50" data-testid="busy">
      <span aria-hidden="true" className="block h-1 bg-secondary" />
      {seconds > 0 && (
        <span
          role="status"
          className="mx-auto block w-fit rounded-b-field border border-base-content border-t-0 bg-base-100 px-2 text-sm"
        >
          Working… <span aria-hidden="true">{seconds} s</span>
        </span>
      )}
    </div>
  );
}
