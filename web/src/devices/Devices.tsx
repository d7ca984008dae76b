import { useEffect, useId, useState } from "react";
import { createPortal } from "react-dom";
import { api } from "../api/client";
import { useChange, useSettings } from "../api/queries";
import { Problems } from "../ui/Problems";
import { useTopDialog } from "../ui/topDialog";
import { fill, press, watch } from "./fill";
import { type DeviceEvent, hear, onEvent, useHeard } from "./useDevices";

/** Devices hears the devices that are chosen, and shows the panel of those that a stand-in is there for. */
export function Devices() {
  const { devices } = useSettings();
  const any = Object.values(devices).some((at) => at !== "");
  useEffect(() => {
    if (!any) return;
    const stop = new AbortController();
    hear(stop.signal);
    return () => stop.abort();
  }, [any]);
  return any ? <Heard /> : null;
}

function Heard() {
  const { states } = useHeard();
  const [said, setSaid] = useState("");
  const [unfolded, setUnfolded] = useState(false);
  const dialog = useTopDialog();
  useEffect(() => {
    const unwatch = watch();
    const off = onEvent((e) => {
      // Of several windows the one in front takes it.
      if (document.visibilityState !== "visible" || !document.hasFocus()) return;
      setSaid(e.what === "reading" ? fill(e) : e.what === "wrong" ? `${sentence(e.says)} Nothing was written.` : "");
      if (e.what === "press") press(e.press);
    });
    return () => {
      unwatch();
      off();
    };
  }, []);
  const stands = states.filter((s) => s.stands && s.state === "ready");
  const away = states.filter((s) => s.state === "looking" && s.says);
  const shown = (
    <aside data-devices aria-label="Devices" className="text-sm print:hidden">
      {/* What is said stands apart from the fields, so that it covers none. */}
      <div role="status" data-testid="device-says" className="devices fixed left-2 z-30 max-w-80">
        {said && (
          <p className="flex items-start gap-2 rounded-box border border-base-300 bg-base-100 p-2">
            <span>{said}</span>
            <button type="button" className="btn btn-ghost btn-xs" onClick={() => setSaid("")}>
              Close
            </button>
          </p>
        )}
        {away.map((s) => (
          <p key={s.kind} className="rounded-box border border-warning bg-base-100 p-2">
            {sentence(s.says)}
          </p>
        ))}
      </div>
      {stands.length > 0 && (
        <div className="devices fixed right-2 z-20 flex max-w-[calc(100vw-1rem)] justify-end">
          <Panel stands={stands} unfolded={unfolded} onUnfold={setUnfolded} />
        </div>
      )}
    </aside>
  );
  return dialog ? createPortal(shown, dialog) : shown;
}

/** sentence makes a sentence of what is wrong. */
function sentence(says: string | undefined) {
  return `${(says ?? "").replace(/^./, (c) => c.toUpperCase())}.`;
}

/** Panel sets what the stand-ins read and press. */
function Panel({
  stands,
  unfolded,
  onUnfold,
}: {
  stands: readonly DeviceEvent[];
  unfolded: boolean;
  onUnfold: (open: boolean) => void;
}) {
  const { label } = useHeard();
  return (
    <details
      open={unfolded}
      onToggle={(e) => onUnfold(e.currentTarget.open)}
      className="max-w-full open:w-72 rounded-box border border-base-300 bg-base-100 p-2"
    >
      <summary className="cursor-pointer font-semibold">Stand-ins for devices</summary>
      <div className="flex flex-col gap-2 pt-2">
        {stands.map((s) =>
          s.kind === "pedal" ? (
            <Pedal key={s.kind} />
          ) : s.kind === "printer" ? (
            <div key={s.kind}>
              <p>{label.length > 0 ? "The label printer printed:" : "The label printer has printed nothing yet."}</p>
              {label.length > 0 && (
                <pre data-testid="label" className="figure mt-1 overflow-x-auto border border-base-300 p-2 text-xs">
                  {label.join("\n")}
                </pre>
              )}
            </div>
          ) : (
            <Reading key={s.kind} of={s} />
          ),
        )}
      </div>
    </details>
  );
}

function useStandIn(kind: string) {
  return useChange((what: string) => api.post(`/devices/${kind}/set`, { what }), []);
}

function Reading({ of }: { of: DeviceEvent }) {
  const set = useStandIn(of.kind);
  const id = useId();
  const [what, setWhat] = useState("");
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        set.mutate(`${what.trim()} ${of.unit}`);
      }}
    >
      <div className="flex min-w-0 flex-1 flex-col">
        <label htmlFor={id}>
          The {of.name} reads, {of.unit}
        </label>
        <input
          id={id}
          className="input input-sm figure w-full"
          inputMode="decimal"
          maxLength={30}
          value={what}
          onChange={(e) => setWhat(e.target.value)}
        />
      </div>
      <button type="submit" className="btn btn-sm">
        Send<span className="sr-only"> what the {of.name} reads</span>
      </button>
      <Problems error={set.error} />
    </form>
  );
}

function Pedal() {
  const set = useStandIn("pedal");
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="flex-1">Page pedal</span>
      <button type="button" className="btn btn-sm" onClick={() => set.mutate("back")}>
        Press back
      </button>
      <button type="button" className="btn btn-sm" onClick={() => set.mutate("next")}>
        Press next
      </button>
      <Problems error={set.error} />
    </div>
  );
}
