import { useDraw } from "../../api/queries";
import type { Document } from "../../api/types.gen";
import { Still } from "../../hang/Plate";

/** Draft is a piece as it would hang, small: one that is offered and not kept. */
export function Draft({ document, high = 200 }: { document: Document; high?: number }) {
  const picture = useDraw(document).data;
  const label = `${document.name} as it would hang`;
  if (!picture)
    return (
      <span role="status" className="text-sm opacity-80" style={{ minHeight: high }}>
        Drawing it…
      </span>
    );
  return (
    <Still picture={picture} perMM={Math.min(2, high / (picture.height / 100))} label={label} className="shrink-0" />
  );
}
