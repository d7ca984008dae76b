import { useLocation } from "wouter";
import { useChangeSettings, useKnots, useSettings } from "../api/queries";
import type { Document, Section } from "../api/types.gen";
import { Dialog } from "../ui/Dialog";
import { useKeys } from "../ui/useKeys";
import { type Stage, stages } from "./stages";
import { fixOf, useWork } from "./work";

const sheet: [string, string][] = [
  ["J / K", "next, previous section"],
  ["+ / -", "a knot more, a knot less"],
  ["A", "add a section after this one"],
  ["C", "copy the section"],
  ["I", "change the section into another knot"],
  ["X", "take the first way out of a warning"],
  ["Delete", "delete the section"],
  ["Alt + up, Alt + down", "move the section"],
  ["/", "type the sequence"],
  ["F", "turn the piece over"],
  ["B", "both sides beside each other"],
  ["T", "turn the piece by hand"],
  ["E", "a knot that goes round, from its working end"],
  ["R", "the same with its outside rolled off"],
  ["Z / Shift + Z", "look closer, look from farther"],
  ["0", "the whole piece; once more, as wide as it may be"],
  ["L", "a lens under the pointer"],
  ["U", "millimetres or inches"],
  ["[ / ]", "stage before, stage after"],
  ["V", "to the vise"],
  ["Ctrl + Z", "undo"],
  ["Ctrl + Shift + Z", "redo"],
  ["Ctrl + K", "find anything"],
  ["?", "these keys"],
];

/** KeyList are the keys of the bench. */
export function KeyList() {
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5">
      {sheet.map(([key, what]) => (
        <div key={key} className="contents">
          <dt className="figure">{key}</dt>
          <dd>{what}</dd>
        </div>
      ))}
    </dl>
  );
}

export function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <KeyList />
    </Dialog>
  );
}

export function move(d: Document, from: number, to: number): Document {
  if (to < 0 || to >= d.sequence.length) return d;
  const sequence = [...d.sequence];
  const [s] = sequence.splice(from, 1);
  sequence.splice(to, 0, s);
  return { ...d, sequence };
}

export function remove(d: Document, at: number): Document {
  return { ...d, sequence: d.sequence.filter((_, i) => i !== at) };
}

export function insert(d: Document, at: number, s: Section): Document {
  return { ...d, sequence: [...d.sequence.slice(0, at), s, ...d.sequence.slice(at)] };
}

interface Props {
  stage: Stage;
  showKeys: () => void;
  find: () => void;
}

/** useBenchKeys answers to the bench's keys. */
export function useBenchKeys({ stage, showKeys, find }: Props) {
  const {
    id,
    document,
    selected,
    select,
    addCount,
    edit,
    piece,
    plan,
    planError,
    apply,
    openPalette,
    openInto,
    side,
    setSide,
    toggleLens,
  } = useWork();
  const settings = useSettings();
  const change = useChangeSettings();
  const knots = useKnots();
  const [, go] = useLocation();
  const count = (by: number) => {
    const s = document.sequence[selected];
    if (s && (s.count !== undefined || s.fit_mm !== undefined))
      addCount(selected, by, plan?.sections.find((p) => p.index === selected)?.count);
  };
  const goStage = (by: number) => {
    const next = stages[stages.indexOf(stage) + by];
    if (next) go(`/piece/${id}/${next}`);
  };
  const shift = (by: number) => {
    const to = selected + by;
    if (to < 0 || to >= document.sequence.length) return;
    edit((d) => move(d, selected, to));
    select(to);
  };
  // When the letter that asked for it has passed.
  const atTie = (then: () => void) => {
    if (stage !== "tie") go(`/piece/${id}/tie`);
    requestAnimationFrame(then);
  };
  useKeys({ "mod~k": find }, { typing: true });
  useKeys({
    "mod~z": piece.undo,
    "mod~shift~z": piece.redo,
    j: () => select(Math.min(document.sequence.length - 1, selected + 1)),
    k: () => select(Math.max(0, selected - 1)),
    "+": () => count(1),
    "shift~+": () => count(1),
    "=": () => count(1),
    "-": () => count(-1),
    delete: () => document.sequence.length > 0 && edit((d) => remove(d, selected)),
    "alt~arrowup": () => shift(-1),
    "alt~arrowdown": () => shift(1),
    "/": () => atTie(() => window.document.getElementById("typed-line")?.focus()),
    "shift~/": () => atTie(() => window.document.getElementById("typed-line")?.focus()),
    a: () => atTie(openPalette),
    i: () => atTie(openInto),
    c: () => {
      const s = document.sequence[selected];
      if (!s || !knots.get(s.do)?.copies) return;
      edit((d) => insert(d, selected + 1, s));
      select(selected + 1);
    },
    x: () => {
      const fix = fixOf(planError) ?? plan?.warnings.find((w) => w.fix)?.fix; // what refuses comes first
      if (fix) apply(fix);
    },
    f: () => setSide(side === "face" || side === "both" ? "back" : "face"),
    b: () => setSide("both"),
    t: () => setSide(side === "turned" ? "face" : "turned"),
    e: () => setSide(side === "end" ? "face" : "end"),
    r: () => setSide(side === "unrolled" ? "face" : "unrolled"),
    l: toggleLens,
    u: () => change.mutate({ units: settings.units === "mm" ? "inch" : "mm" }),
    "[": () => goStage(-1),
    "]": () => goStage(1),
    v: () => go(`/piece/${id}/vise`),
    "?": showKeys,
    "shift~?": showKeys,
  });
}
