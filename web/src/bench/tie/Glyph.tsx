/** Glyph is a knot's small mark in the sequence, drawn by its path; its name always stands beside it. */
export function Glyph({ of }: { of: string | undefined }) {
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
      <path d={of ?? "M4 12h16"} />
    </svg>
  );
}
