import { createContext, useContext } from "react";
import type { FieldProblem } from "../api/types.gen";

/** Refusals are what of the document was refused, so that each field can say so of its own value. */
export const Refusals = createContext<FieldProblem[]>([]);

/** useRefusal is what is wrong with the value at a path of the document, "" where nothing is. */
export function useRefusal(path: string | undefined): string {
  const all = useContext(Refusals);
  const hit = path ? all.find((p) => p.path === path) : undefined;
  return hit ? `It ${hit.message}.` : "";
}
