import { memo } from "react";
import type { Picture, Plate } from "../api/types.gen";

/** by what a plate is wider than what its cords cover, for their inks */
const bleed = 40;

/** Plates lays a picture's plates one under the other; it decides nothing about them. */
export const Plates = memo(function Plates({ picture }: { picture: Picture }) {
  return (
    <g aria-hidden="true">
      {picture.places.map((p, i) => (
        <Laid key={`${p.plate}${i}`} plate={picture.plates[p.plate]} y={p.y} />
      ))}
    </g>
  );
});

const Laid = memo(function Laid({ plate, y }: { plate: Plate; y: number }) {
  const { left, right, top, bottom } = plate;
  const [wide, tall] = [right - left + 2 * bleed, bottom - top];
  return (
    <svg
      aria-hidden="true"
      x={left - bleed}
      y={y + top}
      width={wide}
      height={tall}
      viewBox={`${left - bleed} ${top} ${wide} ${tall}`}
      overflow="hidden"
    >
      {plate.layers.map((l, i) =>
        l.kind === "body" ? (
          <path key={i} className="lay-body" d={l.d} fill={l.colour} />
        ) : (
          <path key={i} className={`lay-${l.kind}`} d={l.d} strokeWidth={l.width} />
        ),
      )}
    </svg>
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
      <Plates picture={p.picture} />
    </svg>
  );
}
