const glyphs: Record<string, React.JSX.Element> = {
  mount: (
    <>
      <path d="M2 7h20" strokeWidth="2.6" />
      <path d="M8 22V8a2 2 0 0 1 4-1 2 2 0 0 1 4 1v14M7 12h10" />
    </>
  ),
  "square-knot": <path d="M4 3v6l16 4v8M20 3v6L4 13v8M10 3v18M14 3v18" />,
  "half-knot": <path d="M4 3c0 8 16 10 16 18M20 3c0 8-16 10-16 18M12 3v18" />,
  gap: <path d="M8 2v20M16 2v20" strokeDasharray="3 2.5" />,
  gather: <path d="M9 2v20M15 2v20M5 9h14M5 12h14M5 15h14" />,
  finish: <path d="M12 2v12M12 14l-5 8M12 14v8M12 14l5 8M8 14h8" />,
};

/** Glyph is a knot's small mark in the sequence; its name always stands beside it. */
export function Glyph({ of }: { of: string }) {
  return (
    <svg
      width="24"
      height="24"
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.7"
      aria-hidden="true"
      className="shrink-0"
    >
      {glyphs[of] ?? <circle cx="12" cy="12" r="7" />}
    </svg>
  );
}
