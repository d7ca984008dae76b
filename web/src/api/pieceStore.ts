import { api, Failed, passes, pause, whyNot } from "./client";
import type { Bench, Document, Problem } from "./types.gen";

/** How the last change fared. "saved" is said only of what the server acknowledged. */
export type SaveState = "loading" | "saved" | "saving" | "unsaved" | "conflict";

type Change = (d: Document) => Document;

/** Job is something to be done with the piece, one after the other. */
type Job =
  | { kind: "edit"; change: Change; document?: Document }
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
  note: string | null;
  /** undo and redo that are still on their way */
  walking: number;
}

/**
 * PieceStore holds one piece of one data folder. Every edit shows at once, is kept on the shelf of the
 * browser, and is sent as a revision of its own in the order in which it was made. What fails in passing is
 * tried again with growing pauses. It lives as long as the page, so that leaving the bench loses nothing.
 */
export class PieceStore {
  private jobs: Job[] = [];
  private busy = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private listeners = new Set<() => void>();
  private loading = false;
  private onAck: (b: Bench) => void;
  seen: Seen = {
    bench: undefined,
    document: undefined,
    state: "loading",
    why: "",
    error: null,
    conflict: null,
    choosing: false,
    refused: null,
    note: null,
    walking: 0,
  };

  constructor(
    readonly id: number,
    onAck: (b: Bench) => void,
  ) {
    this.onAck = onAck;
    window.addEventListener("online", () => this.again());
    window.addEventListener("beforeunload", (e) => {
      // What is on the shelf waits there; only what cannot be put on it would be lost.
      const edits = this.jobs.filter((j) => j.kind === "edit");
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

  /** keep puts what is not acknowledged on the shelf, and empties it when all is. */
  private keep() {
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
    this.send();
  }

  private acknowledge(b: Bench) {
    this.seen = { ...this.seen, bench: b };
    this.onAck(b);
  }

  /**
   * work makes the edits that wait and gives the document that comes of the jobs. It is not all of them where
   * only the server knows what one comes to: a typed line, or undo and redo beyond what was not sent yet.
   */
  private work(): { document: Document | undefined; all: boolean } {
    let way = [this.seen.bench?.document];
    let at = 0;
    for (const j of this.jobs) {
      const now = way[at];
      if (j.kind === "edit" && now) {
        j.document ??= j.change(now);
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
      this.jobs.push({ kind: "edit", change }); // made on what comes of the jobs before it
      this.show({ note: null });
      return;
    }
    const next = change(now);
    if (next === now || same(next, now)) return;
    this.jobs.push({ kind: "edit", change, document: next });
    this.keep();
    const conflict = this.seen.conflict ? { ...this.seen.conflict, mine: next } : null;
    this.show({
      document: next,
      refused: null,
      note: null,
      conflict,
      state: this.seen.state === "saved" ? "saving" : this.seen.state,
    });
    this.send();
  };

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
    this.keep();
    this.show({ document, refused: null, note: null });
    this.send();
  }

  /** again tries at once what is waiting for its pause to end. */
  again = () => {
    clearTimeout(this.timer);
    this.timer = undefined;
    if (this.seen.bench) this.send();
    else this.open();
  };

  dismiss = () => this.show({ refused: null, note: null });
  choose = (choosing: boolean) => this.show({ choosing });

  private async send() {
    if (this.busy || this.timer !== undefined || this.seen.conflict) return;
    this.busy = true;
    try {
      while (this.jobs.length > 0 && !this.seen.conflict) {
        if (this.seen.state !== "unsaved") this.show({ state: "saving" });
        if (!(await this.one(this.jobs[0]))) return;
      }
      if (!this.seen.conflict) this.show({ state: "saved", why: "" });
    } finally {
      this.busy = false;
    }
  }

  /** one does the first job; false where it must wait. */
  private async one(j: Job): Promise<boolean> {
    const b = this.seen.bench as Bench;
    if (j.kind === "edit" && j.document === undefined) {
      const now = b.document as Document;
      j.document = j.change(now);
      if (j.document === now || same(j.document, now)) {
        this.jobs.shift();
        return true;
      }
    }
    try {
      const next = await this.ask(j, b);
      this.jobs.shift();
      this.failures = 0;
      this.acknowledge(next);
      this.settleEdits();
      if (j.kind === "line") j.done(null);
      return true;
    } catch (e) {
      if (passes(e)) {
        const after = e instanceof Failed ? e.after * 1000 : 0;
        this.show({ state: "unsaved", why: whyNot(e) });
        this.timer = setTimeout(() => this.again(), Math.max(pause(this.failures++), Math.min(after, 30_000)));
        return false;
      }
      if (e instanceof Failed && e.problem.status === 409 && e.problem.current) {
        this.conflicted(j, e.problem);
        return false;
      }
      this.refuse(j, e);
      return true;
    }
  }

  private ask(j: Job, b: Bench): Promise<Bench> {
    const path = `/pieces/${this.id}`;
    switch (j.kind) {
      case "edit":
        return api.put<Bench>(path, { revision: b.revision, document: j.document });
      case "line":
        return api.post<Bench>(`${path}/notation`, { revision: b.revision, line: j.line });
      case "back":
        return api.post<Bench>(`${path}/revisions/${j.revision}/back`, { revision: b.revision });
      default:
        return api.post<Bench>(`${path}/${j.kind}`, { revision: b.revision });
    }
  }

  /** settleEdits makes the edits that wait on the document that is known now. */
  private settleEdits() {
    const { document } = this.work();
    this.keep();
    this.show({ document, why: "", ...(this.seen.state === "unsaved" ? { state: "saving" as const } : {}) });
  }

  private conflicted(j: Job, p: Problem) {
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
      this.busy = false;
      this.send();
      return;
    }
    const mine = this.seen.document as Document;
    this.show({ state: "conflict", conflict: { theirs, mine }, choosing: true });
  }

  /** anew makes what waits again, on a document that is not the one that it was made on. */
  private anew() {
    for (const j of this.jobs) if ("document" in j) j.document = undefined;
    this.settleEdits();
  }

  /** refuse drops what cannot be saved, with the undo of it, and makes the edits after it without it. */
  private refuse(j: Job, e: unknown) {
    this.jobs.shift();
    if (j.kind === "edit" && this.jobs[0]?.kind === "undo") this.jobs.shift();
    if (j.kind === "line") {
      const problem = e instanceof Failed ? e.problem : null;
      j.done(problem ?? { type: "", title: "", status: 0, detail: e instanceof Error ? e.message : "It was refused." });
    }
    this.anew();
    if (j.kind !== "line") this.show({ refused: e instanceof Error ? e.message : "The change was refused." });
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
    this.show({ conflict: null, choosing: false, document: mine ? last : c.theirs.document, state: "saving" });
    this.keep();
    if (!mine) this.show({ note: "Theirs was taken. Yours is in the history, set aside under its own name." });
    this.send();
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
