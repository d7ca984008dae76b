import { lines } from "./lines";
import type { Problem } from "./types.gen";

/** Failed is a request that the server refused, with its problem. */
export class Failed extends Error {
  constructor(
    readonly problem: Problem,
    /** seconds after which the server says that it is worth trying again */
    readonly after = 0,
  ) {
    super(problem.detail);
  }
}

/** Offline is a request that did not reach the server, or whose answer did not arrive. */
export class Offline extends Error {
  constructor() {
    super("The server cannot be reached.");
  }
}

/** passes tells whether a failure may be over when the same is tried again. */
export function passes(e: unknown): boolean {
  if (e instanceof Offline) return true;
  if (!(e instanceof Failed)) return false;
  const { status } = e.problem;
  return status >= 500 || status === 401 || status === 408 || status === 429;
}

/** whyNot says in a few words why something is not saved yet. */
export function whyNot(e: unknown): string {
  if (e instanceof Failed) {
    if (e.problem.status === 401) return "the session has ended: open this page anew in another tab and come in";
    return e.problem.detail.replace(/\.$/, "").replace(/^./, (c) => c.toLowerCase());
  }
  return "the server is out of reach";
}

/** pause is how long is waited before the next try, ms, when so many have failed. */
export function pause(failures: number): number {
  return Math.min(1000 * 2 ** failures, 30_000);
}

async function call<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<T> {
  let answer: Response;
  let text: string;
  const raw = body instanceof Blob;
  // What the page at the vise asks for may come from what was put by (vise/putBy.ts).
  if (method === "GET" && location.pathname.endsWith("/vise")) headers = { ...headers, Keep: "vise" };
  try {
    answer = await fetch(`/api${path}`, {
      method,
      headers: body === undefined || raw ? headers : { ...headers, "Content-Type": "application/json" },
      body: body === undefined ? undefined : raw ? body : JSON.stringify(body),
    });
    text = answer.status === 204 ? "" : await answer.text();
  } catch {
    throw new Offline();
  }
  if (answer.status === 204) return undefined as T;
  let value: unknown;
  try {
    value = text === "" ? undefined : JSON.parse(text);
  } catch {
    if (answer.ok) throw new Offline(); // cut off on its way
    value = undefined;
  }
  if (!answer.ok) throw refused(answer, value);
  return value as T;
}

/** refused is the failure of an answer that is none. */
function refused(answer: Response, value: unknown): Failed {
  return new Failed(
    (value as Problem | undefined) ?? {
      type: "about:blank",
      title: answer.statusText,
      status: answer.status,
      detail: `The server answered ${answer.status}.`,
    },
    Number(answer.headers.get("Retry-After") ?? 0) || 0,
  );
}

/** told asks for an answer that comes a line at a time. */
export async function* told<T>(path: string, body: unknown, signal: AbortSignal): AsyncGenerator<T> {
  let answer: Response;
  try {
    answer = await fetch(`/api${path}`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
      signal,
    });
  } catch (e) {
    if (signal.aborted) throw e;
    throw new Offline();
  }
  if (!answer.ok) throw refused(answer, await answer.json().catch(() => undefined));
  yield* lines<T>(answer);
}

export const api = {
  get: <T>(path: string, headers?: Record<string, string>) => call<T>("GET", path, undefined, headers),
  post: <T>(path: string, body: unknown = {}) => call<T>("POST", path, body),
  patch: <T>(path: string, body: unknown) => call<T>("PATCH", path, body),
  put: <T>(path: string, body: unknown) => call<T>("PUT", path, body),
  drop: (path: string) => call<void>("DELETE", path),
};
