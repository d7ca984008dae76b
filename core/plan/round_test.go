package plan_test

import (
	"slices"
	"strings"
	"testing"

	"nimblebight/core/caution"
	"nimblebight/core/cord"
	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// around is a piece of a kind that goes round so many mm.
func around(kind, line string, mm float64, ids ...string) piece.Document {
	d := piece.Begin("round", kind, piece.SplitRing(30, 2), 0)
	if strings.Contains(line, "from-knot") {
		d.Purpose.HangsOn = piece.Hardware{Type: "none"}
	}
	d.Purpose.AroundMM = mm
	var cords []piece.Cord
	for _, id := range ids {
		cords = append(cords, piece.Cord{ID: id, Stuff: piece.Kernmantle(4, "#0f5c63")})
	}
	return notation.With(d, line, cords...)
}

// What a piece goes round is held against what its knots leave open; the way out that is
// offered is one.
func TestAPieceGoesRoundWhatItIsFor(t *testing.T) {
	const strap, neck, ring = "mount A B, square-knot 60, fold-back 90mm, finish singe-and-press", "mount A, sliding-pair max=500mm", "mount A hitch=from-knot, turks-head leads=4 bights=9 passes=3 over=mandrel thick=38mm"
	for _, c := range []struct {
		kind, line string
		mm         float64
		code       string
		cords      []string
	}{
		{"wrist-strap", strap, 230, "does-not-go-over", []string{"A", "B"}},
		{"wrist-strap", strap, 170, "", []string{"A", "B"}},
		{"wrist-strap", strap, 125, "", []string{"A", "B"}},
		{"wrist-strap", strings.Replace(strap, "90mm", "110mm", 1), 125, "slips-off", []string{"A", "B"}},
		{"neck-cord", neck, 580, "does-not-go-over", []string{"A"}},
		{"neck-cord", neck, 480, "", []string{"A"}},
		{"napkin-ring", ring, 150, "sits-badly", []string{"A"}},
		{"napkin-ring", ring, 120, "", []string{"A"}},
		{"wrist-strap", "mount A B, square-knot 20, finish singe-and-press", 200, "goes-round-nothing", []string{"A", "B"}},
		{"key-fob", strap, 230, "", []string{"A", "B"}},
	} {
		d := around(c.kind, c.line, c.mm, c.cords...)
		p := make1(t, d, plan.Options{})
		i := slices.IndexFunc(p.Warnings, func(w plan.Warning) bool {
			return slices.Contains([]string{"does-not-go-over", "sits-badly", "slips-off", "goes-round-nothing"}, w.Code)
		})
		switch {
		case c.code == "" && i >= 0, c.code != "" && (i < 0 || p.Warnings[i].Code != c.code):
			t.Errorf("%s round %g: %s, want %q", c.kind, c.mm, codes(p), c.code)
		case i >= 0 && p.Warnings[i].Fix != nil:
			for _, set := range p.Warnings[i].Fix.Set {
				key := set.Path[strings.Index(set.Path, ".")+1:]
				d.Sequence[p.Warnings[i].Section] = d.Sequence[p.Warnings[i].Section].Put(key, set.Value)
			}
			if after := make1(t, d, plan.Options{}); strings.Contains(codes(after), c.code) {
				t.Errorf("%s round %g: after the fix %s", c.kind, c.mm, codes(after))
			}
		}
	}
}

func TestWhatNobodyHasIsRefused(t *testing.T) {
	for kind, mm := range map[string]float64{"wrist-strap": 3000, "neck-cord": 200, "napkin-ring": 900, "handle": 3, "made-up": 1e6} {
		d := around(kind, "mount A B, square-knot 20, finish singe-and-press", mm, "A", "B")
		ps := d.Check()
		if len(ps) != 1 || ps[0].Path != "purpose.around_mm" || !strings.Contains(ps[0].Message, "measures between") {
			t.Errorf("%s round %g mm: %v", kind, mm, ps)
		}
	}
}

// Another purpose keeps the sequence and says what it asks and what means nothing to it;
// another cord says what it takes no more.
func TestAChangeOfMindSaysWhatNoLongerHolds(t *testing.T) {
	d := around("lanyard", "mount A B, square-knot 20, finish singe-and-press", 0, "A", "B")
	d.Purpose.BladeMM = 60
	says := func(change func(d *piece.Document)) string {
		after := d
		after.Cords = slices.Clone(d.Cords)
		change(&after)
		all, err := plan.Changed(d, after, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		var out []string
		for _, c := range all {
			out = append(out, c.Says)
			if c.Fix == nil && !strings.Contains(c.Says, "asks for") && !strings.Contains(c.Says, "goes round") {
				t.Errorf("no way out of %q", c.Says)
			}
		}
		return strings.Join(out, " ")
	}
	if got := says(func(d *piece.Document) {}); got != "" {
		t.Errorf("without a change: %s", got)
	}
	strap := says(func(d *piece.Document) { d.Purpose.Kind = "wrist-strap" })
	if !strings.Contains(strap, "round the hand") || !strings.Contains(strap, "means nothing to a wrist strap") {
		t.Errorf("as a wrist strap: %s", strap)
	}
	fuse := d
	fuse.Sequence = notation.With(d, "mount A B, square-knot 20, finish fuse ends=2+3, finish dome", d.Cords...).Sequence
	two := fuse
	two.Cords = slices.Clone(d.Cords)
	two.Cords[1].Stuff.Material = "polyester"
	told, err := plan.Changed(fuse, two, plan.Options{})
	if err != nil || len(told) != 1 || told[0].Where == "" || strings.Contains(told[0].Says, "sequence[") || !strings.Contains(told[0].Says, "two materials") || told[0].Fix == nil {
		t.Errorf("a fuse of two materials: %+v, %v", told, err)
	}
	cotton := says(func(d *piece.Document) { d.Cords[0].Stuff = piece.Cotton(4, "#b4532a") })
	if !strings.Contains(cotton, "it burns, it does not melt") {
		t.Errorf("of cotton: %s", cotton)
	}
}

// Every kind has a name, something it hangs on and the cautions that its use needs; every
// size that it asks for is said how to be measured.
func TestEveryKindAsksForWhatFixesTheRest(t *testing.T) {
	fittings := map[string]bool{}
	for _, f := range piece.Fittings() {
		fittings[f.ID] = true
	}
	for _, k := range piece.Kinds() {
		if k.Name == "" || len(k.Hangs) == 0 || len(k.Asks) > 2 {
			t.Errorf("%+v", k)
		}
		for _, h := range k.Hangs {
			if !fittings[h] {
				t.Errorf("%s hangs on %s", k.ID, h)
			}
		}
		for _, a := range k.Asks {
			if a.Label == "" || a.Hint == "" || a.Drawing == "" || a.Key == piece.AroundKey && (a.What == "" || !(a.LeastMM > 0 && a.MostMM > a.LeastMM)) {
				t.Errorf("%s asks %+v", k.ID, a)
			}
		}
		d := around(k.ID, "mount A B, square-knot 20, finish cut-straight length=9mm", 0, "A", "B")
		p := make1(t, d, plan.Options{})
		has := map[caution.ID]bool{}
		for _, c := range p.Cautions {
			has[c.ID] = true
		}
		if !has[caution.Choking] || !has[caution.Load] || has[caution.Neck] != (k.ID == "neck-cord") || has[caution.Blade] != (k.ID == "lanyard") || has[caution.Flame] {
			t.Errorf("%s calls for %v", k.ID, has)
		}
	}
}

// What each piece calls for is said once, where the act is.
func TestCautionsStandWhereTheActIs(t *testing.T) {
	thin := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 1.2, Colour: "#0f5c63"}
	d := around("key-fob", "mount A B, square-knot 20, finish dome ends=1+2, finish glue", 0, "A", "B")
	d.Cords[1].Stuff = thin
	p := make1(t, d, plan.Options{})
	at := map[caution.ID]int{}
	for _, c := range p.Cautions {
		if _, twice := at[c.ID]; twice || c.Title == "" || c.Says == "" || len(c.At) == 0 {
			t.Errorf("%+v", c)
		}
		at[c.ID] = c.Section
	}
	for id, section := range map[caution.ID]int{caution.Flame: 2, caution.Thin: 2, caution.Glue: 3, caution.Load: -1, caution.Choking: -1} {
		if got, ok := at[id]; !ok || got != section {
			t.Errorf("%s stands at %d, %v; want %d", id, got, ok, section)
		}
	}
	if _, cotton := at[caution.Natural]; cotton {
		t.Error("natural fibre is spoken of, and there is none")
	}
}

// Of every pattern: what its knots, its finishes and its purpose call for is said: a flame
// where one is held to an end, a breakaway where it goes round a neck, the law where its
// core is hard.
func TestEveryPatternSaysItsCautions(t *testing.T) {
	hard := 0
	for _, pat := range patterns.All() {
		p := make1(t, pat.Document, plan.Options{})
		has := map[caution.ID]bool{}
		for _, c := range p.Cautions {
			has[c.ID] = true
		}
		flame := false
		for _, s := range pat.Document.Sequence {
			k, _ := knot.Get(s.Do)
			if f, ok := k.Field("how"); ok {
				v, _ := s.Value(f)
				how, _ := v.(string)
				w, known := finish.Get(how)
				flame = flame || known && w.Flame
			}
			if f, ok := k.Field("core.kind"); ok {
				if v, _ := s.Value(f); v == "marble" || v == "steel" {
					hard++
					if !has[caution.HardCore] {
						t.Errorf("%s: its core is hard and nothing is said of it", pat.ID)
					}
				}
			}
		}
		if has[caution.Flame] != flame || has[caution.Neck] != (pat.Document.Purpose.Kind == "neck-cord") || !has[caution.Load] || !has[caution.Choking] {
			t.Errorf("%s: %v, a flame is held to it: %v", pat.ID, has, flame)
		}
	}
	if hard == 0 {
		t.Error("no pattern has a hard core")
	}
}
