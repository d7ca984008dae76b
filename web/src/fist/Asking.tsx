import { useCatalogue, useDrawer, useSettings } from "../api/queries";
import type { FistAnswer, FistBall, FistRequest } from "../api/types.gen";
import { Choice, Swatch } from "../ui/fields";
import { LengthInput } from "../ui/LengthInput";
import { across, length } from "../ui/units";
import { fits } from "./fits";

type Set = (part: Partial<FistRequest>) => void;

/** idOf names a method. */
const idOf = (m: { mode: string; tail: boolean }) => (m.tail ? `${m.mode} with-tail` : m.mode);

/** Asking is what the ball is wanted of: cord, way, passes, core, or a size or a length to come from. */
export function Asking({ ask, answer, onSet }: { ask: FistRequest; answer?: FistAnswer; onSet: Set }) {
  const spools = useDrawer().data ?? [];
  const catalogue = useCatalogue().data;
  const makes = catalogue?.makes ?? [];
  const methods = catalogue?.ball_methods ?? [];
  const { units } = useSettings();
  const spool = spools.find((s) => JSON.stringify(s.stuff) === JSON.stringify(ask.stuff));
  // With a core that is said, the passes follow it and the cord.
  const follow = ask.core.diameter_mm > 0 ? { passes: 0 } : {};
  const stuff = (part: Partial<FistRequest["stuff"]>) => onSet({ stuff: { ...ask.stuff, ...part }, ...follow });
  const two = (methods.find((w) => w.mode === ask.mode)?.cords ?? 1) > 1;
  return (
    <section aria-label="What is asked" className="flex flex-col gap-3">
      <Choice
        label="Cord"
        value={spool ? String(spool.id) : ""}
        options={[
          { id: "", name: "another cord" },
          ...spools.map((s) => ({ id: String(s.id), name: `${s.name}, ${across(s.stuff.diameter_mm, units)}` })),
        ]}
        onSet={(id) => {
          const s = spools.find((q) => String(q.id) === id);
          if (s) onSet({ stuff: s.stuff, ...follow });
          else stuff({ label: undefined, grams_per_metre: undefined });
        }}
      />
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="Make"
          value={ask.stuff.make}
          options={makes}
          onSet={(make) =>
            stuff({
              make: make as FistRequest["stuff"]["make"],
              material: makes.find((m) => m.id === make)?.usual ?? ask.stuff.material,
              grams_per_metre: undefined,
            })
          }
        />
        <LengthInput
          label="On the label, tight"
          mm={ask.stuff.diameter_mm}
          fine
          onSet={(mm) => mm && stuff({ diameter_mm: mm, grams_per_metre: undefined })}
        />
      </div>
      {answer && (
        <p className="text-sm">
          <Swatch colour={ask.stuff.colour} /> drawn up hard{" "}
          <span className="figure">{across(answer.drawn_up_mm, units)}</span>
        </p>
      )}
      <Choice
        label="Tied with"
        value={idOf({ mode: ask.mode, tail: ask.tail ?? false })}
        options={methods.map((m) => ({ id: idOf(m), name: m.name }))}
        onSet={(id) => {
          const m = methods.find((q) => idOf(q) === id);
          if (m) onSet({ mode: m.mode, tail: m.tail });
        }}
      />
      {two && (
        <label className="flex items-center justify-between text-sm">
          Colour of the second cord
          <input
            type="color"
            className="h-7 w-10"
            value={ask.second}
            onChange={(e) => onSet({ second: e.target.value })}
          />
        </label>
      )}
      <Choice
        label="Core"
        value={ask.core.kind}
        options={answer?.kinds ?? [{ id: ask.core.kind, name: ask.core.kind }]}
        onSet={(kind) => onSet({ core: { ...ask.core, kind } })}
      />
      <LengthInput
        label="Core size"
        hint={`${ask.core.diameter_mm > 0 ? "" : "Left empty: the best one. "}${answer ? fits(answer, ask, units) : ""}`}
        mm={ask.core.diameter_mm || undefined}
        optional
        fine
        onSet={(mm) => onSet({ core: { ...ask.core, diameter_mm: mm ?? 0 }, ...(mm ? { passes: 0 } : {}) })}
      />
      <LengthInput
        label="Come to a ball this wide"
        mm={ask.outer_mm}
        optional
        onSet={(outer_mm) => onSet({ outer_mm })}
      />
      {answer && ask.outer_mm ? (
        <Found balls={answer.of_size} why={answer.size_why} onSet={onSet} kind={ask.core.kind} />
      ) : null}
      <LengthInput
        label="Use the cord that is left"
        mm={ask.left_mm}
        optional
        hint={answer ? `${length(answer.spare_mm, units)} of it are kept to hold.` : undefined}
        onSet={(left_mm) => onSet({ left_mm })}
      />
      {answer && ask.left_mm ? (
        <Found
          balls={answer.from_cord ? [answer.from_cord] : []}
          why={answer.from_why}
          onSet={onSet}
          kind={ask.core.kind}
        />
      ) : null}
    </section>
  );
}

/** Found are balls that answer a question, each to be taken. */
function Found({ balls, why, kind, onSet }: { balls: FistBall[]; why?: string; kind: string; onSet: Set }) {
  const { units } = useSettings();
  if (balls.length === 0)
    return (
      <p role="status" className="text-sm text-warning">
        {why ? `${why[0].toUpperCase()}${why.slice(1)}.` : ""}
      </p>
    );
  return (
    <ul className="flex flex-col gap-1" aria-label="Balls that answer it">
      {balls.map((b) => (
        <li key={b.passes}>
          <button
            type="button"
            className="btn btn-sm h-auto w-full justify-start py-1 text-left font-normal"
            onClick={() => onSet({ passes: b.passes, core: { kind, diameter_mm: b.core.diameter_mm } })}
          >
            <span>
              <b>{b.passes} passes</b> on {across(b.core.diameter_mm, units)}: {across(b.outer_face_mm, units)} wide,{" "}
              {length(b.cord_mm, units)} of cord
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}
