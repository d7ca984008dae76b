import { useState } from "react";
import { api, Failed } from "../../api/client";
import { learnt, useChange, useKnots, usePlanned, useSettings, useSwatches } from "../../api/queries";
import type { Cord, PlannedCord, Swatch } from "../../api/types.gen";
import { Alert } from "../../ui/Alert";
import { Dialog } from "../../ui/Dialog";
import { Choice } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { Problems } from "../../ui/Problems";
import { diameter, length, said } from "../../ui/units";
import { useWork } from "../work";

const percent = (v: number) => `${(100 * v).toFixed(1)} %`;

/** Swatches are what was tied and weighed of a cord, to tell its real thickness and the maker's hand. */
export function Swatches({
  cord,
  planned,
  onClose,
}: {
  cord: Cord;
  planned: PlannedCord | undefined;
  onClose: () => void;
}) {
  const { units } = useSettings();
  const knots = useKnots();
  const all = useSwatches().data ?? [];
  const drop = useChange((id: number) => api.drop(`/swatches/${id}`), learnt);
  const of = all.filter((s) => s.kind === planned?.known.kind);
  return (
    <Dialog title={`Swatches of cord ${cord.id}`} onClose={onClose} wide>
      <div className="flex flex-col gap-4">
        {planned && (
          <div className="text-sm" data-testid="known">
            <p>
              It draws up to <strong className="figure">{diameter(planned.drawn_up_mm, units)}</strong>, give or take{" "}
              {percent(planned.known.doubt)}; by its label {diameter(planned.known.label_mm, units)}, give or take{" "}
              {percent(planned.known.label_doubt)}.
            </p>
            {planned.known.hands.map((h) => (
              <p key={h.family}>
                Your hand in {h.family}: {h.loose.toFixed(2)} times an ideal knot, give or take {percent(h.doubt)}.
              </p>
            ))}
            <p>
              Allowed over the needs: <strong className="figure">{percent(planned.allowed)}</strong>; by geometry alone{" "}
              {percent(planned.by_geometry)}.
            </p>
          </div>
        )}
        <ul className="flex flex-col gap-1" aria-label="Swatches">
          {of.map((s) => (
            <li key={s.id} className="flex flex-wrap items-baseline gap-2 border-base-300 border-b py-1 text-sm">
              <span className="min-w-0 flex-1">
                {s.knot ? (
                  <>
                    {knots.get(s.knot)?.name ?? s.knot}
                    {s.count ? `, ${s.count}` : ""}: {length(s.height_mm ?? 0, units, true)} tall, each took{" "}
                    {(s.took_mm ?? []).map((v) => length(v, units)).join(" and ")}
                  </>
                ) : (
                  <>
                    {length(s.length_mm ?? 0, units)} weighed {s.grams} g
                  </>
                )}
                {s.sure ? ", kept though it surprised" : ""}
              </span>
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                aria-label={`Delete swatch ${s.id}`}
                onClick={() => drop.mutate(s.id)}
              >
                Delete
              </button>
            </li>
          ))}
          {of.length === 0 && <li className="text-sm opacity-80">None yet. Ten knots and a ruler are enough.</li>}
        </ul>
        {drop.error && <Alert>{drop.error.message}</Alert>}
        <NewSwatch cord={cord} />
      </div>
    </Dialog>
  );
}

/** NewSwatch takes a row that was tied and measured, or a length that was weighed. */
function NewSwatch({ cord }: { cord: Cord }) {
  const { units } = useSettings();
  const { document } = useWork();
  const knots = useKnots();
  const [what, setWhat] = useState("row");
  const [chosen, setKnot] = useState("");
  const [count, setCount] = useState<number | undefined>(10);
  const [height, setHeight] = useState<number | undefined>();
  const [took, setTook] = useState<(number | undefined)[]>([undefined, undefined]);
  const [long, setLong] = useState<number | undefined>();
  const [grams, setGrams] = useState<number | undefined>();
  const tieable = [...knots.values()].filter((k) => k.swatch);
  // What the piece ties is what a swatch of its cord is most likely tied of.
  const knot =
    chosen || document.sequence.find((s) => knots.get(s.do)?.swatch)?.do || tieable.find((k) => k.common)?.id || "";
  const repeats = knots.get(knot)?.repeats ?? true;
  const row: Swatch = { stuff: cord.stuff, knot, ...(repeats ? { count: count ?? 0 } : {}) };
  const plan = usePlanned(what === "row" && (!repeats || (count ?? 0) > 0) ? row : null).data;
  const add = useChange(
    (s: Swatch) => api.post("/swatches", s),
    learnt,
    () => {
      setHeight(undefined);
      setTook([undefined, undefined]);
      setLong(undefined);
      setGrams(undefined);
    },
  );
  const doubtful = add.error instanceof Failed && add.error.problem.code === "doubtful" ? add.error : null;
  const save = (sure?: boolean) =>
    add.mutate({
      ...(what === "row"
        ? { ...row, height_mm: height ?? 0, took_mm: took.filter((v) => v !== undefined) }
        : { stuff: cord.stuff, length_mm: long ?? 0, grams: grams ?? 0 }),
      ...(sure ? { sure } : {}),
    });
  return (
    <form
      className="flex flex-col gap-3 rounded-box border border-base-300 p-3"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <h3 className="font-semibold">Add one</h3>
      <Choice
        label="Measured was"
        value={what}
        options={[
          { id: "row", name: "a row of knots" },
          { id: "weight", name: "a length on the scales" },
        ]}
        onSet={(v) => {
          setWhat(v);
          add.reset();
        }}
      />
      {what === "row" ? (
        <>
          <div className="grid grid-cols-2 gap-2">
            <Choice
              label="Knot"
              value={knot}
              options={tieable.map((k) => ({ id: k.id, name: k.name }))}
              onSet={setKnot}
            />
            {repeats && <NumberInput label="Knots" value={count} whole optional onSet={setCount} />}
            <LengthInput label="The row is tall" mm={height} optional onSet={setHeight} />
            {took.map((v, i) => (
              <LengthInput
                key={i}
                label={i === 0 ? "A working strand took" : "Another took"}
                mm={v}
                optional
                onSet={(mm) => setTook((now) => now.map((o, k) => (k === i ? mm : o)))}
              />
            ))}
          </div>
          <p className="text-sm opacity-80">
            Mark a working strand where the row begins and where it ends, then undo it or measure what is left.
            {plan
              ? ` Planned of it: ${length(plan.height_mm, units, true)} tall, ${length(plan.took_mm, units)} of each of ${plan.strands} working strands.`
              : ""}
          </p>
        </>
      ) : (
        <div className="grid grid-cols-2 gap-2">
          <LengthInput label="The length" mm={long} optional onSet={setLong} />
          <NumberInput label="It weighs, g" value={grams} takes="g" optional onSet={setGrams} />
        </div>
      )}
      {doubtful ? (
        <div className="flex flex-col gap-2">
          <Alert kind="warning">{said(doubtful.message, units)} Measure it again; if it is so, keep it.</Alert>
          <button type="button" className="btn btn-sm self-start" onClick={() => save(true)}>
            It is so: keep it
          </button>
        </div>
      ) : (
        <Problems error={add.error} />
      )}
      <button type="submit" className="btn btn-primary btn-sm self-start" disabled={add.isPending}>
        Keep the swatch
      </button>
    </form>
  );
}
