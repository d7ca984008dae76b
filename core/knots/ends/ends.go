// Package ends finishes the ends of strands.
package ends

import (
	"fmt"
	"strconv"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// How is how an end is finished, of package finish.
type How string

// Choices are the finishes.
func (How) Choices() []string {
	var out []string
	for _, w := range finish.All() {
		out = append(out, w.ID)
	}
	return out
}

// Settings of a finish.
type Settings struct {
	How      How       `json:"how,omitempty" typed:"-" label:"how" default:"singe-and-press"`
	Ends     knot.Ends `json:"ends,omitempty" typed:"ends" label:"ends"`
	LengthMM float64   `json:"length_mm,omitempty" typed:"length" label:"length below the last knot" most:"1000"`
	// Under is under how many crossings ends are buried.
	Under int        `json:"under,omitempty" typed:"under" label:"buried under crossings" default:"3" least:"1" most:"12" for:"how=bury"`
	Bead  *knot.Bead `json:"bead,omitempty" for:"how=bead-and-melt,bead-and-glue"`
}

// Finishing the ends, a section of the sequence: the strands that it takes end
// here. How is one of package finish.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "finish", Name: "finish", Family: "ends",
		OtherNames: []string{"end", "seal"},
		For:        "ending strands: one decision per end",
		Schools: []knot.School{{Field: "how", Default: "singe-and-press",
			Why: "pressed flat against the knot it cannot pull back through; dome it where it is seen, and never melt what burns"}},
		Short:    []string{"end"},
		Glyph:    "M12 2v12M12 14l-5 8M12 14v8M12 14l5 8M8 14h8",
		Ends:     true,
		Settings: Settings{},
		Hangs:    true,
		Tie:      tieEnds,
		Hold:     holdEnds,
		Finish:   func(how string) knot.Section { return knot.Section{Do: "finish", Settings: Settings{How: How(how)}} },
		Sample:   knot.Sample{Line: "mount A B, square-knot 2, finish singe-and-press", Cords: 2, Section: 2},
	})
}

// Fuses tells whether a section joins ends to one.
func Fuses(s knot.Section) bool {
	f, _ := finish.Get(string(knot.Of[Settings](s).How))
	return f.Together > 0
}

// Ending is a finished end of a stuff that hangs so far beyond its knot, 0 for as far as
// the finish says.
func Ending(f finish.Finish, s cord.Stuff, wanted float64) knot.Ending {
	leave, melts := f.Leave(s, wanted), f.Melts(s)
	return knot.Ending{Form: string(f.Form), AskedMM: leave, LeavesMM: leave, CutMM: leave + melts, MeltsMM: melts, TrimsMM: f.Trim(s) - melts}
}

func tieEnds(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	f, ok := finish.Get(string(set.How))
	if !ok {
		return knot.Tied{}, fmt.Errorf("there is no finish %q", set.How)
	}
	t := knot.Tied{Ends: true, Repeats: 1, Gap: 1, Order: knot.Identity(len(w.Strands))}
	for _, l := range w.Strands {
		t.Endings = append(t.Endings, Ending(f, l.Stuff, set.LengthMM))
	}
	if err := together(w, f); err != nil {
		return knot.Tied{}, err
	}
	tie, ok := ways[f.Form]
	if !ok {
		tie = straight
	}
	if err := tie(w, set, f, &t); err != nil {
		return knot.Tied{}, err
	}
	if t.Moves == nil {
		t.Moves = Moves(f, t.Endings, 0)
	}
	t.Cautions = f.Calls()
	t.Warnings = Burns(f, w.Strands)
	return t, nil
}

// ways are how ends of a form are led; what is not here hangs straight.
var ways = map[finish.Form]func(w knot.Work, set Settings, f finish.Finish, t *knot.Tied) error{
	finish.Fused: fused, finish.Melted: melted, finish.Bound: bound, finish.Beaded: beaded,
	finish.Looped: looped, finish.Buried: buried,
}

func straight(w knot.Work, _ Settings, _ finish.Finish, t *knot.Tied) error {
	for i, l := range w.Strands {
		leave := t.Endings[i].LeavesMM
		t.Height = max(t.Height, leave)
		t.Paths = append(t.Paths, knot.Path{Points: []r3.Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: leave, Z: l.At.Z}}})
	}
	return nil
}

// Burns warns where a finish is chosen, by the field how, that does not suit a strand:
// a flame for one that burns instead of melting, or what its make does not take.
func Burns(f finish.Finish, strands []knot.Strand) []knot.Flaw {
	for i, l := range strands {
		good, why := f.Fits(l.Stuff)
		if good > 0 {
			continue
		}
		instead, _ := finish.Get(finish.Instead(l.Stuff))
		flaw := knot.Flaw{Code: "finish-unsuited", Strand: i,
			Says:  fmt.Sprintf("Cord {cord} cannot be finished by %s: %s.", f.Name, why),
			Field: "how", Set: instead.ID, Label: "Use " + instead.Name + " instead"}
		if f.Flame && !l.Stuff.Material.Melts() {
			flaw.Code = "flame-on-natural-fibre"
			flaw.Says = fmt.Sprintf("Cord {cord} is %s: it burns, it does not melt, so it cannot be finished by %s.", l.Stuff.Material, f.Name)
		}
		return []knot.Flaw{flaw}
	}
	return nil
}

// Moves are those of a finish of such ends, which are led under so many crossings where
// it buries them.
func Moves(f finish.Finish, endings []knot.Ending, under int) []move.Move {
	var out []move.Move
	for i, s := range f.Steps {
		a := move.Move{Strand: -1, Text: s}
		a.Text = measures(a.Text, "{cut}", endings, func(e knot.Ending) float64 { return e.CutMM }, &a.Naming)
		a.Text = measures(a.Text, "{leave}", endings, func(e knot.Ending) float64 { return e.LeavesMM }, &a.Naming)
		a.Text = measures(a.Text, "{hide}", endings, func(e knot.Ending) float64 { return e.HidesMM }, &a.Naming)
		a.Text = strings.ReplaceAll(a.Text, "{under}", strconv.Itoa(under))
		if i == 0 {
			a.Detail = f.Note
		}
		out = append(out, a)
	}
	return out
}

// measures puts a length of the ends into words for a slot: one where it is one for all,
// else that of each with the strands that have it.
func measures(text, slot string, endings []knot.Ending, of func(knot.Ending) float64, naming *[][]int) string {
	if !strings.Contains(text, slot) {
		return text
	}
	var all []string
	with := map[string][]int{}
	for i, e := range endings {
		mm := fmt.Sprintf("{%.1fmm}", of(e))
		if with[mm] == nil {
			all = append(all, mm)
		}
		with[mm] = append(with[mm], i)
	}
	if len(all) > 1 {
		for k, mm := range all {
			all[k] = fmt.Sprintf("%s ({strands %d})", mm, len(*naming))
			*naming = append(*naming, with[mm])
		}
	}
	return strings.ReplaceAll(text, slot, strings.Join(all, " or "))
}
