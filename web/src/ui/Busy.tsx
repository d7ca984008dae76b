import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

/** After so long a wait is shown, and every so long it is said how long it has taken, ms. */
const shown = 100;
const told = 1000;

/** How often one looks while something is waited for, ms. */
const look = 50;

/** waited is all that is on its way and somebody waits for; what waits for the network itself is said elsewhere. */
function waited(client: QueryClient): object[] {
  const asked = client.getQueryCache().getAll();
  const changed = client.getMutationCache().getAll();
  return [
    ...asked.filter((q) => q.state.fetchStatus === "fetching" && q.state.data === undefined && q.isActive()),
    ...changed.filter((m) => m.state.status === "pending" && !m.state.isPaused && m.state.failureCount === 0),
  ];
}

/**
 * Busy shows that a change is being made or an answer looked for, by the one that has taken longest: many short
 * ones after one another, as the frames of a move, are no wait. It does not move.
 */
export function Busy() {
  const client = useQueryClient();
  // How long it has taken, in whole seconds; -1 where nothing is shown.
  const [seconds, setSeconds] = useState(-1);
  useEffect(() => {
    let since = new Map<object, number>();
    let next: ReturnType<typeof setTimeout> | undefined;
    const see = () => {
      const now = Date.now();
      since = new Map(waited(client).map((o) => [o, since.get(o) ?? now]));
      const longest = now - Math.min(now, ...since.values());
      setSeconds(longest < shown ? -1 : Math.floor(longest / told));
      next = since.size > 0 ? setTimeout(see, look) : undefined;
    };
    const heard = () => {
      next ??= setTimeout(see, look);
    };
    const ends = [client.getQueryCache().subscribe(heard), client.getMutationCache().subscribe(heard)];
    heard();
    return () => {
      for (const end of ends) end();
      clearTimeout(next);
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
