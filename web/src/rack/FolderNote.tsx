import { api } from "../api/client";
import { useChange, useFolder } from "../api/queries";

/** FolderNote tells once that only the database file was copied here. */
export function FolderNote() {
  const folder = useFolder();
  const seen = useChange(() => api.post("/folder/seen"), [["folder"]]);
  if (!folder.data?.copied_alone) return null;
  return (
    <div role="alert" className="alert alert-warning rounded-none px-4 py-2 text-sm">
      <span className="min-w-0 flex-1">
        Only the database file was copied to this folder. What was newest may have stayed behind with the old one. To
        move everything, make a backup there and put it back here, both under Settings.
      </span>
      <button type="button" className="btn btn-sm" onClick={() => seen.mutate()}>
        I know
      </button>
    </div>
  );
}
