import { useHotkeys } from "react-hotkeys-hook";
import { useSettings } from "../api/queries";

/** single tells whether a key is one character by itself: such keys can be switched off (WCAG 2.1.4). */
function single(key: string): boolean {
  const parts = key.split("~");
  return parts[parts.length - 1].length === 1 && !parts.some((p) => p === "mod" || p === "alt" || p === "ctrl");
}

/**
 * useKeys answers to keys wherever nothing is being typed and no dialog is open. A key is written as it is
 * produced, with its modifiers before it: mod~shift~z. With typing it answers there too.
 */
export function useKeys(acts: Record<string, () => void>, o: { typing?: boolean } = {}) {
  const off = useSettings().single_keys === "off";
  const keys = Object.keys(acts).filter((k) => !off || !single(k));
  useHotkeys(keys.join(","), (_, pressed) => acts[pressed.hotkey]?.(), {
    useKey: true,
    splitKey: "~", // plus and minus are keys of ours
    preventDefault: true,
    enabled: keys.length > 0,
    enableOnFormTags: o.typing ?? false,
    ignoreEventWhen: (e) => !o.typing && (e.target as Element).closest("dialog") !== null,
  });
}
