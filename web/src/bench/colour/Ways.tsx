import { type KeyboardEvent, useRef } from "react";
import type { Colouring, Colourings, Pair, Picture } from "../../api/types.gen";
import { Still } from "../../hang/Plate";
import { Swatch } from "../../ui/fields";
import { useWork } from "../work";

export type Eye = Pair["eye"];

/** Ways are the ways, each with its face and its back as they would hang; pressing one chooses it, arrows go through them. */
export function Ways({ answer, eye, ids }: { answer: Colourings; eye: Eye; ids: string[] }) {
  const { edit } = useWork();
  const list = useRef<HTMLUListElement>(null);
  const tall = Math.max(...answer.views.flat().map((p) => p.height / 100), 1);
  const wide = Math.max(...answer.views.flat().map((p) => p.width / 100), 1);
  // Face and back stand side by side in the half of a panel.
  const perMM = Math.min(2.2, 170 / tall, 72 / wide);
  const keys = (e: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 2, ArrowUp: -2 }[e.key];
    const all = [...(list.current?.querySelectorAll("button") ?? [])];
    const at = all.indexOf(e.target as HTMLButtonElement);
    if (at < 0 || (!by && e.key !== "Home" && e.key !== "End")) return;
    e.preventDefault();
    e.stopPropagation();
    const to = by ? at + by : e.key === "Home" ? 0 : all.length - 1;
    all[Math.max(0, Math.min(all.length - 1, to))]?.focus();
  };
  return (
    <ul ref={list} className="grid grid-cols-2 gap-2" data-testid="colourings" onKeyDown={keys}>
      {answer.ways.map((w, n) => (
        <li key={w.id + w.colours.join()}>
          <button
            type="button"
            aria-pressed={w.is ?? false}
            className={`flex h-full w-full cursor-pointer flex-col gap-1 rounded-box border p-2 text-left text-sm ${w.is ? "border-2 border-primary" : "border-base-300"}`}
            onClick={() => edit((d) => ({ ...d, cords: w.document.cords, sequence: w.document.sequence }))}
          >
            <span className="mat flex w-full justify-center gap-2 rounded-box p-1" aria-hidden="true">
              {answer.views[w.look]?.map((p, i) => (
                <Still key={i} picture={dyed(p, w, answer.eyes[eye])} perMM={perMM} label="" />
              ))}
            </span>
            <span className="flex flex-wrap gap-x-2" aria-hidden="true">
              {w.colours.map((c, i) => (
                <Swatch key={i} colour={answer.eyes[eye]?.[c] ?? c} id={ids[i]} />
              ))}
            </span>
            <span>
              <strong>
                Way {n + 1}
                {w.is ? ", as it is" : ""}.{" "}
              </strong>
              {w.says}
            </span>
            {w.changes.length > 0 && <span>To tie: {w.changes.join("; ")}.</span>}
            {w.sections.map((s) => (
              <span key={s.section}>
                Section {s.section + 1}, {s.name}: {s.says}
              </span>
            ))}
            <span className="opacity-80">
              {w.shares
                .filter((s) => s.face + s.back >= 0.01)
                .map((s) => `${s.name}: ${percent(s.face)} of the face, ${percent(s.back)} of the back`)
                .join("; ")}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** dyed is a picture in the colours of a way, as others stand for them; nothing of it is drawn anew. */
export function dyed(p: Picture, w: Colouring, as: Record<string, string> | undefined): Picture {
  return { ...p, colours: w.paints.map((c) => as?.[c] ?? c), marks: w.marks };
}

function percent(share: number) {
  return `${Math.round(100 * share)} %`;
}
