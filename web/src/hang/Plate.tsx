import { type CSSProperties, memo, useMemo } from "react";
import type { Layer, Picture, Plate } from "../api/types.gen";
import { useSize } from "../ui/useSize";
import { InHand } from "./InHand";

/** The names that the colours of cords and of the marks on them go by in the styles. */
function named({ colours, marks }: Picture): CSSProperties {
  return Object.fromEntries(
    colours.flatMap((c, i) => [
      [`--cord-${i}`, c],
      [`--mark-${i}`, marks[i]],
    ]),
  );
}

/**
 * Plates lays a picture's plates one under the other; it decides nothing about them. They are cut on
 * whole pixels, so that no edge is half of one plate and half of the next: scale is pixels a hundredth of
 * a millimetre, and zero the y that lies on a pixel's edge. Shadows on the mat, and the ink that shows only
 * between bodies, lie under all of them and do not overlap.
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
  const laid = places.map((p, i) => {
    const plate = plates[p.plate];
    const next = places[i + 1];
    const joins = next !== undefined && next.y <= p.y + plate.bottom;
    const top = i > 0 && plate.top < 0 ? snap(p.y) : p.y + plate.top;
    const end = joins ? snap(next.y) : p.y + plate.bottom;
    return { key: `${p.plate}${i}`, plate, y: p.y, top: top - p.y, end: end - p.y, lap: joins ? 1 / fine : 0 };
  });
  const style = useMemo(() => named(picture), [picture]);
  const inHand = places.some((p) => plates[p.plate].layers.some((l) => l.kind === "lit"));
  return (
    <g aria-hidden="true" style={style} className={inHand ? "in-hand" : undefined}>
      {laid.map((p) => (
        <Laid key={p.key} plate={p.plate} y={p.y} top={p.top} bottom={p.end} under />
      ))}
      {laid.map((p) => (
        <Laid key={p.key} plate={p.plate} y={p.y} top={p.top} bottom={p.end + p.lap} />
      ))}
    </g>
  );
});

const Laid = memo(function Laid(p: { plate: Plate; y: number; top: number; bottom: number; under?: boolean }) {
  const { left, right, per } = p.plate;
  const [wide, tall] = [right - left, p.bottom - p.top];
  const k = per / 100;
  return (
    <svg
      aria-hidden="true"
      x={left}
      y={p.y + p.top}
      width={wide}
      height={tall}
      viewBox={`${k * left} ${k * p.top} ${k * wide} ${k * tall}`}
      overflow="hidden"
    >
      <Layers plate={p.plate} under={p.under ?? false} />
    </svg>
  );
});

/** Layers are what a plate holds; they stay as they are wherever it is laid and whatever the colours. */
const Layers = memo(function Layers({ plate, under }: { plate: Plate; under: boolean }) {
  return plate.layers.map((l, i) =>
    (l.under ?? false) === under ? (
      <path key={i} className={`lay-${l.kind}`} d={l.d} strokeWidth={l.width} style={painted(l)} />
    ) : null,
  );
});

/** painted is the paint of a body or a mark, by the name of its cord, and how much of its ink a layer lays on. */
function painted(l: Layer): CSSProperties | undefined {
  if (l.kind === "mark") return { stroke: `var(--mark-${l.cord})` };
  if (l.kind !== "body" && l.kind !== "lit") return l.opacity ? { opacity: l.opacity } : undefined;
  const own = l.cord === undefined ? l.colour : `var(--cord-${l.cord})`;
  const paint = l.dark ? `color-mix(in srgb, ${own}, #17242a ${l.dark}%)` : own;
  return { "--paint": paint } as CSSProperties;
}

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
      {(p.picture.discs || p.picture.bump) && <InHand picture={p.picture} />}
    </svg>
  );
}
