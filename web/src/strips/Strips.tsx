import { memo, type PointerEvent, useMemo } from "react";
import { useKnots, useSettings } from "../api/queries";
import type { Leg, PlannedCord } from "../api/types.gen";
import { useWork } from "../bench/work";
import { named } from "../hang/View";
import { cutTo, foldAt, length, type Units } from "../ui/units";
import { useSize } from "../ui/useSize";

// How high a cord's row is, of one that is folded, and how wide a letter and a figure under it are, px.
const rowPx = 42;
const foldedRowPx = 51;
const letterPx = 6.4;
const figurePx = 6.8;

/** Strips shows every cord laid straight on the table, to one common scale. */
export function Strips() {
  const { plan, document, lit, setLit, select } = useWork();
  const { units } = useSettings();
  const { box, w } = useSize();
  const knots = useKnots();
  const names = useMemo(
    () => new Map(plan?.sections.map((s) => [s.index, named(s.index, s, knots)]) ?? []),
    [plan, knots],
  );
  const cords = plan?.cords.filter((c) => c.role !== "unused") ?? [];
  const longest = Math.max(1, ...cords.map((c) => c.cut_mm));
  const perMM = Math.max(0.001, (w - 110) / longest);
  return (
    <div
      ref={box}
      className="h-full overflow-y-auto overflow-x-hidden px-3"
      data-testid="strips"
      tabIndex={0}
      role="region"
      aria-label="Strips"
    >
      <h2 className="sr-only">The cords laid straight</h2>
      {cords.length === 0 && <p className="p-2 opacity-80">No cord is cut yet.</p>}
      {w > 0 &&
        cords.map((c) => (
          <Strip
            key={c.id}
            cord={c}
            perMM={perMM}
            w={w}
            hatch={document.cords.findIndex((k) => k.id === c.id)}
            units={units}
            lit={lit}
            setLit={setLit}
            select={select}
            names={names}
          />
        ))}
    </div>
  );
}

interface StripProps {
  cord: PlannedCord;
  perMM: number;
  w: number;
  hatch: number;
  units: Units;
  lit: number | null;
  setLit: (n: number | null) => void;
  select: (n: number) => void;
  names: ReadonlyMap<number, string>;
}

const Strip = memo(function Strip(p: StripProps) {
  const { cord, perMM, w, hatch, units, lit, setLit, select, names } = p;
  const x0 = 34;
  const legs = cord.legs;
  const folded = legs.length === 2;
  const parts: Part[] = [];
  const spare: { x: number; w: number }[] = [];
  // The leg that hangs on the left lies on the left.
  const [near, far] = legs[0]?.side === "right" ? [legs[1], legs[0]] : [legs[0], legs[1]];
  const fold = x0 + (folded ? near.cut_mm * perMM : 0);
  const bands: { x: number; w: number; colour: string }[] = [];
  const lay = (leg: Leg, from: number, way: 1 | -1) => {
    let far = from;
    for (const b of leg.bands ?? []) {
      const wide = b.mm * perMM;
      bands.push({ x: way > 0 ? far : far - wide, w: wide, colour: b.colour });
      far += way * wide;
    }
    let at = from;
    let room = leg.cut_mm;
    for (const p of leg.parts) {
      const mm = Math.max(0, Math.min(p.mm, room));
      room -= mm;
      const wide = mm * perMM;
      parts.push({ x: way > 0 ? at : at - wide, w: wide, mm, section: p.section, key: `${way}${p.section}` });
      at += way * wide;
    }
    const wide = Math.max(0, room * perMM);
    spare.push({ x: way > 0 ? at : at - wide, w: wide });
  };
  if (folded) {
    lay(near, fold, -1);
    lay(far, fold, 1);
  } else if (legs[0]) {
    lay(legs[0], x0, 1);
  }
  const end = x0 + cord.cut_mm * perMM;
  const side = (l: Leg, name = l.name) => `${l.side}${name ? `, ${name}` : ""}: ${length(l.cut_mm, units)}`;
  const room = (t: string[]) => (t.join("").length + 2) * figurePx;
  const whole = folded ? [near, far].map((l) => side(l)) : [];
  const written = !folded || room(whole) < w - x0 ? whole : [near, far].map((l) => side(l, ""));
  const label = `Cord ${cord.id}: cut ${cutTo(cord.cut_mm, units)}${folded ? `, fold ${foldAt(cord.fold_at_mm, units)} from the end of its ${cord.fold_side} leg` : ""}, needs ${length(cord.needs_mm, units)}, about ${length(cord.left_mm, units)} left over`;
  return (
    <svg
      width={w}
      height={folded ? foldedRowPx : rowPx}
      className="block"
      role="group"
      aria-label={label}
      data-strip={cord.id}
    >
      <defs>
        <pattern id={`hatch${hatch}`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          {/* Dark and light, so that it is seen on every colour. */}
          <path d="M0 0V6" stroke="#000" strokeWidth="1.4" opacity="0.6" />
          <path d="M1.5 0V6" stroke="#fff" strokeWidth="1" opacity="0.6" />
        </pattern>
      </defs>
      <text x="4" y="19" fontSize="15" fontWeight="600" fill="currentColor" className="figure">
        {cord.id}
      </text>
      <rect
        x={x0}
        y="6"
        width={Math.max(0, end - x0)}
        height="15"
        fill={cord.colour}
        stroke="currentColor"
        strokeWidth="1.2"
        rx="2"
      />
      {bands.map((b) => (
        <rect key={b.x} x={b.x} y="6.5" width={b.w} height="14" fill={b.colour} pointerEvents="none" />
      ))}
      {parts.length > most ? (
        <ManyParts parts={parts} x0={x0} end={end} lit={lit} setLit={setLit} select={select} />
      ) : (
        parts.map((q) => (
          <OnePart
            key={q.key}
            p={q}
            fold={fold}
            lit={lit === q.section}
            called={names.get(q.section) ?? `section ${q.section + 1}`}
            takes={length(q.mm, units)}
            setLit={setLit}
            select={select}
          />
        ))
      )}
      {spare.map((s) => (
        <rect key={s.x} x={s.x} y="6" width={s.w} height="15" fill={`url(#hatch${hatch})`} pointerEvents="none" />
      ))}
      {folded && (
        <g pointerEvents="none">
          <path d={`M${fold} 1V23`} stroke="var(--color-secondary)" strokeWidth="2" />
          <path d={`M${fold - 5} 0h10l-5 6z`} fill="var(--color-secondary)" />
          <text
            x={fold}
            y="34"
            fontSize="12"
            textAnchor="middle"
            className="figure"
            fill="var(--color-secondary)"
            fontWeight="700"
          >
            fold {foldAt(cord.fold_at_mm, units)} {cord.fold_side}
          </text>
          {/* The one stands behind the other where the cord is shorter than both are written. */}
          <text x={x0} y="48" fontSize="11" fill="currentColor" className="figure">
            {written[0]}
          </text>
          <text
            x={Math.max(end, x0 + room(written))}
            y="48"
            fontSize="11"
            textAnchor="end"
            fill="currentColor"
            className="figure"
          >
            {written[1]}
          </text>
        </g>
      )}
      <text x={end + 6} y="18" fontSize="12" className="figure" fill="currentColor">
        {cutTo(cord.cut_mm, units)}
      </text>
    </svg>
  );
});

interface Part {
  x: number;
  w: number;
  mm: number;
  section: number;
  key: string;
}

interface Pointing {
  setLit: (n: number | null) => void;
  select: (n: number) => void;
}

/** Above so many parts of a cord they are drawn together. */
const most = 60;

function OnePart(props: { p: Part; fold: number; lit: boolean; called: string; takes: string } & Pointing) {
  const { p, fold, lit, called, takes, setLit, select } = props;
  const name = `${called}: ${takes}`;
  // What is called by a name only there where it fits is no bare number, which would read as a length.
  const fits = [called, called.replace(/^\d+\. /, ""), called.replace(/^\d+\. /, "").split(",")[0]].find(
    (t) => t.length * letterPx < p.w - 4,
  );
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={name}
      data-section={p.section}
      onFocus={() => setLit(p.section)}
      onBlur={() => setLit(null)}
      onKeyDown={(e) => {
        if (e.key !== "Enter" && e.key !== " ") return;
        e.preventDefault();
        select(p.section);
      }}
      onPointerEnter={() => setLit(p.section)}
      onPointerLeave={() => setLit(null)}
      onPointerDown={() => select(p.section)}
    >
      <rect x={p.x} y="6" width={p.w} height="15" fill="#fff" opacity={lit ? 0 : p.section % 2 === 1 ? 0.28 : 0} />
      <rect
        x={p.x}
        y="6"
        width={p.w}
        height="15"
        fill="none"
        stroke={lit ? "var(--moving)" : "var(--ink)"}
        strokeWidth={lit ? 2.5 : 0.8}
      />
      {/* Beside the dark line a light one, which dark cord shows. */}
      {!lit && <path d={`M${p.x + 1.2} 7v13`} stroke="#fff" strokeWidth="1" opacity="0.6" />}
      <title>{name}</title>
      {lit ? (
        <text
          x={Math.max(34, p.x + p.w / 2)}
          y="34"
          fontSize="12"
          textAnchor={p.x < 60 ? "start" : "middle"}
          fill="currentColor"
          stroke="var(--color-base-100)"
          strokeWidth="6"
          paintOrder="stroke"
          fontWeight="700"
          pointerEvents="none"
        >
          {name}
        </text>
      ) : (
        fits &&
        Math.abs(p.x + p.w / 2 - fold) > 60 + (fits.length * letterPx) / 2 && (
          <text x={p.x + p.w / 2} y="34" fontSize="11" textAnchor="middle" fill="currentColor" pointerEvents="none">
            {fits}
          </text>
        )
      )}
    </g>
  );
}

/** ManyParts draws the parts of a long cord as two paths and finds the one pointed at by its place. */
function ManyParts(p: { parts: Part[]; x0: number; end: number; lit: number | null } & Pointing) {
  const { parts, x0, end, lit, setLit, select } = p;
  const box = (q: Part) => `M${q.x.toFixed(2)} 6h${q.w.toFixed(2)}v15h${(-q.w).toFixed(2)}z`;
  const at = (e: PointerEvent<SVGRectElement>) => {
    const x = e.clientX - (e.currentTarget.ownerSVGElement?.getBoundingClientRect().left ?? 0);
    return parts.find((q) => x >= q.x && x < q.x + q.w)?.section ?? null;
  };
  return (
    <>
      <path
        d={parts
          .filter((q) => q.section % 2 === 1)
          .map(box)
          .join("")}
        fill="#fff"
        opacity="0.28"
      />
      <path d={parts.map((q) => `M${q.x.toFixed(2)} 6v15`).join("")} stroke="var(--ink)" strokeWidth="0.6" />
      <path
        d={parts.map((q) => `M${(q.x + 0.8).toFixed(2)} 7v13`).join("")}
        stroke="#fff"
        strokeWidth="0.5"
        opacity="0.6"
      />
      {lit !== null && (
        <path
          d={parts
            .filter((q) => q.section === lit)
            .map(box)
            .join("")}
          fill="none"
          stroke="var(--moving)"
          strokeWidth="2.5"
        />
      )}
      <rect
        x={x0}
        y="6"
        width={Math.max(0, end - x0)}
        height="15"
        fill="transparent"
        onPointerMove={(e) => setLit(at(e))}
        onPointerLeave={() => setLit(null)}
        onPointerDown={(e) => {
          const n = at(e);
          if (n !== null) select(n);
        }}
      />
    </>
  );
}
