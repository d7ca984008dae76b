import { MutationObserver, type QueryClient } from "@tanstack/react-query";
import { api, Failed, passes, whyNot } from "./client";
import { away, reached, tryNow } from "./reach";
import type { Bench, Document, FieldProblem, Problem } from "./types.gen";

/** How the last change fared. "saved" is said only of what the server acknowledged. */
export type SaveState = "loading" | "saved" | "saving" | "unsaved" | "conflict";

type Change = (d: Document) => Document;

/** Job is something to be done with the piece, one after the other. */
type Job =
  | { kind: "edit"; change: Change; document?: Document }
  | { kind: "ask"; change: (d: Document) => Promise<Document>; document?: Document }
  | { kind: "undo" | "redo"; document?: Document }
  | { kind: "line"; line: string; done: (p: Problem | null) => void }
  | { kind: "back"; revision: number };

/** Unsent is what the shelf of the browser holds: every edit that was not acknowledged, oldest first. */
interface Unsent {
  revision: number;
  documents: Document[];
}

/** Seen is what a page shows of the piece; it is a new object whenever something of it changed. */
export interface Seen {
  bench: Bench | undefined;
  document: Document | undefined;
  state: SaveState;
  /** why it is not saved yet */
  why: string;
  /** why the piece could not be opened */
  error: Error | null;
  conflict: { theirs: Bench; mine: Document } | null;
  /** the choice between two versions is open */
  choosing: boolean;
  /** what was refused, or a word about what was done */
  refused: string | null;
  /** what of the document was refused, by its path */
  wrong: FieldProblem[];
  note: string | null;
  /** undo and redo that are still on their way */
  walking: number;
}

/**
 * PieceStore holds one piece of one data folder. Every edit shows at once, is put on the shelf of the
 * browser, and is sent as a revision of its own in the order in which it was made: as a mutation of the query
 * library in the piece's scope, which waits and is tried again there. It lives as long as the page, so that
 * leaving the bench loses nothing.
 */
export class PieceStore {
  private jobs: Job[] = [];
  /** ends the wait for the choice between two versions */
  private chosen: (() => void) | undefined;
  private listeners = new Set<() => void>();
  private loading = false;
  seen: Seen = {
    bench: undefined,
    document: undefined,
    state: "loading",
    why: "",
    error: null,
    conflict: null,
    choosing: false,
    refused: null,
    wrong: [],
    note: null,
    walking: 0,
  };

  constructor(
    private readonly client: QueryClient,
    readonly id: number,
  ) {
    window.addEventListener("beforeunload", (e) => {
      // What is on the shelf waits there; only what cannot be put on it would be lost.
      const edits = this.jobs.filter((j) => j.kind === "edit" || j.kind === "ask");
      if (edits.some((j) => !j.document) || (edits.length > 0 && !this.shelved())) e.preventDefault();
    });
  }

  subscribe = (f: () => void) => {
    this.listeners.add(f);
    return () => this.listeners.delete(f);
  };

  get = () => this.seen;

  private show(v: Partial<Seen>) {
    const walking = this.jobs.filter((j) => j.kind === "undo" || j.kind === "redo").length;
    this.seen = { ...this.seen, ...v, walking };
    for (const f of this.listeners) f();
  }

  /** open reads the piece from the server, and takes up what an earlier page could not send. */
  async open(fresh = false) {
    if (this.loading || (this.seen.bench && !fresh)) return;
    if (this.seen.bench && this.jobs.length > 0) return; // what is here goes first
    this.loading = true;
    try {
      const b = await api.get<Bench>(`/pieces/${this.id}`);
      this.acknowledge(b);
      this.show({ bench: b, document: b.document, error: null, state: "saved" });
      this.takeUp(b);
    } catch (e) {
      if (!this.seen.bench) {
        this.show({ error: e instanceof Error ? e : new Error(String(e)) });
        if (passes(e)) setTimeout(() => this.open(), 2500);
      }
    } finally {
      this.loading = false;
    }
  }

  private shelf(b: Bench) {
    return `nimble-bight.unsent.${b.folder}.${this.id}`;
  }

  private shelved(): boolean {
    const b = this.seen.bench;
    try {
      return b !== undefined && localStorage.getItem(this.shelf(b)) !== null;
    } catch {
      return false;
    }
  }

  /** shelve puts what is not acknowledged on the shelf, and empties it when all is. */
  private shelve() {
    const b = this.seen.bench;
    if (!b) return;
    // An undo of what was not sent yet is kept as what it came to.
    const documents = this.jobs.flatMap((j) => ("document" in j && j.document ? [j.document] : []));
    try {
      if (documents.length === 0) {
        localStorage.removeItem(this.shelf(b));
        return;
      }
      const unsent: Unsent = { revision: b.revision, documents };
      try {
        localStorage.setItem(this.shelf(b), JSON.stringify(unsent));
      } catch {
        // No room for all of them: the last one holds them all.
        localStorage.setItem(this.shelf(b), JSON.stringify({ ...unsent, documents: documents.slice(-1) }));
      }
    } catch {
      // A browser without a shelf: the page itself still holds them.
    }
  }

  private takeUp(b: Bench) {
    let unsent: Unsent;
    try {
      const text = localStorage.getItem(this.shelf(b));
      if (!text) return;
      unsent = JSON.parse(text) as Unsent;
      if (!Array.isArray(unsent.documents)) throw new Error("no documents");
    } catch {
      localStorage.removeItem(this.shelf(b));
      return;
    }
    // What was acknowledged although the answer did not arrive is not sent again.
    const had = unsent.documents.findLastIndex((d) => same(d, b.document));
    const left = unsent.documents.slice(had + 1);
    if (left.length === 0) {
      localStorage.removeItem(this.shelf(b));
      return;
    }
    if (had < 0) this.seen = { ...this.seen, bench: { ...b, revision: unsent.revision } };
    this.jobs = left.map((document) => ({ kind: "edit", change: () => document, document }));
    this.show({ document: left.at(-1), state: "saving" });
    for (const j of this.jobs) this.queue(j);
  }

  private acknowledge(b: Bench) {
    this.seen = { ...this.seen, bench: b };
    // The rack asks again when it is next seen.
    this.client.invalidateQueries({ queryKey: ["tags"], refetchType: "none" });
  }

  /**
   * work makes the edits that wait and gives the document that comes of the jobs. It is not all of them where
   * only the server knows what one comes to: a typed line, what it is asked, or undo and redo beyond what was
   * not sent yet.
   */
  private work(): { document: Document | undefined; all: boolean } {
    let way = [this.seen.bench?.document];
    let at = 0;
    for (const j of this.jobs) {
      const now = way[at];
      if (now && (j.kind === "edit" || (j.kind === "ask" && j.document))) {
        j.document ??= (j.change as Change)(now);
        way = [...way.slice(0, at + 1), j.document];
        at++;
      } else if (j.kind === "undo" && (at > 0 || j.document)) {
        if (at > 0) at--;
        else way = [j.document, ...way];
        j.document = way[at];
      } else if (j.kind === "redo" && (way.length > 1 || j.document)) {
        if (at < way.length - 1) at++;
        else if (way.length === 1) way = [j.document];
        j.document = way[at];
      } else return { document: now, all: false };
    }
    return { document: way[at], all: true };
  }

  edit = (change: Change) => {
    const { document: now, all } = this.work();
    if (!now) return;
    if (!all) {
      this.push({ kind: "edit", change }); // made on what comes of the jobs before it
      return;
    }
    const next = change(now);
    if (next === now || same(next, now)) return;
    const j: Job = { kind: "edit", change, document: next };
    this.jobs.push(j);
    this.shelve();
    const conflict = this.seen.conflict ? { ...this.seen.conflict, mine: next } : null;
    this.show({
      document: next,
      refused: null,
      wrong: [],
      note: null,
      conflict,
      state: this.seen.state === "saved" ? "saving" : this.seen.state,
    });
    this.queue(j);
  };

  /** ask makes an edit that the server works out, on the document as it is when its turn comes. */
  ask = (change: (d: Document) => Promise<Document>) => this.push({ kind: "ask", change });

  undo = () => this.push({ kind: "undo" });
  redo = () => this.push({ kind: "redo" });

  /** back makes an old revision the newest one. */
  back = (revision: number) => this.push({ kind: "back", revision });

  /** spell saves a typed sequence; the answer is what is wrong with it. */
  spell = (line: string) =>
    new Promise<Problem | null>((done) => {
      this.push({ kind: "line", line, done });
    });

  private push(j: Job) {
    if (!this.seen.bench) return;
    this.jobs.push(j);
    const { document } = this.work();
    this.shelve();
    this.show({
      document,
      refused: null,
      wrong: [],
      note: null,
      state: this.seen.state === "saved" ? "saving" : this.seen.state,
    });
    this.queue(j);
  }

  /** again tries at once what waits for the server. */
  again = () => {
    tryNow();
    if (!this.seen.bench) this.open();
  };

  dismiss = () => this.show({ refused: null, wrong: [], note: null });
  choose = (choosing: boolean) => this.show({ choosing });

  /** queue sends a job once the ones before it are done, and till it is done or refused. */
  private queue(j: Job) {
    new MutationObserver(this.client, {
      scope: { id: `piece ${this.id}` },
      networkMode: "online", // waits while the server is out of reach
      mutationFn: () => this.send(j),
      retry: true,
      retryDelay: 0, // reach.ts has the pauses
      gcTime: 0,
    }).mutate();
  }

  /** send does a job, and fails where it is worth trying again. */
  private async send(j: Job): Promise<void> {
    const now = this.seen.bench;
    if (!now || !this.jobs.includes(j)) return; // another version was taken
    if (this.seen.state !== "unsaved") this.show({ state: "saving" });
    try {
      if (j.kind === "edit" || j.kind === "ask") {
        j.document ??= await j.change(now.document as Document);
        if (same(j.document, now.document)) {
          this.jobs.shift();
          this.settled();
          return;
        }
      }
      const next = await this.request(j, now);
      this.jobs.shift();
      reached();
      this.acknowledge(next);
      this.settled();
      if (j.kind === "line") j.done(null);
    } catch (e) {
      if (passes(e)) {
        this.show({ state: "unsaved", why: whyNot(e) });
        away(e instanceof Failed ? e.after * 1000 : 0);
        throw e;
      }
      if (e instanceof Failed && e.problem.status === 409 && e.problem.current) await this.conflicted(j, e.problem);
      else this.refuse(j, e);
    }
  }

  private request(j: Job, b: Bench): Promise<Bench> {
    const path = `/pieces/${this.id}`;
    switch (j.kind) {
      case "edit":
      case "ask":
        return api.put<Bench>(path, { revision: b.revision, document: j.document });
      case "line":
        return api.post<Bench>(`${path}/notation`, { revision: b.revision, line: j.line });
      case "back":
        return api.post<Bench>(`${path}/revisions/${j.revision}/back`, { revision: b.revision });
      default:
        return api.post<Bench>(`${path}/${j.kind}`, { revision: b.revision });
    }
  }

  /** settled makes the edits that wait on the document that is known now. */
  private settled() {
    const { document } = this.work();
    this.shelve();
    this.show({ document, why: "", state: this.jobs.length > 0 ? "saving" : "saved" });
  }

  /** conflicted lasts till it is chosen which of two versions holds. */
  private conflicted(j: Job, p: Problem): Promise<void> {
    const theirs = p.current as Bench;
    if (j.kind !== "edit") {
      // Nothing of ours is lost by it: the piece is shown as it is now, and what was asked is not done.
      this.jobs.shift();
      this.acknowledge(theirs);
      this.anew();
      const what = j.kind === "line" ? "The line was not saved" : "That was not done";
      if (j.kind === "line") {
        j.done({ ...p, detail: "This piece was changed in another window; look at the line and save it again." });
      }
      this.show({ note: `${what}: the piece was changed in another window, and is shown as it is now.` });
      return Promise.resolve();
    }
    const mine = this.seen.document as Document;
    this.show({ state: "conflict", conflict: { theirs, mine }, choosing: true });
    return new Promise((done) => {
      this.chosen = done;
    });
  }

  /** anew makes what waits again, on a document that is not the one that it was made on. */
  private anew() {
    for (const j of this.jobs) if ("document" in j) j.document = undefined;
    this.settled();
  }

  /** refuse drops what cannot be saved, with the undo of it, and makes the edits after it without it. */
  private refuse(j: Job, e: unknown) {
    this.jobs.shift();
    if ((j.kind === "edit" || j.kind === "ask") && this.jobs[0]?.kind === "undo") this.jobs.shift();
    this.anew();
    if (j.kind === "line") {
      const problem = e instanceof Failed ? e.problem : null;
      j.done(problem ?? { type: "", title: "", status: 0, detail: e instanceof Error ? e.message : "It was refused." });
    } else {
      this.show({
        refused: e instanceof Error ? e.message : "The change was refused.",
        wrong: e instanceof Failed ? (e.problem.errors ?? []) : [],
      });
    }
  }

  /** settle ends a conflict: with mine on top of theirs, or with theirs and mine kept beside the history. */
  settle = async (mine: boolean) => {
    const c = this.seen.conflict;
    if (!c) return;
    try {
      if (!mine) await api.post(`/pieces/${this.id}/aside`, { document: c.mine });
    } catch (e) {
      this.show({ refused: `Yours could not be set aside, so nothing was changed: ${whyNot(e)}.` });
      return;
    }
    const last = this.seen.document as Document;
    this.acknowledge(c.theirs);
    this.jobs = mine ? [{ kind: "edit", change: () => last, document: last }] : [];
    this.show({ conflict: null, choosing: false });
    this.settled();
    if (!mine) this.show({ note: "Theirs was taken. Yours is in the history, set aside under its own name." });
    this.chosen?.();
    this.chosen = undefined;
    for (const j of this.jobs) this.queue(j);
  };
}

/** same tells whether two documents say the same, whatever the order of their fields. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const x = a as Record<string, unknown>;
  const y = b as Record<string, unknown>;
  const keys = new Set([...Object.keys(x), ...Object.keys(y)]);
  for (const k of keys) if (!same(x[k], y[k])) return false;
  return true;
}
