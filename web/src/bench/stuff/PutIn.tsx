import { api } from "../../api/client";
import { useChange, useDrawer } from "../../api/queries";
import type { Cord, Spool } from "../../api/types.gen";
import { taken } from "./used";

type Stuff = Cord["stuff"];

/** alike tells whether two stuffs are the same cord to a maker. */
const alike = (a: Stuff, b: Stuff) =>
  a.make === b.make &&
  a.material === b.material &&
  a.diameter_mm === b.diameter_mm &&
  a.colour === b.colour &&
  JSON.stringify(a.sheath ?? null) === JSON.stringify(b.sheath ?? null);

/** PutIn puts a cord of the piece into the drawer, where it does not lie there yet. */
export function PutIn({ cord, colour }: { cord: Cord; colour?: string }) {
  const drawer = useDrawer();
  const put = useChange((s: Omit<Spool, "id">) => api.post<Spool>("/drawer", s), [["drawer"]]);
  if (!drawer.data || !colour || drawer.data.some((s) => alike(taken(s), cord.stuff))) return null;
  const called = cord.stuff.label || cord.stuff.make.replaceAll("-", " ");
  const name = `${colour[0].toUpperCase()}${colour.slice(1)} ${called}`;
  return (
    <button
      type="button"
      className="btn btn-xs"
      disabled={put.isPending}
      onClick={() => put.mutate({ name, stuff: cord.stuff })}
    >
      {put.isPending ? "Putting it in…" : `Put ${cord.id} into the drawer`}
    </button>
  );
}
