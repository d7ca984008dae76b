import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import { useFolder } from "../api/queries";
import type { Report } from "../api/types.gen";
import { forget } from "../vise/putBy";
import { Alert } from "./Alert";

type How = Report["how"];

/** Backup carries all of the folder out into one file, and puts such a file back after it said what that does. */
export function Backup() {
  const client = useQueryClient();
  const folder = useFolder();
  const [file, setFile] = useState<File | null>(null);
  const [how, setHow] = useState<How>("merge");
  const [will, setWill] = useState<Report | null>(null);
  const [did, setDid] = useState<Report | null>(null);
  const [failed, setFailed] = useState("");
  const [busy, setBusy] = useState(false);
  const ask = async (f: File, h: How, trial: boolean) => {
    setFailed("");
    setBusy(true);
    try {
      const r = await api.post<Report>(`/restore?how=${h}${trial ? "&trial=1" : ""}`, f);
      if (trial) setWill(r);
      else {
        setDid(r);
        setWill(null);
        setFile(null);
        client.invalidateQueries();
      }
    } catch (e) {
      setWill(null);
      setFailed(e instanceof Error ? e.message : "It could not be restored.");
    } finally {
      setBusy(false);
    }
  };
  return (
    <section className="flex flex-col gap-2 border-base-300 border-t pt-3" aria-label="Backup and moving">
      <h3 className="font-semibold">Backup and moving</h3>
      <p className="text-sm">All pieces with their histories, the drawer, the log and these settings, in one file.</p>
      <a className="btn btn-sm self-start" href="/api/backup" download>
        Save a backup
      </a>
      <label className="btn btn-sm self-start focus-within:outline-2 focus-within:outline-secondary">
        Restore a backup…
        <input
          type="file"
          accept=".zip,application/zip"
          className="sr-only"
          data-testid="restore-file"
          onChange={(e) => {
            const f = e.target.files?.[0] ?? null;
            e.target.value = "";
            setDid(null);
            setFile(f);
            if (f) ask(f, how, true);
          }}
        />
      </label>
      {file && (
        <fieldset className="fieldset p-0">
          <legend className="fieldset-legend p-0 font-normal text-sm">{file.name}</legend>
          {(["merge", "replace"] as const).map((h) => (
            <label key={h} className="flex items-center gap-2 text-sm">
              <input
                type="radio"
                className="radio radio-sm"
                name="how"
                checked={how === h}
                onChange={() => {
                  setHow(h);
                  ask(file, h, true);
                }}
              />
              {h === "merge" ? "merge it with what is here" : "replace all that is here by it"}
            </label>
          ))}
        </fieldset>
      )}
      {will && file && (
        <div className="flex flex-col gap-2 rounded-box border border-base-300 p-2" data-testid="restore-says">
          <p className="text-sm">This is what it will do:</p>
          <Says r={will} />
          <button
            type="button"
            className="btn btn-primary btn-sm self-start"
            disabled={busy}
            onClick={() => ask(file, how, false)}
          >
            {how === "merge" ? "Merge it" : "Replace all"}
          </button>
        </div>
      )}
      {did && (
        <div role="status" className="rounded-box border border-base-300 p-2" data-testid="restore-did">
          <p className="text-sm">Restored:</p>
          <Says r={did} />
        </div>
      )}
      {failed && <Alert>{failed}</Alert>}
      {folder.data?.door && (
        <form
          method="post"
          action="/door/leave"
          onSubmit={(e) => {
            e.preventDefault();
            const form = e.currentTarget;
            forget().finally(() => form.submit()); // who leaves leaves nothing behind
          }}
        >
          <button type="submit" className="btn btn-sm">
            Sign out: the passcode is asked for again
          </button>
        </form>
      )}
    </section>
  );
}

function Says({ r }: { r: Report }) {
  const lines: [number, string][] = [
    [r.removed_pieces, "pieces here deleted first, with the drawer and the settings"],
    [r.new_pieces, "new pieces"],
    [r.updated_pieces, "pieces with newer work in the backup"],
    [r.diverged_pieces, "pieces changed on both sides, the backup's put beside them"],
    [r.unchanged_pieces, "pieces that stay as they are"],
    [r.new_log_entries, "new log entries"],
    [r.new_in_drawer, "new things in the drawer"],
  ];
  const said = lines.filter(([n]) => n > 0);
  return (
    <ul className="list-disc pl-5 text-sm">
      {said.map(([n, what]) => (
        <li key={what}>
          {what}: <span className="figure">{n}</span>
        </li>
      ))}
      {r.settings_replaced && <li>the settings come from the backup</li>}
      {said.length === 0 && !r.settings_replaced && <li>nothing: all of it is here already</li>}
    </ul>
  );
}
