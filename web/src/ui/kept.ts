import { useCallback, useSyncExternalStore } from "react";

// What is kept in this browser by a name, and told to all who look at it: ticks on a list, what was just measured.

const heard = new Set<() => void>();

function listen(f: () => void) {
  heard.add(f);
  window.addEventListener("storage", f);
  return () => {
    heard.delete(f);
    window.removeEventListener("storage", f);
  };
}

/** useKept is a value that is kept by a name; what cannot be read is as if it were not there. */
export function useKept<T>(name: string, none: T): [T, (v: T) => void] {
  const raw = useSyncExternalStore(listen, () => localStorage.getItem(name));
  const keep = useCallback(
    (v: T) => {
      localStorage.setItem(name, JSON.stringify(v));
      for (const f of heard) f();
    },
    [name],
  );
  return [read(raw, none), keep];
}

function read<T>(raw: string | null, none: T): T {
  if (raw === null) return none;
  try {
    return JSON.parse(raw) as T;
  } catch {
    return none;
  }
}

/** Measured is what was measured of a tied piece and is not in its log yet. */
export interface Measured {
  length_mm?: number;
  width_mm?: number;
}

/** useMeasured is what was just measured of a piece. */
export function useMeasured(id: number) {
  return useKept<Measured>(`measured-${id}`, {});
}

/** useTicks keeps which lines of a list are ticked. */
export function useTicks(list: string) {
  const [ticks, keep] = useKept<string[]>(`ticks-${list}`, []);
  const tick = (key: string) => keep(ticks.includes(key) ? ticks.filter((k) => k !== key) : [...ticks, key]);
  return { ticks, tick, clear: () => keep([]) };
}
