// Made by server/gen from where each stands; do not change it here.

/** The frames of a move at the vise. */
export const moveFrames = 48;
/** A device that the bench stands in for. */
export const standIn = "stand-in";
/** The kinds of devices. */
export const deviceKinds = [
  { id: "scale", name: "scale" },
  { id: "caliper", name: "caliper" },
  { id: "pedal", name: "page pedal" },
  { id: "printer", name: "label printer" },
] as const;
/** How many cords one can name before a piece is begun. */
export const mostCords = 8;
/** After how many minutes hands can be told to rest; 0 is never. */
export const rests = [0, 15, 20, 30, 45] as const;
