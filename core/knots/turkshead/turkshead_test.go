package turkshead_test

import (
	"fmt"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/cover"
	"nimblebight/core/knots/turkshead"
	"nimblebight/core/piece"
)

// over is a Turk's head of so many cords of 4 mm round so many strands of it.
func over(strands, cords int, set turkshead.Settings) knot.Work {
	w := knot.Work{}
	stuff := piece.Kernmantle(4, piece.Lagoon)
	f := stuff.Figures()
	strand := func(x float64) knot.Strand {
		s := knot.Strand{Stuff: stuff, Figures: f, Diameter: f.DrawnUpMM}
		s.At.X, s.Dir.Y = x, 1
		return s
	}
	for i := range strands {
		w.Strands = append(w.Strands, strand(4*float64(i)))
	}
	for i := range cords {
		w.Own = append(w.Own, strand(0))
		set.Cords = append(set.Cords, fmt.Sprint(i))
	}
	w.Section = knot.Section{Do: "turks-head", Settings: set}
	return w
}

// The moves say every crossing of the cover, each once: as many passings as its cords
// cross one another and themselves.
func TestEveryCrossingIsSaidOnce(t *testing.T) {
	for _, c := range []struct {
		strands, cords int
		set            turkshead.Settings
	}{
		{4, 1, turkshead.Settings{Leads: 3, Bights: 5, Passes: 2}}, {4, 1, turkshead.Settings{Leads: 3, Bights: 4, Passes: 1}},
		{2, 1, turkshead.Settings{Leads: 5, Bights: 4, Passes: 2}}, {4, 2, turkshead.Settings{Leads: 4, Bights: 6, Passes: 1}},
		{2, 0, turkshead.Settings{Leads: 7, Bights: 2, Passes: 2, Over: turkshead.Straw}}, {0, 1, turkshead.Settings{Leads: 4, Bights: 7, Passes: 2, Over: turkshead.Mandrel}},
	} {
		x, err := knot.Tie(over(c.strands, c.cords, c.set))
		if err != nil {
			t.Errorf("%+v: %v", c.set, err)
			continue
		}
		var lines []curve.Curve
		for _, p := range x.OwnFlat {
			lines = append(lines, curve.Curve{Points: p.Points})
		}
		if c.cords == 0 { // the strand that covers the other
			lines = []curve.Curve{{Points: x.Flat[1].Points}}
		}
		found, err := curve.Crossings(lines)
		if err != nil {
			t.Fatal(err)
		}
		said := 0
		for _, m := range x.Moves {
			said += len(m.Passes)
		}
		// Where rounds are changed the band is one strand narrower.
		lost := 3 * c.set.Passes
		if c.set.Passes == 1 {
			lost = 0
		}
		if said != len(found) || said < c.set.Passes*c.set.Passes*c.set.Bights*(c.set.Leads-1)-lost {
			t.Errorf("%+v: %d passings are said of %d crossings", c.set, said, len(found))
		}
	}
}

// A form offers as many leads and bights as are drawn up.
func TestTheFormOffersWhatIsDrawn(t *testing.T) {
	k, _ := knot.Get("turks-head")
	for key, most := range map[string]int{"leads": cover.MostLeads, "bights": cover.MostBights} {
		if f, _ := k.Field(key); f.Most != most {
			t.Errorf("up to %d %s are offered, %d are drawn up", f.Most, key, most)
		}
	}
}

// What is refused before it is laid takes no room, with nothing hanging there.
func TestWhatIsRefusedTakesNoRoom(t *testing.T) {
	k, _ := knot.Get("turks-head")
	w := over(0, 1, turkshead.Settings{Leads: 3, Bights: 4, Over: turkshead.Mandrel, OverMM: 290})
	if _, err := knot.Tie(w); err == nil || k.Wraps(w) != 0 {
		t.Errorf("refused with %v it takes %.1f mm", err, k.Wraps(w))
	}
}

// A large one, new each time, from its first figure to its moves.
func BenchmarkTurksHead(b *testing.B) {
	for i := range b.N {
		w := over(0, 1, turkshead.Settings{Leads: 7, Bights: 12, Passes: 3, Over: turkshead.Mandrel, OverMM: 77 + 0.1*float64(i)})
		if _, err := knot.Tie(w); err != nil {
			b.Fatal(err)
		}
	}
}
