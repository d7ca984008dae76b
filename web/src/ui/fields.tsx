import { type ReactNode, useEffect, useId, useState } from "react";

export function TextInput(p: {
  label: string;
  value: string;
  onSet: (v: string) => void;
  most?: number;
  area?: boolean;
}) {
  const id = useId();
  const [text, setText] = useState(p.value);
  useEffect(() => setText(p.value), [p.value]);
  const done = () => {
    if (text.trim() !== p.value) p.onSet(text.trim());
  };
  const common = {
    id,
    value: text,
    maxLength: p.most ?? 120,
    onBlur: done,
    onChange: (e: { target: { value: string } }) => setText(e.target.value),
  };
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-sm">
        {p.label}
      </label>
      {p.area ? (
        <textarea className="textarea textarea-sm w-full" rows={3} {...common} />
      ) : (
        <input className="input input-sm w-full" onKeyDown={(e) => e.key === "Enter" && done()} {...common} />
      )}
    </div>
  );
}

export interface Option {
  id: string;
  name: string;
}

export function Choice(p: {
  label: string;
  value: string;
  options: Option[];
  onSet: (v: string) => void;
  bare?: boolean;
}) {
  const id = useId();
  return (
    <div className={p.bare ? "" : "flex flex-col gap-1"}>
      <label htmlFor={id} className={p.bare ? "sr-only" : "text-sm"}>
        {p.label}
      </label>
      <select id={id} className="select select-sm w-full" value={p.value} onChange={(e) => p.onSet(e.target.value)}>
        {p.options.map((o) => (
          <option key={o.id} value={o.id}>
            {o.name}
          </option>
        ))}
      </select>
    </div>
  );
}

export function Panel(p: { title: string; lead?: string; children: ReactNode }) {
  return (
    <section className="flex flex-col gap-3" aria-label={p.title}>
      <header>
        <h2 className="text-lg font-semibold">{p.title}</h2>
        {p.lead && <p className="text-sm opacity-80">{p.lead}</p>}
      </header>
      {p.children}
    </section>
  );
}

/** Swatch shows a cord's colour with its id, so that colour never stands alone. */
export function Swatch(p: { colour: string; id?: string; large?: boolean }) {
  const size = p.large ? 44 : 22;
  return (
    <span className="inline-flex items-center gap-1.5">
      <svg width={size} height={size} viewBox="0 0 22 22" aria-hidden="true">
        <circle cx="11" cy="11" r="9.5" fill={p.colour} stroke="var(--ink)" strokeWidth="1.4" />
      </svg>
      {p.id && <span className={`figure ${p.large ? "text-2xl" : ""}`}>{p.id}</span>}
    </span>
  );
}
