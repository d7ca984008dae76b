import { Link } from "wouter";
import { type Stage, stageNames, stages } from "./stages";
import { useWalk, walkWords } from "./walk";

/** Walk goes through a first piece, a stage at a time, and is left at any time. */
export function Walk({ id, stage }: { id: number; stage: Stage }) {
  const [walk, setWalk] = useWalk();
  if (!walk || (walk.piece !== id && walk.piece !== 0)) return null;
  const at = stages.indexOf(stage);
  const next = stages[at + 1];
  const end = () => setWalk({ piece: -1 });
  return (
    <section
      aria-label="A first piece"
      data-testid="walk"
      className="mb-4 flex flex-col gap-2 rounded-box border-2 border-secondary p-3"
    >
      <h2 className="font-semibold text-sm">
        A first piece, {at + 1} of {stages.length}
      </h2>
      <p>{walkWords[stage]}</p>
      <div className="flex flex-wrap gap-2">
        {next ? (
          <Link
            href={`/piece/${id}/${next}`}
            className="btn btn-primary btn-sm"
            onClick={() => walk.piece === 0 && setWalk({ piece: id })}
          >
            Next: {stageNames[next]}
          </Link>
        ) : (
          <button type="button" className="btn btn-primary btn-sm" onClick={end}>
            That is all
          </button>
        )}
        {next && (
          <button type="button" className="btn btn-ghost btn-sm" onClick={end}>
            Leave this
          </button>
        )}
      </div>
    </section>
  );
}
