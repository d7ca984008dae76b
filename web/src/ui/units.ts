import type { Settings } from "../api/types.gen";
import { cutParts, fineParts, inchMM as inch, lengthParts } from "./units.gen";

export type Units = Settings["units"];

/** length writes millimetres in the maker's units. */
export function length(mm: number, units: Units, fine = false): string {
  if (units === "inch") return `${inches(mm, lengthParts)} in`;
  if (fine && mm < 100) return `${mm.toFixed(1)} mm`;
  if (mm >= 10_000) return `${(mm / 1000).toFixed(2)} m`;
  return `${Math.round(mm)} mm`;
}

/** diameter writes a thickness: of a cord, a wire, a hole or a bead. */
export function diameter(mm: number, units: Units): string {
  if (units === "inch") return `${inches(mm, fineParts)} in`;
  return `${Number(mm.toFixed(2))} mm`;
}

/** across writes the width of a core, a ball or a drawn-up cord, which is figured and not named on a packet. */
export function across(mm: number, units: Units): string {
  return units === "inch" ? diameter(mm, units) : length(mm, units, true);
}

/** foldAt writes the place of a fold; it is never rounded down. */
export function foldAt(mm: number, units: Units): string {
  const up = (v: number) => Math.ceil(v - 1e-6);
  if (units === "inch") return `${inches((up((mm / inch) * lengthParts) / lengthParts) * inch, lengthParts)} in`;
  return `${up(mm * 10) / 10} mm`;
}

/** cutTo writes what is cut to; cuts are rounded up before. */
export function cutTo(mm: number, units: Units): string {
  return units === "inch" ? `${inches(mm, cutParts)} in` : length(mm, units);
}

/** inches writes millimetres in inches with a fraction of 1/parts at the finest. */
export function inches(mm: number, parts: number): string {
  const n = Math.round((Math.abs(mm) / inch) * parts);
  const whole = Math.floor(n / parts);
  let top = n % parts;
  let bottom = parts;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  const sign = mm < 0 && n > 0 ? "-" : "";
  if (top === 0) return `${sign}${whole}`;
  return whole === 0 ? `${sign}${top}/${bottom}` : `${sign}${whole} ${top}/${bottom}`;
}

const number = "(?:(\\d+(?:[.,]\\d+)?)(?:[\\s-]+(?=\\d+/))?)?(?:(\\d+)/(\\d+))?";
const one = new RegExp(`^${number}\\s*(mm|cm|m|in|inch|inches|"|ft|feet|foot|')?$`);
const feetAndInches = new RegExp(`^${number}\\s*(?:ft|feet|foot|')[\\s-]*${number}\\s*(?:in|inch|inches|")$`);
const foot = 12 * inch;

/** mixed is a whole number, a fraction or both; null for neither. */
function mixed([whole, top, bottom]: (string | undefined)[]): number | null {
  if (whole === undefined && top === undefined) return null;
  return (
    (whole === undefined ? 0 : Number(whole.replace(",", "."))) + (top === undefined ? 0 : Number(top) / Number(bottom))
  );
}

/** readLength reads what a maker writes, feet and inches among it; a bare number is in the maker's units. */
export function readLength(text: string, units: Units): number | null {
  const t = text.trim().toLowerCase();
  const both = t.match(feetAndInches);
  if (both) {
    const feet = mixed(both.slice(1, 4));
    const rest = mixed(both.slice(4, 7));
    return feet === null || rest === null ? null : positive(feet * foot + rest * inch);
  }
  const m = t.match(one);
  const v = m && mixed(m.slice(1, 4));
  if (!m || v === null) return null;
  const unit = m[4] ?? (units === "inch" ? "in" : "mm");
  const scale = { mm: 1, cm: 10, m: 1000, ft: foot, feet: foot, foot, "'": foot }[unit] ?? inch;
  return positive(v * scale);
}

const positive = (v: number) => (Number.isFinite(v) && v > 0 ? v : null);

/** said writes a message of the plan, its {12.3mm} in the maker's units and its {fold} as the fold of its cord. */
export function said(message: string, units: Units, fold?: number): string {
  return message
    .replace(/\{fold\}/g, fold === undefined ? "the fold" : foldAt(fold, units))
    .replace(/\{([\d.]+)mm\}/g, (_, v: string) => inWords(Number(v), units));
}

/** inWords is a length in a sentence: a short one to a tenth of a millimetre, where it has one. */
function inWords(mm: number, units: Units): string {
  return units === "mm" && mm < 100 ? `${Number(mm.toFixed(1))} mm` : length(mm, units);
}

/** written is a length as it stands in a field to be changed; "" where there is none. */
export function written(mm: number | undefined, units: Units, fine?: boolean): string {
  if (!mm) return "";
  return units === "inch"
    ? `${inches(mm, fine ? fineParts : lengthParts)} in`
    : `${Number(mm.toFixed(fine ? 2 : 1))} mm`;
}

/** spent is a time that was spent: seconds below a minute, then minutes, then hours too. */
export function spent(s: number): string {
  const min = Math.round(s / 60);
  if (s < 60) return `${Math.round(s)} s`;
  return min < 60 ? `${min} min` : `${Math.floor(min / 60)} h ${min % 60} min`;
}
