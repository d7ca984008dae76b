import type { CatalogueKnot, Document, Plan, Tag } from "../api/types.gen";

export const stages = ["purpose", "stuff", "cut", "tie", "finish", "log"] as const;
export type Stage = (typeof stages)[number];

export const stageNames: Record<Stage, string> = {
  purpose: "Purpose",
  stuff: "Stuff",
  cut: "Cut",
  tie: "Tie",
  finish: "Finish",
  log: "Log",
};

export function isStage(s: string): s is Stage {
  return (stages as readonly string[]).includes(s);
}

/** done tells which stages have what they need, so that their knots are drawn up tight. */
export function done(
  d: Document,
  plan: Plan | undefined,
  tag: Pick<Tag, "stage"> | undefined,
  knots: ReadonlyMap<string, CatalogueKnot>,
): Record<Stage, boolean> {
  const wrong = new Set(plan?.warnings.map((w) => w.code) ?? []);
  const short = [...wrong].some((c) => c.endsWith("-short"));
  return {
    purpose: (d.purpose.length_mm ?? 0) > 0 && !wrong.has("mount-crowded"),
    stuff: d.cords.length > 0 && !wrong.has("cord-unused"),
    cut: d.cords.length > 0 && !short && plan !== undefined,
    tie: d.sequence.some((s) => !knots.get(s.do)?.mounts && !knots.get(s.do)?.ends) && !wrong.has("length-off"),
    finish:
      d.sequence.some((s) => knots.get(s.do)?.ends) &&
      !wrong.has("ends-not-finished") &&
      !wrong.has("flame-on-natural-fibre"),
    log: tag?.stage === "logged",
  };
}
