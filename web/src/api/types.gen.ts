/* Made from the Go types by npm run types; do not edit. */

export interface Root {
  Tag: Tag;
  Bench: Bench;
  SaveRequest: SaveRequest;
  NotationRequest: NotationRequest;
  CreateRequest: CreateRequest;
  IntoRequest: IntoRequest;
  ToWanted: Grown[];
  StartRequest: StartRequest;
  StartOffer: StartOffer;
  PlaceRequest: PlaceRequest;
  PlaceAnswer: PlaceAnswer;
  Paces: Pace[];
  DeviceEvent: Event;
  Slips: SlipAt[];
  SetRequest: SetRequest;
  Sent: Sent;
  StepRequest: StepRequest;
  NameRequest: NameRequest;
  Revision: Revision;
  Folder: Folder;
  Report: Report;
  State: State;
  Problem: Problem;
  Entry: Entry;
  Spool: Spool;
  Kept: Kept;
  Swatch: Swatch;
  Planned: Planned;
  Card: Card;
  Hand: Hand;
  Reached: Reached;
  SwapRequest: SwapRequest;
  Swapped: Swapped;
  MiddleRequest: MiddleRequest;
  Rest: Rest;
  ReplanRequest: ReplanRequest;
  Settings: Settings;
  Catalogue: Catalogue;
  Offer: Offer;
  FinishRequest: FinishRequest;
  ColourRequest: ColouringsRequest;
  Colourings: Colourings;
  Along: Along;
  Phone: Phone;
  Trained: Trained[];
  Leading: Leading;
  JudgeCrossing: JudgeCrossing;
  CrossingAnswer: Answer;
  LedRequest: LedRequest;
  Palette: Palette;
  Suggested: Suggested[];
  Inspect: Inspect;
  JudgeRequest: JudgeRequest;
  Verdicts: Verdict[];
  ThroughRequest: ThroughRequest;
  ThroughAnswer: ThroughAnswer;
  ChangedRequest: ChangedRequest;
  Changes: Change[];
  Cautions: string[];
  Ends: End[];
  Plan: Plan;
  Picture: Picture;
  FistRequest: FistRequest;
  FistAnswer: FistAnswer;
  DrawerCore: DrawerCore;
  Thing: Thing;
}
export interface Tag {
  id: number;
  revision: number;
  name: string;
  kind: string;
  stage: "planned" | "being cut" | "on the vise" | "tied" | "logged";
  done: number;
  actions: number;
  length_mm: number;
  warnings: number;
  trouble?: string;
  updated_at: string;
  pending?: boolean;
  picture: string;
  words: string;
}
export interface Bench {
  id: number;
  folder: string;
  revision: number;
  can_undo: boolean;
  can_redo: boolean;
  binned: boolean;
  done: number;
  notation: string;
  document?: Document;
  trouble?: string;
}
export interface Document {
  format: string;
  version: number;
  name: string;
  purpose: Purpose;
  cords: Cord[];
  cutting?: Cutting;
  card?: CardEdits;
  sequence: Section[];
}
export interface Purpose {
  kind: string;
  hangs_on: Hardware;
  length_mm?: number;
  ends_on?: Hardware;
  between_mm?: number;
  stops_mm?: number;
  around_mm?: number;
  blade_mm?: number;
  note?: string;
}
export interface Hardware {
  type: "split-ring" | "swivel-clip" | "carabiner" | "bail" | "rod" | "hole" | "none";
  inner_mm: number;
  wire_mm: number;
  depth_mm?: number;
}
export interface Cord {
  id: string;
  stuff: Stuff;
  legs?:
    | ("equal" | "short-inside")
    | {
        first_mm: number;
      };
  joined_to?: string;
  shift_mm?: number;
  joint_mm?: number;
}
export interface Stuff {
  make:
    | "kernmantle"
    | "solid-braid"
    | "single-strand"
    | "three-ply"
    | "tshirt-yarn"
    | "leather"
    | "laid"
    | "waxed-thread"
    | "soft-braid"
    | "flat-leather"
    | "square-leather"
    | "elastic";
  material: "nylon" | "polyester" | "cotton" | "polypropylene" | "leather" | "jute" | "sisal" | "hemp" | "rubber";
  diameter_mm: number;
  thickness_mm?: number;
  colour: string;
  sheath?: Sheath;
  grams_per_metre?: number;
  label?: string;
}
export interface Sheath {
  pattern: "flecked" | "striped" | "tracer" | "glow" | "two-colour" | "changing";
  colours: string[];
  repeat_mm: number;
}
export interface Cutting {
  one_in?: 10 | 20 | 40 | 200;
  hold?: "fingers" | "needle" | "haemostat";
  geometry?: boolean;
}
export interface CardEdits {
  without?: string[];
  own?: CardLine[];
}
export interface CardLine {
  group: string;
  says: string;
}
export interface Section {
  count?: number;
  do: string;
  fit_mm?: number;
  note?: string;
  rows?: Row[];
  sequence?: Section[];
  strands?: number[];
  [k: string]: unknown;
}
export interface Row {
  sequence: Section[];
  strands: number[];
}
export interface SaveRequest {
  revision: number;
  document: Document;
}
export interface NotationRequest {
  revision: number;
  line: string;
}
export interface CreateRequest {
  pattern?: string;
  name?: string;
  document?: Document;
}
export interface IntoRequest {
  document: Document;
  section: number;
  to: Section;
  keeps: "count" | "length";
}
export interface Grown {
  section: number;
  name: string;
  count: number;
  length_mm: number;
}
export interface StartRequest {
  kind?: string;
  length_mm?: number;
  cords: Stuff[];
}
export interface StartOffer {
  of: number;
  pattern: string;
  name: string;
  about: string;
  why?: string;
  document: Document;
  length_mm: number;
  cut: StartCord[];
  moves: number;
  takes_s?: number;
  picture?: Picture;
}
export interface StartCord {
  id: string;
  colour: string;
  cut_mm: number;
}
export interface Picture {
  view: string;
  left: number;
  top: number;
  width: number;
  height: number;
  places: Place[];
  plates: {
    [k: string]: Plate;
  };
  bands: Band[];
  colours: string[];
  marks: string[];
  faults?: Fault[];
  coarse?: boolean;
  ways?: string[];
  discs?: Disc[];
  bump?: Spot;
  thick?: number;
}
export interface Place {
  plate: string;
  y: number;
}
export interface Plate {
  left: number;
  right: number;
  top: number;
  bottom: number;
  per: number;
  layers: Layer[];
}
export interface Layer {
  kind: string;
  under?: boolean;
  opacity?: number;
  d: string;
  cord?: number;
  colour?: string;
  dark?: number;
  width?: number;
}
export interface Band {
  section: number;
  top: number;
  bottom: number;
  left: number;
  right: number;
}
export interface Fault {
  section: number;
  top: number;
  bottom: number;
  why: string;
}
export interface Disc {
  place: number;
  x: number;
  y: number;
}
export interface Spot {
  x: number;
  y: number;
}
export interface PlaceRequest {
  from: number;
  done: number;
  revision: number;
  device: string;
  steps?: Taken[];
}
export interface Taken {
  n: number;
  from: number;
  to: number;
  after_s: number;
}
export interface PlaceAnswer {
  done: number;
  revision: number;
  device: string;
  elsewhere: boolean;
  times?: Times;
}
export interface Times {
  worked_s: number;
  pauses: number;
  paused_s: number;
  section_s: number;
  left_s?: number;
  rest: boolean;
  pause_s: number;
}
export interface Pace {
  knot: string;
  knots: number;
  moves: number;
  worked_s: number;
  pauses: number;
  paused_s: number;
  per_knot_s?: number;
}
export interface Event {
  kind: string;
  name: string;
  what: "reading" | "press" | "label" | "wrong" | "state";
  value?: number;
  unit?: string;
  press?: string;
  label?: string[];
  says?: string;
  state?: "off" | "looking" | "ready";
  stands?: boolean;
}
export interface SlipAt {
  says: string;
  back: string;
  picture: Picture;
}
export interface SetRequest {
  what: string;
}
export interface Sent {
  lines: string[];
}
export interface StepRequest {
  revision: number;
}
export interface NameRequest {
  name: string;
}
export interface Revision {
  id: number;
  created_at: string;
  name: string;
  aside: boolean;
  current: boolean;
  length_mm: number;
  actions: number;
}
export interface Folder {
  identity: string;
  copied_alone: boolean;
  door: boolean;
}
export interface Report {
  how: string;
  made_at: string;
  same_folder: boolean;
  new_pieces: number;
  updated_pieces: number;
  unchanged_pieces: number;
  diverged_pieces: number;
  removed_pieces: number;
  new_log_entries: number;
  new_in_drawer: number;
  settings_replaced: boolean;
}
export interface State {
  key: string;
  step: number;
  most: number;
  done: boolean;
  error?: string;
}
export interface Problem {
  type: string;
  title: string;
  status: number;
  code?: string;
  detail: string;
  errors?: FieldProblem[];
  current?: Bench;
  yours?: Document;
}
export interface FieldProblem {
  path: string;
  where?: string;
  message: string;
  line?: number;
  column?: number;
  fix?: Fix;
}
export interface Fix {
  label: string;
  set: FixValue[];
}
export interface FixValue {
  path: string;
  value: unknown;
}
export interface Entry {
  id: number;
  created_at: string;
  minutes?: number;
  length_mm?: number;
  width_mm?: number;
  note: string;
  cords: Cut[];
  tied?: (number | null)[];
  counts?: "no" | "yes" | "sure";
  spoilt?: string;
}
export interface Cut {
  id: string;
  cut_mm?: number;
  left_mm?: number;
  left_at_mm?: (number | null)[];
  ran_short?: boolean;
}
export interface Spool {
  id: number;
  name: string;
  stuff: Stuff;
  measured_mm?: number;
  price_per_m?: number;
  left_m?: number;
}
export interface Kept {
  id: number;
  kind: string;
  stuff: Stuff;
  knot?: string;
  count?: number;
  height_mm?: number;
  took_mm?: number[];
  length_mm?: number;
  grams?: number;
  at?: string;
  sure?: boolean;
}
export interface Swatch {
  stuff: Stuff;
  knot?: string;
  count?: number;
  height_mm?: number;
  took_mm?: number[];
  length_mm?: number;
  grams?: number;
  at?: string;
  sure?: boolean;
}
export interface Planned {
  height_mm: number;
  took_mm: number;
  strands: number;
  grams_per_metre: number;
}
export interface Card {
  groups: Group[];
}
export interface Group {
  id: string;
  name: string;
  lines: Line[];
}
export interface Line {
  key: string;
  what?: string;
  says: string;
  own?: boolean;
  out?: boolean;
}
export interface Hand {
  cords_mm?: {
    [k: string]: number;
  };
  off_cut_mm?: number;
  section?: number;
  stop?: "" | "length" | "left" | "hardware";
  at_mm?: number;
}
export interface Reached {
  section: number;
  count: number;
  length_mm: number;
  cords: Left[];
  says: string;
  document: Document;
}
export interface Left {
  id: string;
  in_hand_mm: number;
  takes_mm: number;
  left_mm: number;
}
export interface SwapRequest {
  cords: string[];
  stuff: Stuff;
}
export interface Swapped {
  keeps: "counts" | "length";
  counts: number[];
  length_mm: number;
  width_mm: number;
  weight_g: number;
  cords: Used[];
  document: Document;
}
export interface Used {
  id: string;
  needs_mm: number;
  cut_mm: number;
}
export interface MiddleRequest {
  done?: number;
  section: number;
  tied: number;
  left_mm: {
    [k: string]: number;
  };
  cut_mm?: {
    [k: string]: number;
  };
}
export interface Rest {
  section: number;
  tied: number;
  planned: number;
  knots: number;
  best: number;
  length_mm: number;
  leg: string;
  short_mm: number;
  legs: Hangs[];
  offers: Way[];
}
export interface Hangs {
  leg: string;
  left_mm: number;
  needs_mm: number;
  takes_mm: number;
  against?: number;
}
export interface Way {
  kind: "fewer" | "shorter-ends" | "last" | "splice";
  label: string;
  says: string;
  knots: number;
  length_mm: number;
  document: Document;
}
export interface ReplanRequest {
  revision: number;
  document: Document;
  why: string;
}
export interface Settings {
  units: "mm" | "inch";
  hand: "right" | "left";
  theme: "auto" | "day" | "night";
  one_in: 10 | 20 | 40 | 200;
  hold: "fingers" | "needle" | "haemostat";
  rest_min: 0 | 15 | 20 | 30 | 45;
  single_keys: "on" | "off";
  devices: Places;
}
export interface Places {
  scale: string;
  caliper: string;
  pedal: string;
  printer: string;
}
export interface Catalogue {
  knots: CatalogueKnot[];
  finishes: Finish[];
  makes: Make[];
  materials: Material[];
  sheaths: Sheathing[];
  sheath: Sheath;
  patterns: Pattern[];
  most_knots: number;
  most_strands: number;
  turn_step: number;
  example: string;
  kinds: PurposeKind[];
  fittings: Fitting[];
  stuff: Stuff;
  ball: FistRequest;
  ball_methods: Method[];
}
export interface CatalogueKnot {
  id: string;
  name: string;
  family: string;
  other_names: string[];
  for: string;
  schools?: School[];
  glyph: string;
  common?: boolean;
  repeats: boolean;
  outside?: boolean;
  first?: boolean;
  mounts?: boolean;
  ends?: boolean;
  holds?: "again" | "rows";
  fields: Field[];
  template: Section;
  takes: Takes;
  copies: boolean;
  groups: boolean;
  nests: boolean;
  swatch: boolean;
}
export interface School {
  field: string;
  default: string;
  why: string;
}
export interface Field {
  key: string;
  short: string;
  label: string;
  kind: "choice" | "count" | "length" | "places" | "place" | "cord" | "cords" | "colour";
  choices?: string[];
  default?: string;
  least?: number;
  most?: number;
  needed?: boolean;
  if?: string;
}
export interface Takes {
  least: number;
  most?: number;
  even?: boolean;
}
export interface Finish {
  id: string;
  name: string;
  for: string;
  note: string;
  flame: boolean;
  wants_length: boolean;
  length: string;
  wants_bead: boolean;
  wants_under: boolean;
  together: number;
  neighbours: boolean;
  tools: string[];
  wait: string;
  look: string;
  undo: string;
  care: string[];
}
export interface Make {
  id: string;
  name: string;
  flat: boolean;
  usual: "nylon" | "polyester" | "cotton" | "polypropylene" | "leather" | "jute" | "sisal" | "hemp" | "rubber";
}
export interface Material {
  id: string;
  melts: boolean;
}
export interface Sheathing {
  id: string;
  name: string;
  most: number;
}
export interface Pattern {
  id: string;
  name: string;
  about: string;
  document: Document;
}
export interface PurposeKind {
  id: string;
  name: string;
  asks: Ask[];
  hangs: string[];
  ends_on?: boolean;
}
export interface Ask {
  key: string;
  label: string;
  hint: string;
  drawing: "hang" | "hand" | "head" | "handle" | "roll" | "stop" | "blade";
}
export interface Fitting {
  id: string;
  name: string;
  inner?: string;
  wire?: string;
  depth?: string;
  hangs?: string;
}
export interface FistRequest {
  stuff: Stuff;
  second?: string;
  passes: number;
  mode: "one-cord" | "two-cords" | "doubled";
  tail?: boolean;
  core: Core;
  outer_mm?: number;
  left_mm?: number;
  face?: number;
  turn?: number;
  tilt?: number;
}
export interface Core {
  kind: string;
  diameter_mm: number;
}
export interface Method {
  name: string;
  mode: "one-cord" | "two-cords" | "doubled";
  tail: boolean;
  cords: number;
}
export interface Offer {
  id: string;
  suits: boolean;
  sections: Section[];
}
export interface FinishRequest {
  document: Document;
  ends: End[];
}
export interface End {
  place: number;
  cord: string;
  leg: string;
  section: number;
  how: string;
  length_mm?: number;
  under?: number;
  bead?: Bead;
  with?: number[];
  measures?: Ending;
  ways?: FinishChoice[];
  at: number;
  of: number;
  below: number;
}
export interface Bead {
  hole_mm: number;
  length_mm: number;
  width_mm: number;
  colour?: string;
  shape?: string;
  faces?: string;
}
export interface Ending {
  form: string;
  asked_mm?: number;
  under?: number;
  leaves_mm: number;
  cut_mm: number;
  melts_mm?: number;
  trims_mm: number;
  hides_mm?: number;
}
export interface FinishChoice {
  id: string;
  fit: boolean;
  why: string;
}
export interface ColouringsRequest {
  colours: Chosen[];
  sort: "contrast" | "hidden" | "stripes" | "columns" | "spirals" | "alike" | "most" | "least";
  closely?: boolean;
}
export interface Chosen {
  colour: string;
  name?: string;
}
export interface Colourings {
  ways: Colouring[];
  different: number;
  all: number;
  close: Pair[];
  enough: number;
  views: Picture[][];
  cuts: number[][];
  eyes: {
    [k: string]: {
      [k: string]: string;
    };
  };
  tones: {
    [k: string]: string;
  };
}
export interface Colouring {
  id: string;
  changes: string[];
  look: number;
  paints: string[];
  is?: boolean;
  colours: string[];
  names: string[];
  says: string;
  sections: Said[];
  runs?: "stripes" | "columns" | "spirals";
  shares: Share[];
  contrast: number;
  alike: number;
  document: Document;
  marks: string[];
}
export interface Said {
  section: number;
  name: string;
  says: string;
}
export interface Share {
  colour: string;
  name: string;
  face: number;
  back: number;
}
export interface Pair {
  a: string;
  b: string;
  name_a: string;
  name_b: string;
  difference: number;
  usual: number;
  eye: "usual" | "protan" | "deutan" | "tritan";
  instead?: string;
}
export interface Along {
  cords: AlongCord[];
  halves: Half[];
}
export interface AlongCord {
  id: string;
  repeat_mm: number;
  shift_mm: number;
  lands: Said[];
}
export interface Half {
  section: number;
  name: string;
  says: string;
  sequence: Section[];
}
export interface Phone {
  url?: string;
  code?: string;
  size?: number;
  why?: string;
}
export interface Trained {
  knot: string;
  box: number;
  due: string;
  last: string;
  led: number;
  slips: number;
  name: string;
  strands: number;
  crossings: number;
  is_due: boolean;
  sure: number;
}
export interface Leading {
  knot: string;
  name: string;
  crossings: number;
  picture: Picture;
  strand?: number;
  with?: number;
  x: number;
  y: number;
  done: boolean;
  looked?: string;
  says?: string;
}
export interface JudgeCrossing {
  at: number;
  over: boolean;
  slips: number[];
}
export interface Answer {
  right: boolean;
  says: string;
  makes?: string;
  falls?: boolean;
}
export interface LedRequest {
  slips: number;
}
export interface Palette {
  id: number;
  name: string;
  colours: Chosen[];
}
export interface Suggested {
  colour: string;
  goes: "opposite" | "a third round" | "beside" | "lighter or darker" | "neutral";
  off: number;
  name: string;
  left_m: number;
}
export interface Inspect {
  items: Item[];
  sizes: Size[];
}
export interface Item {
  id: string;
  section: number;
  where: string;
  what: string;
  how?: string;
  back?: string;
  right?: Shown;
  wrong?: Shown;
}
export interface Shown {
  says?: string;
  turn: number;
  from_mm: number;
  to_mm: number;
}
export interface Size {
  key: "length" | "width";
  name: string;
  how: string;
  plan_mm: number;
  spread_mm: number;
  wanted_mm?: number;
}
export interface JudgeRequest {
  length_mm?: number;
  width_mm?: number;
}
export interface Verdict {
  key: string;
  level: "right" | "near" | "off";
  says: string;
}
export interface ThroughRequest {
  hole_mm: number;
  cords: Through[];
}
export interface Through {
  stuff: Stuff;
  times: number;
}
export interface ThroughAnswer {
  ways: Passing[];
  goes: string;
  least_mm: number;
  exact: boolean;
}
export interface Passing {
  id: string;
  name: string;
  how: string;
  flame?: boolean;
  tools: string[];
  early?: boolean;
  off_mm: number;
  need_mm: number;
  spare_mm: number;
  fits: boolean;
  can: boolean;
  why?: string;
}
export interface ChangedRequest {
  before: Document;
  after: Document;
}
export interface Change {
  section: number;
  where?: string;
  says: string;
  fix?: Fix;
}
export interface Plan {
  name: string;
  described: string;
  length_mm: number;
  width_mm: number;
  wanted_mm?: number;
  weight_g: number;
  heads?: number;
  heads_fit?: number;
  left_handed?: boolean;
  one_in: 10 | 20 | 40 | 200;
  hold: "fingers" | "needle" | "haemostat";
  cords: PlannedCord[];
  sections: PlannedSection[];
  warnings: Warning[];
  checks: Check[];
  steps: Step[];
  actions: number;
  cautions: Caution[];
  endings: Ended[];
  prepared: Prepared[];
  ready: Action[];
  joints?: Joint[];
  notation: string;
  done: string[];
  turn?: number;
  rough?: string[];
}
export interface PlannedCord {
  id: string;
  role: string;
  colour: string;
  colour_name: string;
  drawn_up_mm: number;
  needs_mm: number;
  cut_mm: number;
  left_mm: number;
  spread_mm: number;
  why: Why;
  allowed: number;
  by_geometry: number;
  rests: Rests;
  known: Known;
  thumb?: Thumb;
  fold_at_mm: number;
  fold_leg?: number;
  fold_side?: string;
  measure?: string;
  saved_mm?: number;
  wasted_mm?: number;
  short?: string;
  legs: Leg[];
}
export interface Why {
  knotwork_mm: number;
  measured_mm: number;
  finish_mm: number;
  spread_mm: number;
  hold_mm: number;
  even_mm: number;
  rounding_mm: number;
}
export interface Rests {
  geometry: number;
  swatches: number;
  logs: number;
}
export interface Known {
  kind: string;
  label_mm: number;
  label_doubt: number;
  doubt: number;
  hands: Habit[];
}
export interface Habit {
  family: string;
  loose: number;
  doubt: number;
}
export interface Thumb {
  cut_mm: number;
  left_mm: number;
  says: string;
}
export interface Leg {
  needs_mm: number;
  cut_mm: number;
  short_mm?: number;
  role: string;
  name?: string;
  side?: string;
  parts: Part[];
  bands?: Stretch[];
  beyond_mm: number;
}
export interface Part {
  section: number;
  mm: number;
}
export interface Stretch {
  mm: number;
  colour: string;
}
export interface PlannedSection {
  index: number;
  do: string;
  count: number;
  top_mm: number;
  height_mm: number;
  counted?: string;
  told?: string;
  around?: boolean;
  from_end?: boolean;
  knot_mm?: number;
  passes_mm?: number;
  stops_mm?: number;
  use: Use[];
  order_after: string[];
  shows?: Sight[];
  gap_share: number;
  rough_mm?: number;
}
export interface Use {
  strand: number;
  cord: string;
  mm: number;
  works?: boolean;
}
export interface Sight {
  where: string;
  face: string;
  back: string;
}
export interface Warning {
  code: string;
  section: number;
  message: string;
  fix?: Fix;
}
export interface Check {
  code: string;
  section: number;
  message: string;
}
export interface Step {
  section: number;
  do: string;
  name: string;
  repeats: number;
  mm?: number;
  actions: Action[];
  turns?: Action[][];
  made?: number[];
  half?: number;
  gates?: Gate[];
}
export interface Action {
  text: string;
  detail?: string;
  again?: string;
  cord?: string;
  because?: string;
  colour?: string;
  beside?: CordBeside[];
  from?: string;
  over?: string[];
  under?: string[];
  gate?: string;
  led?: boolean;
  table?: "cut" | "prepare" | "fuse" | "fold";
}
export interface CordBeside {
  cord: string;
  colour: string;
}
export interface Gate {
  at?: number;
  every?: number;
  says: string;
}
export interface Caution {
  id: string;
  title: string;
  says: string;
  at: string[];
  section: number;
}
export interface Ended {
  leg: string;
  section: number;
  form: string;
  asked_mm?: number;
  under?: number;
  leaves_mm: number;
  cut_mm: number;
  melts_mm?: number;
  trims_mm: number;
  hides_mm?: number;
}
export interface Prepared {
  section: number;
  legs: string[];
  way: Preparation;
  spare_mm?: number;
}
export interface Preparation {
  id: string;
  name: string;
  how: string;
  flame?: boolean;
  tools: string[];
  early?: boolean;
  off_mm: number;
}
export interface Joint {
  cord: string;
  to: string;
  mm: number;
  section: number;
  hidden: boolean;
  hides: Hide[];
}
export interface Hide {
  mm: number;
  section: number;
}
export interface FistAnswer {
  asked: FistRequest;
  drawn_up_mm: number;
  ball?: FistBall;
  refusal?: FistRefusal;
  cores: number[];
  chart: Column[];
  drawer: JudgedCore[];
  suits: number;
  of_size: FistBall[];
  size_why?: string;
  from_cord?: FistBall;
  from_why?: string;
  kinds: Named[];
  choking_mm: number;
  spare_mm: number;
  piece: Document;
}
export interface FistBall {
  passes: number;
  core: Core;
  core_name: string;
  stopper?: string;
  cord_mm: number;
  cords_mm: number[];
  bands_mm: number[];
  loop_mm: number;
  outer_face_mm: number;
  outer_corner_mm: number;
  bare_mm: number;
  weight_g: number;
  strands: number;
  fit: number;
  range: Range;
  faces: Face[];
  warnings: FistWarning[];
}
export interface Range {
  core_min_mm: number;
  core_max_mm: number;
  core_best_mm: number;
}
export interface Face {
  band: number;
  other: number;
  cords: number[];
  flaw?: string;
}
export interface FistWarning {
  code: string;
  message: string;
  passes?: number;
  core_mm?: number;
  kind?: string;
}
export interface FistRefusal {
  field: string;
  why: string;
  passes?: number;
  core_mm?: number;
}
export interface Column {
  passes: number;
  range: Range;
  cord_mm: number;
  outer_face_mm: number;
  cells: Cell[];
}
export interface Cell {
  core_mm: number;
  fit: number;
  cord_mm: number;
  outer_face_mm: number;
}
export interface JudgedCore {
  id: number;
  name: string;
  core: Core;
  suits: boolean;
  passes?: number;
  off_mm: number;
  why: string;
  short: string;
}
export interface Named {
  id: string;
  name: string;
}
export interface DrawerCore {
  id: number;
  name: string;
  core: Core;
}
export interface Thing {
  id: number;
  name: string;
  bead?: Bead;
  hardware?: Hardware;
  left?: number;
  price?: number;
}
