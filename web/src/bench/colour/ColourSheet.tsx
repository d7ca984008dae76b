import { useSearch } from "wouter";
import { useColourings, useDrawer, useSettings } from "../../api/queries";
import { usePiece } from "../../api/usePiece";
import { Still } from "../../hang/Plate";
import { Nothing } from "../../ui/Nothing";
import { Paper } from "../../ui/Paper";
import { cutTo } from "../../ui/units";
import { dyed } from "./Ways";

/** ColourSheet is a sheet to choose from: the ways in which colours fall, each with its cords, cuts and a box to tick. */
export function ColourSheet({ id }: { id: number }) {
  const piece = usePiece(id);
  const { units } = useSettings();
  const drawer = useDrawer().data;
  const asked = new URLSearchParams(useSearch()).getAll("c");
  const chosen = asked.map((colour) => ({ colour, name: drawer?.find((s) => s.stuff.colour === colour)?.name }));
  const answer = useColourings(id, drawer ? piece.revision : undefined, { colours: chosen, sort: "contrast" });
  if (piece.error) return <Nothing title="No sheet of colours" text={piece.error.message} />;
  if (answer.error) return <Nothing title="These colours do not fall on it" text={answer.error.message} />;
  const { document } = piece;
  if (!answer.data || !document)
    return (
      <main className="p-8" data-wait>
        Laying the colours out…
      </main>
    );
  const { ways, views, cuts } = answer.data;
  const tall = Math.max(...views.flat().map((p) => p.height / 100), 1);
  const perMM = Math.min(96 / 25.4, 190 / tall);
  return (
    <Paper back={`/piece/${id}/colour`}>
      <h1 className="font-bold text-2xl">{document.name}: colours to choose from</h1>
      <p className="mb-3 text-sm">Tick one. Each shows the face, then the back; letters are those of the cords.</p>
      <ol className="grid grid-cols-2 gap-3" data-testid="colour-sheet">
        {ways.map((w, n) => (
          <li key={w.id + w.colours.join()} className="flex break-inside-avoid gap-3 border border-current p-2">
            <span className="flex gap-1">
              {views[w.turned ? 1 : 0]?.map((p, i) => (
                <Still
                  key={i}
                  picture={dyed(p, w, answer.data, "usual")}
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
              <ul>
                {document.cords.map((c, i) => (
                  <li key={c.id}>
                    <strong>{c.id}</strong>: {w.shares.find((s) => s.colour === w.colours[i])?.name ?? w.colours[i]},
                    cut{" "}
                    <span className="figure whitespace-nowrap">{cutTo(cuts[w.turned ? 1 : 0]?.[i] ?? 0, units)}</span>
                  </li>
                ))}
              </ul>
            </span>
          </li>
        ))}
      </ol>
    </Paper>
  );
}
