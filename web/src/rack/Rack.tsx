import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { Link, useLocation } from "wouter";
import { api, whyNot } from "../api/client";
import { useChange, usePicture, useSettings, useTags } from "../api/queries";
import type { Bench, Tag } from "../api/types.gen";
import { Still } from "../hang/Plate";
import { Alert } from "../ui/Alert";
import { finds } from "../ui/finds";
import { Nothing } from "../ui/Nothing";
import { SettingsMenu } from "../ui/SettingsMenu";
import { length } from "../ui/units";
import { useKeys } from "../ui/useKeys";
import { useTitle } from "../ui/useTitle";
import { Begin } from "./Begin";
import { FolderNote } from "./FolderNote";

const Finder = lazy(() => import("../bench/Finder")); // loaded when it is opened

/** Rack: the pieces hang from a rail, side by side at one scale, each with its paper tag. */
export function Rack() {
  const tags = useTags();
  const binned = useTags(true);
  const [find, setFind] = useState("");
  const [finding, setFinding] = useState(false);
  useTitle("The rack");
  useKeys({ "mod~k": () => setFinding(true) }, { typing: true });
  // What was seen stays while the server is away; it is asked again by itself.
  if (tags.error && !tags.data)
    return <Nothing title="The rack is out of reach" text={tags.error.message} again={() => tags.refetch()} />;
  const all = tags.data ?? [];
  const shown = all.filter((t) => finds(find, `${t.name} ${t.words}`));
  // One scale for all: the longest piece decides.
  const longest = Math.max(80, ...all.map((t) => t.length_mm));
  const perMM = Math.min(2.9, 460 / (longest + 55));
  return (
    <div className="screen flex h-full flex-col">
      <header className="flex flex-wrap items-center gap-3 border-base-300 border-b px-4 py-2">
        <h1 className="font-bold text-xl">
          Nimble Bight <span className="font-normal text-base opacity-80">the rack</span>
        </h1>
        <span className="flex-1" />
        <input
          type="search"
          aria-label="Find a piece"
          placeholder="Find a piece"
          className="input input-sm w-44"
          value={find}
          onChange={(e) => setFind(e.target.value)}
        />
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => setFinding(true)}>
          Find anything
        </button>
        <Link href="/balls" className="btn btn-ghost btn-sm">
          Balls and cores
        </Link>
        <Link href="/guide" className="btn btn-ghost btn-sm">
          Guide
        </Link>
        <Link href="/trainer" className="btn btn-ghost btn-sm">
          Trainer
        </Link>
        <Link href="/bin" className="btn btn-ghost btn-sm">
          Bin{binned.data && binned.data.length > 0 ? ` (${binned.data.length})` : ""}
        </Link>
        <SettingsMenu />
        <Link href="/new" className="btn btn-primary btn-sm">
          Hang a new piece
        </Link>
      </header>
      <FolderNote />
      {tags.error && (
        <p role="alert" className="alert alert-warning rounded-none px-4 py-1.5 text-sm">
          The rack is as it was last seen: {whyNot(tags.error)}. It is tried again.
        </p>
      )}
      <main className="min-h-0 flex-1 overflow-y-auto px-4 pb-8">
        {tags.isPending && (
          <p className="p-6" role="status" data-wait>
            Taking the pieces out…
          </p>
        )}
        {tags.data && all.length === 0 && (
          <section aria-label="The rail is empty" className="flex flex-col gap-3 pt-4">
            <span aria-hidden="true" className="-mx-4 block h-3 border-base-content border-y bg-accent/60" />
            <h2 className="font-semibold text-lg">The rail is empty: begin a first piece</h2>
            <Begin />
          </section>
        )}
        {all.length > 0 && shown.length === 0 && <p className="p-6">No piece with these words hangs here.</p>}
        <ul className="-mx-4 flex flex-wrap overflow-x-clip px-4" data-testid="rack">
          {shown.map((t) => (
            <Hanging key={t.id} tag={t} perMM={perMM} />
          ))}
        </ul>
      </main>
      <Suspense>{finding && <Finder onClose={() => setFinding(false)} />}</Suspense>
    </div>
  );
}

function stageWords(t: Tag): string {
  if (t.trouble) return "needs mending";
  if (t.stage === "on the vise") return `on the vise, ${t.done} of ${t.actions}`;
  return t.stage;
}

function Hanging({ tag, perMM }: { tag: Tag; perMM: number }) {
  // Its picture is asked for when it comes into sight.
  const [near, setNear] = useState(false);
  const box = useRef<HTMLLIElement>(null);
  useEffect(() => {
    const el = box.current;
    if (!el || near) return;
    const eye = new IntersectionObserver((seen) => seen.some((e) => e.isIntersecting) && setNear(true), {
      rootMargin: "300px",
    });
    eye.observe(el);
    return () => eye.disconnect();
  }, [near]);
  const { data: picture, isPending } = usePicture(
    tag.id,
    tag.revision,
    { turn: "best", scale: 2 },
    near && !tag.trouble && !tag.pending,
  );
  const waits = isPending && near && !tag.trouble;
  const [, go] = useLocation();
  const copy = useChange((id: number) => api.post<Bench>(`/pieces/${id}/copy`), [["tags"]]);
  const bin = useChange((id: number) => api.drop(`/pieces/${id}`), [["tags"]]);
  const undo = useChange((t: Tag) => api.post<Bench>(`/pieces/${t.id}/undo`, { revision: t.revision }), [["tags"]]);
  const room = picture ? Math.max(146, (picture.width / 100) * perMM + 20) : 150;
  return (
    <li ref={box} className="flex min-w-[150px] flex-col" style={{ width: room + 16 }} data-piece={tag.id}>
      {/* Every piece brings the rail for its whole row. */}
      <span
        aria-hidden="true"
        className="relative mt-6 block h-3 before:absolute before:inset-y-0 before:-left-[100vw] before:w-[300vw] before:border-base-content before:border-y before:bg-accent-rail"
      />
      <Link href={`/piece/${tag.id}/tie`} className="swings relative flex flex-1 flex-col items-center">
        <svg width="30" height="20" viewBox="0 0 30 20" aria-hidden="true">
          <path d="M15 0v9a5 5 0 1 1-5 5" fill="none" stroke="currentColor" strokeWidth="2.4" />
        </svg>
        {/* Room is kept for it, so that the tags stay where they are. */}
        <span
          className="-mt-1.5 block"
          data-wait={waits || undefined}
          style={{ minHeight: isPending ? tag.length_mm * perMM : undefined }}
        >
          {picture && picture.places.length > 0 && <Still picture={picture} perMM={perMM} label="" />}
        </span>
        <PaperTag tag={tag} />
      </Link>
      {tag.trouble && (
        <p className="mx-2 mt-1 text-error text-xs [overflow-wrap:anywhere]" data-testid="trouble">
          {tag.trouble}
        </p>
      )}
      <div className="mt-1 flex justify-center gap-1">
        {tag.trouble && (
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            aria-label={`Undo the last change of ${tag.name}`}
            onClick={() => undo.mutate(tag)}
          >
            Undo
          </button>
        )}
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          aria-label={`Copy ${tag.name}`}
          onClick={() => copy.mutate(tag.id, { onSuccess: (b) => go(`/piece/${b.id}/tie`) })}
        >
          Copy
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          aria-label={`Put ${tag.name} into the bin`}
          onClick={() => bin.mutate(tag.id)}
        >
          Bin
        </button>
      </div>
      {(copy.error ?? bin.error ?? undo.error) && <Alert>{(copy.error ?? bin.error ?? undo.error)?.message}</Alert>}
    </li>
  );
}

function PaperTag({ tag }: { tag: Tag }) {
  const { units } = useSettings();
  return (
    <>
      {/* Its thread is as long as it must be: the tags of a row hang level. */}
      <span aria-hidden="true" className="min-h-5 w-px flex-1 bg-base-content" />
      <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden="true" className="-mb-2.5 relative z-10">
        <circle cx="5" cy="5" r="3.2" fill="var(--color-base-100)" stroke="currentColor" strokeWidth="1.4" />
      </svg>
      <span className="mx-2 flex min-h-26 w-36 flex-col items-center rounded-t-2xl border border-base-content bg-base-200 px-2 pt-3 pb-1.5 text-center">
        <span className="line-clamp-2 font-semibold leading-tight">{tag.name}</span>
        <span className="figure text-sm">{tag.length_mm > 0 ? length(tag.length_mm, units) : ""}</span>
        <span className="text-sm">{stageWords(tag)}</span>
        {tag.warnings > 0 && (
          <span className="font-semibold text-sm text-warning">
            {tag.warnings} warning{tag.warnings === 1 ? "" : "s"}
          </span>
        )}
      </span>
    </>
  );
}
