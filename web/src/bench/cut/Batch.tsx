import type { PlannedCord } from "../../api/types.gen";
import { cutTo, type Units } from "../../ui/units";

/** Batch is the page for several of the same: what is cut of each cord in all, and a box for each piece at each stage. */
export function Batch(p: { name: string; cords: PlannedCord[]; pieces: number; units: Units }) {
  const { name, cords, pieces, units } = p;
  const stages = [...cords.map((c) => `${c.id} cut`), "tied", "finished", "checked"];
  return (
    <section aria-label="Several of the same" data-testid="batch" className="mt-4 print:mt-0">
      <h2 className="mb-2 font-bold text-xl">
        {pieces} of {name}
      </h2>
      <table className="mb-3 w-full border-collapse text-left">
        <thead>
          <tr className="border-current border-b-2">
            <th className="py-1">cord</th>
            <th className="text-right">each</th>
            <th className="text-right">pieces</th>
            <th className="text-right">in all</th>
          </tr>
        </thead>
        <tbody>
          {cords.map((c) => (
            <tr key={c.id} className="border-current border-b">
              <th scope="row" className="py-1">
                {c.id}
              </th>
              <td className="figure text-right">{cutTo(c.cut_mm, units)}</td>
              <td className="figure text-right">{pieces}</td>
              <td className="figure text-right font-bold">{cutTo(c.cut_mm * pieces, units)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="w-full border-collapse text-center text-sm">
        <thead>
          <tr>
            <th className="text-left">piece</th>
            {stages.map((s) => (
              <th key={s}>{s}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: pieces }, (_, i) => (
            <tr key={i} className="border-current border-t">
              <th scope="row" className="figure text-left">
                {i + 1}
              </th>
              {stages.map((s) => (
                <td key={s}>
                  <svg width="13" height="13" className="my-0.5 inline" aria-hidden="true">
                    <rect x="1" y="1" width="11" height="11" fill="none" stroke="currentColor" />
                  </svg>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
