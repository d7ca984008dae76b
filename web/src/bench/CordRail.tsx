import { Link } from "wouter";
import { useInspect, useTags } from "../api/queries";
import { useTicks } from "../ui/kept";
import { type Stage, stageNames, stages } from "./stages";
import { useWork } from "./work";

/** CordRail is the way through the work: the stages as knots along one cord. */
export function CordRail({ stage }: { stage: Stage }) {
  const { id, plan, revision } = useWork();
  const tag = useTags().data?.find((t) => t.id === id);
  const { ticks } = useTicks(`check-${id}`);
  const looks = useInspect(id, stage === "check" || ticks.length > 0 ? revision : undefined).data?.items;
  const checked = looks !== undefined && looks.length > 0 && looks.every((i) => ticks.includes(i.what));
  const done = (s: Stage) => {
    if (s === "check") return checked;
    if (s === "colour") return plan?.done.includes("stuff") ?? false;
    return s === "log" ? tag?.stage === "logged" : (plan?.done.includes(s) ?? false);
  };
  return (
    <nav
      aria-label="Stages"
      className="shrink-0 overflow-x-auto border-base-300 max-lg:border-b lg:w-32 lg:border-r lg:py-2 lg:pl-2"
    >
      <ul className="steps lg:steps-vertical w-full overflow-visible py-1">
        {stages.map((s) => {
          const here = s === stage;
          const state = here ? "open now" : done(s) ? "done" : "not done";
          return (
            <li key={s} className="step step-primary min-h-0! min-w-12!">
              <span className="step-icon border-none! bg-transparent!">
                <StageKnot open={here} tight={done(s)} />
              </span>
              <Link
                href={`/piece/${id}/${s}`}
                aria-current={here ? "step" : undefined}
                aria-label={`${stageNames[s]}, ${state}`}
                className={`flex min-h-8 min-w-11 items-center max-sm:text-[0.7rem] justify-center text-sm lg:justify-start lg:py-2.5 ${here ? "font-bold" : ""}`}
              >
                {stageNames[s]}
              </Link>
            </li>
          );
        })}
      </ul>
    </nav>
  );
}

/** StageKnot: an open overhand where one works, a tight one where it is done, a bare ring of cord where not. */
function StageKnot({ open, tight }: { open: boolean; tight: boolean }) {
  if (open) {
    return (
      <svg width="34" height="28" viewBox="0 0 34 28" aria-hidden="true">
        <rect width="34" height="28" fill="var(--color-base-100)" />
        <g fill="none" strokeLinecap="round">
          <path
            d="M17 0c0 8-12 6-12 14s14 9 20 3-2-12-8-8-6 13 0 19"
            stroke="var(--color-base-content)"
            strokeWidth="6"
          />
          <path
            d="M17 0c0 8-12 6-12 14s14 9 20 3-2-12-8-8-6 13 0 19"
            stroke="var(--color-secondary)"
            strokeWidth="3.6"
          />
        </g>
      </svg>
    );
  }
  return (
    <svg width="34" height="28" viewBox="0 0 34 28" aria-hidden="true">
      {tight ? (
        <g stroke="var(--color-base-content)" strokeWidth="1.4" fill="var(--color-primary)">
          <rect x="9" y="4" width="16" height="8" rx="4" />
          <rect x="9" y="10" width="16" height="8" rx="4" />
          <rect x="9" y="16" width="16" height="8" rx="4" />
        </g>
      ) : (
        <circle
          cx="17"
          cy="14"
          r="6"
          fill="var(--color-base-100)"
          stroke="var(--color-base-content)"
          strokeWidth="1.6"
          strokeDasharray="3 2.4"
        />
      )}
    </svg>
  );
}
