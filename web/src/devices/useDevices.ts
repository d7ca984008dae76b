import { useSyncExternalStore } from "react";
import { lines } from "../api/lines";
import type { Event as DeviceEvent } from "../api/types.gen";

// What comes from the devices: one line from the server for the whole page, told to all who look at it.

export type Kind = DeviceEvent["kind"];
export type { DeviceEvent };

interface Heard {
  /** how it stands with each device */
  states: readonly DeviceEvent[];
  /** the last label that was printed */
  label: readonly string[];
}

let heard: Heard = { states: [], label: [] };
const listeners = new Set<() => void>();
const takers = new Set<(e: DeviceEvent) => void>();

function take(e: DeviceEvent) {
  if (e.what === "state") {
    heard = { ...heard, states: [...heard.states.filter((s) => s.kind !== e.kind), e] };
  } else {
    if (e.what === "label") heard = { ...heard, label: e.label ?? [] };
    for (const t of takers) t(e);
  }
  for (const l of listeners) l();
}

/** onEvent calls back with what comes from a device till the returned function is called. */
export function onEvent(f: (e: DeviceEvent) => void) {
  takers.add(f);
  return () => {
    takers.delete(f);
  };
}

/** useHeard is what came from the devices. */
export function useHeard(): Heard {
  return useSyncExternalStore(
    (f) => {
      listeners.add(f);
      return () => listeners.delete(f);
    },
    () => heard,
  );
}

/** how long is waited before the line is taken up again, ms */
const again = 2000;

/** hear keeps the line to the server till the signal says stop. */
export async function hear(stop: AbortSignal) {
  while (!stop.aborted) {
    try {
      const answer = await fetch("/api/devices", { signal: stop });
      if (answer.ok) for await (const e of lines<DeviceEvent>(answer)) take(e);
    } catch {
      // The server is away, or the page goes: it is tried again or not.
    }
    if (!stop.aborted) await new Promise((r) => setTimeout(r, again));
  }
}
