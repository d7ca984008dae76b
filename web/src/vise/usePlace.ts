import { MutationObserver, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, Failed, passes, whyNot } from "../api/client";
import { away, reached } from "../api/reach";
import type { PlaceAnswer, Plan, Taken, Times } from "../api/types.gen";
import { placePutBy } from "./putBy";
import { placeSaid } from "./steps";

/** how often one looks whether another device has gone on, ms */
const look = 4000;

/** device is how this window calls itself to the others. */
function device(): string {
  const key = "nimble-bight.device";
  let name = localStorage.getItem(key);
  if (!name) {
    const touch = window.matchMedia("(pointer: coarse)").matches;
    const kind = !touch ? "computer" : Math.min(window.innerWidth, window.innerHeight) < 600 ? "phone" : "tablet";
    name = `${kind} ${Math.floor(Math.random() * 900 + 100)}`;
    localStorage.setItem(key, name);
  }
  return name;
}

/** Way is the way that was gone here and may not be sent yet; it outlives this window. */
interface Way {
  revision: number;
  /** the place that the server holds, and the one that was come to */
  known: number;
  want: number;
  steps: Taken[];
  /** when the last step was taken, ms */
  last: number;
}

const wayKey = (id: number) => `nimble-bight.way.${id}`;
const countKey = "nimble-bight.steps";

function readWay(id: number): Way | null {
  try {
    const w = JSON.parse(localStorage.getItem(wayKey(id)) ?? "null");
    return w && Number.isInteger(w.want) && Number.isInteger(w.known) && Array.isArray(w.steps) ? w : null;
  } catch {
    return null; // spoilt: as if it were not there
  }
}

/** nextStep numbers the steps of this device. */
function nextStep(): number {
  const n = Number(localStorage.getItem(countKey) ?? 0) + 1;
  localStorage.setItem(countKey, String(n));
  return n;
}

/** where says on what the place was set last. */
function where(a: PlaceAnswer): string {
  return a.device && a.device !== device() ? `On ${a.device}` : "In another window";
}

/** begun is the way that stands at first: the one that was not sent yet, where it is of this revision. */
function begun(id: number, revision: number, start: number): Way {
  const kept = readWay(id);
  const fits = kept?.revision === revision;
  return {
    revision,
    known: fits ? kept.known : start,
    want: fits && kept.want !== kept.known ? kept.want : start,
    steps: fits ? kept.steps : [],
    last: kept?.last ?? Date.now(),
  };
}

/**
 * usePlace is the place at the vise. It goes on at once, and is sent from where the server holds it, one step
 * after the other; where another device has gone further, the place is that one's and both say so.
 */
export function usePlace(id: number, revision: number, plan: Plan, start: number, reopen: () => void) {
  const { actions } = plan;
  const least = -plan.ready.length;
  const client = useQueryClient();
  const [first] = useState(() => begun(id, revision, start));
  const [done, set] = useState(Math.max(least, Math.min(first.want, actions)));
  const [times, setTimes] = useState<Times | null>(null);
  const [state, setState] = useState<"kept" | "keeping" | "unsaved">(first.want === first.known ? "kept" : "keeping");
  const [why, setWhy] = useState("");
  const [note, setNote] = useState("");
  // The piece is another one since the place was left here; where nothing was begun, that says nothing.
  const [moved, setMoved] = useState(() => {
    const seen = readWay(id);
    return seen !== null && seen.revision !== revision && seen.want > least;
  });
  // What is sent; nothing of it is drawn.
  const now = useRef(first);
  const keep = useCallback(() => localStorage.setItem(wayKey(id), JSON.stringify(now.current)), [id]);

  const take = useCallback(
    (place: number, why: string) => {
      now.current.known = place;
      now.current.want = place;
      keep();
      set(place);
      setNote(why);
    },
    [keep],
  );

  const key = useMemo(() => ["place", id], [id]);
  const send = useCallback(async () => {
    const n = now.current;
    if (n.want === n.known) return; // one that was sent before took it along
    const to = n.want;
    const steps = n.steps;
    try {
      const a = await api.put<PlaceAnswer>(`/pieces/${id}/place`, {
        from: n.known,
        done: to,
        revision: n.revision,
        device: device(),
        steps,
      });
      reached();
      n.known = a.done;
      n.steps = n.steps.slice(steps.length);
      keep();
      await placePutBy(id, n.revision, a.done).catch(() => undefined); // where the browser keeps nothing
      if (a.times) setTimes(a.times);
      if (a.elsewhere) {
        take(
          a.done,
          a.done > to
            ? `${where(a)} the piece has come further; this is that place.`
            : `${where(a)} the piece was worked on too; yours is further, and holds there as well.`,
        );
      }
      if (n.want === n.known) setState("kept");
      client.invalidateQueries({ queryKey: ["tags"], refetchType: "none" });
    } catch (e) {
      if (e instanceof Failed && e.problem.status === 409 && e.problem.current) {
        n.steps = [];
        take(e.problem.current.done, "The piece was changed in another window.");
        setState("kept");
        reopen();
        return;
      }
      setState("unsaved");
      if (!passes(e)) {
        setWhy(e instanceof Error ? e.message : "it was refused");
        return;
      }
      setWhy(`${whyNot(e)}; it is tried again`);
      away(e instanceof Failed ? e.after * 1000 : 0);
      throw e;
    }
  }, [id, client, take, keep, reopen]);

  // One after the other; while the server is out of reach they wait.
  const queue = useCallback(() => {
    new MutationObserver(client, {
      mutationKey: key,
      scope: { id: key.join(" ") },
      networkMode: "online",
      mutationFn: send,
      retry: true,
      retryDelay: 0,
      gcTime: 0,
    }).mutate();
  }, [client, key, send]);

  // Another revision has other actions: the server has carried the place over.
  useEffect(() => {
    const n = now.current;
    if (n.revision === revision) return;
    n.revision = revision;
    n.known = start;
    n.want = Math.max(least, Math.min(start, actions));
    n.steps = []; // they count other actions
    keep();
    set(n.want);
    setMoved(true);
  }, [revision, start, actions, least, keep]);

  // What a window before this one could not send goes now.
  useEffect(() => {
    if (now.current.want !== now.current.known) queue();
  }, [queue]);

  useEffect(() => {
    const n = now.current;
    const waits = () => n.want !== n.known || client.isMutating({ mutationKey: key }) > 0;
    const ask = async () => {
      if (waits() || document.visibilityState !== "visible") return;
      try {
        const a = await api.get<PlaceAnswer>(`/pieces/${id}/place`);
        if (waits()) return;
        if (a.times) setTimes(a.times);
        if (a.revision !== n.revision) {
          setNote("The piece was changed in another window.");
          reopen();
        } else if (a.done !== n.known) {
          take(a.done, `${where(a)} the piece has gone on; this is that place.`);
        }
      } catch {
        // Out of reach: the next step says so.
      }
    };
    const beat = setInterval(ask, look);
    ask();
    return () => clearInterval(beat);
  }, [id, client, key, take, reopen]);

  const setDone = useCallback(
    (f: (n: number) => number) => {
      const n = now.current;
      const next = Math.max(least, Math.min(actions, f(n.want)));
      if (next === n.want) return;
      const at = Date.now();
      n.steps = [...n.steps, { n: nextStep(), from: n.want, to: next, after_s: Math.max(0, at - n.last) / 1000 }];
      n.last = at;
      n.want = next;
      keep();
      set(next);
      setNote("");
      setMoved(false);
      setState((s) => (s === "unsaved" ? s : "keeping"));
      queue();
    },
    [actions, least, queue, keep],
  );
  const told = moved ? `The piece was changed since. ${placeSaid(plan, done)}` : note;
  return { done, setDone, state, why, note: told, times };
}
