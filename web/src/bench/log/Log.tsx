import { useState } from "react";
import { api } from "../../api/client";
import { useChange, useLog, useSettings } from "../../api/queries";
import type { CordLog, Entry } from "../../api/types.gen";
import { Alert } from "../../ui/Alert";
import { Panel, Swatch } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { length } from "../../ui/units";
import { useWork } from "../work";

/** Log: what was cut, what was left, how long it took, what to change next time. */
export function Log() {
  const { id, plan, planError, document } = useWork();
  const { units } = useSettings();
  const log = useLog(id);
  const again = [["log", id], ["tags"]];
  const add = useChange((e: Partial<Entry>) => api.post(`/pieces/${id}/log`, e), again);
  const drop = useChange((entry: number) => api.drop(`/pieces/${id}/log/${entry}`), again);
  const planned = plan?.cords.filter((c) => c.role !== "unused") ?? [];
  const [cut, setCut] = useState<Record<string, number>>({});
  const [left, setLeft] = useState<Record<string, number | undefined>>({});
  const [minutes, setMinutes] = useState<number | undefined>();
  const [measured, setMeasured] = useState<number | undefined>();
  const [note, setNote] = useState("");
  const colour = (c: string) => document.cords.find((k) => k.id === c)?.stuff.colour ?? "#888888";
  const save = () => {
    const cords: CordLog[] = planned.map((c) => ({
      id: c.id,
      cut_mm: cut[c.id] ?? c.cut_mm,
      left_mm: left[c.id], // not there where it was not measured
    }));
    add.mutate(
      { minutes, length_mm: measured, note, cords },
      {
        onSuccess: () => {
          setMinutes(undefined);
          setMeasured(undefined);
          setNote("");
          setLeft({});
          setCut({});
        },
      },
    );
  };
  return (
    <Panel title="Log" lead="What was cut and what was left tells the next plan more than any table.">
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          save();
        }}
      >
        {planned.map((c) => (
          <div key={c.id} className="grid grid-cols-[3rem_1fr_1fr] items-end gap-2">
            <span className="pb-1.5">
              <Swatch colour={c.colour} id={c.id} />
            </span>
            <LengthInput
              label={`Cut of ${c.id}`}
              mm={cut[c.id] ?? c.cut_mm}
              onSet={(v) => v && setCut({ ...cut, [c.id]: v })}
            />
            <LengthInput
              label={`Left of ${c.id}`}
              mm={left[c.id]}
              optional
              onSet={(v) => setLeft({ ...left, [c.id]: v })}
            />
          </div>
        ))}
        <div className="grid grid-cols-2 gap-2">
          <NumberInput label="Minutes" value={minutes} optional most={100_000} onSet={setMinutes} />
          <LengthInput label="Measured length" mm={measured} optional onSet={setMeasured} />
        </div>
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
        {add.error && <Alert>{add.error.message}</Alert>}
        {/* An entry says what was cut, so it waits for the plan where there is one. */}
        <button
          type="submit"
          className="btn btn-primary btn-sm self-start"
          disabled={add.isPending || (!plan && !planError)}
        >
          Save entry
        </button>
      </form>
      <ul className="flex flex-col gap-2" aria-label="Entries">
        {log.data?.map((e) => (
          <li key={e.id} className="rounded-box border border-base-300 p-2 text-sm">
            <div className="flex items-baseline gap-2">
              <strong>{new Date(e.created_at).toLocaleDateString(undefined, { dateStyle: "medium" })}</strong>
              {e.minutes !== undefined && <span className="figure">{e.minutes} min</span>}
              {e.length_mm !== undefined && <span className="figure">{length(e.length_mm, units)} long</span>}
              <span className="flex-1" />
              <button
                type="button"
                className="btn btn-ghost btn-xs h-6"
                aria-label={`Delete entry ${e.id}`}
                onClick={() => drop.mutate(e.id)}
              >
                Delete
              </button>
            </div>
            {e.cords.map((c) => (
              <div key={c.id} className="flex items-center gap-2">
                <Swatch colour={colour(c.id)} id={c.id} />
                cut <span className="figure">{c.cut_mm === undefined ? "unknown" : length(c.cut_mm, units)}</span>, left{" "}
                <span className="figure">{c.left_mm === undefined ? "not measured" : length(c.left_mm, units)}</span>
              </div>
            ))}
            {e.spoilt && <p className="text-error">{e.spoilt}</p>}
            {e.note && <p>{e.note}</p>}
          </li>
        ))}
        {log.data?.length === 0 && <li className="text-sm opacity-80">No piece of this plan is logged yet.</li>}
      </ul>
    </Panel>
  );
}
