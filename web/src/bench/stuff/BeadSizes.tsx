import type { Bead } from "../../api/types.gen";
import { LengthInput } from "../../ui/LengthInput";

const sizes = [
  ["hole_mm", "Bead hole"],
  ["length_mm", "Bead length"],
  ["width_mm", "Bead width"],
] as const;

/** BeadSizes are the sizes of a bead. */
export function BeadSizes({ bead, onSet }: { bead: Bead; onSet: (b: Bead) => void }) {
  return (
    <div className="grid grid-cols-3 gap-2">
      {sizes.map(([key, label]) => (
        <LengthInput key={key} label={label} mm={bead[key]} fine onSet={(v) => v && onSet({ ...bead, [key]: v })} />
      ))}
    </div>
  );
}
