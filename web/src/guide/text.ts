// The words of the guide, so that they can be read through by themselves. Facts of knots are not here: they come
// from the catalogue.

export interface Chapter {
  /** by which a page links to it */
  id: string;
  title: string;
  says: string[];
}

export const chapters: Chapter[] = [
  {
    id: "figures",
    title: "Where figures come from",
    says: [
      "Every knot is written down once, as the way its strands go. The bench draws it up until nothing can be pulled shorter. Lengths, widths, pictures and steps are all read off that one curve.",
      "Needs is the likely length of a cord: half of all pieces take more, half take less. Cut is longer, so that a piece runs short only as seldom as you say in Settings.",
      "Cord is thicker or thinner than its label, and hands tie tighter or looser. The spread says how far a figure is in doubt. Swatches, weighings and logs make it smaller.",
    ],
  },
  {
    id: "purpose",
    title: "Purpose",
    says: [
      "Say what the piece is for, what it hangs on and how long it shall be. These sizes fix all others.",
      "If you want a length, the bench offers counts of knots that come nearest to it.",
    ],
  },
  {
    id: "stuff",
    title: "Stuff",
    says: [
      "Name each cord by make, material, diameter and colour. The drawer keeps the cords that you have.",
      "A swatch is a short row that you tie and measure. It tells the bench how this cord and your hand behave.",
    ],
  },
  {
    id: "colour",
    title: "Colour",
    says: [
      "The bench shows every way in which the colours can fall on face and back. Choose one, and the cords change places.",
    ],
  },
  {
    id: "cut",
    title: "Cut",
    says: [
      "Cut each cord to the length that is said, measure from the end of the leg that is named, and fold there.",
      "The bar shows what a cut is made of: what the knots take, what lies bare, the finish, the spread, what the hand holds, and rounding.",
      "If cord runs short in the middle, Running short says what can still be tied.",
    ],
  },
  {
    id: "tie",
    title: "Tie",
    says: [
      "A piece is a list of sections from the mount to the ends. Choose one to set it, change it into another knot, or move it.",
      "The same list stands in one typed line. Change either; the other follows.",
    ],
  },
  {
    id: "finish",
    title: "Finish",
    says: ["One decision per end. What suits the cord and the place comes first, with its reason."],
  },
  {
    id: "check",
    title: "Check",
    says: ["What to look at on the tied piece, right beside wrong, from the top down, and how its sizes should be."],
  },
  {
    id: "log",
    title: "Log",
    says: [
      "Write down what you cut, what was left at each end and how long the piece is. The next plan knows your hand better.",
    ],
  },
  {
    id: "vise",
    title: "At the vise",
    says: [
      "One move at a time. Space or a page pedal goes on, Backspace goes back. The place is kept by itself.",
      "The strand in hand is outlined. The dashed line is where it goes; the numbers are the places of the strands from the left.",
      "After a pause the bench says where you are, and what it would look like if a slip was made.",
    ],
  },
];

/** Words of the trade that stand on the page. */
export const terms: [string, string][] = [
  ["bight", "a bend of cord; also a loop of the edge of a covering"],
  ["standing part", "the part of a strand that is already tied or held"],
  ["working end", "the end that is led"],
  ["strand, leg", "one of the lengths that hang; a folded cord has two legs"],
  ["worker", "a strand that does knotting"],
  ["filler", "a strand that others are tied over"],
  ["half knot", "one crossing over the fillers and back under them; two of opposite sides make a square knot"],
  ["lark's head", "how a folded cord sits on a ring"],
  ["sinnet", "a row of knots, flat, round or spiral"],
  ["drawn up", "pulled until nothing is loose"],
  ["face, back", "the side that looks at you while you tie, and the other one"],
  ["swatch", "a short row that is tied to be measured"],
  ["spread", "how far a figure is in doubt"],
  ["hold", "what the hand needs of an end to tie the last knot"],
];
