import { useEffect, useRef, useState } from "react";
import { usePicture, useSpace } from "../api/queries";
import type { Space } from "../api/types.gen";
import { useWork } from "../bench/work";
import { Dialog } from "../ui/Dialog";
import { Fitted } from "./Plate";

/** Turn is a knot that can be turned in space by mouse, touch and keys; the drawing code is loaded when it opens. */
export function Turn({ section, name, onClose }: { section: number; name: string; onClose: () => void }) {
  const { id, revision } = useWork();
  const space = useSpace(id, revision, section);
  const [flat, setFlat] = useState(false);
  return (
    <Dialog title={`Turn the ${name}`} onClose={onClose} wide>
      {space.error ? (
        <p>It cannot be turned: {space.error.message}</p>
      ) : flat ? (
        <Both />
      ) : (
        <>
          {space.data ? (
            <Turning space={space.data} name={name} onMissing={() => setFlat(true)} />
          ) : (
            <p role="status" className="h-[56vh]">
              Laying the cords into space…
            </p>
          )}
          <p className="mt-2 text-sm">
            Drag to turn it. Keys: arrows turn, + and &minus; go nearer and farther, 0 shows the face, F the back.
          </p>
        </>
      )}
    </Dialog>
  );
}

/** Both is the still picture for browsers that cannot draw in space. */
function Both() {
  const { id, revision } = useWork();
  const face = usePicture(id, revision, { view: "face", scale: 7 }).data;
  const back = usePicture(id, revision, { view: "back", scale: 7 }).data;
  return (
    <>
      <p className="mb-2 text-sm">This browser cannot draw in space. The face is on the left, the back on the right.</p>
      <div className="mat grid h-[56vh] grid-cols-2 gap-2">
        {face && <Fitted picture={face} label="The face" />}
        {back && <Fitted picture={back} label="The back" />}
      </div>
    </>
  );
}

/** Turning draws curves in space and lets them be turned; onMissing is called where the browser cannot. */
export function Turning({ space, name, onMissing }: { space: Space; name: string; onMissing: () => void }) {
  const box = useRef<HTMLDivElement>(null);
  const missing = useRef(onMissing);
  const [shown, setShown] = useState(false);
  useEffect(() => {
    let gone = false;
    let end: (() => void) | undefined;
    import("./turning").then(
      ({ turn }) => {
        if (gone || !box.current) return;
        try {
          end = turn(box.current, space);
          setShown(true);
        } catch {
          missing.current();
        }
      },
      () => missing.current(),
    );
    return () => {
      gone = true;
      end?.();
    };
  }, [space]);
  return (
    <div
      ref={box}
      data-focus
      data-testid="turning"
      data-shown={shown}
      role="application"
      tabIndex={0}
      aria-label={`${name} in space; arrow keys turn it`}
      className="mat h-[56vh] touch-none"
    />
  );
}
