import { useState } from "react";
import { api } from "../../api/client";
import { useChange, useKnots, useSettings } from "../../api/queries";
import type { Hand, Reached } from "../../api/types.gen";
import { Dialog } from "../../ui/Dialog";
import { Choice, Swatch } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { Problems } from "../../ui/Problems";
import { length, said } from "../../ui/units";
import { useWork } from "../work";
import { Draft } from "./Draft";
import { measured } from "./measured";

const stops = [
  { id: "", name: "till the cord runs out" },
  { id: "length", name: "at a length of the piece" },
  { id: "left", name: "with so much left of each cord" },
  { id: "hardware", name: "at the hardware of the far end" },
];

/** InHand finds the longest piece that cord in hand ties. */
export function InHand({ onClose }: { onClose: () => void }) {
  const { id, document, plan, edit } = useWork();
  const { units } = useSettings();
  const knots = useKnots();
  const [one, setOne] = useState(false);
  const [offCut, setOffCut] = useState<number | undefined>();
  const [cords, setCords] = useState<Record<string, number | undefined>>({});
  const [section, setSection] = useState("");
  const [stop, setStop] = useState<NonNullable<Hand["stop"]>>("");
  const [at, setAt] = useState<number | undefined>();
  const ask = useChange((h: Hand) => api.post<Reached>(`/pieces/${id}/reach`, h), []);
  const used = plan?.cords.filter((c) => c.role !== "unused") ?? [];
  const find = () => {
    ask.mutate({
      ...(one ? { off_cut_mm: offCut ?? 0 } : { cords_mm: measured(cords) }),
      ...(section === "" ? {} : { section: Number(section) }),
      stop,
      ...(stop === "length" || stop === "left" ? { at_mm: at ?? 0 } : {}),
    });
  };
  const got = ask.data;
  return (
    <Dialog title="From cord in hand" onClose={onClose} wide>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          find();
        }}
      >
        <p className="text-sm opacity-80">
          The longest piece of this sequence, with all that is allowed for. A cord that is left empty is long enough.
        </p>
        <Choice
          label="There is"
          value={one ? "one" : "each"}
          options={[
            { id: "each", name: "a length for each cord" },
            { id: "one", name: "one off-cut for all" },
          ]}
          onSet={(v) => setOne(v === "one")}
        />
        <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
          {one ? (
            <LengthInput label="The off-cut" mm={offCut} optional onSet={setOffCut} />
          ) : (
            used.map((c) => (
              <LengthInput
                key={c.id}
                label={`Cord ${c.id} in hand`}
                mm={cords[c.id]}
                optional
                onSet={(v) => setCords((now) => ({ ...now, [c.id]: v }))}
              />
            ))
          )}
        </div>
        <div className="grid gap-2 sm:grid-cols-3">
          <Choice
            label="The row that may grow"
            value={section}
            options={[
              { id: "", name: "the tallest" },
              ...document.sequence.flatMap((s, i) =>
                knots.get(s.do)?.repeats ? [{ id: String(i), name: `${i + 1}: ${knots.get(s.do)?.name}` }] : [],
              ),
            ]}
            onSet={setSection}
          />
          <Choice label="Tie" value={stop} options={stops} onSet={(v) => setStop(v as typeof stop)} />
          {(stop === "length" || stop === "left") && (
            <LengthInput
              label={stop === "length" ? "Length of the piece" : "Left of each cord"}
              mm={at}
              onSet={setAt}
            />
          )}
        </div>
        <Problems error={ask.error} />
        <button type="submit" className="btn btn-primary btn-sm self-start" disabled={ask.isPending}>
          Find the longest piece
        </button>
      </form>
      {got && !ask.error && (
        <section className="mt-4 flex flex-col gap-3" aria-label="The longest piece" data-testid="reached">
          <p>
            <strong>
              {got.count} × {knots.get(document.sequence[got.section]?.do)?.name}
            </strong>{" "}
            in section {got.section + 1}, a piece of <strong className="figure">{length(got.length_mm, units)}</strong>.{" "}
            {said(got.says, units)}
          </p>
          <div className="flex flex-wrap items-start gap-4">
            <Draft document={got.document} />
            <table className="table table-sm w-auto">
              <thead>
                <tr>
                  <th>cord</th>
                  <th className="text-right">in hand</th>
                  <th className="text-right">takes</th>
                  <th className="text-right">left</th>
                </tr>
              </thead>
              <tbody className="figure">
                {got.cords.map((l) => (
                  <tr key={l.id}>
                    <th scope="row">
                      <Swatch colour={used.find((c) => c.id === l.id)?.colour ?? "#888888"} id={l.id} />
                    </th>
                    <td className="text-right">{length(l.in_hand_mm, units)}</td>
                    <td className="text-right">{length(l.takes_mm, units)}</td>
                    <td className="text-right">{length(l.left_mm, units)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <button
            type="button"
            className="btn btn-primary btn-sm self-start"
            onClick={() => {
              edit((d) => ({ ...d, sequence: got.document.sequence }));
              onClose();
            }}
          >
            Tie {got.count}
          </button>
        </section>
      )}
    </Dialog>
  );
}
