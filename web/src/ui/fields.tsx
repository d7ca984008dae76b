import type { ReactNode } from "react";
import { Link } from "wouter";
import { Field, type FieldProps } from "./Field";
import { useDraft } from "./useDraft";

/** TextInput takes words, and hands them on when the field is left. */
export function TextInput(
  p: FieldProps & {
    value: string;
    onSet: (v: string) => void;
    most?: number;
    area?: boolean;
    placeholder?: string;
    className?: string;
    /** it cannot be left empty: then the old value stays */
    needed?: boolean;
  },
) {
  const { input } = useDraft(
    p.value,
    (text) => {
      const t = text.trim();
      if (t !== "" || !p.needed) p.onSet(t);
      return "";
    },
    p.path,
  );
  const common = { maxLength: p.most ?? 120, placeholder: p.placeholder };
  return (
    <Field label={p.label} bare={p.bare} path={p.path}>
      {(f) =>
        p.area ? (
          <textarea
            className="textarea textarea-sm w-full"
            rows={3}
            {...common}
            {...f}
            {...input}
            onKeyDown={(e) => e.key === "Escape" && input.onKeyDown(e)}
          />
        ) : (
          <input
            className={p.className ?? "input input-sm w-full"}
            {...common}
            {...f}
            {...input}
            onKeyDown={(e) => (p.bare && e.key === "Enter" ? e.currentTarget.blur() : input.onKeyDown(e))}
          />
        )
      }
    </Field>
  );
}

export interface Option {
  id: string;
  name: string;
}

/** Choice takes one of a few. */
export function Choice(p: FieldProps & { value: string; options: Option[]; onSet: (v: string) => void }) {
  return (
    <Field label={p.label} bare={p.bare} path={p.path}>
      {(f) => (
        <select
          className="select select-sm validator w-full"
          value={p.value}
          onChange={(e) => p.onSet(e.target.value)}
          {...f}
        >
          {p.options.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

export function Panel(p: { title: string; lead?: string; children: ReactNode }) {
  return (
    <section className="flex flex-col gap-3" aria-label={p.title}>
      <header>
        <div className="flex items-baseline gap-3">
          <h2 data-heading className="flex-1 text-lg font-semibold">
            {p.title}
          </h2>
          <Link href={`/guide#${p.title.toLowerCase()}`} className="btn btn-ghost btn-xs">
            Help<span className="sr-only"> with {p.title}</span>
          </Link>
        </div>
        {p.lead && <p className="text-sm opacity-80">{p.lead}</p>}
      </header>
      {p.children}
    </section>
  );
}

/** Swatch shows a cord's colour, and those that its sheath has beside it, with its id, so that colour never stands alone. */
export function Swatch(p: { colour: string; beside?: string[]; id?: string; large?: boolean }) {
  const size = p.large ? 44 : 22;
  return (
    <span className="inline-flex items-center gap-1.5">
      <svg width={size} height={size} viewBox="0 0 22 22" aria-hidden="true">
        <circle cx="11" cy="11" r="9.5" fill={p.colour} stroke="currentColor" strokeWidth="1.4" />
        {p.beside && p.beside.length > 0 && (
          <path
            d="M5 18.5L18.500 5A9.500 9.500 0 0 1 5 18.500z"
            fill={p.beside[0]}
            stroke="currentColor"
            strokeWidth="1"
          />
        )}
      </svg>
      {p.id && <span className={`figure ${p.large ? "text-2xl" : ""}`}>{p.id}</span>}
    </span>
  );
}
