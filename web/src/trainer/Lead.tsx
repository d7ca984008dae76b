import { useEffect, useRef, useState } from "react";
import { Link } from "wouter";
import { api } from "../api/client";
import { useChange, useLeading } from "../api/queries";
import type { Answer, Leading, Trained } from "../api/types.gen";
import { Plates } from "../hang/Plate";
import { Nothing } from "../ui/Nothing";
import { Problems } from "../ui/Problems";
import { useKeys } from "../ui/useKeys";
import { useLast } from "../ui/useLast";
import { useSize } from "../ui/useSize";
import { useTitle } from "../ui/useTitle";
import { days } from "./Trainer";

/** The frames in which a knot that was led is drawn up, and how long each stands, ms. */
const frames = 20;
const each = 60;

/** Lead has one knot led, crossing by crossing, and then drawn up as it was led. */
export function Lead({ knot }: { knot: string }) {
  const [at, setAt] = useState(0);
  const [slips, setSlips] = useState(0);
  // The crossings that were left passed the wrong way; while one looks what a slip makes, that one too.
  const [kept, setKept] = useState<number[]>([]);
  const [trying, setTrying] = useState<number[] | null>(null);
  const [said, setSaid] = useState<Answer | null>(null);
  const [drawn, setDrawn] = useState(0);
  const total = useRef(0);
  const leading = useLeading(knot, trying ? total.current : at, drawn / frames, trying ?? kept);
  const now = useLast(leading.data);
  if (now) total.current = now.crossings;
  const judge = useChange((over: boolean) => api.post<Answer>(`/trainer/${knot}/judge`, { at, over, slips: kept }), []);
  const led = useChange((n: number) => api.post<Trained>(`/trainer/${knot}/led`, { slips: n }), [["trained"]]);
  const asking = now !== undefined && !trying && at < now.crossings && !judge.isPending;
  const goOn = (all: number) => {
    setAt((n) => n + 1);
    if (now && at + 1 === now.crossings) led.mutate(all);
  };
  const pass = (over: boolean) => {
    if (!asking) return;
    judge.mutate(over, {
      onSuccess: (a) => {
        setSaid(a);
        if (a.right) goOn(slips);
        else setSlips((n) => n + 1);
      },
    });
  };
  const keep = () => {
    setKept((k) => [...k, at]);
    setSaid(null);
    goOn(slips);
  };
  const look = (t: number[] | null) => {
    setDrawn(0);
    setTrying(t);
  };
  const again = () => {
    setAt(0);
    setSlips(0);
    setKept([]);
    setSaid(null);
    setDrawn(0);
  };
  useKeys({ o: () => pass(true), arrowup: () => pass(true), u: () => pass(false), arrowdown: () => pass(false) });
  useDrawingUp((now?.done ?? false) && (trying !== null || at === now?.crossings), setDrawn, String(trying));
  useTitle(now ? `Lead the ${now.name}` : "Trainer");
  if (leading.error) return <Nothing title="This knot cannot be led" text={leading.error.message} />;
  const slipped = said !== null && !said.right && !trying;
  return (
    <div className="screen flex h-full flex-col" data-testid="lead" data-at={at} data-wait={!now || undefined}>
      <header className="flex flex-wrap items-center gap-3 border-base-300 border-b px-4 py-2">
        <Link href="/trainer" className="btn btn-ghost btn-sm">
          <span aria-hidden="true">&larr;</span> Trainer
        </Link>
        <h1 className="font-semibold text-xl">{now ? `Lead the ${now.name}` : "Trainer"}</h1>
        <span className="flex-1" />
        {now && (
          <span className="figure">
            {Math.min(at, now.crossings)} / {now.crossings}
          </span>
        )}
      </header>
      <main className="grid min-h-0 flex-1 grid-cols-1 grid-rows-[1fr_auto] md:grid-cols-2 md:grid-rows-1">
        <div className="mat min-h-0 overflow-hidden p-3">
          {now && <Diagram now={now} onPass={asking ? pass : undefined} />}
        </div>
        <div className="flex flex-col gap-4 overflow-y-auto p-6" aria-live="polite">
          {now && !now.done && !trying && (
            <>
              <p className="font-semibold text-3xl leading-snug" data-testid="ask">
                {now.strand === now.with
                  ? `Strand ${now.strand} comes to itself: over or under?`
                  : `Strand ${now.strand} comes to strand ${now.with}: over or under?`}
              </p>
              {now.looked && <p>{now.looked}</p>}
              <div className="flex gap-3">
                <button type="button" className="btn btn-lg flex-1" onClick={() => pass(true)}>
                  Over
                </button>
                <button type="button" className="btn btn-lg flex-1" onClick={() => pass(false)}>
                  Under
                </button>
              </div>
            </>
          )}
          {said && (
            <p data-testid="said" className={`text-xl ${said.right ? "" : "rounded-box border-2 border-error p-3"}`}>
              {!said.right && <strong>Not so. </strong>}
              {said.says}
            </p>
          )}
          {slipped && (
            <div className="flex flex-wrap gap-3">
              <button type="button" className="btn" onClick={() => look([...kept, at])}>
                See it drawn up
              </button>
              <button type="button" className="btn" onClick={keep}>
                Leave it so, go on
              </button>
            </div>
          )}
          {leading.isPlaceholderData && (trying || kept.length > 0) && !now?.says && (
            <p role="status" data-wait>
              Drawing it up as you led it…
            </p>
          )}
          {now?.says && (
            <p className="font-semibold text-2xl" data-testid="made">
              {now.says}
            </p>
          )}
          {trying && (
            <button type="button" className="btn btn-primary btn-lg self-start" onClick={() => look(null)}>
              Back to this crossing
            </button>
          )}
          <Problems error={judge.error ?? led.error} />
          {now?.done && !trying && (
            <>
              <p className="font-bold text-3xl">
                {slips === 0 ? "Led without a slip." : `Led, with ${slips} slip${slips === 1 ? "" : "s"}.`}
              </p>
              {led.data && (
                <p className="text-xl">
                  The {now.name} is {days(led.data)}.
                </p>
              )}
              <div className="flex flex-wrap gap-3">
                <button type="button" className="btn btn-lg" onClick={again}>
                  Lead it again
                </button>
                <Link href="/trainer" className="btn btn-primary btn-lg">
                  To the next
                </Link>
              </div>
            </>
          )}
          <p className="text-sm opacity-80">
            O or the up arrow passes over, U or the down arrow under; or press at the crossing, or drag across the
            picture, up for over and down for under.
          </p>
        </div>
      </main>
    </div>
  );
}

/** useDrawingUp draws a knot up once it is led, at once where motion is to be reduced. */
function useDrawingUp(done: boolean, setDrawn: (f: (n: number) => number) => void, what: string) {
  const set = useRef(setDrawn);
  useEffect(() => {
    set.current = setDrawn;
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is drawn up begins anew
  useEffect(() => {
    if (!done) return;
    if (window.matchMedia("(prefers-reduced-motion: reduce)").matches) return set.current(() => frames);
    const timer = setInterval(() => set.current((n) => Math.min(frames, n + 1)), each);
    return () => clearInterval(timer);
  }, [done, what]);
}

/** How far one drags for a crossing to be passed, pixels. */
const dragged = 40;

/** Diagram is the knot as far as it is led; a ring marks the crossing that is come to, and what to press for it. */
function Diagram({ now, onPass }: { now: Leading; onPass?: (over: boolean) => void }) {
  const { box, w, h } = useSize();
  const from = useRef<number | null>(null);
  const { left, top, width, height } = now.picture;
  const perMM = Math.min((w / width) * 100, (h / height) * 100);
  const says = now.done
    ? `${now.name}, led and drawn up`
    : `${now.name}, led up to crossing; a ring marks where strand ${now.strand} comes to ${now.strand === now.with ? "itself" : `strand ${now.with}`}`;
  const px = (hundredths: number) => (hundredths / 100) * perMM;
  return (
    <div
      ref={box}
      className="flex h-full min-h-0 w-full touch-none items-center justify-center overflow-hidden"
      onPointerDown={(e) => {
        from.current = e.clientY;
      }}
      onPointerUp={(e) => {
        const by = from.current === null ? 0 : e.clientY - from.current;
        from.current = null;
        if (Math.abs(by) >= dragged) onPass?.(by < 0);
      }}
    >
      {perMM > 0 && (
        <div className="relative">
          <svg
            role="img"
            aria-label={says}
            className="block"
            width={px(width)}
            height={px(height)}
            viewBox={`${left} ${top} ${width} ${height}`}
            overflow="visible"
          >
            <Plates picture={now.picture} scale={perMM / 100} zero={top} />
            {!now.done && (
              <circle
                cx={now.x}
                cy={now.y}
                r={(22 / perMM) * 100}
                fill="none"
                stroke="var(--moving)"
                strokeWidth={(3 / perMM) * 100}
                strokeDasharray={`${(6 / perMM) * 100} ${(4 / perMM) * 100}`}
              />
            )}
          </svg>
          {/* The same as the buttons beside the picture, where the pointer is. */}
          {onPass && !now.done && (
            <div
              aria-hidden="true"
              className="-translate-x-1/2 absolute flex gap-2"
              style={{
                left: Math.min(px(width) - 70, Math.max(70, px(now.x - left))),
                top: px(now.y - top) + 30,
              }}
            >
              {[true, false].map((over) => (
                <button
                  key={String(over)}
                  type="button"
                  tabIndex={-1}
                  className="btn h-11 border-base-300 bg-base-100"
                  onClick={() => onPass(over)}
                >
                  {over ? "over" : "under"}
                </button>
              ))}
            </div>
          )}
        </div>
      )}
    </div>
  );
}
