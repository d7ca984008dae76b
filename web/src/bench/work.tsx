import { createContext, type ReactNode, useCallback, useContext, useDeferredValue, useMemo, useState } from "react";
import { Failed } from "../api/client";
import { usePlan } from "../api/queries";
import type { Document, Fix, Plan } from "../api/types.gen";
import type { PieceHandle } from "../api/usePiece";

/** The work on the bench: one piece, its plan, and what is pointed at. */
interface Work {
  id: number;
  revision: number | undefined;
  document: Document;
  plan: Plan | undefined;
  planError: Error | null;
  piece: PieceHandle;
  edit: PieceHandle["edit"];
  /** the section under the pointer, lit everywhere */
  lit: number | null;
  setLit: (n: number | null) => void;
  /** the section that keys work on */
  selected: number;
  select: (n: number) => void;
  setCount: (section: number, count: number) => void;
  apply: (fix: Fix) => void;
  /** the list of knots to add from is open */
  palette: boolean;
  openPalette: () => void;
  closePalette: () => void;
}

const Context = createContext<Work | null>(null);

export function useWork(): Work {
  const w = useContext(Context);
  if (!w) throw new Error("useWork outside the bench");
  return w;
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
  // Figures may come a moment after the hand, so that the hand is never held up.
  const planned = useDeferredValue(plan.data);
  const [palette, setPalette] = useState(false);
  const [lit, setLit] = useState<number | null>(null);
  const [selected, select] = useState(Math.min(1, Math.max(0, document.sequence.length - 1)));
  const { edit, revision } = piece;
  const setCount = useCallback(
    (section: number, count: number) =>
      edit((d) => ({
        ...d,
        sequence: d.sequence.map((s, i) => {
          if (i !== section || count < 1 || count > 10_000) return s;
          const { fit_mm: _, ...rest } = s;
          return { ...rest, count };
        }),
      })),
    [edit],
  );
  const work = useMemo<Work>(
    () => ({
      id,
      revision,
      document,
      plan: planned,
      planError: plan.error,
      piece,
      edit,
      lit,
      setLit,
      selected: Math.min(selected, Math.max(0, document.sequence.length - 1)),
      select,
      palette,
      openPalette: () => setPalette(true),
      closePalette: () => setPalette(false),
      setCount,
      apply: (fix) => edit((d) => fix.set.reduce((doc, s) => setPath(doc, s.path, s.value), d)),
    }),
    [id, revision, document, planned, plan.error, piece, edit, lit, selected, palette, setCount],
  );
  return <Context.Provider value={work}>{children}</Context.Provider>;
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
