import type { Document } from "../api/types.gen";
import { Alert } from "../ui/Alert";
import { Dialog } from "../ui/Dialog";
import { useWork } from "./work";

/** Conflict offers both versions where two windows changed one piece. Closing it decides nothing. */
export function Conflict() {
  const { piece } = useWork();
  const c = piece.conflict;
  if (!c || !piece.choosing) return null;
  return (
    <Dialog title="Changed in two places" wide onClose={() => piece.choose(false)}>
      <p className="mb-4">
        Another window saved this piece after you opened it. Nothing is lost: if you take yours, the other one stays in
        the history and comes back with Undo; if you take theirs, yours is set aside in the history under its own name.
        Till you choose, you can go on; your changes stay in yours.
      </p>
      {piece.refused && <Alert>{piece.refused}</Alert>}
      <div className="grid gap-4 md:grid-cols-2">
        {c.theirs.document && (
          <Version
            title="The other window's"
            d={c.theirs.document}
            label="Take theirs"
            onTake={() => piece.settle(false)}
          />
        )}
        <Version title="Yours" d={c.mine} label="Take mine" onTake={() => piece.settle(true)} />
      </div>
    </Dialog>
  );
}

function Version(p: { title: string; d: Document; label: string; onTake: () => void }) {
  return (
    <section className="flex flex-col gap-2 rounded-box border border-base-300 p-3">
      <h3 className="font-semibold">{p.title}</h3>
      <p>{p.d.name}</p>
      <ol className="list-decimal pl-5 text-sm">
        {p.d.sequence.map((s, i) => (
          <li key={i}>
            {s.do.replaceAll("-", " ")} {s.count ?? ""}
          </li>
        ))}
      </ol>
      <p className="text-sm">
        {p.d.cords.length} cord{p.d.cords.length === 1 ? "" : "s"}
      </p>
      <button type="button" className="btn btn-primary btn-sm mt-auto" onClick={p.onTake}>
        {p.label}
      </button>
    </section>
  );
}
