import type { Chosen } from "../../api/types.gen";

/** asked is a chosen colour as an address says it: its hex and, after it, the name of its cord. */
export function asked(c: Chosen): string {
  return `c=${encodeURIComponent(c.colour + (c.name ?? ""))}`;
}

/** chosenIn are the colours that an address asks for. */
export function chosenIn(search: string): Chosen[] {
  return new URLSearchParams(search).getAll("c").map((c) => ({ colour: c.slice(0, 7), name: c.slice(7) || undefined }));
}
