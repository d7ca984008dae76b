import { useState } from "react";
import { api } from "../../api/client";
import { useChange, useKnots, useSettings } from "../../api/queries";
import type { Document, MiddleRequest, Plan, ReplanRequest, Rest } from "../../api/types.gen";
import { Dialog } from "../../ui/Dialog";
import { Choice } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { Problems } from "../../ui/Problems";
import { length, said } from "../../ui/units";
import { useWork } from "../work";
import { Draft } from "./Draft";
import { measured } from "./measured";

/** Middle is [RunningShort] at the bench: where the piece is, is said. */
export function Middle({ onClose }: { onClose: () => void }) {
  const { id, revision, document, plan, piece } = useWork();
  if (!plan) return null;
  return (
    <RunningShort
      id={id}
      revision={revision}
      document={document}
      plan={plan}
      onClose={onClose}
      onTaken={() => piece.reopen()}
    />
  );
}

interface Props {
  id: number;
  revision: number | undefined;
  document: Document;
  plan: Plan;
  /** actions done, at the vise */
  done?: number;
  onClose: () => void;
  onTaken: () => void;
}

/** RunningShort asks what is left of each leg, says what that still ties, and offers ways on. */
export function RunningShort({ id, revision, document, plan, done, onClose, onTaken }: Props) {
  const { units } = useSettings();
  const knots = useKnots();
  const rows = document.sequence.flatMap((s, i) => (knots.get(s.do)?.repeats ? [i] : []));
  const [section, setSection] = useState<number | undefined>();
  const [tied, setTied] = useState<number | undefined>();
  const [left, setLeft] = useState<Record<string, number | undefined>>({});
  const [cut, setCut] = useState<Record<string, number | undefined>>({});
  const ask = useChange((m: MiddleRequest) => api.post<Rest>(`/pieces/${id}/middle`, m), []);
  const take = useChange(
    (r: ReplanRequest) => api.post(`/pieces/${id}/replan`, r),
    [["log", id], ["tags"], ["revisions", id]],
  );
  const at = section ?? rows[0] ?? 0;
  const legs = plan.cords
    .filter((c) => c.role === "legs" || c.role === "strand")
    .flatMap((c) =>
      c.legs.map((l, n) => ({ name: `${c.id}.${n + 1}`, cord: c.id, side: l.side, role: l.role, cut: l.cut_mm })),
    );
  const find = () =>
    ask.mutate({
      section: at,
      tied: tied ?? 0,
      ...(done === undefined ? {} : { done }),
      left_mm: measured(left),
      cut_mm: measured(cut),
    });
  const got = ask.data;
  const knot = got ? (knots.get(document.sequence[got.section]?.do)?.name ?? "knot") : "";
  return (
    <Dialog title="Running short" onClose={onClose} wide>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          find();
        }}
      >
        <p className="text-sm opacity-80">
          Lay each leg straight and measure what hangs below the last knot. A leg that is left empty has enough.
        </p>
        {done === undefined && (
          <div className="grid grid-cols-2 gap-2">
            <Choice
              label="The row in hand"
              value={String(at)}
              options={rows.map((i) => ({
                id: String(i),
                name: `${i + 1}: ${knots.get(document.sequence[i].do)?.name}`,
              }))}
              onSet={(v) => setSection(Number(v))}
            />
            <NumberInput label="Knots of it that are tied" value={tied} whole onSet={setTied} optional />
          </div>
        )}
        <div className="grid gap-2 sm:grid-cols-2">
          {legs.map((l) => (
            <fieldset key={l.name} className="grid grid-cols-2 gap-2 rounded-box border border-base-300 p-2">
              <legend className="px-1 text-sm">
                Leg {l.name}
                {l.side ? `, ${l.side}` : ""}, {l.role}
              </legend>
              <LengthInput
                label={`Left of ${l.name}`}
                mm={left[l.name]}
                optional
                zero
                onSet={(v) => setLeft((now) => ({ ...now, [l.name]: v }))}
              />
              <LengthInput
                label={`${l.name} was cut`}
                mm={cut[l.name] ?? l.cut}
                onSet={(v) => setCut((now) => ({ ...now, [l.name]: v }))}
              />
            </fieldset>
          ))}
        </div>
        <Problems error={ask.error ?? take.error} />
        <button type="submit" className="btn btn-primary btn-sm self-start" disabled={ask.isPending}>
          What does that still tie?
        </button>
      </form>
      {got && !ask.error && (
        <section className="mt-4 flex flex-col gap-3" aria-label="What it still ties" data-testid="rest">
          <p>
            {got.short_mm > 0 ? (
              <>
                <strong>
                  Leg {got.leg} is {length(got.short_mm, units)} short
                </strong>{" "}
                for the piece as planned.
              </>
            ) : (
              <strong>That is enough for the piece as planned.</strong>
            )}{" "}
            {got.knots > got.tied
              ? `${got.knots - got.tied} more ${knot} can be tied, ${got.knots} in all, ${length(got.length_mm, units)} long.`
              : "Not one knot more leaves enough for the rest as planned."}{" "}
            {got.best > got.knots ? `If all goes as on the middle, ${got.best - got.tied} more.` : ""}
          </p>
          <ul className="text-sm">
            {got.legs.map((h) => (
              <li key={h.leg}>
                Leg {h.leg}: {length(h.left_mm, units)} left, the rest needs {length(h.needs_mm, units)} and takes{" "}
                {length(h.takes_mm, units)} with what is allowed and held.
                {h.against
                  ? ` So far it took ${Math.abs(100 * h.against - 100).toFixed(0)} % ${h.against >= 1 ? "more" : "less"} than planned${h.against > 1.5 || h.against < 0.67 ? ": look at what it was cut to" : ""}.`
                  : ""}
              </li>
            ))}
          </ul>
          <div className="grid gap-3 sm:grid-cols-2">
            {got.offers.map((o) => (
              <article key={o.kind} className="flex gap-3 rounded-box border border-base-300 p-3">
                <Draft document={o.document} high={160} />
                <div className="flex min-w-0 flex-col gap-1.5">
                  <h3 className="font-semibold">{o.label}</h3>
                  <p className="text-sm">{said(o.says, units)}</p>
                  <p className="figure text-sm">{length(o.length_mm, units)} long</p>
                  <button
                    type="button"
                    className="btn btn-primary btn-sm mt-auto self-start"
                    disabled={take.isPending || revision === undefined}
                    onClick={() =>
                      revision !== undefined &&
                      take.mutate(
                        {
                          revision,
                          document: o.document,
                          why: `Leg ${got.leg} was ${length(got.short_mm, units)} short after ${got.tied} of ${got.planned} in section ${got.section + 1}. ${o.label}: ${said(o.says, units)}`,
                        },
                        {
                          onSuccess: () => {
                            onTaken();
                            onClose();
                          },
                        },
                      )
                    }
                  >
                    {o.label}
                  </button>
                </div>
              </article>
            ))}
          </div>
        </section>
      )}
    </Dialog>
  );
}
