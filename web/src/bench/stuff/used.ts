import type { CatalogueKnot, Document, Section } from "../../api/types.gen";

/** usedCords are the cords that the sequence names, in its rows and brackets too. */
export function usedCords(d: Document, knots: ReadonlyMap<string, CatalogueKnot>): Set<string> {
  const used = new Set<string>();
  const look = (seq: Section[]) => {
    for (const s of seq) {
      for (const f of knots.get(s.do)?.fields ?? []) {
        const said = s[f.key];
        if (f.kind === "cords" && Array.isArray(said)) for (const id of said) used.add(String(id));
        if (f.kind === "cord" && said) used.add(String(said));
      }
      look(s.sequence ?? []);
      for (const r of s.rows ?? []) look(r.sequence);
    }
  };
  look(d.sequence);
  return used;
}

/** freeCords are the cords of the piece that the sequence does not name. */
export function freeCords(d: Document, knots: ReadonlyMap<string, CatalogueKnot>) {
  const used = usedCords(d, knots);
  return d.cords.filter((c) => !used.has(c.id));
}
