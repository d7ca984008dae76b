import { useEffect, useState } from "react";
import { alongSteps, useInspect, useKnots, usePicture, useSlips } from "../api/queries";
import type { Action, Plan } from "../api/types.gen";
import { Shown } from "../bench/check/Inspected";
import { Still } from "../hang/Plate";
import { named } from "../hang/View";
import { said, type Units } from "../ui/units";
import { placeAt } from "./steps";

/** Where says where one is after a pause: face and back as the work looks now, and on which side it goes on. */
export function Where(p: { id: number; revision: number; plan: Plan; done: number; units: Units; onGo: () => void }) {
  const { id, revision, plan, done } = p;
  const place = placeAt(plan, done);
  if (!place) return null;
  const { step, action, round, part } = place;
  const side = action.from === "left" || action.from === "right" ? action.from : "";
  // The row itself tells nothing before its first knot.
  const because = done > place.before ? action.because : undefined;
  const rounds =
    step.repeats > 1
      ? `${round - 1} of ${step.repeats} are tied`
      : `${part - 1} of ${step.actions.length} moves are made`;
  return (
    <section aria-label="Where you are" className="flex flex-col gap-3 rounded-box border-2 border-primary p-4 text-lg">
      <h2 className="font-bold text-2xl">Where you are</h2>
      <p>
        Section {step.section + 1}, {step.name}: {rounds}
        {step.repeats > 1 && part > 1 ? `, and ${part - 1} of ${step.actions.length} moves of the next` : ""}.
      </p>
      <p>
        {side ? `The next move starts ${side}` : "Go on with the next move"}
        {action.cord ? `, with ${cordsOf(action)}` : ""}
        {because ? `: ${because}.` : "."}
      </p>
      <div className="flex gap-3">
        <Now id={id} revision={revision} done={done} turn={0} name="face" />
        <Now id={id} revision={revision} done={done} turn={180} name="back" />
      </div>
      <Likely id={id} revision={revision} section={step.section} done={done} units={p.units} />
      <button type="button" className="btn btn-primary self-start" onClick={p.onGo}>
        It looks like this: go on
      </button>
    </section>
  );
}

/** How long a place is looked at before the work so far is drawn, ms. */
const settles = 500;

/** SoFar is the face and back of the work when the last knot was closed, and what is still to be tied. */
export function SoFar(p: { id: number; revision: number; plan: Plan; done: number }) {
  const place = placeAt(p.plan, p.done);
  const knots = useKnots();
  const n = place?.step.actions.length ?? 0;
  const closed = place ? place.before + (place.round - 1) * n : p.plan.actions;
  const [until, setUntil] = useState(0);
  useEffect(() => {
    const timer = setTimeout(() => setUntil(closed), settles);
    return () => clearTimeout(timer);
  }, [closed]);
  const section = place?.step.section ?? -1;
  const rest = p.plan.sections.filter((s) => place && s.index > section);
  return (
    <section
      aria-label="So far, and what is left"
      data-wait={until === closed ? undefined : true}
      className="flex flex-wrap items-start gap-4 max-md:hidden"
    >
      {until > 0 && (
        <div className="flex min-w-64 flex-1 gap-3">
          <Now id={p.id} revision={p.revision} done={until} turn={0} name="face so far" />
          <Now id={p.id} revision={p.revision} done={until} turn={180} name="back so far" />
        </div>
      )}
      {rest.length > 0 && (
        <div className="text-base">
          <h2 className="font-semibold">Still to be tied</h2>
          <ol>
            {rest.slice(0, mostLeft).map((s) => (
              <li key={s.index}>{named(s.index, s, knots)}</li>
            ))}
          </ol>
          {rest.length > mostLeft && <p>and {rest.length - mostLeft} sections more</p>}
        </div>
      )}
    </section>
  );
}

/** cordsOf names the cords that a move leads. */
function cordsOf({ cord, beside = [] }: Action): string {
  const all = [cord ?? "", ...beside.map((b) => b.cord)];
  return `${all.length > 1 ? "cords" : "cord"} ${new Intl.ListFormat("en-GB").format(all)}`;
}

/** So many sections that are still to be tied are named. */
const mostLeft = 6;

/** Now is one side of the work as it must look now. */
function Now(p: { id: number; revision: number; done: number; turn: number; name: string }) {
  const picture = usePicture(p.id, p.revision, { turn: p.turn, scale: 4, until: p.done, along: alongSteps }).data;
  return (
    <figure className="mat min-w-0 flex-1 rounded-box p-2 text-center">
      {picture && picture.places.length > 0 && (
        <Still
          picture={{ ...picture, discs: undefined, ways: undefined }}
          perMM={Math.min(3, 26000 / picture.height, 20000 / picture.width)}
          label={`The work now, ${p.name}`}
          className="mx-auto max-w-full"
        />
      )}
      <figcaption>
        {p.name}
        {picture?.bump && "; the lowest bump is ringed"}
      </figcaption>
    </figure>
  );
}

/** Likely are the slips that are likeliest at this place, each drawn as the work then looks, with the way back. */
function Likely(p: { id: number; revision: number; section: number; done: number; units: Units }) {
  const { id, revision, section, done, units } = p;
  const [open, setOpen] = useState(false);
  const here = useSlips(id, open ? revision : undefined, done);
  // Where none is of the very place, those of its section are shown.
  const none = here.data?.length === 0;
  const inspect = useInspect(id, open && none ? revision : undefined);
  const wrong = (inspect.data?.items ?? []).filter((i) => i.section === section && i.wrong).slice(0, 3);
  return (
    <div className="flex flex-col gap-3">
      <button type="button" className="btn self-start" aria-expanded={open} onClick={() => setOpen(!open)}>
        Does yours look otherwise?
      </button>
      {open && here.isPending && (
        <p role="status" data-wait>
          Drawing what it could look like…
        </p>
      )}
      {open &&
        here.data?.map((s) => (
          <figure key={s.says} className="flex items-start gap-3 rounded-box border border-error p-2 text-base">
            <Still
              picture={s.picture}
              perMM={Math.min(3, 22000 / s.picture.height, 14000 / s.picture.width)}
              label={`Wrong: ${said(s.says, units)}`}
              className="mat shrink-0"
            />
            <figcaption className="flex flex-col gap-2">
              <span>
                <strong>Wrong: </strong>
                {said(s.says, units)}
              </span>
              <Back says={said(s.back, units)} />
            </figcaption>
          </figure>
        ))}
      {open && none && inspect.data && wrong.length === 0 && (
        <p>No slip of this section is known: look it over as in Check.</p>
      )}
      {open &&
        none &&
        wrong.map((i) => (
          <div key={i.id} className="flex flex-col gap-1 text-base">
            <Shown id={id} revision={revision} item={i} state="wrong" says={i.wrong?.says ?? ""} />
            {i.back && <Back says={said(i.back, units)} />}
          </div>
        ))}
    </div>
  );
}

/** Back is the way back from a slip. */
function Back({ says }: { says: string }) {
  return (
    <span>
      <strong>The way back: </strong>
      {says}
    </span>
  );
}
