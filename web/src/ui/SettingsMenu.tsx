import { useEffect, useState } from "react";
import { Failed, whyNot } from "../api/client";
import { rests } from "../api/facts.gen";
import { type SettingsPart, useChangeSettings, useSettings } from "../api/queries";
import type { Settings } from "../api/types.gen";
import { DeviceSettings } from "../devices/DeviceSettings";
import { Alert } from "./Alert";
import { Backup } from "./Backup";
import { Dialog } from "./Dialog";
import { Choice, type Option } from "./fields";
import { Refusals } from "./refusals";

/** risks are how seldom a piece may run short, holds what ends can be held with. */
export const risks: Settings["one_in"][] = [10, 20, 40, 200];
export const holds: Option[] = [
  { id: "fingers", name: "bare fingers" },
  { id: "haemostat", name: "a haemostat" },
  { id: "needle", name: "a lacing needle" },
];

let opens: (() => void) | null = null;

/** openSettings opens the settings from elsewhere on the page. */
export function openSettings() {
  opens?.();
}

/** SettingsMenu is the maker's own way of working, kept for the installation. */
export function SettingsMenu() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    opens = () => setOpen(true);
    return () => {
      opens = null;
    };
  }, []);
  const settings = useSettings();
  const change = useChangeSettings();
  const set = (s: SettingsPart) => change.mutate(s);
  return (
    <>
      <button type="button" className="btn btn-ghost btn-sm" onClick={() => setOpen(true)}>
        Settings
      </button>
      {open && (
        <Dialog title="Settings" onClose={() => setOpen(false)}>
          <div className="flex flex-col gap-4">
            <Choice
              label="Lengths in"
              value={settings.units}
              options={[
                { id: "mm", name: "millimetres" },
                { id: "inch", name: "inches and fractions" },
              ]}
              onSet={(v) => set({ units: v as Settings["units"] })}
            />
            <Choice
              label="I tie with my leading hand"
              value={settings.hand}
              options={[
                { id: "right", name: "right" },
                { id: "left", name: "left: steps and pictures mirrored" },
              ]}
              onSet={(v) => set({ hand: v as Settings["hand"] })}
            />
            <Choice
              label="Theme"
              value={settings.theme}
              options={[
                { id: "auto", name: "System" },
                { id: "day", name: "Day" },
                { id: "night", name: "Lamp light" },
              ]}
              onSet={(v) => set({ theme: v as Settings["theme"] })}
            />
            <Choice
              label="Keys of one character, as F or +"
              value={settings.single_keys}
              options={[
                { id: "on", name: "on" },
                { id: "off", name: "off: only keys with Ctrl or Alt" },
              ]}
              onSet={(v) => set({ single_keys: v as Settings["single_keys"] })}
            />
            <Choice
              label="A piece may run short"
              value={String(settings.one_in)}
              options={risks.map((r) => ({ id: String(r), name: `once in ${r} pieces` }))}
              onSet={(v) => set({ one_in: Number(v) as Settings["one_in"] })}
            />
            <Choice
              label="I hold the ends of the last knot with"
              value={settings.hold}
              options={holds}
              onSet={(v) => set({ hold: v as Settings["hold"] })}
            />
            <Choice
              label="At the vise, rest my hands"
              value={String(settings.rest_min)}
              options={rests.map((r) => ({ id: String(r), name: r === 0 ? "never" : `after ${r} minutes` }))}
              onSet={(v) => set({ rest_min: Number(v) as Settings["rest_min"] })}
            />
            <Refusals.Provider value={change.error instanceof Failed ? (change.error.problem.errors ?? []) : []}>
              <DeviceSettings devices={settings.devices} onSet={(devices) => set({ devices })} />
            </Refusals.Provider>
            {change.error && <Alert>Not saved: {whyNot(change.error)}.</Alert>}
            <Backup />
          </div>
        </Dialog>
      )}
    </>
  );
}
