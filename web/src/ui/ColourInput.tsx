import { useEffect, useRef, useState } from "react";

/** ColourInput shows the colour that is there; what is picked is handed on while it is being picked, a few times a second. */
export function ColourInput({ label, value, onSet }: { label: string; value: string; onSet: (v: string) => void }) {
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
    <label className="flex flex-col gap-1 text-sm">
      {label}
      <input
        type="color"
        className="h-8 w-full cursor-pointer rounded-field border border-base-300 bg-base-100"
        value={picked ?? value}
        onChange={(e) => {
          setPicked(e.target.value);
          last.current = e.target.value;
          timer.current ??= setTimeout(hand, 200);
        }}
        onBlur={hand}
      />
    </label>
  );
}
