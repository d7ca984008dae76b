import { useHotkeys } from "react-hotkeys-hook";

/**
 * useKeys answers to keys wherever nothing is being typed and no dialog is open. A key is written as it is
 * produced, with its modifiers before it: mod~shift~z. With typing it answers there too.
 */
export function useKeys(acts: Record<string, () => void>, o: { typing?: boolean } = {}) {
  useHotkeys(Object.keys(acts).join(","), (_, pressed) => acts[pressed.hotkey]?.(), {
    useKey: true,
    splitKey: "~", // plus and minus are keys of ours
    preventDefault: true,
    enableOnFormTags: o.typing ?? false,
    ignoreEventWhen: (e) => !o.typing && (e.target as Element).closest("dialog") !== null,
  });
}
