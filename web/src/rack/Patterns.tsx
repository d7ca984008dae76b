import { useLocation } from "wouter";
import { api } from "../api/client";
import { useCatalogue, useChange, usePatternPicture } from "../api/queries";
import type { Bench, CreateRequest } from "../api/types.gen";
import { Fitted } from "../hang/Plate";
import { Alert } from "../ui/Alert";
import { Swatch } from "../ui/fields";

/** Patterns are the pieces to begin from, each as it will hang; one that is taken gets the name. */
export function Patterns({ name }: { name: string }) {
  const patterns = useCatalogue().data?.patterns ?? [];
  const [, go] = useLocation();
  const make = useChange((r: CreateRequest) => api.post<Bench>("/pieces", r), [["tags"]]);
  // The rack may be drawn anew before the piece is there, so the answer is awaited here; a refusal is said below.
  const take = (pattern: string) =>
    make.mutateAsync({ pattern, name: name.trim() || undefined }).then(
      (b) => go(`/piece/${b.id}/purpose`),
      () => undefined,
    );
  return (
    <>
      {make.error && <Alert>{make.error.message}</Alert>}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-2" aria-label="Starting patterns">
        {patterns.map((p) => (
          <li key={p.id}>
            <button
              type="button"
              data-pattern={p.id}
              className="flex h-full w-full gap-3 rounded-box border border-base-300 p-2 text-left hover:border-base-content"
              disabled={make.isPending}
              onClick={() => take(p.id)}
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
    </>
  );
}

/** Look is the pattern as it will hang. */
function Look({ id }: { id: string }) {
  const { data: picture, isPending } = usePatternPicture(id);
  return (
    <span className="mat block h-56 w-28 shrink-0 overflow-hidden p-1" data-wait={isPending || undefined}>
      {picture && picture.places.length > 0 && <Fitted picture={picture} label="" />}
    </span>
  );
}
