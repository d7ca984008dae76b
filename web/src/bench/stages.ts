export const stages = ["purpose", "stuff", "colour", "cut", "tie", "finish", "check", "log"] as const;
export type Stage = (typeof stages)[number];

export const stageNames: Record<Stage, string> = {
  purpose: "Purpose",
  stuff: "Stuff",
  colour: "Colour",
  cut: "Cut",
  tie: "Tie",
  finish: "Finish",
  check: "Check",
  log: "Log",
};

export function isStage(s: string): s is Stage {
  return (stages as readonly string[]).includes(s);
}
