import { useEffect } from "react";
import { Link } from "wouter";
import { useCatalogue, useKnotPicture } from "../api/queries";
import type { CatalogueKnot } from "../api/types.gen";
import { KeyList } from "../bench/keys";
import { useWalk } from "../bench/walk";
import { Fitted } from "../hang/Plate";
import { useTitle } from "../ui/useTitle";
import { chapters, terms } from "./text";

/** Guide says how figures come about, what each stage is for, the words of the trade, the knots and the keys. */
export function Guide() {
  useTitle("Guide");
  const [, setWalk] = useWalk();
  const knots = useCatalogue().data?.knots ?? [];
  const known = knots.length > 0;
  // What is linked to comes into sight once all above it has its room.
  useEffect(() => {
    const at = decodeURIComponent(location.hash.slice(1));
    const to = known && at ? document.getElementById(at) : null;
    to?.scrollIntoView();
    to?.focus({ preventScroll: true });
  }, [known]);
  return (
    <div className="screen flex h-full flex-col">
      <header className="flex flex-wrap items-center gap-3 border-base-300 border-b px-4 py-2">
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => history.back()}>
          <span aria-hidden="true">&larr;</span> Back
        </button>
        <h1 className="flex-1 font-bold text-xl">Guide</h1>
        <Link href="/" className="btn btn-ghost btn-sm">
          Rack
        </Link>
      </header>
      <main className="min-h-0 flex-1 overflow-y-auto p-4">
        <div className="mx-auto flex max-w-3xl flex-col gap-6">
          <p>
            New here?{" "}
            <Link href="/new" className="link" onClick={() => setWalk({ piece: 0 })}>
              Begin a piece, and be walked through it
            </Link>
            . You can leave the walk at any time.
          </p>
          {chapters.map((c) => (
            <section key={c.id} aria-labelledby={c.id} className="flex flex-col gap-2">
              <h2 id={c.id} tabIndex={-1} className="font-semibold text-lg">
                {c.title}
              </h2>
              {c.says.map((p) => (
                <p key={p}>{p}</p>
              ))}
            </section>
          ))}
          <section aria-labelledby="terms">
            <h2 id="terms" tabIndex={-1} className="mb-2 font-semibold text-lg">
              Words
            </h2>
            <dl className="grid gap-x-6 gap-y-1.5 sm:grid-cols-[auto_1fr]">
              {terms.map(([word, says]) => (
                <div key={word} className="contents">
                  <dt className="font-semibold">{word}</dt>
                  <dd>{says}</dd>
                </div>
              ))}
            </dl>
          </section>
          <section aria-labelledby="knots">
            <h2 id="knots" tabIndex={-1} className="mb-2 font-semibold text-lg">
              Knots
            </h2>
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-2">
              {knots.map((k) => (
                <Entry key={k.id} knot={k} />
              ))}
            </ul>
          </section>
          <section aria-labelledby="keys">
            <h2 id="keys" tabIndex={-1} className="mb-2 font-semibold text-lg">
              Keys of the bench
            </h2>
            <KeyList />
          </section>
        </div>
      </main>
    </div>
  );
}

/** Entry is a knot with its picture, its other names and what it is for. */
function Entry({ knot: k }: { knot: CatalogueKnot }) {
  const picture = useKnotPicture(k.id).data;
  return (
    <li id={`knot-${k.id}`} tabIndex={-1} className="flex flex-col gap-1 rounded-box border border-base-300 p-2">
      <span className="mat block h-28 overflow-hidden p-1">
        {picture && picture.places.length > 0 && <Fitted picture={picture} label="" />}
      </span>
      <strong>{k.name}</strong>
      {k.other_names.length > 0 && <span className="text-sm">also {k.other_names.join(", ")}</span>}
      <span className="text-sm">{k.for}</span>
    </li>
  );
}
