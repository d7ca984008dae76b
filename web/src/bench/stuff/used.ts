import type { Document, Section } from "../../api/types.gen";

/** usedCords are the cords that the sequence names, in its rows and brackets too. */
export function usedCords(d: Document): Set<string> {
  const used = new Set<string>();
  const look = (seq: Section[]) => {
    for (const s of seq) {
      for (const id of s.cords ?? []) used.add(id);
      if (s.cord) used.add(s.cord);
      look(s.sequence ?? []);
      for (const r of s.rows ?? []) look(r.sequence);
    }
  };
  look(d.sequence);
  return used;
}
