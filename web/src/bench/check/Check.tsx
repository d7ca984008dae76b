import { useInspect, useJudged, useSettings } from "../../api/queries";
import type { Size } from "../../api/types.gen";
import { Cautions } from "../../ui/Cautions";
import { Panel } from "../../ui/fields";
import { useMeasured, useTicks } from "../../ui/kept";
import { LengthInput } from "../../ui/LengthInput";
import { Problems } from "../../ui/Problems";
import { length, said } from "../../ui/units";
import { useWork } from "../work";
import { Inspected } from "./Inspected";

/** Check: what to inspect on the tied piece, in order, and what its sizes say. */
export function Check() {
  const { id, revision, plan } = useWork();
  const inspect = useInspect(id, revision);
  const { ticks, tick, clear } = useTicks(`check-${id}`);
  const items = inspect.data?.items ?? [];
  const done = items.filter((i) => ticks.includes(i.what)).length;
  return (
    <Panel title="Check" lead="What to look at on the tied piece, from the top down, and what tells right from wrong.">
      {inspect.error && <Problems error={inspect.error} />}
      {inspect.data && <Sizes sizes={inspect.data.sizes} />}
      {inspect.isPending && (
        <p role="status" data-wait>
          Drawing what is right and what is wrong…
        </p>
      )}
      {items.length > 0 && (
        <div className="flex items-center gap-2 text-sm">
          <p role="status" className="flex-1" data-testid="checked">
            {done} of {items.length} looked at
          </p>
          <button type="button" className="btn btn-ghost btn-xs" disabled={done === 0} onClick={clear}>
            Clear all
          </button>
        </div>
      )}
      <ol className="flex flex-col gap-2" data-testid="inspect">
        {items.map((i) => (
          <Inspected key={i.id} item={i} ticked={ticks.includes(i.what)} onTick={() => tick(i.what)} />
        ))}
      </ol>
      {plan && <Cautions all={plan.cautions} at="check" />}
    </Panel>
  );
}

/** Sizes are measured and held against the plan; what was measured goes on to the log. */
function Sizes({ sizes }: { sizes: Size[] }) {
  const { id, revision } = useWork();
  const { units } = useSettings();
  const [measured, keep] = useMeasured(id);
  const judged = useJudged(id, revision, measured);
  return (
    <fieldset className="fieldset min-w-0 gap-2 rounded-box border border-base-300 p-3">
      <legend className="fieldset-legend px-1 py-0 text-sm">Measure it</legend>
      {sizes.map((s) => {
        const mm = s.key === "length" ? measured.length_mm : measured.width_mm;
        const verdict = mm === undefined ? undefined : judged.data?.find((v) => v.key === s.key);
        return (
          <div key={s.key} className="flex flex-col gap-1">
            <LengthInput
              label={`${s.name}, planned ${length(s.plan_mm, units, true)} ± ${length(s.spread_mm, units, true)}`}
              mm={mm}
              optional
              fine
              hint={s.how}
              onSet={(v) => keep({ ...measured, [`${s.key}_mm`]: v })}
            />
            {verdict && (
              <p role="status" className="text-sm" data-testid={`verdict-${s.key}`} data-level={verdict.level}>
                <strong>{levels[verdict.level]} </strong>
                {said(verdict.says, units)}
              </p>
            )}
          </div>
        );
      })}
      <Problems error={judged.error} />
    </fieldset>
  );
}

const levels = { right: "Right.", near: "Near.", off: "Off." };
