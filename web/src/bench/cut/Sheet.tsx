import { usePicture, usePlan, useSettings } from "../../api/queries";
import { usePiece } from "../../api/usePiece";
import { Still } from "../../hang/Plate";
import { Nothing } from "../../ui/Nothing";
import { Paper } from "../../ui/Paper";
import { cutTo, diameter, foldAt, length, said } from "../../ui/units";
import { useTitle } from "../../ui/useTitle";
import { fusedWith } from "../stuff/used";
import { TableCard } from "./TableCard";

/** Sheet is the cut sheet: one page for the table, on A4 or Letter. */
export function Sheet({ id }: { id: number }) {
  const piece = usePiece(id);
  const plan = usePlan(id, piece.revision).data;
  const picture = usePicture(id, piece.revision, { turn: 0, scale: 7 }).data;
  const { units } = useSettings();
  useTitle(`${piece.document?.name ?? "A piece"}: cut sheet`);
  if (piece.error) return <Nothing title="No cut sheet" text={piece.error.message} />;
  if (!plan || !piece.document) return <main className="p-8">Working the cut sheet out…</main>;
  // True size on paper, where it fits.
  const trueSize = 96 / 25.4;
  const fits = picture ? picture.height / 100 <= 210 : false;
  const perMM = picture ? (fits ? trueSize : (210 / (picture.height / 100)) * trueSize) : 1;
  return (
    <Paper back={`/piece/${id}/cut`}>
      <h1 className="font-bold text-2xl">{piece.document.name}</h1>
      <p className="mb-3">
        {length(plan.length_mm, units)} long, {length(plan.width_mm, units)} wide, {plan.weight_g.toFixed(1)} g
        {plan.left_handed ? "; tied with the left hand leading" : ""}
      </p>
      <div className="flex gap-6">
        <div className="min-w-0 flex-1">
          <table className="w-full border-collapse text-left">
            <thead>
              <tr className="border-current border-b-2">
                <th className="py-1 pr-3">cord</th>
                <th>stuff</th>
                <th className="text-right">cut</th>
                <th className="pl-4 text-right">fold at</th>
                <th className="pl-4 text-right">left</th>
              </tr>
            </thead>
            <tbody>
              {plan.cords
                .filter((c) => c.role !== "unused")
                .map((c) => {
                  const cords = piece.document?.cords ?? [];
                  const cord = cords.find((k) => k.id === c.id);
                  const s = cord?.stuff;
                  const fused = cord && fusedWith(cords, cord);
                  return (
                    <tr key={c.id} className="border-current border-b">
                      <th scope="row" className="py-1.5 text-lg">
                        {c.id}
                      </th>
                      <td>
                        {s ? `${s.make} ${s.material} ${diameter(s.diameter_mm, units)}` : ""}
                        {s && (
                          <svg width="14" height="14" viewBox="0 0 14 14" className="ml-2 inline" aria-hidden="true">
                            <rect width="14" height="14" fill={s.colour} stroke="#000" />
                          </svg>
                        )}
                      </td>
                      <td className="figure text-right font-bold">{cutTo(c.cut_mm, units)}</td>
                      <td className="figure pl-4 text-right" data-testid={`fold-${c.id}`}>
                        {c.fold_at_mm > 0
                          ? `${foldAt(c.fold_at_mm, units)}, ${c.fold_side}`
                          : fused
                            ? `fused to ${fused}`
                            : "no fold"}
                      </td>
                      <td className="figure pl-4 text-right">{length(c.left_mm, units)}</td>
                    </tr>
                  );
                })}
            </tbody>
          </table>
          <p className="mt-1 text-sm">
            The fold is measured from the end of the leg that hangs on the side named. Cut: enough for {plan.one_in - 1}{" "}
            pieces in {plan.one_in}.
          </p>
          {plan.cords.some((c) => c.role === "legs") && (
            <ul className="mt-2 text-sm">
              {plan.cords
                .filter((c) => c.role === "legs")
                .map((c) => (
                  <li key={c.id}>
                    <strong>{c.id}</strong>: {said(c.measure ?? "", units, c.fold_at_mm)}
                  </li>
                ))}
            </ul>
          )}
          <h2 className="mt-4 font-semibold">Sequence</h2>
          <ol className="list-decimal pl-5">
            {plan.sections.map((s) => (
              <li key={s.index}>
                {s.do.replaceAll("-", " ")}
                {s.count > 0 ? `, ${s.count}` : ""}: {length(s.height_mm, units)}
              </li>
            ))}
          </ol>
          {plan.warnings.length > 0 && (
            <>
              <h2 className="mt-4 font-semibold">Look out</h2>
              <ul className="list-disc pl-5">
                {plan.warnings.map((w) => (
                  <li key={w.message}>{said(w.message, units)}</li>
                ))}
              </ul>
            </>
          )}
          <h2 className="mt-4 font-semibold">Cautions</h2>
          <ul className="list-disc pl-5 text-sm">
            {plan.cautions.map((c) => (
              <li key={c.id}>
                <strong>{c.title}.</strong> {said(c.says, units)}
              </li>
            ))}
          </ul>
        </div>
        {picture && (
          <figure className="shrink-0">
            <Still picture={picture} perMM={perMM} label="The piece as it will hang" />
            <figcaption className="mt-1 text-center text-sm">{fits ? "true size" : "not to scale"}</figcaption>
          </figure>
        )}
      </div>
      <div className="print:break-before-page">
        <TableCard id={id} revision={piece.revision} cords={false} />
      </div>
    </Paper>
  );
}
