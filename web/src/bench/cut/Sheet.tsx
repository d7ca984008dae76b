import { useKnots, usePicture, usePlan, useSettings } from "../../api/queries";
import type { Document, Plan, PlannedCord } from "../../api/types.gen";
import { usePiece } from "../../api/usePiece";
import { Still } from "../../hang/Plate";
import { Folded, Straight } from "../../strips/Laid";
import { day } from "../../ui/dates";
import { useKept } from "../../ui/kept";
import { Nothing } from "../../ui/Nothing";
import { NumberInput } from "../../ui/NumberInput";
import { Paper } from "../../ui/Paper";
import { cutTo, diameter, foldAt, length, said, type Units } from "../../ui/units";
import { useTitle } from "../../ui/useTitle";
import { fusedWith } from "../stuff/used";
import { Batch } from "./Batch";
import { TableCard } from "./TableCard";

/** So many of the same are made at most with one sheet. */
const mostAlike = 40;

/** Sheet is the cut sheet: one page for the table, on A4 or Letter; a second for several of the same; then the table card. */
export function Sheet({ id }: { id: number }) {
  const piece = usePiece(id);
  const plan = usePlan(id, piece.revision).data;
  const picture = usePicture(id, piece.revision, { turn: 0, scale: 7 }).data;
  const { units } = useSettings();
  const [alike, setAlike] = useKept(`alike-${id}`, 1);
  useTitle(`${piece.document?.name ?? "A piece"}: cut sheet`);
  if (piece.error) return <Nothing title="No cut sheet" text={piece.error.message} />;
  if (!plan || !piece.document)
    return (
      <main className="p-8" role="status" data-wait>
        Working the cut sheet out…
      </main>
    );
  // True size on paper, where it fits.
  const trueSize = 96 / 25.4;
  const tall = 190;
  const fits = picture ? picture.height / 100 <= tall : false;
  const perMM = picture ? (fits ? trueSize : (tall / (picture.height / 100)) * trueSize) : 1;
  const cords = plan.cords.filter((c) => c.role !== "unused");
  return (
    <Paper back={`/piece/${id}/cut`}>
      <div className="no-print mb-4 w-40">
        <NumberInput
          label="How many alike"
          value={alike}
          whole
          least={1}
          most={mostAlike}
          onSet={(n) => setAlike(n ?? 1)}
        />
      </div>
      <div className="flex items-baseline justify-between gap-4">
        <h1 className="font-bold text-2xl">{piece.document.name}</h1>
        <p className="text-sm" data-testid="date">
          {day(new Date())}
        </p>
      </div>
      <p className="mb-2">
        {length(plan.length_mm, units)} long, {length(plan.width_mm, units)} wide, {plan.weight_g.toFixed(1)} g
        {plan.left_handed ? "; tied with the left hand leading" : ""}. Cut: enough for {plan.one_in - 1} pieces in{" "}
        {plan.one_in}.
      </p>
      {piece.document.purpose.note && (
        <p className="mb-2 border-current border-l-2 pl-2">{piece.document.purpose.note}</p>
      )}
      <div className="flex gap-6">
        <div className="min-w-0 flex-1">
          <CordTable cords={cords} document={piece.document} units={units} />
          <Measured cords={cords} units={units} />
          <Sections plan={plan} document={piece.document} units={units} />
          {plan.warnings.length > 0 && (
            <>
              <h2 className="mt-3 font-semibold">Look out</h2>
              <ul className="list-disc pl-5">
                {plan.warnings.map((w) => (
                  <li key={w.message}>{said(w.message, units)}</li>
                ))}
              </ul>
            </>
          )}
        </div>
        {picture && (
          <figure className="shrink-0">
            <Still picture={picture} perMM={perMM} label="The piece as it will hang" />
            <figcaption className="mt-1 text-center text-sm">
              {fits ? "true size" : "not to scale"}
              <Ends plan={plan} />
            </figcaption>
          </figure>
        )}
      </div>
      <h2 className="mt-3 font-semibold">Safety</h2>
      <ul className="list-disc pl-5 text-xs">
        {plan.cautions.map((c) => (
          <li key={c.id}>
            <strong>{c.title}.</strong> {said(c.says, units)}
          </li>
        ))}
      </ul>
      {alike > 1 && (
        <div className="print:break-before-page">
          <Batch name={piece.document.name} cords={cords} pieces={alike} units={units} />
        </div>
      )}
      <div className="print:break-before-page">
        <TableCard id={id} revision={piece.revision} cords={false} />
      </div>
    </Paper>
  );
}

interface OfCords {
  cords: PlannedCord[];
  units: Units;
}

/** CordTable names every cord in words, so that it needs no colour, with what it is cut to and where it folds. */
function CordTable({ cords, units, document }: OfCords & { document: Document }) {
  return (
    <table className="w-full border-collapse text-left">
      <thead>
        <tr className="border-current border-b-2">
          <th className="py-1 pr-3">cord</th>
          <th>what it is</th>
          <th className="text-right">cut</th>
          <th className="pl-4 text-right">fold at</th>
          <th className="pl-4 text-right">left over</th>
        </tr>
      </thead>
      <tbody>
        {cords.map((c) => {
          const cord = document.cords.find((k) => k.id === c.id);
          const s = cord?.stuff;
          const fused = cord && fusedWith(document.cords, cord);
          return (
            <tr key={c.id} className="border-current border-b">
              <th scope="row" className="py-1 text-lg">
                {c.id}
              </th>
              <td className="text-sm leading-tight" data-testid={`what-${c.id}`}>
                {s && (
                  <>
                    <svg width="14" height="14" viewBox="0 0 14 14" className="mr-1.5 inline" aria-hidden="true">
                      <rect width="14" height="14" fill={s.colour} stroke="#000" />
                    </svg>
                    {s.label && <strong>{s.label}, </strong>}
                    {c.colour_name}
                    {s.sheath && `, ${s.sheath.pattern.replaceAll("-", " ")}`}
                    <br />
                    {s.make.replaceAll("-", " ")} {s.material} {diameter(s.diameter_mm, units)}
                  </>
                )}
              </td>
              <td className="figure whitespace-nowrap text-right font-bold">{cutTo(c.cut_mm, units)}</td>
              <td className="figure whitespace-nowrap pl-4 text-right" data-testid={`fold-${c.id}`}>
                {c.fold_at_mm > 0
                  ? `${foldAt(c.fold_at_mm, units)}, ${c.fold_side}`
                  : fused
                    ? `fused to ${fused}`
                    : "no fold"}
              </td>
              <td className="figure whitespace-nowrap pl-4 text-right">{length(c.left_mm, units)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Above so many cords the fold is said in words alone, so that a page holds them. */
const mostDrawn = 4;

/** Measured draws how each cord is cut and folded, and says it. */
function Measured({ cords, units }: OfCords) {
  const drawn = cords.length <= mostDrawn;
  return (
    <ul className={`mt-2 text-xs ${drawn ? "grid grid-cols-2 gap-x-4 gap-y-2" : ""}`} aria-label="How each cord is cut">
      {cords.map((c) => (
        <li key={c.id} className="break-inside-avoid">
          {drawn &&
            (c.legs.length === 2 ? (
              <Folded cord={c} units={units} wide={480} />
            ) : (
              <Straight cord={c} units={units} wide={480} />
            ))}
          <strong>{c.id}</strong>: {said(c.measure ?? "", units, c.fold_at_mm)}
        </li>
      ))}
    </ul>
  );
}

/** Sections are what is tied, in order, each with what matters of it. */
function Sections({ plan, document, units }: { plan: Plan; document: Document; units: Units }) {
  const knots = useKnots();
  return (
    <>
      <h2 className="mt-3 font-semibold">Sequence</h2>
      <ol className="list-decimal pl-5" data-testid="sequence">
        {plan.sections.map((s) => {
          const note = document.sequence[s.index]?.note;
          return (
            <li key={s.index}>
              <strong>
                {knots.get(s.do)?.name ?? s.do}
                {s.count > 1 ? `, ${s.count} times` : ""}
              </strong>
              {s.told ? `: ${said(s.told, units)}` : ""}; {length(s.height_mm, units)} high
              {note ? <em>. {note}</em> : ""}
            </li>
          );
        })}
      </ol>
    </>
  );
}

/** Ends names the cords that hang at the end, so that they are told apart without colour. */
function Ends({ plan }: { plan: Plan }) {
  const last = plan.sections.findLast((s) => s.order_after.length > 0);
  if (!last) return null;
  return (
    <span className="block">
      from the left: <span className="figure">{last.order_after.map((l) => l.split(".")[0]).join(" ")}</span>
    </span>
  );
}
