import { useKnots, useSettings } from "../../api/queries";
import type { Cord } from "../../api/types.gen";
import { LengthInput } from "../../ui/LengthInput";
import { length } from "../../ui/units";
import { useWork } from "../work";

/** JointAt asks where the joint of two cords lies that are folded as one, and offers where it hides. */
export function JointAt({ cord, i }: { cord: Cord; i: number }) {
  const { document, edit, plan } = useWork();
  const { units } = useSettings();
  const knots = useKnots();
  const joint = plan?.joints?.find((j) => j.cord === cord.id);
  if (!joint && !cord.joint_mm) return null;
  const set = (mm: number | undefined) =>
    edit((d) => ({ ...d, cords: d.cords.map((c, k) => (k === i ? { ...c, joint_mm: mm || undefined } : c)) }));
  const section = (n: number) => {
    const s = document.sequence[n];
    return s ? `section ${n + 1}, ${knots.get(s.do)?.name ?? s.do}` : `section ${n + 1}`;
  };
  const lies =
    joint &&
    (joint.mm ? `${joint.hidden ? "It hides" : "It shows"} in ${section(joint.section)}.` : "It lies at the fold.");
  return (
    <div className="flex flex-col gap-2">
      <LengthInput
        label="Joint from the fold"
        path={`cords[${i}].joint_mm`}
        mm={cord.joint_mm}
        optional
        onSet={set}
        hint={`Along cord ${cord.id}'s leg; empty for the fold itself. ${lies ?? ""}`}
      />
      {joint && !joint.hidden && joint.hides.length > 0 && (
        <ul className="flex flex-wrap gap-2">
          {joint.hides.map((h) => (
            <li key={h.section}>
              <button type="button" className="btn btn-xs" onClick={() => set(h.mm)}>
                Hide it in {section(h.section)}: {length(h.mm, units)}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
