// Package ends finishes the ends of strands.
package ends

import (
	"fmt"
	"math"

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
	LengthMM float64   `json:"length_mm,omitempty" typed:"length" label:"hangs" most:"1000"`
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
		Finish:   func(how string) knot.Section { return knot.Section{Do: "finish", Settings: Settings{How: How(how)}} },
		Sample:   knot.Sample{Line: "mount A B, square-knot 2, finish singe-and-press", Cords: 2, Section: 2},
	})
}

// Fuses tells whether a section joins ends to one.
func Fuses(s knot.Section) bool {
	f, _ := finish.Get(string(knot.Of[Settings](s).How))
	return f.Together > 0
}

func tieEnds(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	f, ok := finish.Get(string(set.How))
	if !ok {
		return knot.Tied{}, fmt.Errorf("there is no finish %q", set.How)
	}
	if f.Together > 0 {
		return tieFused(w, f)
	}
	t := knot.Tied{Ends: true, Form: f.Form, Flame: f.Flame, Trim: f.Trim(), Repeats: 1, Gap: 1, Order: knot.Identity(len(w.Strands))}
	for _, l := range w.Strands {
		leave := f.Leave(l.Stuff, knot.Of[Settings](w.Section).LengthMM)
		t.Height = max(t.Height, leave)
		t.Paths = append(t.Paths, knot.Path{Points: []r3.Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: leave, Z: l.At.Z}}})
	}
	t.Moves = Moves(f)
	if f.Glue {
		t.Cautions = append(t.Cautions, finish.GlueCaution)
	}
	t.Warnings = Burns(f, w.Strands)
	return t, nil
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

// tieFused bows two ends out to a loop and joins them at its far end, where it
// hangs on something.
func tieFused(w knot.Work, f finish.Finish) (knot.Tied, error) {
	if n := len(w.Strands); n != f.Together {
		return knot.Tied{}, &knot.Refused{Field: "how", Why: fmt.Sprintf("fused of %d ends; a fuse joins %d", n, f.Together), Set: "singe-and-press", Label: "Singe and press them"}
	}
	long := f.Leave(w.Strands[0].Stuff, knot.Of[Settings](w.Section).LengthMM)
	d := w.Strands[0].Diameter
	wide := math.Min(0.34*long, 14*d)
	t := knot.Tied{Ends: true, Form: f.Form, Flame: f.Flame, Trim: f.Trim(), Repeats: 1, Gap: 1, Order: knot.Identity(2), Height: long, Eye: long - d - w.BarMM/2}
	for i, l := range w.Strands {
		side := float64(2*i - 1)
		from := l.At.X
		var pts []r3.Vec
		const steps = 24
		for k := 0; k <= steps; k++ {
			// A drop: straight out of the work, round at the far end.
			u := float64(k) / steps
			a := math.Pi * u
			out := side * wide * math.Sin(a) * math.Pow(u, 0.8)
			pts = append(pts, r3.Vec{X: from*(1-u)*(1-u) + out, Y: long * (1 - math.Cos(a)) / 2 * (1 - d/2/long), Z: l.At.Z * (1 - u)})
		}
		t.Paths = append(t.Paths, knot.Path{Points: pts})
	}
	t.Moves = Moves(f)
	return t, nil
}

// Moves are those of a finish.
func Moves(f finish.Finish) []move.Move {
	var out []move.Move
	for i, s := range f.Steps {
		a := move.Move{Strand: -1, Text: s}
		if i == 0 {
			a.Detail = f.Note
			if f.Flame {
				a.Gate = "Flame and molten nylon burn and stick: heatproof surface, air, hair and sleeves away, water at hand."
			}
		}
		out = append(out, a)
	}
	return out
}
