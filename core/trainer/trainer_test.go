package trainer_test

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
	"nimblebight/core/loosen"
	"nimblebight/core/piece"
	"nimblebight/core/scene"
	"nimblebight/core/trainer"
)

// Every knot that is led as its route says is taken, and each single crossing that is led
// otherwise is refused, with what it makes.
func TestTheTrainerTakesTheRouteAndRefusesEveryChange(t *testing.T) {
	lessons := trainer.Lessons()
	if len(lessons) < 28 { // those that have a film, or are opened
		t.Errorf("%d knots can be led", len(lessons))
	}
	for _, l := range lessons {
		for k, a := range l.Asks {
			if got, err := l.Judge(k, a.Over, nil); err != nil || !got.Right {
				t.Errorf("%s, crossing %d: led right it says %+v, %v", l.Name, k+1, got, err)
			}
			got, err := l.Judge(k, !a.Over, nil)
			if err != nil || got.Right || got.Says == "" || !strings.Contains(got.Says, "Led ") {
				t.Errorf("%s, crossing %d: led wrong it says %+v, %v", l.Name, k+1, got, err)
			}
			if got.Makes == l.Name {
				t.Errorf("%s, crossing %d: led wrong it makes itself", l.Name, k+1)
			}
		}
	}
}

// Facts of knot tables: an overhand with any one crossing switched is no knot, and a
// figure-eight is no knot with any one of its four switched.
func TestWhatAWrongCrossingMakes(t *testing.T) {
	for id, crossings := range map[string]int{"overhand": 3, "figure-eight": 4} {
		l, ok := trainer.Of(id)
		if !ok || l.Strands != 1 || len(l.Asks) != crossings {
			t.Fatalf("%s: %+v", id, l)
		}
		for k, a := range l.Asks {
			if got, _ := l.Judge(k, !a.Over, nil); !got.Falls {
				t.Errorf("%s with crossing %d switched: %+v", id, k+1, got)
			}
		}
	}
	if l, _ := trainer.Of("overhand"); true {
		if _, err := l.Judge(99, true, nil); err == nil {
			t.Error("a crossing that is not there is judged")
		}
		if _, err := l.Judge(-1, true, nil); err == nil {
			t.Error("a crossing before the first is judged")
		}
	}
}

// Each crossing is asked for once, when the second strand comes to it.
func TestCrossingsAreAskedForInTheirOrder(t *testing.T) {
	for _, l := range trainer.Lessons() {
		for k := 1; k < len(l.Asks); k++ {
			a, b := l.Asks[k-1], l.Asks[k]
			if b.Strand < a.Strand || b.Strand == a.Strand && b.At <= a.At {
				t.Errorf("%s: crossing %d comes before %d", l.Name, k+1, k)
			}
			if b.With > b.Strand {
				t.Errorf("%s: crossing %d is with strand %d, which is not led yet", l.Name, k+1, b.With+1)
			}
		}
	}
}

// Crown and wall are told from the working end: each strand crosses the next once, over it in
// a crown and under it in a wall, so that of n strands there are n crossings; drawn up as they
// are led they take the cord that they take.
func TestCrownAndWallAreLedFromTheEnd(t *testing.T) {
	for _, id := range []string{"crown", "wall"} {
		l, ok := trainer.Of(id)
		if !ok || len(l.Asks) != l.Strands || l.Strands < 3 {
			t.Fatalf("%s on %d strands has %d crossings", id, l.Strands, len(l.Asks))
		}
		over := 0
		for k, a := range l.Asks {
			if a.Over {
				over++
			}
			got, err := l.Judge(k, !a.Over, nil)
			if err != nil || got.Right {
				t.Errorf("%s, crossing %d: led wrong it says %+v, %v", id, k+1, got, err)
			}
		}
		if over == 0 || over == len(l.Asks) { // the last closes the ring from the other side
			t.Errorf("%s: all of its crossings are passed alike", id)
		}
		own, err := l.Own(t.Context(), nil)
		if err != nil || math.Abs(own.Share-1) > 0.12 {
			t.Errorf("%s led right and drawn up takes %.2f times its cord: %v", id, own.Share, err)
		}
	}
}

// The two-strand diamond is led as hands lay it, looked at from the end: a carrick bend of eight
// crossings with the ends led round, before standing parts that come in behind all of it; drawn
// up it is the knot. Seen from its face it crosses 27 times.
func TestTheDiamondIsLedFromTheEnd(t *testing.T) {
	l, ok := trainer.Of("two-strand-diamond")
	if !ok || !l.FromEnd() || len(l.Asks) != 18 {
		t.Fatalf("%d crossings, from the end %v", len(l.Asks), l.FromEnd())
	}
	own, err := l.Own(t.Context(), nil)
	if err != nil || math.Abs(own.Share-1) > 0.12 {
		t.Errorf("led right and drawn up it takes %.2f times its cord: %v", own.Share, err)
	}
}

// A square knot whose second half is led as the first was, every crossing of it the other way,
// is a granny.
func TestAGrannyIsKnown(t *testing.T) {
	l, ok := trainer.Of("square-knot")
	if !ok {
		t.Fatal("the square knot cannot be led")
	}
	// Of each two strands the lower half of their crossings is the second half of the knot.
	byHeight := make([]int, len(l.Asks))
	for k := range byHeight {
		byHeight[k] = k
	}
	slices.SortFunc(byHeight, func(a, b int) int { return cmp.Compare(l.Asks[a].Y, l.Asks[b].Y) })
	second := byHeight[len(byHeight)/2:]
	k, before := second[0], second[1:]
	if got, err := l.Judge(k, !l.Asks[k].Over, before); err != nil || got.Makes != "granny" {
		t.Errorf("it makes %+v, %v", got, err)
	}
	own, err := l.Own(t.Context(), second)
	if err != nil {
		t.Fatal(err)
	}
	if says := l.Says(own, second); !strings.Contains(says, "it is a granny") {
		t.Errorf("drawn up: %s", says)
	}
}

// What a maker led is drawn up: where the tables say that it is no knot nothing is left of it,
// where it was led right it takes as much cord as the knot, and on the way no strand comes
// through another.
func TestOwnCrossingsAreDrawnUp(t *testing.T) {
	for _, id := range []string{"overhand", "figure-eight", "pretzel-knot", "square-knot"} {
		l, ok := trainer.Of(id)
		if !ok {
			t.Fatalf("%s cannot be led", id)
		}
		for k := -1; k < min(len(l.Asks), 4); k++ {
			var slips []int
			if k >= 0 {
				slips = []int{k}
			}
			own, err := l.Own(t.Context(), slips)
			if err != nil {
				t.Fatal(err)
			}
			f := loosen.Film(own.Film)
			for i := range f.Frames {
				if g := f.Gap(i); g < 0.85 {
					t.Errorf("%s with slips %v: in frame %d strands are %.2f diameters apart", id, slips, i, g)
				}
			}
			if k < 0 && math.Abs(own.Share-1) > 0.12 {
				t.Errorf("%s led right and drawn up takes %.2f times its cord", id, own.Share)
			}
			if one := l.Strands == 1; one && own.Falls != (k >= 0) {
				t.Errorf("%s with slips %v: it falls open is %v", id, slips, own.Falls)
			}
			if says := l.Says(own, slips); own.Falls != strings.Contains(says, "nothing holds") {
				t.Errorf("%s with slips %v: %s", id, slips, says)
			}
		}
	}
	l, _ := trainer.Of("overhand")
	if _, err := l.Own(t.Context(), []int{3}); err == nil {
		t.Error("a crossing that is not there is switched")
	}
	if a, _ := l.Judge(1, l.Asks[1].Over, []int{0}); !a.Right {
		t.Errorf("after a slip a crossing that is right is %+v", a)
	}
}

// A cover, a ball and a mat stay on what they lie round: closed up as it was led, with one slip,
// a knot has its own crossings but for that one.
func TestASlipStaysWhereItIsOpened(t *testing.T) {
	for _, id := range []string{"turks-head", "herringbone-collar", "monkeys-fist", "flat-mat"} {
		l, ok := trainer.Of(id)
		if !ok || l.Looked() == "" {
			t.Fatalf("%s cannot be led: %+v", id, l)
		}
		passes := func(slips []int) map[[2]float64]bool {
			own, err := l.Own(t.Context(), slips)
			if err != nil {
				t.Fatal(err)
			}
			f := loosen.Film(own.Film)
			var cs []curve.Curve
			for _, pts := range loosen.Seen(f.Frames[0], f.Across) {
				cs = append(cs, curve.Curve{Points: pts})
			}
			found, err := curve.Crossings(cs)
			if err != nil {
				t.Fatal(err)
			}
			out := map[[2]float64]bool{}
			for _, c := range found {
				out[[2]float64{math.Round(10 * c.X), math.Round(10 * c.Y)}] = c.Over > c.Under || c.Over == c.Under && c.OverAt > c.UnderAt
			}
			return out
		}
		right := passes(nil)
		for k := 0; k < len(l.Asks); k += 3 {
			changed := 0
			for at, over := range passes([]int{k}) {
				was, ok := right[at]
				if !ok {
					t.Errorf("%s with crossing %d switched crosses elsewhere", id, k+1)
				} else if was != over {
					changed++
				}
			}
			if changed != 1 {
				t.Errorf("%s with crossing %d switched: %d crossings are another way", id, k+1, changed)
			}
			if got, _ := l.Judge(k, !l.Asks[k].Over, nil); !strings.Contains(got.Says, "breaks the weave") {
				t.Errorf("%s, crossing %d: %s", id, k+1, got.Says)
			}
		}
	}
}

// A cord that is put on a wire is led round it by both legs, and held by its bar: six crossings. A
// leg that passes the wire twice alike does not go round it.
func TestACordIsPutOnAWire(t *testing.T) {
	l, ok := trainer.Of("mount")
	if !ok || len(l.Asks) != 6 {
		t.Fatalf("%d crossings", len(l.Asks))
	}
	said := map[string]int{}
	for k, a := range l.Asks {
		got, err := l.Judge(k, !a.Over, nil)
		if err != nil || got.Right || got.Falls || got.Makes != "" {
			t.Errorf("crossing %d: %+v, %v", k+1, got, err)
		}
		for _, what := range []string{"does not go round it", "wrong side of this leg"} {
			if strings.Contains(got.Says, what) {
				said[what]++
			}
		}
	}
	if said["does not go round it"] != 4 || said["wrong side of this leg"] != 2 {
		t.Errorf("it is said %v", said)
	}
	// Both of a leg's passes switched: it goes round, the other way.
	first, second := -1, -1
	for k, a := range l.Asks {
		if a.With == 0 && first < 0 {
			first = k
		} else if a.With == 0 && second < 0 {
			second = k
		}
	}
	if got, _ := l.Judge(second, !l.Asks[second].Over, []int{first}); !strings.Contains(got.Says, "the other way") {
		t.Errorf("both passes of a leg switched: %s", got.Says)
	}
}

// A wrap and a coil go round what stays straight: each turn passes over it and under it, and their
// end is held. What stands for another knot is led as that one, and says so.
func TestWrapsAndWhatStandsForThem(t *testing.T) {
	for id, turns := range map[string]int{"gather": 3, "coil-loop": 4} {
		l, ok := trainer.Of(id)
		if !ok || l.Looked() == "" {
			t.Fatalf("%s cannot be led", id)
		}
		over, under := 0, 0
		for _, a := range l.Asks {
			switch {
			case a.Strand == a.With:
			case a.Over:
				over++
			default:
				under++
			}
		}
		if over < turns || under < turns {
			t.Errorf("%s of %d turns passes %d times over and %d times under", id, turns, over, under)
		}
	}
	for id, of := range map[string]string{"berry-knot": "square-knot", "double-diamond": "two-strand-diamond"} {
		a, ok := trainer.Of(id)
		b, _ := trainer.Of(of)
		if !ok || a.Name == b.Name || len(a.Asks) != len(b.Asks) || a.Looked() == b.Looked() {
			t.Errorf("%s is led as %d crossings, %q; %s as %d, %q", id, len(a.Asks), a.Looked(), of, len(b.Asks), b.Looked())
		}
	}
}

// Every knot of the catalogue can be led, but for what is none: spaces, beads, ends, what is put
// together of others, and cord that is only folded or led on.
func TestEveryKnotCanBeLed(t *testing.T) {
	none := []string{"bead", "finish", "fold-back", "gap", "repeat", "ring-in", "rows", "run-back"}
	for _, k := range knot.All() {
		if _, ok := trainer.Of(k.ID); ok == slices.Contains(none, k.ID) {
			t.Errorf("%s can be led: %v", k.ID, ok)
		}
	}
}

// A picture of each place can be drawn, more of the knot with every crossing.
func TestLessonsAreDrawn(t *testing.T) {
	stuffs := []cord.Stuff{piece.Kernmantle(4, piece.Lagoon), piece.Kernmantle(4, piece.Sand)}
	for _, l := range trainer.Lessons() {
		cord := 0.0
		for k := range len(l.Asks) + 1 {
			lay := l.Layout(k, nil, stuffs)
			n := 0.0
			for _, s := range lay.Strands {
				n += curve.Curve{Points: s.Points}.Length()
			}
			if n <= cord {
				t.Errorf("%s: at crossing %d no more is led than before", l.Name, k+1)
			}
			cord = n
		}
		if p := scene.Render(l.Layout(0, nil, stuffs), scene.View{PerMM: 3}); p.Empty() || len(p.Faults) > 0 {
			t.Errorf("%s is not drawn: %v", l.Name, p.Faults)
		}
		if x, _, ok := l.Place(0, stuffs); !ok || x != x {
			t.Errorf("%s: its first crossing has no place", l.Name)
		}
		if _, _, ok := l.Place(len(l.Asks), stuffs); ok {
			t.Errorf("%s: a crossing after the last has a place", l.Name)
		}
	}
}

// Led without a slip a knot is due later each time; with one it is due at once.
func TestKnotsComeAgain(t *testing.T) {
	now := time.Date(2026, 5, 1, 10, 0, 0, 0, time.UTC)
	c, last := trainer.Card{Knot: "overhand"}, time.Duration(-1)
	if !c.IsDue(now) || c.Sure(now) != 0 {
		t.Errorf("a new knot is not due: %+v", c)
	}
	for range 10 {
		c = c.Next(0, now)
		if wait := c.Due.Sub(now); wait < last || c.IsDue(now) {
			t.Errorf("it is due after %v, before after %v", wait, last)
		} else {
			last = wait
		}
		if got := c.Sure(now); got != 1 {
			t.Errorf("just led it is known by %v", got)
		}
		if at := c.Sure(c.Due); at < 0.49 || at > 0.51 {
			t.Errorf("when it is due it is known by %v", at)
		}
		now = c.Due
	}
	if c = c.Next(2, now); !c.IsDue(now) || c.Box != 0 || c.Slips != 2 || c.Led != 11 || c.Sure(now) != 0 {
		t.Errorf("after slips: %+v", c)
	}
}

func BenchmarkJudge(b *testing.B) {
	l, _ := trainer.Of("two-strand-diamond")
	if len(l.Asks) == 0 {
		l = trainer.Lessons()[len(trainer.Lessons())-1]
	}
	for b.Loop() {
		if _, err := l.Judge(0, !l.Asks[0].Over, nil); err != nil {
			b.Fatal(err)
		}
	}
}
