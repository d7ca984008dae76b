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
import { days } from "./Trainer";

/** The frames in which a knot that was led is drawn up, and how long each stands, ms. */
const frames = 20;
const each = 60;

/** Lead has one knot led, crossing by crossing, and then drawn up. */
export function Lead({ knot }: { knot: string }) {
  const [at, setAt] = useState(0);
  const [slips, setSlips] = useState(0);
  const [said, setSaid] = useState<Answer | null>(null);
  const [drawn, setDrawn] = useState(0);
  const leading = useLeading(knot, at, drawn / frames);
  const now = useLast(leading.data);
  const judge = useChange((over: boolean) => api.post<Answer>(`/trainer/${knot}/judge`, { at, over }), []);
  const led = useChange((n: number) => api.post<Trained>(`/trainer/${knot}/led`, { slips: n }), [["trained"]]);
  const asking = now !== undefined && !now.done && leading.data !== undefined && !judge.isPending;
  const pass = (over: boolean) => {
    if (!asking) return;
    judge.mutate(over, {
      onSuccess: (a) => {
        setSaid(a);
        if (!a.right) return setSlips((n) => n + 1);
        setAt((n) => n + 1);
        if (at + 1 === now.crossings) led.mutate(slips);
      },
    });
  };
  const again = () => {
    setAt(0);
    setSlips(0);
    setSaid(null);
    setDrawn(0);
  };
  useKeys({ o: () => pass(true), arrowup: () => pass(true), u: () => pass(false), arrowdown: () => pass(false) });
  useDrawingUp(now?.done ?? false, setDrawn);
  useEffect(() => {
    if (now) document.title = `Lead the ${now.name} · Nimble Bight`;
  }, [now]);
  if (leading.error) return <Nothing title="This knot cannot be led" text={leading.error.message} />;
  return (
    <div className="screen flex h-full flex-col" data-testid="lead" data-at={at}>
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
        <div className="mat min-h-0 overflow-hidden p-3">{now && <Diagram now={now} />}</div>
        <div className="flex flex-col gap-4 overflow-y-auto p-6" aria-live="polite">
          {now && !now.done && (
            <>
              <p className="font-semibold text-3xl leading-snug" data-testid="ask">
                {now.strand === now.with
                  ? `Strand ${now.strand} comes to itself: over or under?`
                  : `Strand ${now.strand} comes to strand ${now.with}: over or under?`}
              </p>
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
          <Problems error={judge.error ?? led.error} />
          {now?.done && (
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
          <p className="text-sm opacity-80">O or the up arrow passes over, U or the down arrow under.</p>
        </div>
      </main>
    </div>
  );
}

/** useDrawingUp draws a knot up once it is led, at once where motion is to be reduced. */
function useDrawingUp(done: boolean, setDrawn: (f: (n: number) => number) => void) {
  const set = useRef(setDrawn);
  useEffect(() => {
    set.current = setDrawn;
  });
  useEffect(() => {
    if (!done) return;
    if (window.matchMedia("(prefers-reduced-motion: reduce)").matches) return set.current(() => frames);
    const timer = setInterval(() => set.current((n) => Math.min(frames, n + 1)), each);
    return () => clearInterval(timer);
  }, [done]);
}

/** Diagram is the knot as far as it is led; a ring marks the crossing that is come to. */
function Diagram({ now }: { now: Leading }) {
  const { box, w, h } = useSize();
  const { left, top, width, height } = now.picture;
  const perMM = Math.min((w / width) * 100, (h / height) * 100);
  const says = now.done
    ? `${now.name}, led and drawn up`
    : `${now.name}, led up to crossing; a ring marks where strand ${now.strand} comes to ${now.strand === now.with ? "itself" : `strand ${now.with}`}`;
  return (
    <div ref={box} className="flex h-full min-h-0 w-full items-center justify-center overflow-hidden">
      {perMM > 0 && (
        <svg
          role="img"
          aria-label={says}
          width={(width / 100) * perMM}
          height={(height / 100) * perMM}
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
      )}
    </div>
  );
}
