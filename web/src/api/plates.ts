import { api } from "./client";
import type { Picture, Plate } from "./types.gen";

/** Plates seen before, by name, the ones used last at the end. */
const shelf = new Map<string, Plate>();
const most = 3000;

/** The plates of the last picture of each kind, which the next is likely to need again. */
const last = new Map<string, string[]>();

function store(name: string, plate: Plate) {
  shelf.delete(name);
  shelf.set(name, plate);
  if (shelf.size > most) {
    for (const old of shelf.keys()) {
      shelf.delete(old);
      break;
    }
  }
}

/** fetchPicture asks for a picture, without the plates that are on the shelf. */
export async function fetchPicture(kind: string, path: string): Promise<Picture> {
  const have = (last.get(kind) ?? []).filter((n) => shelf.has(n)).slice(0, 800);
  let pic = await api.get<Picture>(path, have.length > 0 ? { "Have-Plates": have.join(",") } : undefined);
  for (const [name, plate] of Object.entries(pic.plates)) store(name, plate);
  if (pic.places.some((p) => !shelf.has(p.plate))) {
    pic = await api.get<Picture>(path);
    for (const [name, plate] of Object.entries(pic.plates)) store(name, plate);
  }
  const plates: Record<string, Plate> = {};
  for (const p of pic.places) plates[p.plate] = shelf.get(p.plate) as Plate;
  last.set(kind, Object.keys(plates));
  return { ...pic, plates };
}
