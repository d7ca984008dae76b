import { useEffect, useRef, useState } from "react";
import { useAlong, useSettings } from "../../api/queries";
import type { AlongCord } from "../../api/types.gen";
import { Problems } from "../../ui/Problems";
import { length, said } from "../../ui/units";
import { JointAt } from "../stuff/JointAt";
import { useWork } from "../work";

/** Along is what changes along the cords: where repeats land, where joints lie, rows tied half and half. */
export function Along() {
  const { id, revision, document, edit } = useWork();
  const answer = useAlong(id, revision);
  const joined = document.cords.map((c, i) => ({ c, i })).filter(({ c }) => c.joined_to);
  const along = answer.data;
  if (!along || (along.cords.length === 0 && along.halves.length === 0 && joined.length === 0)) {
    return <Problems error={answer.error} />;
  }
  return (
    <fieldset className="fieldset min-w-0 gap-3 rounded-box border border-base-300 p-3 text-sm" data-testid="along">
      <legend className="fieldset-legend px-1 py-0 text-sm">Along the cord</legend>
      {along.cords.map((c) => (
        <Repeat key={c.id} cord={c} />
      ))}
      {joined.map(({ c, i }) => (
        <div key={c.id}>
          <p>
            Cord {c.id} is fused to cord {c.joined_to}.
          </p>
          <JointAt cord={c} i={i} />
        </div>
      ))}
      {along.halves.map((h) => (
        <div key={h.section} className="flex flex-wrap items-center gap-2">
          <span className="min-w-0 flex-1">
            Section {h.section + 1}, {h.name}, half and half: {h.says}
          </span>
          <button type="button" className="btn btn-xs" onClick={() => edit((d) => ({ ...d, sequence: h.sequence }))}>
            Tie section {h.section + 1} in halves
          </button>
        </div>
      ))}
    </fieldset>
  );
}

/** Repeat shifts where in its repeat a cord begins, and says where its colours land. */
function Repeat({ cord }: { cord: AlongCord }) {
  const { edit } = useWork();
  const { units } = useSettings();
  const [shift, setShift] = useState(cord.shift_mm);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => setShift(cord.shift_mm), [cord.shift_mm]);
  useEffect(() => () => clearTimeout(timer.current), []);
  const set = (mm: number) => {
    setShift(mm);
    clearTimeout(timer.current);
    // What is slid over is not kept, only where it comes to rest.
    timer.current = setTimeout(
      () =>
        edit((d) => ({
          ...d,
          cords: d.cords.map((c) => (c.id === cord.id ? { ...c, shift_mm: mm || undefined } : c)),
        })),
      200,
    );
  };
  return (
    <div className="flex flex-col gap-1">
      <label className="flex flex-col gap-1">
        <span>
          Cord {cord.id} comes again after {length(cord.repeat_mm, units)}. It begins {length(shift, units)} into that,
          at its fold or its first end.
        </span>
        <input
          type="range"
          className="range range-sm w-full"
          aria-label={`Where cord ${cord.id} begins in its repeat`}
          aria-valuetext={length(shift, units)}
          min={0}
          max={cord.repeat_mm}
          step={1}
          value={shift}
          onChange={(e) => set(Number(e.target.value))}
        />
      </label>
      <ul>
        {cord.lands.map((s) => (
          <li key={s.section}>
            Section {s.section + 1}, {s.name}, from above: {said(s.says, units)}
          </li>
        ))}
      </ul>
    </div>
  );
}
