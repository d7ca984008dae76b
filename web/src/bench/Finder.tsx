import { useCombobox } from "downshift";
import { useState } from "react";
import { useLocation } from "wouter";
import { useTags } from "../api/queries";
import { Dialog } from "../ui/Dialog";
import { finds } from "../ui/finds";
import { stageNames, stages } from "./stages";

interface Target {
  name: string;
  kind: string;
  words: string;
  to: string;
}

/** Finder goes to any piece, or any stage of this one, by a few letters. */
export default function Finder({ onClose, piece }: { onClose: () => void; piece?: number }) {
  const [path, go] = useLocation();
  const id = piece ?? Number(path.match(/^\/piece\/(\d+)/)?.[1] ?? 0);
  const tags = useTags().data ?? [];
  const all: Target[] = [
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
  const [text, setText] = useState("");
  const found = all.filter((o) => finds(text, `${o.name} ${o.words}`)).slice(0, 12);
  const box = useCombobox<Target>({
    items: found,
    isOpen: true,
    defaultHighlightedIndex: 0,
    initialHighlightedIndex: 0,
    itemToString: (o) => o?.name ?? "",
    itemToKey: (o) => o?.to,
    inputValue: text,
    onSelectedItemChange: ({ selectedItem }) => {
      if (!selectedItem) return;
      onClose();
      go(selectedItem.to);
    },
  });
  return (
    <Dialog title="Find anything" onClose={onClose}>
      <input
        className="input w-full"
        data-focus
        {...box.getInputProps({ "aria-label": "What to find", onChange: (e) => setText(e.currentTarget.value) })}
      />
      <ul className="mt-2 flex flex-col" {...box.getMenuProps({ "aria-label": "Found" })}>
        {found.map((o, i) => {
          const here = i === box.highlightedIndex;
          return (
            <li
              key={o.to}
              className={`flex cursor-pointer justify-between rounded-field border-l-4 px-3 py-1.5 ${here ? "border-l-secondary bg-base-200 font-semibold" : "border-l-transparent"}`}
              {...box.getItemProps({ item: o, index: i })}
            >
              <span>
                {here && <span aria-hidden="true">&rarr; </span>}
                {o.name}
              </span>
              <span className="text-sm opacity-80">{o.kind}</span>
            </li>
          );
        })}
      </ul>
      {found.length === 0 && <p className="px-3 py-2">Nothing of that name.</p>}
    </Dialog>
  );
}
