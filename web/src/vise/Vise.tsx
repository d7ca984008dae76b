import { useEffect, useMemo, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link } from "wouter";
import { alongSteps, usePicture, usePlan, useSettings } from "../api/queries";
import type { Caution, Plan } from "../api/types.gen";
import { type PieceHandle, usePiece } from "../api/usePiece";
import { RunningShort } from "../bench/cut/Middle";
import { TableCard } from "../bench/cut/TableCard";
import { type Around, lookedAt } from "../hang/Hang";
import { Fitted } from "../hang/Plate";
import { Cautions } from "../ui/Cautions";
import { Dialog } from "../ui/Dialog";
import { useKept } from "../ui/kept";
import { Nothing } from "../ui/Nothing";
import { said } from "../ui/units";
import { useLast } from "../ui/useLast";
import { useTitle } from "../ui/useTitle";
import { useAhead, useSoon } from "./ahead";
import { Doing } from "./Doing";
import { stepLook, stillLook } from "./look";
import { OnTheTable } from "./OnTheTable";
import { OnThePhone } from "./Phone";
import { usePutBy } from "./putBy";
import { backwards, onwards, type Place, placeAt, type Stride, strides } from "./steps";
import { Pace, Rest } from "./Times";
import { type Move, useFilm, useMove } from "./useMove";
import { usePlace } from "./usePlace";
import { turnStep, useTurning } from "./useTurning";
import { SoFar, Where } from "./Where";

/** acts tells whether a caution stands at a place: at its section, or, of the whole piece, at the first move. */
function acts(c: Caution, place: Place | null, done: number) {
  if (!place) return c.at.includes("check");
  if (done < 0) return place.part === 1 && c.at.includes("cut");
  return c.section >= 0 ? c.section === place.step.section : done === 0 && c.at.includes("tie");
}

/** Vise is the work at the table: one action at a time, readable at arm's length. */
export function Vise({ id }: { id: number }) {
  const piece = usePiece(id);
  const query = usePlan(id, piece.revision);
  const plan = useLast(query.data);
  useTitle(`${piece.document?.name ?? "A piece"}: at the vise`);
  if (piece.error && !piece.bench) return <Nothing title="Nothing in the vise" text={piece.error.message} />;
  if (!plan && query.error)
    return <Nothing title="It cannot be tied as it is" text={query.error.message} again={() => query.refetch()} />;
  if (!plan || !piece.bench)
    return (
      <main className="p-8" role="status" data-wait>
        Putting it into the vise…
      </main>
    );
  return <Held key={id} id={id} plan={plan} piece={piece} />;
}

function Held(p: { id: number; plan: Plan; piece: PieceHandle }) {
  const { id, plan, piece } = p;
  const revision = piece.revision as number;
  const { done, setDone, state, why, note, times } = usePlace(id, revision, plan, piece.bench?.done ?? 0, piece.reopen);
  const { units } = useSettings();
  const [short, setShort] = useState(false);
  const [card, setCard] = useState(false);
  const place = useMemo(() => placeAt(plan, done), [plan, done]);
  const [stride, setStride] = useKept<Stride>("vise-stride", "move");
  const byPointer = useRef(false);
  const to = onwards(plan, done, stride);
  const go = () => setDone((n) => onwards(plan, n, stride));
  const back = () => setDone((n) => backwards(plan, n, stride));
  // One who comes back to work that was begun is shown where it stands, till the first step.
  const [came, setCame] = useState<number | null>(done > 0 ? done : null);
  const move = useMove(done);
  const section = place?.step.section ?? -1;
  const planned = plan.sections.find((s) => s.index === section);
  const sides: (Around | "side")[] = [
    "side",
    ...(planned?.around || planned?.from_end ? ["end" as const] : []),
    ...(planned?.around ? ["unrolled" as const] : []),
  ];
  // Each knot is looked at as it was last; at first from where it is tied.
  const [from, setFrom] = useKept<Around | "side">(
    `vise-from-${planned?.do ?? ""}`,
    planned?.from_end ? "end" : "side",
  );
  const as = from !== "side" && sides.includes(from) ? from : undefined;
  const until = Math.min(to === done ? done + 1 : to, plan.actions);
  const table = done < 0;
  const turning = useTurning(section);
  const turn = as ? 0 : turning.turn;
  const view = usePicture(
    id,
    revision,
    { ...stepLook(until, place ? move.along : alongSteps, turn), as, section },
    !table,
  );
  // Without the network the move stands still, as it was put by.
  const still = usePicture(id, revision, stillLook(plan, until), view.isError && !table);
  const picture = useLast(view.isError ? still.data : view.data);
  const seen = !view.isPlaceholderData && !view.isPending;
  useFilm(move, seen);
  useSoon(id, revision, { ...stepLook(until, move.along, turn), as, section }, move.playing && seen ? move.step : 0);
  const next = placeAt(plan, until);
  useAhead(id, revision, next?.action.led && !move.playing ? until + 1 : undefined, { as, section });
  const there = usePutBy(id, revision, done, plan);
  useWakeLock();
  // What is in focus keeps its own keys: a button is pressed by them, a slider moved.
  const own = (e: KeyboardEvent) => {
    const keeps = e.key === "Enter" || e.key === " " ? "a, button, summary" : 'input[type="range"]';
    return (e.target as Element).closest(`${keeps}, select, textarea, input:not([type="range"])`) !== null;
  };
  const paced = { enabled: !short && !card, enableOnFormTags: true, preventDefault: true, ignoreEventWhen: own };
  useHotkeys("space,enter,pagedown,right", go, paced);
  useHotkeys("backspace,pageup,left", back, paced);
  const share = plan.actions > 0 ? Math.max(0, done) / plan.actions : 0;
  return (
    <main className="vise flex h-dvh flex-col" data-testid="vise" data-done={done}>
      <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-base-300 border-b px-4 py-2">
        <Link href={`/piece/${id}/tie`} className="btn btn-ghost btn-sm">
          <span aria-hidden="true">&larr;</span> Bench
        </Link>
        <h1 className="min-w-0 truncate font-semibold">{piece.document?.name ?? ""}</h1>
        {plan.left_handed && <span className="rounded-field border px-1.5 text-xs">mirrored</span>}
        <span className="flex-1" />
        <span
          role="status"
          data-testid="place-sign"
          className={`text-sm ${state === "unsaved" ? "rounded-field bg-warning px-2 text-warning-content" : "opacity-80"}`}
        >
          {state === "kept" ? "place saved" : state === "unsaved" ? `place not saved yet: ${why}` : "saving the place…"}
        </span>
        <span className="flex items-center gap-2 text-sm">
          <label htmlFor="vise-step">Step</label>
          <select
            id="vise-step"
            className="select select-sm w-40"
            value={stride}
            onPointerDown={() => {
              byPointer.current = true;
            }}
            onKeyDown={() => {
              byPointer.current = false;
            }}
            onChange={(e) => {
              setStride(e.target.value as Stride);
              // Chosen by the pointer, the keys are those of the work again; whoever types goes on typing.
              if (byPointer.current) e.currentTarget.blur();
            }}
          >
            {strides.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </span>
        <button type="button" className="btn btn-sm" onClick={() => setCard(true)}>
          Table card
        </button>
        <button type="button" className="btn btn-sm" onClick={() => setShort(true)}>
          Running short
        </button>
        <span className="max-md:hidden">
          <OnThePhone id={id} />
        </span>
        <Link href="/guide#vise" className="btn btn-ghost btn-sm max-lg:hidden">
          Help
        </Link>
        <span className="figure">
          {table ? `${done + plan.ready.length} / ${plan.ready.length}` : `${done} / ${plan.actions}`}
        </span>
      </header>
      {card && (
        <Dialog title="What lies on the table" onClose={() => setCard(false)} wide>
          <TableCard id={id} revision={revision} />
        </Dialog>
      )}
      {short && piece.document && (
        <RunningShort
          id={id}
          revision={revision}
          document={piece.document}
          plan={plan}
          done={Math.max(0, done)}
          onClose={() => setShort(false)}
          onTaken={() => piece.reopen()}
        />
      )}
      <div aria-hidden="true" className="h-1.5 bg-base-300">
        <svg className="block h-full w-full" preserveAspectRatio="none" viewBox="0 0 1000 1">
          <rect width={1000 * share} height="1" fill="var(--color-primary)" />
        </svg>
      </div>
      {note && (
        <p role="status" className="bg-base-200 px-4 py-1.5" data-testid="place-note">
          {note}
        </p>
      )}
      <div className="vise-work grid min-h-0 flex-1 grid-cols-1 grid-rows-[42%_1fr] md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] md:grid-rows-1">
        <div
          className={`mat relative flex min-h-0 touch-pan-y items-center justify-center overflow-hidden p-3 pb-14 ${sides.length > 1 ? "pt-12" : ""}`}
          {...(as || table ? {} : turning.drag)}
          data-along={view.isPlaceholderData || !view.data ? undefined : move.along}
          data-still={view.isError && !still.isPlaceholderData && still.data ? until : undefined}
        >
          {sides.length > 1 && <From sides={sides} from={from} setFrom={setFrom} />}
          <div className="absolute inset-x-3 bottom-2 z-10 flex items-center gap-3 rounded-field bg-base-100/90 px-3 py-1 empty:hidden">
            {place?.action.led && <MoveSlider {...move} />}
            {!as && !table && <Turn {...turning} />}
          </div>
          {table && <OnTheTable made={done + plan.ready.length} plan={plan} units={units} />}
          {!table && picture && picture.places.length > 0 && (
            <Fitted
              picture={picture}
              label={`The work in hand${as ? `, ${lookedAt[as]}` : ""}; the strand that moves is outlined`}
            />
          )}
          {!table && picture?.places.length === 0 && as && <p role="status">Nothing of it is led round yet.</p>}
        </div>
        <div className="flex min-h-0 flex-col gap-5 overflow-y-auto p-6" aria-live="polite">
          {place ? <Doing place={place} plan={plan} done={done} to={to} units={units} /> : <Done id={id} plan={plan} />}
          {place && came === done && picture && (
            <Where id={id} revision={revision} plan={plan} done={done} units={units} onGo={() => setCame(null)} />
          )}
          {done > 0 && came !== done && picture && !view.isPlaceholderData && (
            <SoFar id={id} revision={revision} plan={plan} done={done} />
          )}
          {times?.rest && <Rest times={times} />}
          <Cautions large all={plan.cautions.filter((c) => acts(c, place, done))} />
          {table && (
            <button type="button" className="btn self-start" onClick={() => setDone(() => 0)}>
              All is cut and ready
            </button>
          )}
          {done === -plan.ready.length && (
            <details className="rounded-box border border-base-300 p-3">
              <summary className="cursor-pointer text-lg">Before you begin: what lies on the table</summary>
              <TableCard id={id} revision={revision} />
            </details>
          )}
          {times && <Pace times={times} />}
          <p className="text-sm opacity-80">
            Space or a page pedal goes on, Backspace goes back. The place is kept by itself.
            {there && (
              <span data-testid="put-by">
                {" "}
                All steps are on this device: they go on without the network
                {!window.isSecureContext && ", as long as this page stays open"}.
              </span>
            )}
          </p>
        </div>
      </div>
      {/* Always in reach, whatever the window's size. */}
      <div className="vise-keys flex gap-3 border-base-300 border-t bg-base-100 px-4 py-3">
        <button type="button" className="btn btn-lg" disabled={done === -plan.ready.length} onClick={back}>
          Back
        </button>
        <button type="button" className="btn btn-primary btn-lg flex-1" disabled={!place} onClick={go}>
          {place ? "Done, next" : "All done"}
        </button>
      </div>
    </main>
  );
}

/** Turn turns the work by a slider, for those who do not drag it. */
function Turn({ turn, setTurn }: { turn: number; setTurn: (n: number) => void }) {
  return (
    <label className="flex items-center gap-2 text-sm">
      <span className="max-md:sr-only">Turned</span>
      <input
        type="range"
        className="range w-16 md:w-28"
        min={0}
        max={360 - turnStep}
        step={turnStep}
        value={turn}
        aria-valuetext={`${turn} degrees`}
        onChange={(e) => setTurn(Number(e.target.value))}
      />
      <span className="figure w-9">{turn}°</span>
    </label>
  );
}

/** From chooses from where work is looked at that goes round. */
function From({
  sides,
  from,
  setFrom,
}: {
  sides: (Around | "side")[];
  from: Around | "side";
  setFrom: (f: Around | "side") => void;
}) {
  const ways = [
    ["side", "from the side"],
    ["end", "from the end"],
    ["unrolled", "unrolled"],
  ] as const;
  return (
    <fieldset className="join absolute top-2 right-2 z-10">
      <legend className="sr-only">Looked at</legend>
      {ways
        .filter(([w]) => sides.includes(w))
        .map(([w, name]) => (
          <button
            key={w}
            type="button"
            aria-pressed={from === w}
            className={`btn join-item btn-sm ${from === w ? "btn-neutral" : ""}`}
            onClick={() => setFrom(w)}
          >
            {name}
          </button>
        ))}
    </fieldset>
  );
}

/** MoveSlider leads the strand and draws the knot up, by hand or by itself. */
function MoveSlider({ along, setAlong, playing, play }: Move) {
  return (
    <>
      <button type="button" className="btn btn-ghost btn-sm max-md:px-1" onClick={play}>
        {playing ? "Stop" : "Show the move"}
      </button>
      <input
        type="range"
        className="range range-primary min-w-16 flex-1"
        min={1}
        max={alongSteps}
        value={along || alongSteps / 2}
        aria-label="How far the move has come"
        aria-valuetext={`${Math.round((100 * (along || alongSteps / 2)) / alongSteps)} percent`}
        onChange={(e) => setAlong(Number(e.target.value))}
      />
    </>
  );
}

function Done({ id, plan }: { id: number; plan: Plan }) {
  const { units } = useSettings();
  return (
    <>
      <p className="font-bold text-4xl">Tied.</p>
      <h2 className="text-xl">Look it over:</h2>
      <ul className="list-disc pl-6 text-xl">
        {plan.checks.map((c) => (
          <li key={c.code + c.section + c.message}>{said(c.message, units)}</li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-3">
        <Link href={`/piece/${id}/check`} className="btn btn-lg">
          Check it, right beside wrong
        </Link>
        <Link href={`/piece/${id}/log`} className="btn btn-lg">
          Write it down
        </Link>
      </div>
    </>
  );
}

/** useWakeLock keeps the screen lit while the work is in the vise, where the browser can. */
function useWakeLock() {
  useEffect(() => {
    if (!("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    const take = () => {
      if (document.visibilityState === "visible") {
        navigator.wakeLock.request("screen").then(
          (l) => {
            lock = l;
          },
          () => undefined, // refused, as on a low battery: the work goes on without
        );
      }
    };
    take();
    document.addEventListener("visibilitychange", take);
    return () => {
      document.removeEventListener("visibilitychange", take);
      lock?.release();
    };
  }, []);
}
