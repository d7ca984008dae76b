package herringbone_test

import (
	"errors"
	"math"
	"slices"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/herringbone"
	"nimblebight/core/move"
	"nimblebight/core/piece"

	"gonum.org/v1/gonum/spatial/r3"
)

// collar is one of so many cords of 4 mm round two of them.
func collar(cords int) knot.Work {
	names := []string{"X", "Y", "Z"}[:cords]
	w := knot.Work{Section: knot.Section{Do: "herringbone-collar", Settings: herringbone.Settings{Cords: names}}}
	stuff := piece.Kernmantle(4, piece.Lagoon)
	strand := func(x float64) knot.Strand {
		f := stuff.Figures()
		s := knot.Strand{Stuff: stuff, Figures: f, Diameter: f.DrawnUpMM}
		s.At.X, s.Dir.Y = x, 1
		return s
	}
	w.Strands = []knot.Strand{strand(-2), strand(2)}
	for range cords {
		w.Own = append(w.Own, strand(0))
	}
	return w
}

// What each trip passes is what makers say, cord by cord: the first two cross nothing, the
// next four go under the other and over their own by turns, the last two under two and
// over two.
func TestTheTripsAreThoseOfMakers(t *testing.T) {
	x, err := knot.Tie(collar(2))
	if err != nil {
		t.Fatal(err)
	}
	const X, Y = 2, 3
	by := func(strand int, hows string, of ...int) move.Move {
		m := move.Move{Strand: strand}
		for i, h := range hows {
			m.Passes = append(m.Passes, move.Pass{How: move.How(h == 'o'), Of: []int{of[i%len(of)]}})
		}
		return m
	}
	want := []move.Move{by(X, ""), by(Y, ""), by(X, "uouo", Y, X), by(Y, "uouo", X, Y), by(X, "uouo", Y, X), by(Y, "uouo", X, Y),
		by(X, "uuoouuoo", Y, Y, X, X), by(Y, "uuoouuoo", X, X, Y, Y)}
	var got []move.Move
	for _, m := range x.Moves {
		if m.Strand >= 0 && m.Turn != "" && len(got) < len(want) {
			got = append(got, m)
		}
	}
	for i, m := range want {
		same := func(a, b move.Pass) bool { return a.How == b.How && slices.Equal(a.Of, b.Of) }
		if got[i].Strand != m.Strand || !slices.EqualFunc(got[i].Passes, m.Passes, same) {
			t.Errorf("trip %d of strand %d passes %v, makers say %v of strand %d", i+1, got[i].Strand, got[i].Passes, m.Passes, m.Strand)
		}
	}
}

// Both cords take the same.
func TestBothCordsTakeTheSame(t *testing.T) {
	x, err := knot.Tie(collar(2))
	if err != nil {
		t.Fatal(err)
	}
	if a, b := x.Own[0].Length(), x.Own[1].Length(); math.Abs(a/b-1) > 0.01 {
		t.Errorf("the cords take %.1f and %.1f", a, b)
	}
}

// It takes two cords; of three it offers the first two.
func TestItTakesTwoCords(t *testing.T) {
	for cords, offers := range map[int]bool{1: false, 3: true} {
		_, err := knot.Tie(collar(cords))
		var no *knot.Refused
		if !errors.As(err, &no) || no.Field != "cords" || (no.Set != nil) != offers {
			t.Errorf("of %d cords: %v", cords, err)
		}
	}
}

// Over a ring on the bundle it goes round that: it takes more cord, and the ring shows; one
// that the strands do not pass is refused, with one that they do.
func TestItGoesOverARing(t *testing.T) {
	w := collar(2)
	bare, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	set := knot.Of[herringbone.Settings](w.Section)
	thick := 2 * knot.Round(w.Under()).R
	set.OverMM = thick + 2
	w.Section.Settings = set
	over, err := knot.Tie(w)
	if err != nil || len(over.Beads) != 1 || over.Beads[0].WidthMM != thick+2 || over.Own[0].Length() <= bare.Own[0].Length() {
		t.Errorf("over a ring it takes %.1f mm, without %.1f, shows %+v; %v", over.Own[0].Length(), bare.Own[0].Length(), over.Beads, err)
	}
	set.OverMM = thick - 1
	w.Section.Settings = set
	_, err = knot.Tie(w)
	var no *knot.Refused
	if !errors.As(err, &no) || no.Field != "over_mm" || no.Set == nil {
		t.Errorf("over a ring too small: %v", err)
	}
}

// In hand it stands open round the bundle, what is not led yet is not there, and when its slack is
// worked out it lies as it is tied.
func TestItIsLedOpen(t *testing.T) {
	w := collar(2)
	x, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	const X, Y = 2, 3
	begun := map[int]bool{}
	d := w.Own[0].Diameter
	for n, m := range x.Moves {
		held, ok, err := knot.Hold(w, n, 1)
		if err != nil || !ok {
			t.Fatalf("move %d: %v, %v", n+1, ok, err)
		}
		begun[m.Strand] = begun[m.Strand] || m.Strand >= X
		for i, s := range []int{X, Y} {
			if there := len(held.Own[i].Points) > 0; there != begun[s] {
				t.Errorf("after move %d cord %d is there: %v", n+1, i+1, there)
			}
		}
		if !begun[Y] {
			continue
		}
		a, b := curve.Curve{Points: held.Own[0].Points}, curve.Curve{Points: held.Own[1].Points}
		for _, p := range held.Paths {
			for _, c := range []curve.Curve{a, b} {
				if g := curve.Gap(curve.Curve{Points: p.Points}, d, c, d); g < -0.1*d && m.Strand >= 0 && !m.Slack {
					t.Errorf("after move %d it comes to %.2f mm of the bundle", n+1, g)
				}
			}
		}
	}
	held, _, err := knot.Hold(w, len(x.Moves)-1, 1)
	if err != nil {
		t.Fatal(err)
	}
	for i, p := range x.Own {
		for k, v := range p.Points {
			if off := r3.Norm(r3.Sub(v, held.Own[i].Points[k])); off > 1e-9 {
				t.Fatalf("cord %d, node %d, lies %.2f mm off", i+1, k, off)
			}
		}
	}
}
