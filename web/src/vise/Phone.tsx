import { useState } from "react";
import { usePhone } from "../api/queries";
import { Dialog } from "../ui/Dialog";
import { Problems } from "../ui/Problems";

/** OnThePhone opens this piece at the vise on a phone, by a code that its camera reads. */
export function OnThePhone({ id, ghost }: { id: number; ghost?: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className={`btn btn-sm ${ghost ? "btn-ghost" : ""}`} onClick={() => setOpen(true)}>
        On a phone
      </button>
      {open && (
        <Dialog title="At the vise on a phone" onClose={() => setOpen(false)}>
          <Code id={id} />
        </Dialog>
      )}
    </>
  );
}

/** quiet is how wide the white edge of a code is, in its squares. */
const quiet = 4;

function Code({ id }: { id: number }) {
  const phone = usePhone(id);
  const { code, size = 0, url, why } = phone.data ?? {};
  if (phone.error) return <Problems error={phone.error} />;
  if (why) return <p data-testid="phone">{why}</p>;
  if (!code) return <p role="status">Drawing the code…</p>;
  const wide = size + 2 * quiet;
  return (
    <div className="flex flex-col items-center gap-3" data-testid="phone">
      <p>
        Hold the phone's camera over it. The phone asks for the passcode once; the place at the vise is the same on
        both.
      </p>
      <svg
        role="img"
        aria-label={`A code that opens ${url}`}
        viewBox={`${-quiet} ${-quiet} ${wide} ${wide}`}
        className="w-64 max-w-full"
        shapeRendering="crispEdges"
      >
        <rect x={-quiet} y={-quiet} width={wide} height={wide} fill="#ffffff" />
        <path d={code} fill="#000000" />
      </svg>
      <p className="figure break-all text-sm">{url}</p>
    </div>
  );
}
