import { useState } from "react";
import { useSettings, useThrough } from "../../api/queries";
import { Swatch } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { Problems } from "../../ui/Problems";
import { diameter, said } from "../../ui/units";
import { useWork } from "../work";

/** Through answers whether so many strands of the piece's cords go through a hole together. */
export function Through() {
  const { document } = useWork();
  const { units } = useSettings();
  const on = document.purpose.hangs_on;
  const [hole, setHole] = useState(on.type === "hole" ? on.inner_mm : 8);
  const [times, setTimes] = useState<Record<string, number>>({});
  const of = (id: string, first: boolean) => times[id] ?? (first ? 2 : 0);
  const cords = document.cords.map((c, i) => ({ stuff: c.stuff, times: of(c.id, i === 0) }));
  const answer = useThrough({ hole_mm: hole, cords: cords.filter((c) => c.times > 0) });
  const ways = answer.data?.ways ?? [];
  const goes = ways.find((w) => w.id === answer.data?.goes);
  return (
    <details className="rounded-box border border-base-300 p-3" data-testid="through">
      <summary className="cursor-pointer font-semibold text-sm">Does it go through?</summary>
      <div className="mt-2 flex flex-col gap-2">
        <LengthInput label="A hole of" mm={hole} fine onSet={(v) => v && setHole(v)} />
        <ul className="flex flex-col gap-1">
          {document.cords.map((c, i) => (
            <li key={c.id} className="flex items-center gap-2 text-sm">
              <NumberInput
                bare
                whole
                className="input-xs h-7 w-14 text-center"
                label={`Strands of cord ${c.id} through the hole`}
                value={of(c.id, i === 0)}
                least={0}
                most={64}
                onSet={(n) => n !== undefined && setTimes({ ...times, [c.id]: n })}
              />
              <span aria-hidden="true">of</span>
              <Swatch colour={c.stuff.colour} id={c.id} />
            </li>
          ))}
        </ul>
        {answer.error ? (
          <Problems error={answer.error} />
        ) : answer.data ? (
          <div className="text-sm" role="status">
            <p className="font-semibold">
              {goes
                ? `They go through ${goes.name}, ${diameter(goes.spare_mm, units)} to spare.`
                : `They do not go through: the narrowest hole for them is ${diameter(answer.data.least_mm, units)}.`}
            </p>
            {goes && (
              <p>
                {goes.how} Afterwards {diameter(goes.off_mm, units)} of each end is cut off again.
              </p>
            )}
            <ul className="mt-1 list-disc pl-4">
              {ways
                .filter((w) => w.id !== goes?.id)
                .map((w) => (
                  <li key={w.id}>
                    {w.name}: {w.fits ? `it fits, ${diameter(w.spare_mm, units)} to spare` : said(w.why ?? "", units)}.
                  </li>
                ))}
            </ul>
            {!answer.data.exact && (
              <p className="mt-1 opacity-80">
                Of more than eight strands the hole is that of a bundle, not sought out.
              </p>
            )}
          </div>
        ) : null}
      </div>
    </details>
  );
}
