import { createContext, type ReactNode, useCallback, useContext, useDeferredValue, useMemo, useState } from "react";
import { Failed } from "../api/client";
import { useDrawing, useLimits, usePlan } from "../api/queries";
import type { Document, FieldProblem, Fix, Pair, Plan } from "../api/types.gen";
import type { PieceHandle } from "../api/usePiece";
import { around, type Side } from "../hang/Hang";
import { useLast } from "../ui/useLast";
import { useMedia } from "../ui/useMedia";

/** The work on the bench: one piece, its plan, and what is pointed at. */
interface Work {
  id: number;
  revision: number | undefined;
  document: Document;
  /** the plan, or the last one that could be made */
  plan: Plan | undefined;
  planError: Error | null;
  /** what keeps the piece from being planned, by section */
  refusedAt: Map<number, FieldProblem>;
  /** what was refused of the last change, and of the piece as it stands */
  refusals: FieldProblem[];
  piece: PieceHandle;
  edit: PieceHandle["edit"];
  /** how far the shapes that are drawn up behind have come */
  drawing: string | null;
  /** the section under the pointer, lit everywhere */
  lit: number | null;
  setLit: (n: number | null) => void;
  /** the section that keys work on */
  selected: number;
  select: (n: number) => void;
  setCount: (section: number, count: number) => void;
  /** more or fewer knots by so many; planned is how many there are where the document does not say */
  addCount: (section: number, by: number, planned: number | undefined) => void;
  apply: (fix: Fix) => void;
  /** what is shown of the piece */
  side: Side;
  setSide: (s: Side) => void;
  /** the eyes by which the piece is shown */
  eye: Pair["eye"];
  setEye: (e: Pair["eye"]) => void;
  /** a lens follows the pointer over the hang */
  lens: boolean;
  toggleLens: () => void;
  /** the list of knots is open: to add one, or to change the chosen section into one */
  palette: "add" | "into" | null;
  openPalette: () => void;
  openInto: () => void;
  closePalette: () => void;
}

const Context = createContext<Work | null>(null);

export function useWork(): Work {
  const w = useContext(Context);
  if (!w) throw new Error("useWork outside the bench");
  return w;
}

/** counted gives a document with another number of knots in a section, from 1 to most. */
function counted(
  d: Document,
  section: number,
  most: number,
  count: (now: number | undefined) => number | undefined,
): Document {
  return {
    ...d,
    sequence: d.sequence.map((s, i) => {
      if (i !== section) return s;
      const n = count(s.fit_mm ? undefined : s.count);
      if (n === undefined || (n === s.count && !s.fit_mm)) return s;
      const { fit_mm: _, ...rest } = s;
      return { ...rest, count: Math.max(1, Math.min(most, n)) };
    }),
  };
}

export function WorkProvider({
  id,
  piece,
  document,
  children,
}: {
  id: number;
  piece: PieceHandle;
  document: Document;
  children: ReactNode;
}) {
  const plan = usePlan(id, piece.revision);
  // What cannot be planned leaves the last good plan where it is.
  const good = useLast(plan.data);
  // Figures may come a moment after the hand, so that the hand is never held up.
  const planned = useDeferredValue(good);
  const drawing = useDrawing(id, piece.revision, plan.data?.rough);
  const [palette, setPalette] = useState<Work["palette"]>(null);
  // Both sides stand beside each other where there is room for them.
  const wide = useMedia("(min-width: 1100px)");
  const [chosen, setSide] = useState<Side | null>(null);
  const rounds = planned?.sections.some((s) => s.around) ?? true;
  const side = chosen && (rounds || !around(chosen)) ? chosen : wide ? "both" : "face";
  const [eye, setEye] = useState<Pair["eye"]>("usual");
  const [lens, setLens] = useState(false);
  const toggleLens = useCallback(() => setLens((on) => !on), []);
  const [lit, setLit] = useState<number | null>(null);
  const [selected, select] = useState(Math.min(1, Math.max(0, document.sequence.length - 1)));
  const { edit, revision } = piece;
  const most = useLimits().knots;
  const setCount = useCallback(
    (section: number, count: number) => edit((d) => counted(d, section, most, () => count)),
    [edit, most],
  );
  // Every press changes the document as it is then, not the answer that was last seen.
  const addCount = useCallback(
    (section: number, by: number, now: number | undefined) =>
      edit((d) =>
        counted(d, section, most, (n) => {
          const from = n ?? now;
          return from === undefined ? undefined : from + by;
        }),
      ),
    [edit, most],
  );
  const work = useMemo<Work>(
    () => ({
      id,
      revision,
      document,
      plan: planned,
      planError: plan.error,
      refusedAt: refusedAt(plan.error),
      refusals: [...piece.wrong, ...(plan.error instanceof Failed ? (plan.error.problem.errors ?? []) : [])],
      piece,
      edit,
      drawing,
      lit,
      setLit,
      selected: Math.min(selected, Math.max(0, document.sequence.length - 1)),
      select,
      side,
      setSide,
      eye,
      setEye,
      lens,
      toggleLens,
      palette,
      openPalette: () => setPalette("add"),
      openInto: () => setPalette("into"),
      closePalette: () => setPalette(null),
      setCount,
      addCount,
      apply: (fix) => edit((d) => fix.set.reduce((doc, s) => setPath(doc, s.path, s.value), d)),
    }),
    [
      id,
      revision,
      document,
      planned,
      plan.error,
      piece,
      edit,
      drawing,
      lit,
      selected,
      side,
      eye,
      lens,
      toggleLens,
      palette,
      setCount,
      addCount,
    ],
  );
  return <Context.Provider value={work}>{children}</Context.Provider>;
}

function refusedAt(e: Error | null): Map<number, FieldProblem> {
  const out = new Map<number, FieldProblem>();
  if (!(e instanceof Failed)) return out;
  for (const p of e.problem.errors ?? []) {
    const at = p.path.match(/^sequence\[(\d+)\]/);
    if (at && !out.has(Number(at[1]))) out.set(Number(at[1]), p);
  }
  return out;
}

/** fixOf is the first way out that a refusal offers. */
export function fixOf(e: Error | null): Fix | undefined {
  return e instanceof Failed ? e.problem.errors?.find((p) => p.fix)?.fix : undefined;
}

/** setPath gives a copy of v with the value at a path like cords[0].legs set. */
export function setPath<T>(v: T, path: string, value: unknown): T {
  const keys = path.split(/[.[\]]+/).filter((k) => k !== "");
  const put = (at: unknown, n: number): unknown => {
    if (n === keys.length) return value;
    if (Array.isArray(at)) return at.map((x, i) => (i === Number(keys[n]) ? put(x, n + 1) : x));
    const o = (at ?? {}) as Record<string, unknown>;
    return { ...o, [keys[n]]: put(o[keys[n]], n + 1) };
  };
  return put(v, 0) as T;
}
