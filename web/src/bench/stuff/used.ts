import type { CatalogueKnot, Cord, Document, Section, Spool, Stuff } from "../../api/types.gen";

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
  for (const c of d.cords) {
    const other = fusedWith(d.cords, c);
    if (other && used.has(other)) used.add(c.id); // it hangs as the other leg of that
  }
  return used;
}

/** fusedWith is the cord that a cord is fused to end to end, whichever of the two says so. */
export function fusedWith(cords: Cord[], c: Cord): string | undefined {
  return c.joined_to || cords.find((o) => o.joined_to === c.id)?.id;
}

/** fuse is the cords with two of them fused, or the first by itself. */
export function fuse(cords: Cord[], id: string, to: string): Cord[] {
  return cords.map((c) => {
    if (c.id === id) return { ...c, joined_to: to || undefined, joint_mm: undefined };
    return c.joined_to === id || (to && c.joined_to === to) || c.id === to
      ? { ...c, joined_to: undefined, joint_mm: undefined }
      : c;
  });
}

/** taken is the stuff of a spool as it goes into a piece: its name tells it apart where it has no label. */
export function taken(s: Spool): Stuff {
  const diameter_mm = s.measured_mm ?? s.stuff.diameter_mm;
  return { ...s.stuff, diameter_mm, label: s.stuff.label ?? s.name };
}

/** freeCords are the cords of the piece that the sequence does not name. */
export function freeCords(d: Document, knots: ReadonlyMap<string, CatalogueKnot>) {
  const used = usedCords(d, knots);
  return d.cords.filter((c) => !used.has(c.id));
}
