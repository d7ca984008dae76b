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
