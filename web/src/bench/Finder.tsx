import { useState } from "react";
import { useLocation } from "wouter";
import { useTags } from "../api/queries";
import { Dialog } from "../ui/Dialog";
import { finds } from "../ui/finds";
import { stageNames, stages } from "./stages";

/** Finder goes to any piece, or any stage of this one, by a few letters. */
export function Finder({ onClose, piece }: { onClose: () => void; piece?: number }) {
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const [path, go] = useLocation();
  const id = piece ?? Number(path.match(/^\/piece\/(\d+)/)?.[1] ?? 0);
  const tags = useTags().data ?? [];
  const all = [
    ...(id ? stages.map((s) => ({ name: stageNames[s], kind: "stage", words: "", to: `/piece/${id}/${s}` })) : []),
    ...(id
      ? [
          { name: "At the vise", kind: "stage", words: "", to: `/piece/${id}/vise` },
          { name: "Cut sheet to print", kind: "stage", words: "", to: `/piece/${id}/sheet` },
        ]
      : []),
    ...tags.map((t) => ({ name: t.name, kind: t.kind || "piece", words: t.words, to: `/piece/${t.id}/tie` })),
    { name: "The rack", kind: "room", words: "", to: "/" },
    { name: "The bin", kind: "room", words: "", to: "/bin" },
    { name: "Balls and cores", kind: "room", words: "", to: "/balls" },
  ];
  const found = all.filter((o) => finds(text, `${o.name} ${o.words}`)).slice(0, 12);
  const pick = (to: string) => {
    onClose();
    go(to);
  };
  return (
    <Dialog title="Find anything" onClose={onClose}>
      <input
        className="input w-full"
        aria-label="What to find"
        data-focus
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          if (e.key === "ArrowDown") setAt(Math.min(found.length - 1, at + 1));
          if (e.key === "ArrowUp") setAt(Math.max(0, at - 1));
          if (e.key === "Enter" && found[at]) pick(found[at].to);
        }}
      />
      <ul className="mt-2 flex flex-col">
        {found.map((o, i) => (
          <li key={o.to}>
            <button
              type="button"
              className={`flex w-full justify-between rounded-field border-l-4 px-3 py-1.5 text-left ${i === at ? "border-l-secondary bg-base-200 font-semibold" : "border-l-transparent"}`}
              aria-current={i === at || undefined}
              onClick={() => pick(o.to)}
            >
              <span>
                {i === at && <span aria-hidden="true">&rarr; </span>}
                {o.name}
              </span>
              <span className="text-sm opacity-80">{o.kind}</span>
            </button>
          </li>
        ))}
        {found.length === 0 && <li className="px-3 py-2">Nothing of that name.</li>}
      </ul>
    </Dialog>
  );
}
