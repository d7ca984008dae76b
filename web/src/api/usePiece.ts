import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, Failed, Offline } from "./client";
import type { Bench, Document, Problem } from "./types.gen";

export type SaveState = "saved" | "saving" | "offline" | "conflict";

interface Unsent {
  revision: number;
  document: Document;
}

const shelf = (id: number) => `nimble-bight.unsent.${id}`;

/**
 * usePiece holds one piece on the bench. Every edit shows at once and is sent
 * as a revision of its own, one after the other; what could not be sent stays
 * on the shelf of the browser until it can.
 */
export function usePiece(id: number) {
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ["piece", id],
    queryFn: () => api.get<Bench>(`/pieces/${id}`),
    staleTime: Infinity,
    retry: (n, e) => e instanceof Offline && n < 2,
  });
  const [state, setState] = useState<SaveState>("saved");
  const [conflict, setConflict] = useState<Problem | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  // What was edited and not yet acknowledged, oldest first.
  const queue = useRef<Document[]>([]);
  const shown = useRef<Document | undefined>(undefined);
  const acknowledged = useRef<Bench | undefined>(undefined);
  const busy = useRef(false);
  const sending = useRef<Promise<void>>(Promise.resolve());
  // A typed line on its way; edits made meanwhile come after it.
  const spelling = useRef<Promise<unknown> | null>(null);
  const [, redraw] = useState(0);

  if (query.data && acknowledged.current === undefined) acknowledged.current = query.data;

  const keep = useCallback(() => {
    const last = queue.current.at(-1);
    if (last && acknowledged.current) {
      const unsent: Unsent = { revision: acknowledged.current.revision, document: last };
      localStorage.setItem(shelf(id), JSON.stringify(unsent));
    } else {
      localStorage.removeItem(shelf(id));
    }
  }, [id]);

  const acknowledge = useCallback(
    (b: Bench) => {
      acknowledged.current = b;
      client.setQueryData(["piece", id], b);
      client.invalidateQueries({ queryKey: ["tags"], refetchType: "none" }); // the rack asks again when it is next seen
    },
    [client, id],
  );

  const send = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    try {
      while (queue.current.length > 0 && acknowledged.current) {
        setState("saving");
        const document = queue.current[0];
        try {
          const b = await api.put<Bench>(`/pieces/${id}`, { revision: acknowledged.current.revision, document });
          queue.current.shift();
          acknowledge(b);
        } catch (e) {
          if (e instanceof Offline) {
            setState("offline");
            return;
          }
          queue.current = [];
          shown.current = undefined;
          if (e instanceof Failed && e.problem.status === 409) {
            setConflict({ ...e.problem, yours: document });
            setState("conflict");
            return;
          }
          setRefused(e instanceof Error ? e.message : "The change was refused.");
        }
      }
      if (queue.current.length === 0) shown.current = undefined;
      setState("saved");
    } finally {
      busy.current = false;
      keep();
      redraw((n) => n + 1);
    }
  }, [id, acknowledge, keep]);

  // What an earlier page could not send is sent now.
  useEffect(() => {
    const left = localStorage.getItem(shelf(id));
    if (!left || !query.data || queue.current.length > 0) return;
    try {
      const unsent = JSON.parse(left) as Unsent;
      acknowledged.current = { ...query.data, revision: unsent.revision };
      queue.current = [unsent.document];
      shown.current = unsent.document;
      send();
    } catch {
      localStorage.removeItem(shelf(id));
    }
  }, [id, query.data, send]);

  useEffect(() => {
    if (state !== "offline") return;
    const timer = setInterval(send, 2500);
    window.addEventListener("online", send);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", send);
    };
  }, [state, send]);

  const edit = useCallback(
    (change: (d: Document) => Document) => {
      if (spelling.current) {
        spelling.current.then(() => editRef.current(change));
        return;
      }
      const now = shown.current ?? acknowledged.current?.document;
      if (!now || state === "conflict") return;
      const next = change(now);
      if (next === now || JSON.stringify(next) === JSON.stringify(now)) return;
      shown.current = next;
      queue.current.push(next);
      setRefused(null);
      keep();
      redraw((n) => n + 1);
      sending.current = send();
    },
    [send, keep, state],
  );
  const editRef = useRef(edit);
  editRef.current = edit;

  const step = useCallback(
    async (way: "undo" | "redo") => {
      if (queue.current.length > 0) return;
      try {
        acknowledge(await api.post<Bench>(`/pieces/${id}/${way}`));
        setRefused(null);
        setState("saved");
      } catch (e) {
        if (e instanceof Offline) setState("offline");
        else setRefused(e instanceof Error ? e.message : "That was refused.");
      }
      redraw((n) => n + 1);
    },
    [id, acknowledge],
  );

  const spellNow = useCallback(
    async (line: string): Promise<Problem | null> => {
      await sending.current;
      if (!acknowledged.current) return null;
      try {
        acknowledge(await api.post<Bench>(`/pieces/${id}/notation`, { revision: acknowledged.current.revision, line }));
        redraw((n) => n + 1);
        return null;
      } catch (e) {
        if (e instanceof Failed && e.problem.status === 409) {
          setConflict(e.problem);
          setState("conflict");
          return null;
        }
        if (e instanceof Failed) return e.problem;
        return { type: "", title: "", status: 0, detail: e instanceof Error ? e.message : "It could not be saved." };
      }
    },
    [id, acknowledge],
  );

  /** spell saves a typed sequence; the answer is what is wrong with it. */
  const spell = useCallback(
    (line: string) => {
      const going = spellNow(line).finally(() => {
        spelling.current = null;
      });
      spelling.current = going;
      return going;
    },
    [spellNow],
  );

  /** settle ends a conflict: with the other window's version, or with mine on top of it. */
  const settle = useCallback(
    (mine: boolean) => {
      const c = conflict;
      if (!c?.current) return;
      setConflict(null);
      setState("saved");
      acknowledge(c.current);
      if (mine && c.yours) {
        shown.current = c.yours;
        queue.current = [c.yours];
        send();
      }
      redraw((n) => n + 1);
    },
    [conflict, acknowledge, send],
  );

  const bench = query.data;
  return {
    bench,
    document: shown.current ?? bench?.document,
    revision: bench?.revision,
    error: query.error,
    state,
    conflict,
    refused,
    dismiss: () => setRefused(null),
    edit,
    undo: () => step("undo"),
    redo: () => step("redo"),
    spell,
    settle,
  };
}

export type PieceHandle = ReturnType<typeof usePiece>;
