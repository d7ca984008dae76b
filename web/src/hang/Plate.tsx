import { memo } from "react";
import type { Picture, Plate } from "../api/types.gen";
import { useSize } from "../ui/useSize";

/** by what a plate is wider than what its cords cover, for their inks */
const bleed = 40;

/**
 * Plates lays a picture's plates one under the other; it decides nothing about them. They are cut on
 * whole pixels, so that no edge is half of one plate and half of the next: scale is pixels a hundredth of
 * a millimetre, and zero the y that lies on a pixel's edge.
 */
export const Plates = memo(function Plates({
  picture,
  scale,
  zero,
}: {
  picture: Picture;
  scale: number;
  zero: number;
}) {
  const { places, plates } = picture;
  const fine = scale * window.devicePixelRatio;
  const snap = (y: number) => Math.round((y - zero) * fine) / fine + zero;
  return (
    <g aria-hidden="true">
      {places.map((p, i) => {
        const plate = plates[p.plate];
        const next = places[i + 1];
        const joins = next !== undefined && next.y <= p.y + plate.bottom;
        const top = i > 0 && plate.top < 0 ? snap(p.y) : p.y + plate.top;
        const bottom = joins ? snap(next.y) + 1 / fine : p.y + plate.bottom;
        return <Laid key={`${p.plate}${i}`} plate={plate} y={p.y} top={top - p.y} bottom={bottom - p.y} />;
      })}
    </g>
  );
});

const Laid = memo(function Laid(p: { plate: Plate; y: number; top: number; bottom: number }) {
  const { left, right } = p.plate;
  const [wide, tall] = [right - left + 2 * bleed, p.bottom - p.top];
  return (
    <svg
      aria-hidden="true"
      x={left - bleed}
      y={p.y + p.top}
      width={wide}
      height={tall}
      viewBox={`${left - bleed} ${p.top} ${wide} ${tall}`}
      overflow="hidden"
    >
      <Layers plate={p.plate} />
    </svg>
  );
});

/** Layers are what a plate holds; they stay as they are wherever it is laid. */
const Layers = memo(function Layers({ plate }: { plate: Plate }) {
  return plate.layers.map((l, i) =>
    l.kind === "body" ? (
      <path key={i} className="lay-body" d={l.d} fill={l.colour} />
    ) : (
      <path key={i} className={`lay-${l.kind}`} d={l.d} strokeWidth={l.width} />
    ),
  );
});

/** Fitted is a picture as large as its box allows. */
export function Fitted({ picture, label }: { picture: Picture; label: string }) {
  const { box, w, h } = useSize();
  const perMM = Math.min((w / picture.width) * 100, (h / picture.height) * 100);
  return (
    <div ref={box} className="flex h-full min-h-0 w-full items-center justify-center overflow-hidden">
      {perMM > 0 && <Still picture={picture} perMM={perMM} label={label} />}
    </div>
  );
}

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
      <Plates picture={p.picture} scale={p.perMM / 100} zero={top} />
    </svg>
  );
}
