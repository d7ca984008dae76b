import { useCombobox } from "downshift";
import { useState } from "react";
import { useLocation } from "wouter";
import { useCatalogue, useDrawer, useTags } from "../api/queries";
import { Dialog } from "../ui/Dialog";
import { finds } from "../ui/finds";
import { openSettings } from "../ui/SettingsMenu";
import { stageNames, stages } from "./stages";

interface Target {
  name: string;
  kind: string;
  words: string;
  /** where it leads; what is done there is done by act */
  to?: string;
  act?: () => void;
}

/** Finder goes to any piece, stage, knot, cord, hardware or setting by a few letters. */
export default function Finder({ onClose, piece }: { onClose: () => void; piece?: number }) {
  const [path, go] = useLocation();
  const id = piece ?? Number(path.match(/^\/piece\/(\d+)/)?.[1] ?? 0);
  const tags = useTags().data ?? [];
  const known = useCatalogue().data;
  const spools = useDrawer().data ?? [];
  const all: Target[] = [
    ...(id ? stages.map((s) => ({ name: stageNames[s], kind: "stage", words: "", to: `/piece/${id}/${s}` })) : []),
    ...(id
      ? [
          { name: "At the vise", kind: "stage", words: "", to: `/piece/${id}/vise` },
          { name: "Cut sheet to print", kind: "stage", words: "", to: `/piece/${id}/sheet` },
        ]
      : []),
    ...tags.map((t) => ({ name: t.name, kind: t.kind || "piece", words: t.words, to: `/piece/${t.id}/tie` })),
    { name: "A new piece", kind: "room", words: "hang begin start pattern", to: "/new" },
    { name: "The rack", kind: "room", words: "", to: "/" },
    { name: "The bin", kind: "room", words: "", to: "/bin" },
    { name: "Balls and cores", kind: "room", words: "fist marble", to: "/balls" },
    { name: "Trainer", kind: "room", words: "lead practise", to: "/trainer" },
    { name: "Guide", kind: "room", words: "help", to: "/guide" },
    {
      name: "Settings",
      kind: "settings",
      words: "units inches millimetres hand left right theme dark backup devices keys rest",
      act: openSettings,
    },
    // What is chosen of the drawer and of hardware is chosen on a piece, or for a new one.
    ...(known?.fittings ?? []).map((f) => ({
      name: f.name.replace(/^an? /, ""),
      kind: "hardware",
      words: "hangs on",
      to: id ? `/piece/${id}/purpose` : "/new",
    })),
    ...spools.map((sp) => ({
      name: sp.name,
      kind: "cord of the drawer",
      words: `${sp.stuff.make} ${sp.stuff.material}`,
      to: id ? `/piece/${id}/stuff` : "/new",
    })),
    ...(known?.knots ?? []).map((k) => ({
      name: k.name,
      kind: "knot",
      words: `${k.other_names.join(" ")} ${k.for}`,
      to: `/guide#knot-${k.id}`,
    })),
  ];
  const [text, setText] = useState("");
  // What is called so comes before what only has to do with it.
  const called = (o: Target) => (finds(text, o.name) ? 0 : 1);
  const found = all
    .filter((o) => finds(text, `${o.name} ${o.words}`))
    .sort((a, b) => called(a) - called(b))
    .slice(0, 12);
  const box = useCombobox<Target>({
    items: found,
    isOpen: true,
    defaultHighlightedIndex: 0,
    initialHighlightedIndex: 0,
    itemToString: (o) => o?.name ?? "",
    itemToKey: (o) => `${o?.kind} ${o?.name}`,
    inputValue: text,
    onSelectedItemChange: ({ selectedItem }) => {
      if (!selectedItem) return;
      onClose();
      if (selectedItem.to) go(selectedItem.to);
      // When this dialog has gone.
      if (selectedItem.act) requestAnimationFrame(selectedItem.act);
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
              key={`${o.kind} ${o.name} ${o.to ?? ""}`}
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
