import { useState } from "react";
import { api, Failed } from "../../api/client";
import { learnt, useChange, useKnots, useLog, useSettings } from "../../api/queries";
import type { Cut, Entry } from "../../api/types.gen";
import { Alert } from "../../ui/Alert";
import { day } from "../../ui/dates";
import { Panel, Swatch } from "../../ui/fields";
import { useMeasured } from "../../ui/kept";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { Problems } from "../../ui/Problems";
import { length, said } from "../../ui/units";
import { useWork } from "../work";
import { AtTheVise, Paces } from "./Paces";

/** What is being written down of one cord. */
interface Draft {
  cut?: number;
  left: (number | undefined)[];
  short?: boolean;
}

/** Log: what was cut, what was left, how long it took, what to change next time. */
export function Log() {
  const { id, plan, planError, document } = useWork();
  const { units } = useSettings();
  const knots = useKnots();
  const log = useLog(id);
  const again = [["log", id], ...learnt];
  const drop = useChange((entry: number) => api.drop(`/pieces/${id}/log/${entry}`), again);
  const planned = plan?.cords.filter((c) => c.role !== "unused") ?? [];
  const [cords, setCords] = useState<Record<string, Draft>>({});
  const [tied, setTied] = useState<Record<number, number | undefined>>({});
  const [minutes, setMinutes] = useState<number | undefined>();
  const [measured, keepMeasured] = useMeasured(id); // as at Check
  const { length_mm: long, width_mm: wide } = measured;
  const setLong = (mm: number | undefined) => keepMeasured({ ...measured, length_mm: mm });
  const setWide = (mm: number | undefined) => keepMeasured({ ...measured, width_mm: mm });
  const [note, setNote] = useState("");
  const add = useChange(
    (e: Partial<Entry>) => api.post(`/pieces/${id}/log`, e),
    again,
    () => {
      setMinutes(undefined);
      keepMeasured({});
      setNote("");
      setCords({});
      setTied({});
    },
  );
  const colour = (c: string) => document.cords.find((k) => k.id === c)?.stuff.colour ?? "#888888";
  const of = (c: string): Draft => cords[c] ?? { left: [] };
  const set = (c: string, d: Partial<Draft>) =>
    setCords((now) => ({ ...now, [c]: { ...(now[c] ?? { left: [] }), ...d } }));
  const rows = plan?.sections.filter((s) => s.count > 0 && knots.get(s.do)?.repeats) ?? [];
  const told = rows.some((s) => tied[s.index] !== undefined);
  const save = (counts?: Entry["counts"]) =>
    add.mutate({
      minutes,
      length_mm: long,
      width_mm: wide,
      note,
      counts,
      cords: planned.map((c): Cut => {
        const d = of(c.id);
        const ends = c.legs.map((_, n) => d.left[n] ?? null);
        return {
          id: c.id,
          cut_mm: d.cut ?? c.cut_mm,
          // What was not measured is not there.
          ...(ends.some((v) => v !== null) ? { left_at_mm: ends } : {}),
          ...(d.short ? { ran_short: true } : {}),
        };
      }),
      ...(told ? { tied: document.sequence.map((_, i) => tied[i] ?? null) } : {}),
    });
  const doubtful = add.error instanceof Failed && add.error.problem.code === "doubtful" ? add.error : null;
  return (
    <Panel
      title="Log"
      lead="What was cut and what was left tells the next plan more than any table. Leave empty what was not measured."
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          save();
        }}
      >
        {planned.map((c) => (
          <fieldset key={c.id} className="grid grid-cols-3 items-end gap-2 rounded-box border border-base-300 p-2">
            <legend className="px-1">
              <Swatch colour={c.colour} id={c.id} />
            </legend>
            <LengthInput
              label={`Cut of ${c.id}`}
              mm={of(c.id).cut ?? c.cut_mm}
              onSet={(v) => v && set(c.id, { cut: v })}
            />
            {c.legs.map((l, n) => (
              <LengthInput
                key={n}
                label={c.legs.length > 1 ? `Left of ${c.id}, ${l.side}` : `Left of ${c.id}`}
                mm={of(c.id).left[n]}
                optional
                zero
                onSet={(v) => set(c.id, { left: c.legs.map((_, k) => (k === n ? v : of(c.id).left[k])) })}
              />
            ))}
            <label className="col-span-3 flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="checkbox size-7"
                checked={of(c.id).short ?? false}
                onChange={(e) => set(c.id, { short: e.target.checked })}
              />
              Cord {c.id} ran short
            </label>
          </fieldset>
        ))}
        {rows.length > 0 && (
          <div className="grid grid-cols-3 gap-2">
            {rows.map((s) => (
              <NumberInput
                key={s.index}
                label={`Section ${s.index + 1}: tied of ${s.count}`}
                value={tied[s.index]}
                whole
                optional
                onSet={(v) => setTied((now) => ({ ...now, [s.index]: v }))}
              />
            ))}
          </div>
        )}
        <div className="grid grid-cols-3 gap-2">
          <LengthInput label="Measured length" mm={long} optional onSet={setLong} />
          <LengthInput label="Measured width" mm={wide} optional onSet={setWide} />
          <NumberInput label="Minutes" value={minutes} optional most={100_000} onSet={setMinutes} />
        </div>
        <AtTheVise id={id} onTake={setMinutes} />
        <label className="flex flex-col gap-1 text-sm">
          Note for next time
          <textarea
            className="textarea textarea-sm w-full"
            rows={2}
            value={note}
            maxLength={2000}
            onChange={(e) => setNote(e.target.value)}
          />
        </label>
        {doubtful ? (
          <div className="flex flex-col gap-2">
            <Alert kind="warning">{said(doubtful.message, units)} Look at what was measured.</Alert>
            <div className="flex flex-wrap gap-2">
              <button type="button" className="btn btn-sm" onClick={() => save("sure")}>
                It is so: let it count
              </button>
              <button type="button" className="btn btn-sm" onClick={() => save("no")}>
                Keep it, do not count it
              </button>
            </div>
          </div>
        ) : (
          <Problems error={add.error} />
        )}
        {/* An entry says what was cut, so it waits for the plan where there is one. */}
        <button
          type="submit"
          className="btn btn-primary btn-sm self-start"
          disabled={add.isPending || (!plan && !planError)}
        >
          Save entry
        </button>
      </form>
      <Paces />
      {drop.error && <Alert>{drop.error.message}</Alert>}
      <ul className="flex flex-col gap-2" aria-label="Entries">
        {log.data?.map((e) => (
          <li key={e.id} className="rounded-box border border-base-300 p-2 text-sm">
            <div className="flex items-baseline gap-2">
              <strong>{day(e.created_at)}</strong>
              {e.minutes !== undefined && <span className="figure">{e.minutes} min</span>}
              {e.length_mm !== undefined && <span className="figure">{length(e.length_mm, units)} long</span>}
              {e.width_mm !== undefined && <span className="figure">{length(e.width_mm, units)} wide</span>}
              {e.cords.length > 0 && e.counts === "no" && <span>does not count</span>}
              <span className="flex-1" />
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                aria-label={`Delete entry ${e.id}`}
                onClick={() => drop.mutate(e.id)}
              >
                Delete entry
              </button>
            </div>
            {e.cords.map((c) => (
              <div key={c.id} className="flex items-center gap-2">
                <Swatch colour={colour(c.id)} id={c.id} />
                <span>
                  cut <span className="figure">{c.cut_mm === undefined ? "unknown" : length(c.cut_mm, units)}</span>,
                  left <Ends cut={c} />
                  {c.ran_short ? ", ran short" : ""}
                </span>
              </div>
            ))}
            {e.tied && (
              <p>{e.tied.flatMap((n, i) => (n === null ? [] : [`${n} tied in section ${i + 1}`])).join(", ")}</p>
            )}
            {e.spoilt && <p className="text-error">{e.spoilt}</p>}
            {e.note && <p>{e.note}</p>}
          </li>
        ))}
        {log.data?.length === 0 && <li className="text-sm opacity-80">No piece of this plan is logged yet.</li>}
      </ul>
    </Panel>
  );
}

/** Ends are what was left of a cord, at each end where that was measured. */
function Ends({ cut }: { cut: Cut }) {
  const { units } = useSettings();
  const ends = cut.left_at_mm ?? (cut.left_mm === undefined ? [] : [cut.left_mm]);
  const words = ends.map((v) => (v === null ? "unknown" : length(v, units)));
  return <span className="figure">{words.length > 0 ? words.join(" and ") : "not measured"}</span>;
}
