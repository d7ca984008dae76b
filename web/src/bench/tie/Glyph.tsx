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
  "switch-knot": <path d="M4 2v4l16 3v3L8 18v4M20 2v4L4 9v3l12 6v4M8 2v10l-4 6v4M16 2v10l4 6v4" />,
  "berry-knot": (
    <>
      <circle cx="12" cy="12" r="6.5" />
      <path d="M8 9c3 2 5 2 8 0M8 14c3-2 5-2 8 0M9 2v4M15 2v4M9 18v4M15 18v4" />
    </>
  ),
  "double-half-hitch": <path d="M2 12h20M6 6v12M9 6v12M15 6v12M18 6v12" strokeWidth="2.2" />,
  diamond: <path d="M12 2l9 10-9 10-9-10zM12 7l4.500 5-4.500 5-4.500-5z" />,
  bead: (
    <>
      <rect x="6" y="7" width="12" height="10" rx="4" />
      <path d="M10 2v5M14 2v5M10 17v5M14 17v5" />
    </>
  ),
  overhand: <path d="M10 2v7c0 3-5 3-5 6s3 5 7 5 7-2 7-5-5-3-5-6V2M12 13v9" />,
  rows: <path d="M5 2c0 10 14 10 14 20M19 2C19 12 5 12 5 22M9 2c0 8 13 10 13 20M15 2C15 10 2 12 2 22" />,
  repeat: <path d="M7 4H4v16h3M17 4h3v16h-3M9 9l6 6M15 9l-6 6" />,
  "fold-back": <path d="M9 2v14a3.500 3.500 0 0 0 7 0V7M6 7h13M6 10h13" />,
  "monkeys-fist": (
    <>
      <circle cx="12" cy="12" r="9" />
      <path d="M4 9c5 2 11 2 16 0M4 13c5 2 11 2 16 0M9 4v5M13 4v5M10 15v5.500M14 15v5.500" />
    </>
  ),
  "rope-ball": (
    <>
      <circle cx="12" cy="12" r="9" />
      <path d="M5 6c3 6 11 6 14 12M19 6c-3 6-11 6-14 12M3 12c4-5 14-5 18 0" />
    </>
  ),
  "coil-loop": <path d="M10 22V9a4 4 0 1 1 6 0v2M7 12h9M7 15h9M7 18h9" />,
  "snake-knot": <path d="M8 2c0 3 8 3 8 6s-8 3-8 6 8 3 8 8M16 2c0 3-8 3-8 6s8 3 8 6-8 3-8 8" />,
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
