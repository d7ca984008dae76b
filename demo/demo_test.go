package demo_test

import (
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/demo"
	"nimblebight/store"
)

// Every piece of the boathouse can be planned, says in its line what it is, and
// every knot that can be written is somewhere to be seen: on the rack or among
// the patterns.
func TestTheBoathouse(t *testing.T) {
	names, done := map[string]bool{}, map[string]bool{}
	var mark func(s knot.Section)
	mark = func(s knot.Section) {
		done[s.Do] = true
		for _, in := range s.Sequence {
			mark(in)
		}
		for _, row := range s.Rows {
			for _, in := range row.Sequence {
				mark(in)
			}
		}
	}
	for _, d := range demo.Pieces() {
		if names[d.Name] || d.Name == "" {
			t.Errorf("two pieces are called %q", d.Name)
		}
		names[d.Name] = true
		if ps := d.Check(); len(ps) > 0 {
			t.Errorf("%s: %v", d.Name, ps)
		}
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Errorf("%s: %v", d.Name, err)
			continue
		}
		if p.LengthMM <= 0 || len(p.Steps) == 0 || p.WeightG <= 0 {
			t.Errorf("%s: %.1f mm, %d steps, %.1f g", d.Name, p.LengthMM, len(p.Steps), p.WeightG)
		}
		// What is meant to be warned of says so in its note.
		if len(p.Warnings) > 0 != strings.Contains(d.Purpose.Note, "warning") {
			t.Errorf("%s is warned of: %+v; its note: %q", d.Name, p.Warnings, d.Purpose.Note)
		}
		for _, s := range d.Sequence {
			mark(s)
		}
		again, err := notation.Parse(p.Notation)
		if err != nil || len(again) != len(d.Sequence) {
			t.Errorf("%s: its line %q gives %d sections of %d: %v", d.Name, p.Notation, len(again), len(d.Sequence), err)
		}
	}
	for _, p := range patterns.All() {
		for _, s := range p.Document.Sequence {
			mark(s)
		}
	}
	for _, k := range knot.All() {
		if !done[k.ID] {
			t.Errorf("%s is shown by no piece and no pattern", k.ID)
		}
	}
}

func filled(t *testing.T) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), t.TempDir())
	if err == nil {
		err = demo.Fill(t.Context(), s)
	}
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	return s
}

// What lies in the drawer can be used: cords are known, some cores fit a ball of
// its first cord and some do not, and nothing lies on both shelves.
func TestTheDrawer(t *testing.T) {
	s := filled(t)
	cords, err := s.Drawer(t.Context(), store.Cords)
	if err != nil {
		t.Fatal(err)
	}
	var own ball.Cord
	for i, c := range cords {
		var p piece.Cord
		if err := json.Unmarshal(c.What, &p.Stuff); err != nil {
			t.Fatal(err)
		}
		if f, why := p.Stuff.Check(); f != "" {
			t.Errorf("%s: %s %s", c.Name, f, why)
		}
		if i == 0 {
			own = ball.Of(p.Stuff, p.Stuff.Figures())
		}
	}
	cores, err := s.Drawer(t.Context(), store.Cores)
	if err != nil || len(cores) == 0 {
		t.Fatalf("%d cores: %v", len(cores), err)
	}
	fits := 0
	for _, c := range cores {
		var core ball.Core
		if err := errors.Join(json.Unmarshal(c.What, &core), core.CheckKept()); err != nil {
			t.Errorf("%s: %v", c.Name, err)
		}
		for p := ball.LeastPasses; p <= ball.MostPasses; p++ {
			r, err := ball.Cores(ball.Ask{Cord: own, Passes: p, Mode: ball.OneCord})
			if err != nil {
				t.Fatal(err)
			}
			if r.Holds(core.DiameterMM) {
				fits++
				break
			}
		}
		if slices.ContainsFunc(cords, func(s store.Stuff) bool { return s.ID == c.ID }) {
			t.Errorf("%s lies on both shelves", c.Name)
		}
	}
	if fits == 0 || fits == len(cores) {
		t.Errorf("%d of %d cores fit a ball of the first cord", fits, len(cores))
	}
}
