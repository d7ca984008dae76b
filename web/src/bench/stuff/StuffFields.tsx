import { useCatalogue } from "../../api/queries";
import type { Stuff as StuffOf } from "../../api/types.gen";
import { ColourInput } from "../../ui/ColourInput";
import { Choice, TextInput } from "../../ui/fields";
import { LengthInput } from "../../ui/LengthInput";
import { NumberInput } from "../../ui/NumberInput";
import { SheathFields } from "./SheathFields";

/** StuffFields are make, material, sizes and colour of a cord. */
export function StuffFields({ path, stuff, onSet }: { path?: string; stuff: StuffOf; onSet: (s: StuffOf) => void }) {
  const known = useCatalogue().data;
  const flat = known?.makes.find((m) => m.id === stuff.make)?.flat ?? false;
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice
        label="Make"
        path={path && `${path}.make`}
        value={stuff.make}
        options={known?.makes ?? [{ id: stuff.make, name: stuff.make }]}
        onSet={(make) => {
          const next = known?.makes.find((m) => m.id === make);
          onSet({
            ...stuff,
            make: make as StuffOf["make"],
            material: next?.usual ?? stuff.material,
            thickness_mm: next?.flat ? stuff.thickness_mm : undefined,
          });
        }}
      />
      <Choice
        label="Material"
        path={path && `${path}.material`}
        value={stuff.material}
        options={(known?.materials ?? [{ id: stuff.material, melts: false }]).map((m) => ({
          id: m.id,
          name: m.melts ? `${m.id} (melts)` : m.id,
        }))}
        onSet={(m) => onSet({ ...stuff, material: m as StuffOf["material"] })}
      />
      <TextInput
        label="Label, to tell cords apart"
        path={path && `${path}.label`}
        value={stuff.label ?? ""}
        most={80}
        onSet={(label) => onSet({ ...stuff, label: label || undefined })}
      />
      <LengthInput
        label={flat ? "Width" : "Diameter on the label, pulled tight"}
        path={path && `${path}.diameter_mm`}
        mm={stuff.diameter_mm}
        onSet={(v) => v && onSet({ ...stuff, diameter_mm: v })}
        fine
      />
      {flat && (
        <LengthInput
          label="Thickness"
          path={path && `${path}.thickness_mm`}
          mm={stuff.thickness_mm}
          optional
          onSet={(v) => onSet({ ...stuff, thickness_mm: v })}
          fine
        />
      )}
      <NumberInput
        label="Weighed, g per m"
        path={path && `${path}.grams_per_metre`}
        value={stuff.grams_per_metre}
        optional
        least={0.01}
        most={5000}
        onSet={(g) => onSet({ ...stuff, grams_per_metre: g })}
      />
      <div className="col-span-2">
        <ColourInput
          label="Colour"
          path={path && `${path}.colour`}
          value={stuff.colour}
          onSet={(colour) => onSet({ ...stuff, colour })}
        />
      </div>
      <SheathFields
        path={path && `${path}.sheath`}
        sheath={stuff.sheath}
        onSet={(sheath) => onSet({ ...stuff, sheath })}
      />
    </div>
  );
}
