import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation } from "wouter";
import { api } from "../api/client";
import { useCatalogue, useChange, usePatternPicture } from "../api/queries";
import type { Bench, CreateRequest } from "../api/types.gen";
import { Fitted } from "../hang/Plate";
import { Alert } from "../ui/Alert";
import { Dialog } from "../ui/Dialog";
import { Swatch } from "../ui/fields";

/** NewPiece hangs a piece made from a starting pattern. */
export function NewPiece({ onClose }: { onClose: () => void }) {
  const patterns = useCatalogue().data?.patterns ?? [];
  const [name, setName] = useState("");
  const [, go] = useLocation();
  const client = useQueryClient();
  const make = useChange((r: CreateRequest) => api.post<Bench>("/pieces", r), [["tags"]]);
  const [failed, setFailed] = useState("");
  const open = async (input: HTMLInputElement) => {
    const file = input.files?.[0];
    input.value = "";
    if (!file) return;
    setFailed("");
    if (file.size > 1_000_000) {
      setFailed(`${file.name} is larger than 1 MB; that is no piece.`);
      return;
    }
    let document: unknown;
    try {
      document = JSON.parse(await file.text());
    } catch (e) {
      setFailed(`${file.name} is no piece: ${e instanceof Error ? e.message : "it is not JSON"}.`);
      return;
    }
    try {
      const b = await api.post<Bench>("/pieces", { document, name: name.trim() || undefined });
      client.invalidateQueries({ queryKey: ["tags"] });
      go(`/piece/${b.id}/tie`);
    } catch (e) {
      setFailed(`${file.name}: ${e instanceof Error ? e.message : "it could not be opened."}`);
    }
  };
  return (
    <Dialog title="Hang a new piece" onClose={onClose} wide>
      <label className="mb-3 flex flex-col gap-1">
        Its name, if you know it
        <input className="input" value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
      </label>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <label className="btn btn-sm focus-within:outline-2 focus-within:outline-secondary">
          Open a piece from a file
          <input type="file" accept=".json,application/json" className="sr-only" onChange={(e) => open(e.target)} />
        </label>
        {failed && <Alert>{failed}</Alert>}
      </div>
      {make.error && <Alert>{make.error.message}</Alert>}
      <ul className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3" aria-label="Starting patterns">
        {patterns.map((p) => (
          <li key={p.id}>
            <button
              type="button"
              data-pattern={p.id}
              className="flex h-full w-full gap-3 rounded-box border border-base-300 p-2 text-left hover:border-base-content"
              disabled={make.isPending}
              onClick={() =>
                make.mutate(
                  { pattern: p.id, name: name.trim() || undefined },
                  { onSuccess: (b) => go(`/piece/${b.id}/purpose`) },
                )
              }
            >
              <Look id={p.id} />
              <span className="flex min-w-0 flex-1 flex-col gap-1">
                <span className="font-semibold">{p.name}</span>
                <span className="text-sm">{p.about}</span>
                <span className="mt-auto flex items-center gap-1">
                  {p.document.cords.map((c) => (
                    <Swatch key={c.id} colour={c.stuff.colour} />
                  ))}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}

/** Look is the pattern as it will hang. */
function Look({ id }: { id: string }) {
  const { data: picture, isPending } = usePatternPicture(id);
  return (
    <span className="mat block h-36 w-20 shrink-0 overflow-hidden p-1" data-wait={isPending || undefined}>
      {picture && picture.places.length > 0 && <Fitted picture={picture} label="" />}
    </span>
  );
}
