package plan_test

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// In whatever order the ends are finished, the same ends get the same finish and
// the cords the same length.
func TestEndsAreFinishedInAnyOrder(t *testing.T) {
	want := make1(t, on(2, "mount A B, square-knot 4, finish singe-and-press"), plan.Options{})
	for _, order := range [][]int{{1, 2, 3, 4}, {4, 3, 2, 1}, {2, 4, 1, 3}, {3, 1, 4, 2}} {
		hang := []int{1, 2, 3, 4}
		line := "mount A B, square-knot 4"
		for _, end := range order { // an end that hangs is typed by where it hangs
			at := slices.Index(hang, end)
			line += fmt.Sprintf(", finish singe-and-press ends=%d", at+1)
			hang = slices.Delete(hang, at, at+1)
		}
		p := make1(t, on(2, line), plan.Options{})
		if codes(p) != codes(want) {
			t.Errorf("%v: warnings %s, all at once %s", order, codes(p), codes(want))
		}
		for i, c := range p.Cords {
			near(t, fmt.Sprint(line, ": cord ", c.ID), c.NeedsMM, want.Cords[i].NeedsMM, 1e-6)
		}
	}
}

func endsOf(t *testing.T, d piece.Document, o plan.Options) []plan.End {
	t.Helper()
	ends, err := plan.EndsOf(d, o)
	if err != nil {
		t.Fatal(err)
	}
	return ends
}

// Whatever end is finished otherwise, every other end keeps its finish and its name,
// no section is written that need not be, and finished as they are the sequence
// stays as it is. By both hands.
func TestAnEndIsFinishedOtherwiseByItself(t *testing.T) {
	for _, line := range []string{
		"mount A B, square-knot 4, finish singe-and-press",
		"mount A B, square-knot 4, finish dome ends=2, finish cut-straight ends=1+3 length=20mm, finish singe-and-press",
		`mount A B, square-knot 4, finish cut-straight ends=2 note="first", snake-knot 3 strands=1-2, finish dome`,
		"mount A B, square-knot 4, finish melt-two ends=1+2, finish bury under=2",
		"mount A B, square-knot 4",
	} {
		d := on(2, line)
		for _, left := range []bool{false, true} {
			o := plan.Options{LeftHanded: left}
			ends := endsOf(t, d, o)
			if len(ends) != 4 {
				t.Fatalf("%s: %d ends", line, len(ends))
			}
			same, err := plan.Finished(d, o, nil)
			if err != nil || notation.Notate(same) != notation.Notate(d.Sequence) {
				t.Errorf("%s: finished as it is it is %s, %v", line, notation.Notate(same), err)
			}
			for i, e := range ends {
				e.How, e.LengthMM = "fringe", 33
				seq, err := plan.Finished(d, o, []plan.End{e})
				if err != nil {
					t.Fatal(err)
				}
				q := d
				q.Sequence = seq
				now := endsOf(t, q, o)
				for k, is := range now {
					want := ends[k]
					if k == i {
						want.How, want.LengthMM = "fringe", 33
					}
					if is.Place != want.Place || is.Leg != want.Leg || is.How != want.How || is.LengthMM != want.LengthMM {
						t.Errorf("%s, left hand %v, end %d otherwise, %s: end %d is %+v, want %+v", line, left, e.Place, notation.Notate(seq), k+1, is, want)
					}
				}
			}
		}
	}
	// A fuse joins two ends; while one is chosen the piece cannot be tied, but its
	// ends are told, so that the other can be.
	d := on(2, "mount A B, square-knot 4, finish fuse ends=1, finish dome")
	if _, err := plan.Make(d, plan.Options{}); err == nil {
		t.Error("one end alone is fused")
	}
	seq, err := plan.Finished(d, plan.Options{}, []plan.End{{Place: 4, How: "fuse"}})
	if err != nil || notation.Notate(seq) != "mount A B, square-knot 4, finish fuse ends=1+4, finish dome" {
		t.Errorf("with the other end it is %s, %v", notation.Notate(seq), err)
	}
	d = on(2, "mount A B, square-knot 4")
	if _, err := plan.Finished(d, plan.Options{}, []plan.End{{Place: 7, How: "dome"}}); err == nil || !strings.Contains(err.Error(), "name end 7") {
		t.Errorf("an end that is not there: %v", err)
	}
}

// Where an end hangs decides what it allows: under knots that lie close it can be buried,
// on a bare strand it cannot, and why is said.
func TestWhereAnEndHangsDecides(t *testing.T) {
	for line, fits := range map[string]bool{
		"mount A B, square-knot 6, finish dome":            true,
		"mount A B, square-knot 6, gap 300mm, finish dome": false,
		"mount A B, half-knot 12, finish dome":             true,
	} {
		for _, e := range endsOf(t, on(2, line), plan.Options{}) {
			i := slices.IndexFunc(e.Ways, func(c finish.Choice) bool { return c.ID == "bury" })
			if i < 0 || e.Ways[i].Fit != fits || e.Ways[i].Why == "" {
				t.Errorf("%s, end %d: %+v", line, e.Place, e.Ways[i])
			}
			j := slices.IndexFunc(e.Ways, func(c finish.Choice) bool { return c.ID == "melt-two" })
			if !e.Ways[j].Fit {
				t.Errorf("%s, end %d: %+v", line, e.Place, e.Ways[j])
			}
		}
	}
}

// What a finish leaves, hides, melts and trims is in the cut, of every finish that nylon
// takes; and each says its measures with its end.
func TestWhatAFinishEatsIsInTheCut(t *testing.T) {
	for _, f := range finish.All() {
		nylon := piece.Kernmantle(4, piece.Lagoon)
		if !f.Suits(nylon) || f.Form == finish.Fused {
			continue
		}
		line := "mount A B, square-knot 8, finish " + f.ID
		if f.WantsLength {
			line += " length=24mm"
		}
		if f.WantsBead {
			line += " hole=9mm long=8mm wide=13mm"
		}
		d := on(2, line)
		p := make1(t, d, plan.Options{})
		eats := map[string]float64{}
		for _, e := range p.Endings {
			eats[e.Leg[:1]] += e.LeavesMM + e.HidesMM + e.MeltsMM + e.TrimsMM
		}
		for _, c := range p.Cords {
			if got := c.Why.FinishMM + c.Why.HoldMM; got < eats[c.ID]-0.01 {
				t.Errorf("%s: cord %s is cut with %.1f mm for its ends, they take %.1f", f.ID, c.ID, got, eats[c.ID])
			}
		}
		for _, e := range endsOf(t, d, plan.Options{}) {
			if e.Measures == nil || e.Measures.CutMM < e.Measures.LeavesMM || e.At < 1 || e.Of != 4 || e.Below != 1 {
				t.Errorf("%s, end %d: %+v", f.ID, e.Place, e)
			}
		}
	}
}

// Every finish on every pattern, by both hands: it is planned with every end told, or it is
// refused with a way out that can be planned.
func TestEveryFinishOnEveryPattern(t *testing.T) {
	for _, pat := range patterns.All() {
		i := slices.IndexFunc(pat.Document.Sequence, func(s knot.Section) bool { k, _ := knot.Get(s.Do); return k.Finish != nil })
		if i < 0 {
			continue
		}
		for _, f := range finish.All() {
			for _, left := range []bool{false, true} {
				d := pat.Document
				d.Sequence = slices.Clone(d.Sequence)
				d.Sequence[i] = d.Sequence[i].Put("how", f.ID)
				p, err := plan.Make(d, plan.Options{LeftHanded: left})
				var ps piece.Problems
				if errors.As(err, &ps) {
					fixed := d
					fixed.Sequence = slices.Clone(d.Sequence)
					if ps[0].Fix == nil {
						t.Errorf("%s, %s: %v, and no way out", pat.ID, f.ID, err)
						continue
					}
					for _, set := range ps[0].Fix.Set {
						key := set.Path[strings.Index(set.Path, "].")+2:]
						if b, ok := set.Value.(*knot.Bead); ok {
							fixed.Sequence[i] = fixed.Sequence[i].PutBead(b)
						} else {
							fixed.Sequence[i] = fixed.Sequence[i].Put(key, set.Value)
						}
					}
					p, err = plan.Make(fixed, plan.Options{LeftHanded: left})
				}
				if err != nil {
					t.Errorf("%s, %s, left %v: %v", pat.ID, f.ID, left, err)
					continue
				}
				for _, w := range p.Warnings {
					if w.Code == "ends-not-finished" {
						t.Errorf("%s, %s: %s", pat.ID, f.ID, w.Message)
					}
				}
				for _, e := range p.Endings {
					if e.LeavesMM < 0 || e.LeavesMM > 300 || e.HidesMM < 0 || e.HidesMM > 300 {
						t.Errorf("%s, %s: %+v", pat.ID, f.ID, e)
					}
				}
			}
		}
	}
}
