import { useSettings } from "../api/queries";
import type { StartOffer } from "../api/types.gen";
import { Fitted } from "../hang/Plate";
import { Swatch } from "../ui/fields";
import { cutTo, length, spent } from "../ui/units";

/** Offer is a piece to begin with: as it will hang, how long it comes out, what its cords are cut to and how long it takes. */
export function Offer({ offer: o, waits, onTake }: { offer: StartOffer; waits: boolean; onTake: () => void }) {
  const { units } = useSettings();
  return (
    <li>
      <button
        type="button"
        data-pattern={o.pattern || "plain"}
        className="flex h-full w-full gap-3 rounded-box border border-base-300 p-2 text-left hover:border-base-content"
        disabled={waits}
        onClick={onTake}
      >
        <span className="mat block h-56 w-28 shrink-0 overflow-hidden p-1">
          {o.picture && o.picture.places.length > 0 && <Fitted picture={o.picture} label="" />}
        </span>
        <span className="flex min-w-0 flex-1 flex-col gap-1">
          <span className="font-semibold">{o.name}</span>
          <span className="text-sm">{o.about}</span>
          <span className="mt-auto flex flex-col gap-0.5 text-sm">
            <span>
              <span className="figure">{length(o.length_mm, units)}</span> long, {o.moves}{" "}
              {o.moves === 1 ? "move" : "moves"}
              {o.takes_s ? `, about ${spent(o.takes_s)} at your pace` : ""}
            </span>
            {o.cut.map((c) => (
              <span key={c.id} className="flex items-center gap-1">
                <Swatch colour={c.colour} />
                <span>
                  cut {c.id} to <span className="figure">{cutTo(c.cut_mm, units)}</span>
                </span>
              </span>
            ))}
          </span>
        </span>
      </button>
    </li>
  );
}
