import type { Problem } from "./types.gen";

/** Failed is a request that the server refused, with its problem. */
export class Failed extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** Offline is a request that did not reach the server. */
export class Offline extends Error {
  constructor() {
    super("The server cannot be reached.");
  }
}

async function call<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch(`/api${path}`, {
      method,
      headers: body === undefined ? headers : { ...headers, "Content-Type": "application/json" },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new Offline();
  }
  if (answer.status === 204) return undefined as T;
  const text = await answer.text();
  let value: unknown;
  try {
    value = text === "" ? undefined : JSON.parse(text);
  } catch {
    value = undefined;
  }
  if (!answer.ok) {
    throw new Failed(
      (value as Problem | undefined) ?? {
        type: "about:blank",
        title: answer.statusText,
        status: answer.status,
        detail: `The server answered ${answer.status}.`,
      },
    );
  }
  return value as T;
}

export const api = {
  get: <T>(path: string, headers?: Record<string, string>) => call<T>("GET", path, undefined, headers),
  post: <T>(path: string, body: unknown = {}) => call<T>("POST", path, body),
  patch: <T>(path: string, body: unknown) => call<T>("PATCH", path, body),
  put: <T>(path: string, body: unknown) => call<T>("PUT", path, body),
  drop: (path: string) => call<void>("DELETE", path),
};
