import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { PieceStore } from "./pieceStore";

const stores = new Map<number, PieceStore>();

/** storeOf gives the one store of a piece, whichever page asks. */
function storeOf(id: number, client: QueryClient): PieceStore {
  let s = stores.get(id);
  if (!s) {
    s = new PieceStore(client, id);
    stores.set(id, s);
  }
  return s;
}

/** usePiece holds one piece on the bench, at the vise or on the cut sheet. */
export function usePiece(id: number) {
  const client = useQueryClient();
  const store = storeOf(id, client);
  const seen = useSyncExternalStore(store.subscribe, store.get);
  useEffect(() => {
    store.open(true); // a page that comes back shows what the server holds now
  }, [store]);
  return {
    ...seen,
    revision: seen.bench?.revision,
    edit: store.edit,
    ask: store.ask,
    undo: store.undo,
    redo: store.redo,
    back: store.back,
    spell: store.spell,
    settle: store.settle,
    choose: store.choose,
    dismiss: store.dismiss,
    again: store.again,
    reopen: () => store.open(true),
  };
}

export type PieceHandle = ReturnType<typeof usePiece>;
