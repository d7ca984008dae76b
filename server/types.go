package server

import (
	"cmp"
	"time"

	"nimblebight/core/card"
	"nimblebight/core/caution"
	"nimblebight/core/colouring"
	"nimblebight/core/cord"
	"nimblebight/core/evidence"
	"nimblebight/core/finish"
	"nimblebight/core/gauge"
	"nimblebight/core/inspect"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/pace"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/reach"
	"nimblebight/core/shapes"
	"nimblebight/core/trainer"
	"nimblebight/device"
	"nimblebight/formats/svg"
	"nimblebight/store"
)

// The types of the wire. The web's TypeScript is generated from them
// (go generate ./server).

// Tag is a piece as it hangs on the rack.
type Tag struct {
	ID       int64  `json:"id"`
	Revision int64  `json:"revision"`
	Name     string `json:"name"`
	Kind     string `json:"kind"`
	Stage    string `json:"stage" jsonschema:"enum=planned,enum=being cut,enum=on the vise,enum=tied,enum=logged"`
	// Done are the actions done at the vise; below 0 it is so many moves on the table before
	// the first of them.
	Done      int       `json:"done"`
	Actions   int       `json:"actions"` // of all
	LengthMM  float64   `json:"length_mm"`
	Warnings  int       `json:"warnings"`
	Trouble   string    `json:"trouble,omitempty"` // why it cannot be planned
	UpdatedAt time.Time `json:"updated_at"`
	// Pending is set while its figures are still being worked out.
	Pending bool `json:"pending,omitempty"`
	// Picture is what its picture is kept by; Words is what it is found by
	// beside its name: cords, knots and notes.
	Picture string `json:"picture"`
	Words   string `json:"words"`
}

// Bench is a piece open on the bench.
type Bench struct {
	ID int64 `json:"id"`
	// Folder is the identity of the data folder that it is in.
	Folder   string `json:"folder"`
	Revision int64  `json:"revision"`
	CanUndo  bool   `json:"can_undo"`
	CanRedo  bool   `json:"can_redo"`
	Binned   bool   `json:"binned"`
	Done     int    `json:"done"`
	// Notation is its sequence as one typed line.
	Notation string `json:"notation"`
	// Document is not there where it cannot be read; Trouble says why.
	Document *piece.Document `json:"document,omitempty"`
	Trouble  string          `json:"trouble,omitempty"`
}

// StepRequest undoes, redoes or goes back to an old revision from the one that
// the page shows.
type StepRequest struct {
	Revision int64 `json:"revision"`
}

// NameRequest names a revision; "" takes its name away.
type NameRequest struct {
	Name string `json:"name"`
}

// Revision is one of a piece's history.
type Revision struct {
	ID        int64     `json:"id"`
	CreatedAt time.Time `json:"created_at"`
	Name      string    `json:"name"`
	Aside     bool      `json:"aside"` // beside the history: it lost in a conflict
	Current   bool      `json:"current"`
	LengthMM  float64   `json:"length_mm"`
	Actions   int       `json:"actions"`
}

// Folder is the data folder. CopiedAlone is set where its database file came
// without the rest, Door where a passcode is asked for.
type Folder struct {
	Identity    string `json:"identity"`
	CopiedAlone bool   `json:"copied_alone"`
	Door        bool   `json:"door"`
}

// SaveRequest saves a document made from a revision.
type SaveRequest struct {
	Revision int64          `json:"revision"`
	Document piece.Document `json:"document"`
}

// NotationRequest saves a sequence typed as one line.
type NotationRequest struct {
	Revision int64  `json:"revision"`
	Line     string `json:"line"`
}

// CreateRequest makes a piece from a pattern or a document.
type CreateRequest struct {
	Pattern  string          `json:"pattern,omitempty"`
	Name     string          `json:"name,omitempty"`
	Document *piece.Document `json:"document,omitempty"`
}

// PlaceRequest is a step at the vise, from the place that the window knew to the
// one that it has come to, in the actions of a revision.
type PlaceRequest struct {
	From     int    `json:"from"`
	Done     int    `json:"done"`
	Revision int64  `json:"revision"`
	Device   string `json:"device"`
	// Steps are those that led there, with the time that each took.
	Steps []pace.Taken `json:"steps,omitempty"`
}

// PlaceAnswer is the place that holds. Elsewhere is set where another device has
// been at work since; the further place of the two holds.
type PlaceAnswer struct {
	Done      int    `json:"done"`
	Revision  int64  `json:"revision"`
	Device    string `json:"device"`
	Elsewhere bool   `json:"elsewhere"`
	// Times are not there for a step that says nothing of its time.
	Times *Times `json:"times,omitempty"`
}

// Problem is an error as problem details.
type Problem struct {
	Type   string          `json:"type"`
	Title  string          `json:"title"`
	Status int             `json:"status"`
	Code   string          `json:"code,omitempty"` // full, locked, conflict and the like
	Detail string          `json:"detail"`
	Errors []piece.Problem `json:"errors,omitempty"`
	// Current and Yours are the two versions of a conflict.
	Current *Bench          `json:"current,omitempty"`
	Yours   *piece.Document `json:"yours,omitempty"`
}

// Entry is one line of a piece's log.
type Entry struct {
	ID        int64     `json:"id"`
	CreatedAt time.Time `json:"created_at"`
	// What was not measured is not there.
	Minutes  *float64       `json:"minutes,omitempty"`
	LengthMM *float64       `json:"length_mm,omitempty"`
	WidthMM  *float64       `json:"width_mm,omitempty"`
	Note     string         `json:"note"`
	Cords    []evidence.Cut `json:"cords"`
	// Tied is how many knots each section got, where that is not as planned.
	Tied []*int `json:"tied,omitempty"`
	// Counts tells whether it counts in what is known of the maker: no or yes; a new one
	// may say no, or sure where it surprises.
	Counts string `json:"counts,omitempty" jsonschema:"enum=no,enum=yes,enum=sure"`
	Spoilt string `json:"spoilt,omitempty"` // what of it cannot be read
}

// Kept is a swatch that is kept.
type Kept struct {
	ID   int64  `json:"id"`
	Kind string `json:"kind"` // of its cord
	evidence.Swatch
}

// Settings are kept for the installation.
type Settings struct {
	Units string `json:"units" jsonschema:"enum=mm,enum=inch"`
	Hand  string `json:"hand" jsonschema:"enum=right,enum=left"`
	Theme string `json:"theme" jsonschema:"enum=auto,enum=day,enum=night"`
	// OneIn is how seldom a piece may run short, Hold what ends are held with.
	OneIn gauge.Risk `json:"one_in" jsonschema:"enum=10,enum=20,enum=40,enum=200"`
	Hold  piece.Tool `json:"hold" jsonschema:"enum=fingers,enum=needle,enum=haemostat"`
	// RestMin is after how many minutes at the vise hands are told to rest; 0 for never.
	RestMin int `json:"rest_min" jsonschema:"enum=0,enum=15,enum=20,enum=30,enum=45"`
	// SingleKeys is whether a letter, a digit or a sign by itself is a key of the bench.
	SingleKeys string `json:"single_keys" jsonschema:"enum=on,enum=off"`
	// Devices are where each device is.
	Devices device.Places `json:"devices"`
}

// Catalogue is what can be tied, of what, and how it is finished.
type Catalogue struct {
	Knots     []CatalogueKnot `json:"knots"`
	Finishes  []Finish        `json:"finishes"`
	Makes     []Make          `json:"makes"`
	Materials []Material      `json:"materials"`
	// Sheaths are the patterns of sheaths, Sheath is one of which nothing is said yet.
	Sheaths  []Sheathing        `json:"sheaths"`
	Sheath   cord.Sheath        `json:"sheath"`
	Patterns []patterns.Pattern `json:"patterns"`
	// MostKnots and MostStrands are what a section may count and a place may be.
	MostKnots   int `json:"most_knots"`
	MostStrands int `json:"most_strands"`
	// TurnStep is by how much a piece is turned at once, degrees.
	TurnStep int `json:"turn_step"`
	// Example is a typed line.
	Example string `json:"example"`
	// Kinds are what pieces are made for, Fittings what they can hang on.
	Kinds    []piece.PurposeKind `json:"kinds"`
	Fittings []piece.Fitting     `json:"fittings"`
	// Stuff is a cord where nothing is said of it yet.
	Stuff cord.Stuff `json:"stuff"`
	// Ball is what is asked of a ball where nothing is said yet, BallMethods how one is
	// tied.
	Ball        FistRequest   `json:"ball"`
	BallMethods []ball.Method `json:"ball_methods"`
}

// Sheathing is a pattern of a sheath; most is how many colours it has beside the cord's own.
type Sheathing struct {
	Named
	Most int `json:"most"`
}

// CatalogueKnot is a knot with the section that it starts as.
type CatalogueKnot struct {
	knot.Knot
	Template knot.Section `json:"template"`
	// Takes is on how many strands it can be tied.
	Takes knot.Takes `json:"takes"`
	// Copies is set for a section that may stand twice in a piece, with what is
	// set of it.
	Copies bool `json:"copies"`
	// Groups is set for a section that may stand in a repeat or a row, Nests for one
	// that the page's form of a group can hold: groups in groups are for the typed line.
	Groups bool `json:"groups"`
	Nests  bool `json:"nests"`
	// Swatch is set for one of which a swatch can be tied.
	Swatch bool `json:"swatch"`
}

// Finish is one way to end a cord.
type Finish struct {
	ID          string `json:"id"`
	Name        string `json:"name"`
	For         string `json:"for"`
	Note        string `json:"note"`
	Flame       bool   `json:"flame"`
	WantsLength bool   `json:"wants_length"`
	// Length is what that length is called.
	Length     string `json:"length"`
	WantsBead  bool   `json:"wants_bead"`
	WantsUnder bool   `json:"wants_under"`
	// Together is how many ends are made one, 0 for each by itself, -1 for all.
	Together int `json:"together"`
	// Neighbours is set where those hang side by side.
	Neighbours bool `json:"neighbours"`
	// Tools lie ready, Wait is how long it is left alone, Look what to look at, Undo what
	// it takes to take it back.
	Tools []string `json:"tools"`
	Wait  string   `json:"wait"`
	Look  string   `json:"look"`
	Undo  string   `json:"undo"`
	// Care are the titles of the cautions that it calls for.
	Care []string `json:"care"`
}

// Named is an id with the name it is said by.
type Named struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Make is a make and the material that it is usually of.
type Make struct {
	Named
	// Flat is set for one that has a thickness beside its width.
	Flat  bool          `json:"flat"`
	Usual cord.Material `json:"usual" jsonschema:"enum=nylon,enum=polyester,enum=cotton,enum=polypropylene,enum=leather,enum=jute,enum=sisal,enum=hemp,enum=rubber"`
}

// Material is a material and whether its ends may be melted.
type Material struct {
	ID    string `json:"id"`
	Melts bool   `json:"melts"`
}

// Wire gathers all types that cross the wire, for the generator.
type Wire struct {
	Tag             Tag
	Bench           Bench
	SaveRequest     SaveRequest
	NotationRequest NotationRequest
	CreateRequest   CreateRequest
	IntoRequest     IntoRequest
	ToWanted        []reach.Grown
	StartRequest    StartRequest
	StartOffer      StartOffer
	PlaceRequest    PlaceRequest
	PlaceAnswer     PlaceAnswer
	Paces           []pace.Pace
	DeviceEvent     device.Event
	Slips           []SlipAt
	SetRequest      SetRequest
	Sent            Sent
	StepRequest     StepRequest
	NameRequest     NameRequest
	Revision        Revision
	Folder          Folder
	Report          store.Report
	State           shapes.State
	Problem         Problem
	Entry           Entry
	Spool           Spool
	Kept            Kept
	Swatch          evidence.Swatch
	Planned         evidence.Planned
	Card            card.Card
	Hand            reach.Hand
	Reached         reach.Reached
	SwapRequest     SwapRequest
	Swapped         reach.Swapped
	MiddleRequest   MiddleRequest
	Rest            reach.Rest
	ReplanRequest   ReplanRequest
	Settings        Settings
	Catalogue       Catalogue
	Offer           knot.Offer
	FinishRequest   FinishRequest
	ColourRequest   ColouringsRequest
	Colourings      Colourings
	Along           colouring.Along
	Phone           Phone
	Trained         []Trained
	Leading         Leading
	JudgeCrossing   JudgeCrossing
	CrossingAnswer  trainer.Answer
	LedRequest      LedRequest
	Palette         Palette
	Suggested       []Suggested
	Inspect         Inspect
	JudgeRequest    JudgeRequest
	Verdicts        []inspect.Verdict
	ThroughRequest  ThroughRequest
	ThroughAnswer   ThroughAnswer
	ChangedRequest  ChangedRequest
	Changes         []plan.Change
	Cautions        []caution.ID
	Ends            []plan.End
	Plan            plan.Plan
	Picture         svg.Picture
	FistRequest     FistRequest
	FistAnswer      FistAnswer
	DrawerCore      DrawerCore
	Thing           Thing
}

func catalogue() Catalogue {
	out := Catalogue{Patterns: patterns.All(), Example: notation.Notate(patterns.All()[0].Document.Sequence), MostKnots: piece.MostKnots, MostStrands: piece.MostStrands, TurnStep: turnStep,
		Kinds: piece.Kinds(), Fittings: piece.Fittings(), Stuff: piece.UsualStuff(), Ball: firstFist(), BallMethods: ball.Methods()}
	swatches := map[string]bool{}
	for _, k := range evidence.Swatchable() {
		swatches[k.ID] = true
	}
	for _, k := range knot.All() {
		s, err := knot.New(k.ID)
		if err != nil {
			panic(err) // the catalogue knows its own
		}
		t := knot.TermsOf(s)
		out.Knots = append(out.Knots, CatalogueKnot{k, s, t.Takes, t.CordsAt == "" && t.Begins != knot.OfTheLast, !k.Outside, !k.Outside && k.Holds == knot.Nothing, swatches[k.ID]})
	}
	for _, w := range finish.All() {
		out.Finishes = append(out.Finishes, Finish{ID: w.ID, Name: w.Name, For: w.For, Note: w.Note, Flame: w.Flame, WantsLength: w.WantsLength, Length: cmp.Or(w.Length, "Hangs"),
			WantsBead: w.WantsBead, WantsUnder: w.WantsUnder, Together: w.Together, Neighbours: w.Neighbours, Tools: w.Tools, Wait: w.Wait, Look: w.Look, Undo: w.Undo, Care: care(w)})
	}
	for _, m := range cord.Makes() {
		out.Makes = append(out.Makes, Make{Named{string(m), m.Name()}, m.Flat(), m.Usual()})
	}
	for _, p := range cord.Patterns() {
		out.Sheaths = append(out.Sheaths, Sheathing{Named{string(p), p.Name()}, p.Most()})
	}
	out.Sheath = piece.UsualSheath()
	for _, m := range cord.Materials() {
		out.Materials = append(out.Materials, Material{string(m), m.Melts()})
	}
	return out
}

// care are the titles of the cautions that a finish calls for by itself.
func care(f finish.Finish) []string {
	out := []string{}
	for _, c := range caution.Of(f.Calls()) {
		out = append(out, c.Title)
	}
	return out
}
