import type { Times } from "../api/types.gen";
import { Alert } from "../ui/Alert";
import { spent } from "../ui/units";

/** Pace is how long the piece has taken and will still take. */
export function Pace({ times }: { times: Times }) {
  const parts = [
    times.section_s >= 1 && `${spent(times.section_s)} in this section`,
    times.worked_s >= 1 && `${spent(times.worked_s)} in the piece`,
    times.pauses > 0 && `${times.pauses} pause${times.pauses === 1 ? "" : "s"}`,
  ].filter(Boolean);
  if (parts.length === 0 && times.left_s === undefined) return null;
  return (
    <p className="text-sm opacity-80" data-testid="pace">
      {parts.length > 0 && `So far ${parts.join(", ")}. `}
      {times.left_s !== undefined && times.left_s >= 1 && `About ${spent(times.left_s)} left at your pace.`}
    </p>
  );
}

/** Rest says that hands have worked for as long as the maker wants without a pause. */
export function Rest({ times }: { times: Times }) {
  return (
    <div data-testid="rest">
      <Alert kind="warning">
        Rest your hands: lay the work down, open and close them, shake them out. After {spent(times.pause_s)} without a
        step the count begins anew.
      </Alert>
    </div>
  );
}
