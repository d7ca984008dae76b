import { lazy, Suspense, useState } from "react";
import { Link, useLocation } from "wouter";
import { api, Failed, Offline } from "../api/client";
import { useCatalogue, useChange, useKnots } from "../api/queries";
import type { Document, IntoRequest } from "../api/types.gen";
import { type PieceHandle, usePiece } from "../api/usePiece";
import { Hang } from "../hang/Hang";
import { Strips } from "../strips/Strips";
import { Alert } from "../ui/Alert";
import { Choice, TextInput } from "../ui/fields";
import { Nothing } from "../ui/Nothing";
import { Refusals } from "../ui/refusals";
import { SettingsMenu } from "../ui/SettingsMenu";
import { useTitle } from "../ui/useTitle";
import { OnThePhone } from "../vise/Phone";
import { Conflict } from "./Conflict";
import { CordRail } from "./CordRail";
import { Check } from "./check/Check";
import { Colour } from "./colour/Colour";
import { Cut } from "./cut/Cut";
import { Figures } from "./Figures";
import { Finish } from "./finish/Finish";
import { History } from "./History";
import { insert, KeySheet, useBenchKeys } from "./keys";
import { Log } from "./log/Log";
import { Purpose } from "./purpose/Purpose";
import { SaveSign } from "./SaveSign";
import { isStage, type Stage } from "./stages";
import { Stuff } from "./stuff/Stuff";
import { Tie } from "./tie/Tie";
import { Walk } from "./Walk";
import { useWork, WorkProvider } from "./work";

// What finds knots and pieces is loaded when it is opened.
const Finder = lazy(() => import("./Finder"));
const Palette = lazy(() => import("./tie/Palette"));

export function Bench({ id, stage }: { id: number; stage: string }) {
  const piece = usePiece(id);
  if (piece.error && !piece.document) {
    const gone = piece.error instanceof Failed && piece.error.problem.status === 404;
    return (
      <Nothing
        title={
          gone
            ? "This piece is not on the rack"
            : piece.error instanceof Offline
              ? "The bench is out of reach"
              : "This piece will not open"
        }
        text={gone ? "It may have been deleted from the bin." : piece.error.message}
        again={gone ? undefined : piece.again}
      />
    );
  }
  if (piece.bench && !piece.document) return <Unread id={id} piece={piece} />;
  if (!piece.document) {
    return (
      <main className="flex h-full items-center justify-center">
        <p role="status" data-wait>
          Laying the piece out…
        </p>
      </main>
    );
  }
  return (
    <WorkProvider id={id} piece={piece} document={piece.document}>
      <Laid stage={isStage(stage) ? stage : "tie"} />
    </WorkProvider>
  );
}

const panels: Record<Stage, () => React.JSX.Element> = {
  purpose: Purpose,
  stuff: Stuff,
  colour: Colour,
  cut: Cut,
  tie: Tie,
  finish: Finish,
  check: Check,
  log: Log,
};

function Laid({ stage }: { stage: Stage }) {
  const { document, id, piece, edit, palette, refusals, side, lens } = useWork();
  const [sheet, setSheet] = useState(false);
  const [past, setPast] = useState(false);
  const [finding, setFinding] = useState(false);
  useBenchKeys({ stage, showKeys: () => setSheet(true), find: () => setFinding(true) });
  useTitle(`${document.name || "A piece"}: ${stage}`);
  const Stage = panels[stage];
  // What is not saved yet can be undone too; what was undone a moment ago can be redone.
  const canUndo = piece.bench?.can_undo || piece.state === "saving" || piece.state === "unsaved";
  const canRedo = piece.bench?.can_redo || piece.walking > 0;
  const [, go] = useLocation();
  return (
    <div className="screen flex h-full min-h-0 flex-col">
      <header className="flex flex-wrap items-center gap-x-2 gap-y-1 border-base-300 border-b px-3 py-1.5">
        <Link href="/" className="btn btn-ghost btn-sm">
          <span aria-hidden="true">&larr;</span> Rack
        </Link>
        <h1 className="sr-only">{document.name}</h1>
        <div className="max-lg:order-last max-lg:basis-full min-w-0 flex-1 lg:max-w-72">
          <TextInput
            bare
            needed
            label="Name of the piece"
            className="input input-ghost w-full px-2 font-semibold text-lg hover:border-base-300"
            value={document.name}
            onSet={(name) => edit((d) => ({ ...d, name }))}
          />
        </div>
        <SaveSign />
        <span className="flex-1" />
        <button type="button" className="btn btn-ghost btn-sm" disabled={!canUndo} onClick={piece.undo}>
          Undo
        </button>
        <button type="button" className="btn btn-ghost btn-sm" disabled={!canRedo} onClick={piece.redo}>
          Redo
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => setPast(true)}>
          History
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => setFinding(true)}>
          Find
        </button>
        <button type="button" className="btn btn-ghost btn-sm max-lg:hidden" onClick={() => setSheet(true)}>
          Keys
        </button>
        <SettingsMenu />
        <span className="max-lg:hidden">
          <OnThePhone id={id} ghost />
        </span>
        <button type="button" className="btn btn-primary btn-sm" onClick={() => go(`/piece/${id}/vise`)}>
          To the vise
        </button>
      </header>
      {piece.refused && !piece.choosing && (
        <div role="alert" className="alert alert-error rounded-none px-4 py-2 text-sm">
          <span className="flex-1">{piece.refused}</span>
          <button type="button" className="btn btn-xs" onClick={piece.dismiss}>
            Close
          </button>
        </div>
      )}
      {piece.note && (
        <div role="status" className="alert rounded-none px-4 py-2 text-sm" data-testid="note">
          <span className="flex-1">{piece.note}</span>
          <button type="button" className="btn btn-xs" onClick={piece.dismiss}>
            Close
          </button>
        </div>
      )}
      <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
        <CordRail stage={stage} />
        <main className="flex min-h-0 min-w-0 flex-1 flex-col max-md:overflow-y-auto">
          <div className="flex min-h-0 flex-1 max-md:flex-none max-md:flex-col">
            <section
              aria-label="The hang"
              className="screen-hang flex min-h-0 min-w-0 flex-1 flex-col max-md:h-[46vh] max-md:flex-none"
            >
              <Figures />
              <div className="min-h-0 flex-1">
                <Hang side={side} lens={lens} />
              </div>
            </section>
            <div
              className="w-[400px] shrink-0 overflow-y-auto border-base-300 p-4 max-md:w-full max-md:overflow-visible md:border-l md:max-lg:w-[370px]"
              tabIndex={0}
              role="region"
              aria-label="Stage"
            >
              <Walk id={id} stage={stage} />
              <Refusals value={refusals}>
                <Stage />
              </Refusals>
            </div>
          </div>
          <section
            aria-label="The cords laid straight"
            className="h-[148px] shrink-0 border-base-300 border-t max-md:h-auto"
          >
            <Strips />
          </section>
        </main>
      </div>
      {piece.conflict && <Conflict />}
      {past && <History onClose={() => setPast(false)} />}
      {sheet && <KeySheet onClose={() => setSheet(false)} />}
      <Suspense>
        {palette === "add" && <AddSection />}
        {palette === "into" && <ChangeInto />}
        {finding && <Finder onClose={() => setFinding(false)} />}
      </Suspense>
    </div>
  );
}

/** Unread is a piece that cannot be read any more: it says why, and what can be done with it. */
function Unread({ id, piece }: { id: number; piece: PieceHandle }) {
  const [, go] = useLocation();
  const bin = useChange(() => api.drop(`/pieces/${id}`), [["tags"]]);
  return (
    <main className="mx-auto flex h-full max-w-xl flex-col justify-center gap-4 p-6">
      <h1 className="font-semibold text-2xl">This piece cannot be read</h1>
      <p>{piece.bench?.trouble}</p>
      <p>Nothing of it was changed. Go back to the revision before, save it to a file, or put it into the bin.</p>
      {bin.error && <Alert>{bin.error.message}</Alert>}
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-primary" disabled={!piece.bench?.can_undo} onClick={piece.undo}>
          Undo
        </button>
        <a className="btn" href={`/api/pieces/${id}/file`} download>
          Save it to a file
        </a>
        <button type="button" className="btn" onClick={() => bin.mutate(undefined, { onSuccess: () => go("/") })}>
          Put it into the bin
        </button>
        <Link href="/" className="btn btn-ghost">
          To the rack
        </Link>
      </div>
    </main>
  );
}

function ChangeInto() {
  const { document, plan, selected, edit, closePalette } = useWork();
  const catalogue = useCatalogue().data;
  const [keeps, setKeeps] = useState<IntoRequest["keeps"]>("length");
  const section = document.sequence[selected];
  if (!catalogue || !section) return null;
  const above = plan?.sections.filter((s) => s.index < selected).at(-1);
  return (
    <Palette
      catalogue={catalogue}
      document={document}
      title={`Change section ${selected + 1} into`}
      hanging={above?.order_after.length ?? 0}
      onClose={closePalette}
      onAdd={async (made, cords) => {
        const to = made.at(-1);
        if (!to) return;
        const whole = { ...document, cords: [...document.cords, ...cords] };
        const next = await api.post<Document>("/into", { document: whole, section: selected, to, keeps });
        edit(() => next);
      }}
    >
      <Choice
        label="It keeps"
        value={keeps}
        options={[
          { id: "length", name: "the length of the piece" },
          { id: "count", name: "the count of its knots" },
        ]}
        onSet={(v) => setKeeps(v as IntoRequest["keeps"])}
      />
    </Palette>
  );
}

function AddSection() {
  const { document, plan, selected, select, edit, closePalette } = useWork();
  const catalogue = useCatalogue().data;
  const knots = useKnots();
  if (!catalogue) return null;
  // What is added with a finish chosen is tied before the ends are finished.
  const firstEnd = document.sequence.findIndex((s) => knots.get(s.do)?.ends);
  const chosen = document.sequence.length === 0 ? 0 : selected + 1;
  const at = knots.get(document.sequence[selected]?.do)?.ends && firstEnd >= 0 ? firstEnd : chosen;
  const above = plan?.sections.filter((s) => s.index < at).at(-1);
  return (
    <Palette
      catalogue={catalogue}
      document={document}
      hanging={above?.order_after.length ?? 0}
      onClose={closePalette}
      onAdd={(made, cords) => {
        edit((d) => made.reduceRight((doc, s) => insert(doc, at, s), { ...d, cords: [...d.cords, ...cords] }));
        select(at + made.length - 1);
      }}
    />
  );
}
