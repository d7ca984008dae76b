import { api } from "../api/client";
import { useChange, useRevisions, useSettings } from "../api/queries";
import type { Revision } from "../api/types.gen";
import { Alert } from "../ui/Alert";
import { Dialog } from "../ui/Dialog";
import { moment } from "../ui/dates";
import { TextInput } from "../ui/fields";
import { length } from "../ui/units";
import { useWork } from "./work";

/** History lists the revisions of the piece, to be named and gone back to. */
export function History({ onClose }: { onClose: () => void }) {
  const { id, piece } = useWork();
  const list = useRevisions(id, piece.revision);
  return (
    <Dialog title="History" wide onClose={onClose}>
      <p className="mb-3 text-sm">
        Every change is a revision. All of the last 30 days are kept, then one an hour for half a year, then one a day;
        what has a name is kept for good.
      </p>
      <div className="mb-3 flex flex-wrap gap-2">
        <a className="btn btn-sm" href={`/api/pieces/${id}/file`} download>
          Save the piece to a file
        </a>
      </div>
      {list.error && <Alert>{list.error.message}</Alert>}
      {list.isPending && <p role="status">Looking through the history…</p>}
      <ol className="flex flex-col" data-testid="history">
        {list.data?.map((r) => (
          <Line key={r.id} r={r} onBack={onClose} />
        ))}
      </ol>
    </Dialog>
  );
}

function Line({ r, onBack }: { r: Revision; onBack: () => void }) {
  const { id, piece } = useWork();
  const { units } = useSettings();
  const naming = useChange((n: string) => api.put(`/pieces/${id}/revisions/${r.id}`, { name: n }), [["revisions", id]]);
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-base-300 border-b py-1.5">
      <span className="figure w-56 text-sm">{moment(r.created_at)}</span>
      <span className="figure w-20 text-right text-sm">{r.length_mm > 0 ? length(r.length_mm, units) : ""}</span>
      <div className="min-w-40 flex-1">
        <TextInput
          bare
          label="Name of this revision"
          placeholder="no name"
          value={r.name}
          most={80}
          onSet={(name) => naming.mutate(name)}
        />
      </div>
      {r.current ? (
        <span className="text-sm">as it is now</span>
      ) : (
        <button
          type="button"
          className="btn btn-sm"
          aria-label={`${r.aside ? "Restore this one" : "Restore"}: ${r.name || moment(r.created_at)}`}
          onClick={() => {
            piece.back(r.id);
            onBack();
          }}
        >
          {r.aside ? "Restore this one" : "Restore"}
        </button>
      )}
      {naming.error && <Alert>{naming.error.message}</Alert>}
    </li>
  );
}
