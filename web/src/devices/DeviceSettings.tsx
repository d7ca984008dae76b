import { useState } from "react";
import { deviceKinds, standIn } from "../api/facts.gen";
import type { Places } from "../api/types.gen";
import { Choice, TextInput } from "../ui/fields";

/** DeviceSettings says where each device is. */
export function DeviceSettings(p: { devices: Places; onSet: (devices: Partial<Places>) => void }) {
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="font-semibold text-sm">Devices</legend>
      <p className="text-sm opacity-80">
        A reading is written into the field in focus. A stand-in takes the place of a device: what it reads is set in a
        panel on the page.
      </p>
      {deviceKinds.map((k) => (
        <Device
          key={k.id}
          name={k.name.replace(/^./, (c) => c.toUpperCase())}
          path={`devices.${k.id}`}
          at={p.devices[k.id]}
          onSet={(at) => p.onSet({ [k.id]: at })}
        />
      ))}
    </fieldset>
  );
}

function Device(p: { name: string; path: string; at: string; onSet: (at: string) => void }) {
  const there = p.at !== "" && p.at !== standIn;
  const [asks, setAsks] = useState(there);
  return (
    <div className="grid grid-cols-2 items-end gap-2">
      <Choice
        label={p.name}
        value={asks ? "address" : p.at}
        options={[
          { id: "", name: "none" },
          { id: standIn, name: "a stand-in" },
          { id: "address", name: "at a port of this machine" },
        ]}
        onSet={(v) => {
          setAsks(v === "address");
          if (v !== "address") p.onSet(v);
        }}
      />
      {asks && (
        <TextInput
          label={`${p.name} at`}
          path={p.path}
          value={there ? p.at : ""}
          placeholder="127.0.0.1:7431"
          most={60}
          onSet={p.onSet}
        />
      )}
    </div>
  );
}
