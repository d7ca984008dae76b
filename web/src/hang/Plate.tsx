import { memo } from "react";
import type { Picture } from "../api/types.gen";

/** Plate copies a picture's layers into an SVG; it decides nothing about them. */
export const Plate = memo(function Plate({ picture }: { picture: Picture }) {
  return (
    <g aria-hidden="true">
      {picture.layers.map((l, i) =>
        l.kind === "body" ? (
          <path key={i} className="lay-body" d={l.d} fill={l.colour} />
        ) : (
          <path key={i} className={`lay-${l.kind}`} d={l.d} strokeWidth={l.width} />
        ),
      )}
    </g>
  );
});

/** Still is a picture by itself, drawn at so many pixels a millimetre. */
export function Still(p: { picture: Picture; perMM: number; label: string; className?: string }) {
  const { left, top, width, height } = p.picture;
  return (
    <svg
      role={p.label ? "img" : undefined}
      aria-label={p.label || undefined}
      aria-hidden={p.label ? undefined : true}
      className={p.className}
      width={(width / 100) * p.perMM}
      height={(height / 100) * p.perMM}
      viewBox={`${left} ${top} ${width} ${height}`}
    >
      <Plate picture={p.picture} />
    </svg>
  );
}
