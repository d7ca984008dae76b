import { useEffect } from "react";
import { useLocation } from "wouter";
import { useChangeSettings, useKnots, useSettings } from "../api/queries";
import type { Document, Section } from "../api/types.gen";
import type { Side } from "../hang/Hang";
import { Dialog } from "../ui/Dialog";
import { type Stage, stages } from "./stages";
import { fixOf, useWork } from "./work";

const sheet: [string, string][] = [
  ["J / K", "next, previous section"],
  ["+ / -", "a knot more, a knot less"],
  ["A", "add a section after this one"],
  ["C", "copy the section"],
  ["X", "take the first way out of a warning"],
  ["Delete", "take the section out"],
  ["Alt + up, Alt + down", "move the section"],
  ["/", "type the sequence"],
  ["F", "turn the piece over"],
  ["U", "millimetres or inches"],
  ["[ / ]", "stage before, stage after"],
  ["V", "to the vise"],
  ["Ctrl + Z", "undo"],
  ["Ctrl + Shift + Z", "redo"],
  ["Ctrl + K", "find anything"],
  ["?", "these keys"],
];

export function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5">
        {sheet.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="figure">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
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
  side: Side;
  setSide: (s: Side) => void;
  showKeys: () => void;
  find: () => void;
}

/** useKeys answers to the bench's keys wherever nothing is being typed. */
export function useKeys({ stage, side, setSide, showKeys, find }: Props) {
  const { id, document, selected, select, addCount, edit, piece, plan, planError, apply, openPalette } = useWork();
  const settings = useSettings();
  const change = useChangeSettings();
  const knots = useKnots();
  const [, go] = useLocation();
  useEffect(() => {
    const count = (by: number) => {
      const s = document.sequence[selected];
      if (s && (s.count !== undefined || s.fit_mm !== undefined))
        addCount(selected, by, plan?.sections.find((p) => p.index === selected)?.count);
    };
    const goStage = (by: number) => {
      const next = stages[stages.indexOf(stage) + by];
      if (next) go(`/piece/${id}/${next}`);
    };
    const on = (e: KeyboardEvent) => {
      const el = e.target as HTMLElement;
      const typing = el.closest("input, textarea, select, dialog") !== null;
      const ctrl = e.ctrlKey || e.metaKey;
      if (ctrl && e.key.toLowerCase() === "k") {
        e.preventDefault();
        find();
        return;
      }
      if (typing) return;
      if (ctrl && e.key.toLowerCase() === "z") {
        e.preventDefault();
        if (e.shiftKey) piece.redo();
        else piece.undo();
        return;
      }
      if (ctrl) return;
      const acts: Record<string, () => void> = {
        j: () => select(Math.min(document.sequence.length - 1, selected + 1)),
        k: () => select(Math.max(0, selected - 1)),
        "+": () => count(1),
        "=": () => count(1),
        "-": () => count(-1),
        delete: () => document.sequence.length > 0 && edit((d) => remove(d, selected)),
        "/": () => {
          if (stage !== "tie") go(`/piece/${id}/tie`);
          requestAnimationFrame(() => window.document.getElementById("typed-line")?.focus());
        },
        a: () => {
          if (stage !== "tie") go(`/piece/${id}/tie`);
          requestAnimationFrame(openPalette); // when the letter that opened it has passed
        },
        c: () => {
          const s = document.sequence[selected];
          if (!s || !knots.get(s.do)?.copies) return;
          edit((d) => insert(d, selected + 1, s));
          select(selected + 1);
        },
        x: () => {
          const fix = plan?.warnings.find((w) => w.fix)?.fix ?? fixOf(planError);
          if (fix) apply(fix);
        },
        f: () => setSide(side === "face" ? "back" : "face"),
        u: () => change.mutate({ units: settings.units === "mm" ? "inch" : "mm" }),
        "[": () => goStage(-1),
        "]": () => goStage(1),
        v: () => go(`/piece/${id}/vise`),
        "?": showKeys,
      };
      if (e.altKey && (e.key === "ArrowUp" || e.key === "ArrowDown")) {
        e.preventDefault();
        const to = selected + (e.key === "ArrowUp" ? -1 : 1);
        if (to >= 0 && to < document.sequence.length) {
          edit((d) => move(d, selected, to));
          select(to);
        }
        return;
      }
      if (e.altKey) return;
      const act = acts[e.key.toLowerCase()];
      if (act) {
        e.preventDefault();
        act();
      }
    };
    window.addEventListener("keydown", on);
    return () => window.removeEventListener("keydown", on);
  }, [
    id,
    document,
    selected,
    select,
    addCount,
    edit,
    piece,
    plan,
    settings,
    change,
    go,
    stage,
    side,
    setSide,
    showKeys,
    find,
    openPalette,
    planError,
    apply,
    knots,
  ]);
}
