/** Grid is the mat's: a line a centimetre, a bold one every five. */
export function Grid(p: { w: number; h: number; left: number; perMM: number; x: number; y: number }) {
  const { w, h, left, perMM, x, y } = p;
  const every = perMM < 1.2 ? 50 : perMM > 30 ? 2 : 10; // mm, so that lines stand neither thick nor lost
  const step = every * perMM;
  const lines: { at: number; bold: boolean; across: boolean }[] = [];
  for (let n = Math.ceil(-y / step); y + n * step < h; n++)
    lines.push({ at: y + n * step, bold: n % 5 === 0, across: true });
  for (let n = Math.ceil((left - x) / step); x + n * step < w; n++)
    lines.push({ at: x + n * step, bold: n % 5 === 0, across: false });
  return (
    <g aria-hidden="true">
      {lines.map((l) => (
        <path
          key={`${l.across}${l.at}`}
          d={l.across ? `M${left} ${l.at}H${w}` : `M${l.at} 0V${h}`}
          stroke={l.bold ? "var(--mat-bold)" : "var(--mat-line)"}
          strokeWidth="1"
        />
      ))}
    </g>
  );
}
