import { type UseComboboxReturnValue, useCombobox } from "downshift";
import { type ReactNode, useMemo, useState } from "react";
import { useDrawer, useKnotPicture, useKnots, useOffers, useSettings } from "../../api/queries";
import type { Catalogue, CatalogueKnot, Cord, Document, Offer, Section } from "../../api/types.gen";
import { Fitted } from "../../hang/Plate";
import { Dialog } from "../../ui/Dialog";
import { Swatch } from "../../ui/fields";
import { Problems } from "../../ui/Problems";
import { diameter } from "../../ui/units";
import { nextId } from "../stuff/Stuff";
import { freeCords } from "../stuff/used";

/** Palette finds a knot by its name, its other names and its look, and adds it. */
export default function Palette(p: {
  catalogue: Catalogue;
  document: Document;
  hanging: number;
  title?: string;
  /** what is asked beside the knot */
  children?: ReactNode;
  /** a promise that is refused leaves the list open, with what was said */
  onAdd: (s: Section[], cords: Cord[]) => void | Promise<void>;
  onClose: () => void;
}) {
  const [text, setText] = useState("");
  const [failed, setFailed] = useState<Error | null>(null);
  const free = freeCords(p.document, useKnots()).map((c) => c.id);
  const asked = useOffers(p.hanging, free).data;
  const offers = useMemo(() => new Map(asked?.map((o) => [o.id, o])), [asked]);
  const found = useMemo(
    () => find(p.catalogue.knots, text, offers, p.hanging === 0),
    [p.catalogue, text, offers, p.hanging],
  );
  const suits = (k: CatalogueKnot) => offers.get(k.id)?.suits ?? true;
  const fits = found.filter(suits);
  const others = found.filter((k) => !suits(k));
  const [own, setOwn] = useState<CatalogueKnot | null>(null);
  const put = (s: Section[], cords: Cord[] = []) => {
    setFailed(null);
    Promise.resolve(p.onAdd(s, cords)).then(p.onClose, (e: Error) => {
      setOwn(null);
      setFailed(e);
    });
  };
  const add = (k: CatalogueKnot) => {
    if (k.fields.some((f) => f.kind === "cord")) {
      setOwn(k); // it needs a cord of its own: which?
      return;
    }
    put(offers.get(k.id)?.sections ?? [k.template]);
  };
  const box = useCombobox<CatalogueKnot>({
    items: [...fits, ...others],
    isOpen: true,
    defaultHighlightedIndex: 0,
    initialHighlightedIndex: 0,
    itemToString: (k) => k?.name ?? "",
    itemToKey: (k) => k?.id,
    inputValue: text,
    selectedItem: null,
    onSelectedItemChange: ({ selectedItem }) => selectedItem && add(selectedItem),
  });
  if (own) {
    return (
      <WhichCord
        knot={own}
        usual={p.catalogue.stuff}
        document={p.document}
        onClose={p.onClose}
        onBack={() => setOwn(null)}
        onTake={(cord, added) => {
          const f = own.fields.find((q) => q.kind === "cord");
          put([{ ...own.template, [f?.key ?? "cord"]: cord.id }], added ? [cord] : []);
        }}
      />
    );
  }
  return (
    <Dialog title={p.title ?? "Add a section"} onClose={p.onClose} wide>
      {p.children}
      <Problems error={failed} />
      <label className="flex flex-col gap-1 text-sm" {...box.getLabelProps()}>
        By any of its names, or what it is for; Enter takes the one that is marked
        <input
          data-focus
          className="input w-full"
          placeholder="square knot, cobra, bobble, bead…"
          {...box.getInputProps({ onChange: (e) => setText(e.currentTarget.value) })}
        />
      </label>
      {found.length === 0 && <p className="mt-3">No knot here has that name.</p>}
      <div {...box.getMenuProps()}>
        <Shelf knots={fits} box={box} from={0} />
        {others.length > 0 && (
          <>
            <h3 role="presentation" className="mt-4 mb-1 font-semibold">
              On other numbers of strands than the {p.hanging} that hang there
            </h3>
            <Shelf knots={others} box={box} from={fits.length} wants />
          </>
        )}
      </div>
    </Dialog>
  );
}

/** WhichCord asks which cord a section of its own cord is tied with: a free one of the piece, one of the drawer, or a new one. */
function WhichCord(p: {
  knot: CatalogueKnot;
  usual: Cord["stuff"];
  document: Document;
  onTake: (c: Cord, added: boolean) => void;
  onBack: () => void;
  onClose: () => void;
}) {
  const drawer = useDrawer();
  const { units } = useSettings();
  const free = freeCords(p.document, useKnots());
  const withStuff = (stuff: Cord["stuff"]): Cord => ({ id: nextId(p.document.cords), stuff });
  const line = (stuff: Cord["stuff"]) => `${stuff.make} ${stuff.material}, ${diameter(stuff.diameter_mm, units)}`;
  return (
    <Dialog title={`Which cord for the ${p.knot.name}?`} onClose={p.onClose}>
      <p className="mb-3 text-sm">It is tied with a cord of its own.</p>
      <ul className="flex flex-col gap-1" data-testid="which-cord">
        {free.map((c) => (
          <li key={c.id}>
            <button
              type="button"
              className="btn btn-ghost h-auto w-full justify-start py-1.5"
              onClick={() => p.onTake(c, false)}
            >
              <Swatch colour={c.stuff.colour} id={c.id} /> {line(c.stuff)}, of this piece
            </button>
          </li>
        ))}
        {drawer.data?.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              className="btn btn-ghost h-auto w-full justify-start py-1.5"
              onClick={() => p.onTake(withStuff(s.stuff), true)}
            >
              <Swatch colour={s.stuff.colour} /> {s.name}: {line(s.stuff)}, from the drawer
            </button>
          </li>
        ))}
        <li>
          <button
            type="button"
            className="btn btn-ghost h-auto w-full justify-start py-1.5"
            onClick={() => p.onTake(withStuff(p.document.cords[0]?.stuff ?? p.usual), true)}
          >
            A new one{p.document.cords[0] ? `, like cord ${p.document.cords[0].id}` : ""}; change it in Stuff
          </button>
        </li>
      </ul>
      <button type="button" className="btn btn-sm mt-3" onClick={p.onBack}>
        <span aria-hidden="true">&larr;</span> All knots
      </button>
    </Dialog>
  );
}

/** Shelf shows knots of the list from one of its places on. */
function Shelf(p: {
  knots: CatalogueKnot[];
  box: UseComboboxReturnValue<CatalogueKnot>;
  from: number;
  wants?: boolean;
}) {
  return (
    <div role="presentation" className="mt-3 grid grid-cols-2 gap-2 sm:grid-cols-3 md:grid-cols-4">
      {p.knots.map((k, i) => {
        const here = p.from + i === p.box.highlightedIndex;
        return (
          <div
            key={k.id}
            data-knot={k.id}
            className={`flex cursor-pointer flex-col gap-1 rounded-box border p-2 text-left ${here ? "border-base-content bg-base-200" : "border-base-300"}`}
            {...p.box.getItemProps({ item: k, index: p.from + i })}
          >
            <Look id={k.id} />
            <span className="font-semibold">
              {here && <span aria-hidden="true">&rarr; </span>}
              {k.name}
            </span>
            <span className="text-xs opacity-80">{k.other_names.join(", ")}</span>
            <span className="text-xs">{p.wants ? `takes ${range(k.takes)} strands` : k.for}</span>
          </div>
        );
      })}
    </div>
  );
}

function Look({ id }: { id: string }) {
  const picture = useKnotPicture(id).data;
  return (
    <span className="mat block h-40 w-full overflow-hidden">
      {picture && picture.places.length > 0 && <Fitted picture={picture} label="" />}
    </span>
  );
}

/** range says on how many strands a knot is tied. */
function range({ least, most, even }: CatalogueKnot["takes"]): string {
  if (even) return `an even number of, ${least} or more`;
  if (!most) return `${least} or more`;
  if (most === least + 1) return `${least} or ${most}`;
  return most === least ? `${least}` : `${least} to ${most}`;
}

function find(knots: CatalogueKnot[], text: string, offers: Map<string, Offer>, bare: boolean): CatalogueKnot[] {
  const words = text
    .toLowerCase()
    .split(/[\s-]+/)
    .filter(Boolean);
  // What suits comes first; where nothing hangs, what cords are put on by, else what is tied most.
  const order = (k: CatalogueKnot) => (offers.get(k.id)?.suits ? 0 : 10) + ((bare ? k.mounts : k.common) ? 0 : 1);
  return knots
    .filter((k) => {
      const hay = [k.name, k.family, k.for, ...k.other_names].join(" ").toLowerCase();
      return words.every((w) => hay.includes(w));
    })
    .sort((a, b) => {
      const name = (k: CatalogueKnot) =>
        words.length > 0 && [k.name, ...k.other_names].some((n) => n.toLowerCase().startsWith(words[0])) ? 0 : 1;
      return name(a) - name(b) || order(a) - order(b) || a.name.localeCompare(b.name);
    });
}
