import { useState } from "react";
import { whyNot } from "../api/client";
import { useChangeSettings, useSettings } from "../api/queries";
import type { Settings } from "../api/types.gen";
import { Backup } from "./Backup";
import { Dialog } from "./Dialog";
import { Choice } from "./fields";

/** SettingsMenu is the maker's own way of working, kept for the installation. */
export function SettingsMenu() {
  const [open, setOpen] = useState(false);
  const settings = useSettings();
  const change = useChangeSettings();
  const set = (s: Partial<Settings>) => change.mutate(s);
  return (
    <>
      <button type="button" className="btn btn-ghost btn-sm" onClick={() => setOpen(true)}>
        My ways
      </button>
      {open && (
        <Dialog title="My ways" onClose={() => setOpen(false)}>
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
              label="Light"
              value={settings.theme}
              options={[
                { id: "auto", name: "as the machine says" },
                { id: "day", name: "day" },
                { id: "night", name: "lamp light" },
              ]}
              onSet={(v) => set({ theme: v as Settings["theme"] })}
            />
            {change.error && (
              <p role="alert" className="text-error text-sm">
                Not kept: {whyNot(change.error)}.
              </p>
            )}
            <Backup />
          </div>
        </Dialog>
      )}
    </>
  );
}
