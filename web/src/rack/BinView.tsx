import { Link } from "wouter";
import { api } from "../api/client";
import { useChange, useTags } from "../api/queries";
import { Alert } from "../ui/Alert";
import { useTitle } from "../ui/useTitle";

/** BinView: what was taken off the rack, until it is deleted for good. */
export function BinView() {
  useTitle("The bin");
  const bin = useTags(true);
  const back = useChange((id: number) => api.post(`/pieces/${id}/restore`), [["tags"]]);
  const out = useChange((id: number) => api.drop(`/bin/${id}`), [["tags"]]);
  const empty = useChange(() => api.drop("/bin"), [["tags"]]);
  const failed = bin.error ?? back.error ?? out.error ?? empty.error;
  return (
    <main className="mx-auto flex max-w-2xl flex-col gap-4 p-6">
      <header className="flex items-center gap-3">
        <Link href="/" className="btn btn-ghost btn-sm">
          <span aria-hidden="true">&larr;</span> Rack
        </Link>
        <h1 className="flex-1 font-bold text-xl">The bin</h1>
        {(bin.data?.length ?? 0) > 0 && (
          <button
            type="button"
            className="btn btn-ghost btn-sm text-error"
            onClick={() =>
              window.confirm(
                `Delete all ${bin.data?.length} pieces in the bin for good, with their histories and logs?`,
              ) && empty.mutate()
            }
          >
            Empty the bin
          </button>
        )}
      </header>
      {failed && <Alert>{failed.message}</Alert>}
      {bin.data?.length === 0 && <p>The bin is empty.</p>}
      <ul className="flex flex-col gap-2">
        {bin.data?.map((t) => (
          <li key={t.id} className="flex items-center gap-2 rounded-box border border-base-300 p-3">
            <span className="flex-1 font-semibold">{t.name}</span>
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => back.mutate(t.id)}
              aria-label={`Restore ${t.name}`}
            >
              Restore
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-sm text-error"
              aria-label={`Delete ${t.name} for good`}
              onClick={() =>
                window.confirm(`Delete “${t.name}” for good, with its history and its log?`) && out.mutate(t.id)
              }
            >
              Delete
            </button>
          </li>
        ))}
      </ul>
    </main>
  );
}
