import { useEffect, useRef, useState } from "react";
import { Field, type FieldProps } from "./Field";
import { useDraft } from "./useDraft";

interface Props extends FieldProps {
  value: string;
  onSet: (v: string) => void;
}

/** ColourInput takes a colour by a picker, by a name or hex, or from the screen where the browser can. */
export function ColourInput({ label, path, value, onSet }: Props) {
  const { wrong, input } = useDraft(
    value,
    (text) => {
      const hex = read(text);
      if (!hex)
        return `${text.trim() || "Nothing"} is no colour here. Write a name, such as teal, or a hex, such as #0f5c63.`;
      onSet(hex);
      return "";
    },
    path,
  );
  return (
    <Field label={label} path={path} wrong={wrong}>
      {(f) => (
        <span className="flex flex-wrap gap-1">
          <Picker label={label} value={value} onSet={onSet} />
          <input className="input input-sm figure min-w-24 flex-1" spellCheck={false} {...f} {...input} />
          <Dropper label={label} onSet={onSet} />
        </span>
      )}
    </Field>
  );
}

/** read is the hex of a colour that a browser knows by this name or hex, undefined for none. */
function read(text: string): string | undefined {
  const t = text.trim();
  const plain = /^[0-9a-f]{6}$/i.test(t) ? `#${t}` : t.replace(/\s+/g, "");
  // It must be one colour of its own: no var(), no "inherit", no transparency.
  if (!/^(#[0-9a-f]{3}|#[0-9a-f]{6}|[a-z]+)$/i.test(plain) || !CSS.supports("color", plain)) return undefined;
  const brush = document.createElement("canvas").getContext("2d");
  if (!brush) return undefined;
  brush.fillStyle = "#010203";
  brush.fillStyle = plain;
  const hex = String(brush.fillStyle);
  const unread = hex === "#010203" && plain.toLowerCase() !== "#010203";
  return /^#[0-9a-f]{6}$/.test(hex) && !unread ? hex : undefined;
}

/** Picker hands on what is picked while it is being picked, a few times a second. */
function Picker({ label, value, onSet }: { label: string; value: string; onSet: (v: string) => void }) {
  const [picked, setPicked] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const last = useRef<string | null>(null);
  const set = useRef(onSet);
  useEffect(() => {
    set.current = onSet;
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another colour came, from here or from elsewhere
  useEffect(() => setPicked(null), [value]);
  const hand = () => {
    clearTimeout(timer.current);
    timer.current = undefined;
    if (last.current !== null && last.current.toLowerCase() !== value.toLowerCase()) set.current(last.current);
    last.current = null;
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  return (
    <input
      type="color"
      aria-label={`${label}, picker`}
      className="h-8 w-14 shrink-0 cursor-pointer rounded-field border border-base-300 bg-base-100"
      value={picked ?? value}
      onChange={(e) => {
        setPicked(e.target.value);
        last.current = e.target.value;
        timer.current ??= setTimeout(hand, 200);
      }}
      onBlur={hand}
    />
  );
}

/** What browsers that have it call the tool that takes a colour from the screen. */
interface EyeDropper {
  open(): Promise<{ sRGBHex: string }>;
}

/** Dropper takes a colour from anywhere on the screen; it is not there where the browser cannot. */
function Dropper({ label, onSet }: { label: string; onSet: (v: string) => void }) {
  const tool = (window as { EyeDropper?: new () => EyeDropper }).EyeDropper;
  if (!tool) return null;
  const take = async () => {
    try {
      onSet((await new tool().open()).sRGBHex);
    } catch {
      // It was closed without a colour: the old one stays.
    }
  };
  return (
    <button type="button" className="btn btn-xs" aria-label={`${label} from the screen`} onClick={take}>
      From the screen
    </button>
  );
}
