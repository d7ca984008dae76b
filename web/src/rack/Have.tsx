import { useState } from "react";
import { api } from "../api/client";
import { mostCords } from "../api/facts.gen";
import { useCatalogue, useChange, useDrawer, useSettings } from "../api/queries";
import type { Stuff } from "../api/types.gen";
import { StuffFields } from "../bench/stuff/StuffFields";
import { taken } from "../bench/stuff/used";
import { Choice, Swatch, TextInput } from "../ui/fields";
import { Problems } from "../ui/Problems";
import { diameter } from "../ui/units";

/** Have are the cords that there are: from the drawer, or typed. */
export function Have({ cords, onSet }: { cords: Stuff[]; onSet: (cords: Stuff[]) => void }) {
  const drawer = useDrawer().data ?? [];
  const { units } = useSettings();
  const [typing, setTyping] = useState(false);
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1">Which cords do you have?</legend>
      {cords.length === 0 && <p className="text-sm opacity-80">None named: each piece is shown in cords of its own.</p>}
      <ul className="flex flex-col gap-1" aria-label="Your cords">
        {cords.map((s, i) => (
          <li key={`${i} ${said(s)}`} className="flex items-center gap-2">
            <Swatch colour={s.colour} />
            <span className="min-w-0 flex-1 text-sm">
              {said(s)}, <span className="figure">{diameter(s.diameter_mm, units)}</span>
            </span>
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              aria-label={`Leave out ${said(s)}`}
              onClick={() => onSet(cords.filter((_, k) => k !== i))}
            >
              Leave out
            </button>
          </li>
        ))}
      </ul>
      {cords.length < mostCords && drawer.length > 0 && (
        <Choice
          label="Add one from the drawer"
          value=""
          options={[{ id: "", name: "choose" }, ...drawer.map((s) => ({ id: String(s.id), name: s.name }))]}
          onSet={(id) => {
            const spool = drawer.find((s) => String(s.id) === id);
            if (spool) onSet([...cords, taken(spool)]);
          }}
        />
      )}
      {cords.length < mostCords && !typing && (
        <button type="button" className="btn btn-sm self-start" onClick={() => setTyping(true)}>
          Describe a cord
        </button>
      )}
      {typing && (
        <Typed
          onClose={() => setTyping(false)}
          onAdd={(s) => {
            onSet([...cords, s]);
            setTyping(false);
          }}
        />
      )}
    </fieldset>
  );
}

function said(s: Stuff): string {
  return s.label || `${s.make} ${s.material}`;
}

/** Typed is a cord that is described, and put into the drawer too where that is wanted. */
function Typed({ onAdd, onClose }: { onAdd: (s: Stuff) => void; onClose: () => void }) {
  const usual = useCatalogue().data?.stuff;
  const [stuff, setStuff] = useState<Stuff | undefined>(usual);
  const [keep, setKeep] = useState(false);
  const [name, setName] = useState("");
  const put = useChange((s: Stuff) => api.post("/drawer", { name, stuff: s }), [["drawer"]]);
  if (!stuff) return null;
  const add = () =>
    keep
      ? put.mutateAsync(stuff).then(
          () => onAdd({ ...stuff, label: stuff.label || name }),
          () => undefined,
        )
      : onAdd(stuff);
  return (
    <div className="flex flex-col gap-2 rounded-box border border-base-300 p-3">
      <StuffFields stuff={stuff} onSet={setStuff} />
      <label className="flex items-center gap-2">
        <input type="checkbox" className="checkbox" checked={keep} onChange={(e) => setKeep(e.target.checked)} />
        Put it into the drawer too
      </label>
      {keep && <TextInput label="Name on the spool" value={name} most={80} onSet={setName} />}
      <Problems error={put.error} />
      <div className="flex gap-2">
        <button type="button" className="btn btn-primary btn-sm" disabled={put.isPending} onClick={add}>
          Add this cord
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
          Cancel
        </button>
      </div>
    </div>
  );
}
