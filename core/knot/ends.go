package knot

import (
	"fmt"
	"math"

	"nimblebight/core/finish"
)

// Finishing the ends, a section of the sequence: the strands that it takes end
// here. How is one of the ways of package finish.
func init() {
	var hows []string
	for _, w := range finish.Ways() {
		hows = append(hows, w.ID)
	}
	add(Knot{
		Outside: true, ID: "finish", Name: "finish", Family: "ends",
		OtherNames: []string{"end", "seal"},
		For:        "ending strands: one decision per end",
		Schools: []School{{Field: "how", Default: "singe-and-press",
			Why: "pressed flat against the knot it cannot pull back through; dome it where it is seen, and never melt what burns"}},
		Fields: []Field{
			{Key: "how", Short: "", Label: "how", Kind: "choice", Choices: hows, Default: "singe-and-press"},
			{Key: "ends", Short: "ends", Label: "ends", Kind: "places"},
			{Key: "length_mm", Short: "length", Label: "hangs", Kind: "length", Most: 1000},
		},
		fill:  func(s *Section) { s.How = "singe-and-press" },
		hangs: true,
		tie:   tieEnds,
	})
}

func tieEnds(w Work) (Tied, error) {
	way, ok := finish.Get(w.Section.How)
	if !ok {
		return Tied{}, fmt.Errorf("there is no finish %q", w.Section.How)
	}
	if way.Together > 0 {
		return tieFused(w, way)
	}
	t := Tied{Ends: true, Trim: way.Trim(), Repeats: 1, Gap: 1, Order: identity(len(w.Leads))}
	for _, l := range w.Leads {
		leave := way.Leave(l.Stuff, w.Section.LengthMM)
		t.Height = max(t.Height, leave)
		t.Paths = append(t.Paths, Path{Points: []Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: leave, Z: l.At.Z}}})
	}
	t.Actions = endActions(way)
	return t, nil
}

// tieFused bows two ends out to a loop and joins them at its far end, where it
// hangs on something.
func tieFused(w Work, way finish.Way) (Tied, error) {
	if n := len(w.Leads); n != way.Together {
		return Tied{}, &Refused{Field: "how", Why: fmt.Sprintf("fused of %d ends; a fuse joins %d", n, way.Together), Set: "singe-and-press", Label: "Singe and press them"}
	}
	long := way.Leave(w.Leads[0].Stuff, w.Section.LengthMM)
	d := w.Leads[0].Diameter
	wide := math.Min(0.34*long, 14*d)
	t := Tied{Ends: true, Trim: way.Trim(), Repeats: 1, Gap: 1, Order: identity(2), Height: long, Eye: long - d - w.BarMM/2}
	for i, l := range w.Leads {
		side := float64(2*i - 1)
		from := l.At.X
		var pts []Vec
		const steps = 24
		for k := 0; k <= steps; k++ {
			// A drop: straight out of the work, round at the far end.
			u := float64(k) / steps
			a := math.Pi * u
			out := side * wide * math.Sin(a) * math.Pow(u, 0.8)
			pts = append(pts, Vec{X: from*(1-u)*(1-u) + out, Y: long * (1 - math.Cos(a)) / 2 * (1 - d/2/long), Z: l.At.Z * (1 - u)})
		}
		t.Paths = append(t.Paths, Path{Points: pts})
	}
	t.Actions = endActions(way)
	return t, nil
}

func endActions(way finish.Way) []Action {
	var out []Action
	for i, s := range way.Steps {
		a := Action{Moves: -1, Text: s}
		if i == 0 {
			a.Detail = way.Note
			if way.Flame {
				a.Gate = "Flame and molten nylon burn and stick: heatproof surface, air, hair and sleeves away, water at hand."
			}
		}
		out = append(out, a)
	}
	return out
}
