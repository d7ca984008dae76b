import { api } from "../api/client";
import { useChange, useSettings } from "../api/queries";
import type { Sent } from "../api/types.gen";
import { Problems } from "../ui/Problems";

/** PrintLabel prints the label of a piece, where a label printer is chosen. */
export function PrintLabel({ id }: { id: number }) {
  const { devices } = useSettings();
  const print = useChange(() => api.post<Sent>(`/pieces/${id}/label`), []);
  if (devices.printer === "") return null;
  return (
    <>
      <button type="button" className="btn btn-sm" disabled={print.isPending} onClick={() => print.mutate()}>
        Print a label
      </button>
      {print.isPending && <span role="status">Printing…</span>}
      {print.data && !print.isPending && <span role="status">Printed, {print.data.lines.length} lines.</span>}
      <Problems error={print.error} />
    </>
  );
}
