import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

/** After so long a wait is shown, and after so long it is said, ms. */
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
  const [state, setState] = useState<"none" | "shown" | "told">("none");
  useEffect(() => {
    let timers: ReturnType<typeof setTimeout>[] = [];
    let next: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      next = undefined;
      if (!waits(client)) {
        timers.forEach(clearTimeout);
        timers = [];
        setState("none");
      } else if (timers.length === 0) {
        timers = [setTimeout(() => setState("shown"), shown), setTimeout(() => setState("told"), told)];
      }
    };
    const heard = () => {
      next ??= setTimeout(look, gather);
    };
    const ends = [client.getQueryCache().subscribe(heard), client.getMutationCache().subscribe(heard)];
    heard();
    return () => {
      for (const end of ends) end();
      for (const t of [...timers, next]) clearTimeout(t);
    };
  }, [client]);
  if (state === "none") return null;
  return (
    <div className="no-print pointer-events-none fixed inset-x-0 top-0 z-50" data-testid="busy">
      <span aria-hidden="true" className="block h-1 bg-secondary" />
      {state === "told" && (
        <span
          role="status"
          className="mx-auto block w-fit rounded-b-field border border-base-content border-t-0 bg-base-100 px-2 text-sm"
        >
          Working…
        </span>
      )}
    </div>
  );
}
