import { useState } from "react";
import { useInspected, useSettings } from "../../api/queries";
import type { Item } from "../../api/types.gen";
import { Still } from "../../hang/Plate";
import { said } from "../../ui/units";
import { useWork } from "../work";

/** Inspected is one thing to look at: how, what is right, what is wrong, and the way back. */
export function Inspected({ item, ticked, onTick }: { item: Item; ticked: boolean; onTick: () => void }) {
  const { units } = useSettings();
  const { id, revision, setLit } = useWork();
  const [open, setOpen] = useState(false);
  const what = said(item.what, units);
  const both = item.right && item.wrong;
  return (
    <li
      className="flex flex-col gap-1 rounded-box border border-base-300 p-2 text-sm"
      onPointerEnter={() => setLit(item.section >= 0 ? item.section : null)}
      onPointerLeave={() => setLit(null)}
    >
      <label className="flex items-start gap-2">
        <input
          type="checkbox"
          className="checkbox mt-0.5 size-6 shrink-0 rounded-none"
          checked={ticked}
          onChange={onTick}
        />
        <span>
          <span className="block opacity-80">{item.where}</span>
          <strong className="font-semibold">{what}</strong>
        </span>
      </label>
      {item.how && <p className="pl-8">{said(item.how, units)}</p>}
      {both && (
        <div className="grid grid-cols-2 gap-2">
          <Shown id={id} revision={revision} item={item} state="right" says={item.right?.says ?? ""} />
          <Shown id={id} revision={revision} item={item} state="wrong" says={item.wrong?.says ?? ""} />
        </div>
      )}
      {item.right && !both && (
        <details onToggle={(e) => setOpen(e.currentTarget.open)} className="pl-8">
          <summary className="min-h-6 cursor-pointer">Show it</summary>
          {open && <Shown id={id} revision={revision} item={item} state="right" says={item.right.says ?? ""} />}
        </details>
      )}
      {item.back && (
        <p className="pl-8">
          <strong>The way back: </strong>
          {said(item.back, units)}
        </p>
      )}
    </li>
  );
}

/** tall is how long a stretch is shown, mm, the same for right and wrong so that their scale is one. */
function tall(item: Item) {
  const { right, wrong } = item;
  const long = (s: Item["right"]) => (s ? s.to_mm - s.from_mm : 0);
  return Math.max(1, long(right), long(wrong));
}

/** Shown is the right or the wrong state, drawn; a wrong one is marked by a word and a sign. */
export function Shown(p: {
  id: number;
  revision: number | undefined;
  item: Item;
  state: "right" | "wrong";
  says: string;
}) {
  const { id, revision, item, state, says } = p;
  const { units } = useSettings();
  const picture = useInspected(id, revision, item.id, state).data;
  const words = said(says, units);
  const wrong = state === "wrong";
  return (
    <figure className={`flex flex-col rounded-box border p-1 ${wrong ? "border-2 border-error" : "border-base-300"}`}>
      <div className="mat flex h-52 items-start justify-center overflow-hidden">
        {picture && picture.places.length > 0 && (
          <Still
            picture={picture}
            perMM={Math.min(3, 15200 / picture.width, 204 / tall(item))}
            label={`${wrong ? "Wrong" : "Right"}: ${words}`}
          />
        )}
      </div>
      <figcaption className="pt-1">
        {wrong ? (
          <>
            <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true" className="mr-1 inline text-error">
              <path d="M2 2l10 10M12 2L2 12" stroke="currentColor" strokeWidth="2.4" />
            </svg>
            <strong>Wrong. </strong>
            {words}
          </>
        ) : (
          words
        )}
      </figcaption>
    </figure>
  );
}
