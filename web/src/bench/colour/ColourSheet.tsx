import { useState } from "react";
import { useSearch } from "wouter";
import { useColourings, useSettings } from "../../api/queries";
import type { Chosen, Colourings } from "../../api/types.gen";
import { usePiece } from "../../api/usePiece";
import { Still } from "../../hang/Plate";
import { Swatch } from "../../ui/fields";
import { Nothing } from "../../ui/Nothing";
import { Paper } from "../../ui/Paper";
import { download, png } from "../../ui/picture";
import { cutTo } from "../../ui/units";
import { useTitle } from "../../ui/useTitle";
import { asked, chosenIn } from "./chosen";
import { dyed } from "./Ways";

/** ColourSheet is a sheet to choose from: the ways in which colours fall, each with its cords, cuts and a box to tick. */
export function ColourSheet({ id }: { id: number }) {
  const piece = usePiece(id);
  const [toned, setToned] = useState(false);
  const chosen = chosenIn(useSearch());
  const answer = useColourings(id, piece.revision, { colours: chosen, sort: "contrast", closely: true });
  useTitle(`${piece.document?.name ?? "A piece"}: colours`);
  if (piece.error) return <Nothing title="No sheet of colours" text={piece.error.message} />;
  if (answer.error) return <Nothing title="These colours do not fall on it" text={answer.error.message} />;
  const { document } = piece;
  if (!answer.data || !document)
    return (
      <main className="p-8" data-wait>
        Laying the colours out…
      </main>
    );
  return (
    <Paper back={`/piece/${id}/colour`}>
      <Keep id={id} name={document.name} chosen={chosen} toned={toned} />
      <label className="no-print mb-3 flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={toned}
          onChange={(e) => setToned(e.target.checked)}
        />
        Greys instead of colours, for a printer without colour
      </label>
      <h1 className="font-bold text-2xl">{document.name}: colours to choose from</h1>
      <p className="mb-3 text-sm">Tick one. Each shows the face, then the back; letters are those of the cords.</p>
      <Cells answer={answer.data} ids={document.cords.map((c) => c.id)} toned={toned} />
    </Paper>
  );
}

function Cells({ answer, ids, toned }: { answer: Colourings; ids: string[]; toned: boolean }) {
  const { units } = useSettings();
  const { ways, views, cuts } = answer;
  const as = toned ? answer.tones : undefined;
  const tall = Math.max(...views.flat().map((p) => p.height / 100), 1);
  const perMM = Math.min(96 / 25.4, 190 / tall);
  return (
    <ol className="grid grid-cols-2 gap-3" data-testid="colour-sheet">
      {ways.map((w, n) => (
        <li key={w.id + w.colours.join()} className="flex break-inside-avoid gap-3 border border-current p-2">
          <span className="flex gap-1">
            {views[w.look]?.map((p, i) => (
              <Still
                key={i}
                picture={dyed(p, w, as)}
                perMM={perMM}
                label={`Way ${n + 1}, ${i === 0 ? "face" : "back"}`}
              />
            ))}
          </span>
          <span className="min-w-0 flex-1 text-sm">
            <label className="flex items-center gap-2 font-semibold">
              <input type="checkbox" className="checkbox size-6 rounded-none print:size-4" /> Way {n + 1}
              {w.is ? ", as it is" : ""}
            </label>
            <span className="block">{w.says}</span>
            {w.changes.length > 0 && <span className="block">To tie: {w.changes.join("; ")}.</span>}
            <ul>
              {ids.map((cord, i) => (
                <li key={cord}>
                  <Swatch colour={as?.[w.colours[i]] ?? w.colours[i]} /> <strong>{cord}</strong>: {w.names[i]}, cut{" "}
                  <span className="figure whitespace-nowrap">{cutTo(cuts[w.look]?.[i] ?? 0, units)}</span>
                </li>
              ))}
            </ul>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** Keep keeps the sheet as a drawing or a picture. */
function Keep({ id, name, chosen, toned }: { id: number; name: string; chosen: Chosen[]; toned: boolean }) {
  const [paper, setPaper] = useState("a4");
  const [says, setSays] = useState("");
  const url = `/api/pieces/${id}/colours.svg?paper=${paper}${toned ? "&tones=1" : ""}${chosen.map((c) => `&${asked(c)}`).join("")}`;
  const file = `${name || "piece"}, colours`;
  const keep = async () => {
    try {
      const r = await fetch(url);
      if (!r.ok) throw new Error("the sheet cannot be drawn");
      setSays(download(await png(await r.text()), `${file}.png`, "Saved as PNG."));
    } catch (e) {
      setSays(`It could not be saved: ${e instanceof Error ? e.message : e}`);
    }
  };
  return (
    <div className="no-print mb-3 flex flex-wrap items-center gap-2 text-sm">
      <label className="flex items-center gap-2">
        Paper
        <select className="select select-sm w-28" value={paper} onChange={(e) => setPaper(e.target.value)}>
          <option value="a4">A4</option>
          <option value="letter">Letter</option>
        </select>
      </label>
      <a className="btn btn-sm" href={url} download={`${file}.svg`}>
        Save as SVG
      </a>
      <button type="button" className="btn btn-sm" onClick={keep}>
        Save as PNG
      </button>
      <span role="status">{says}</span>
    </div>
  );
}
