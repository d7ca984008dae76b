package ball

import (
	"errors"
	"math"
	"testing"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

func rolled(t *testing.T, strands, rounds int, mm, former float64) RopeBall {
	t.Helper()
	b, err := MakeRope(RopeAsk{Cord: rope(mm), Strands: strands, Rounds: rounds, FormerMM: former})
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func length(b RopeBall) (sum float64) {
	for _, l := range b.CordsMM {
		sum += l
	}
	return sum / math.Max(1, float64(len(b.CordsMM)))
}

func TestRopeBallScales(t *testing.T) {
	a, b := rolled(t, 3, 2, 3, 0), rolled(t, 3, 2, 6, 0)
	for name, v := range map[string][2]float64{"former": {a.FormerMM, b.FormerMM}, "outside": {a.OuterMM, b.OuterMM}, "opening": {a.InnerMM, b.InnerMM}, "bare": {a.BareMM, b.BareMM}, "cord": {a.CordsMM[0], b.CordsMM[0]}} {
		near(t, name, v[1], 2*v[0], 1e-9)
	}
}

// Two layers lie on the former at every crossing, or ride a little off it; a strand that is followed
// takes its rounds one after the other; a larger former takes more of it and
// shows more.
func TestRopeBallLaws(t *testing.T) {
	for _, c := range [][2]int{{1, 2}, {1, 3}, {2, 2}, {1, 5}, {3, 2}, {2, 3}} {
		b := rolled(t, c[0], c[1], 1, 0)
		if b.OuterMM < b.FormerMM+3.9 || b.OuterMM > b.FormerMM+7 {
			t.Errorf("%v: on %.1f it is %.1f wide", c, b.FormerMM, b.OuterMM)
		}
		if len(b.CordsMM) != c[0] || len(b.RoundsMM) != c[1] {
			t.Fatalf("%v: %d cords, %d rounds", c, len(b.CordsMM), len(b.RoundsMM))
		}
		sum := 0.0
		for _, l := range b.RoundsMM {
			sum += l
		}
		// Between rounds it steps aside; a sixteenth of a round at either end is
		// where the next comes in.
		if off := sum - b.CordsMM[0]; off < 0 || off > 0.16*b.RoundsMM[0] {
			t.Errorf("%v: a strand takes %.1f, its rounds %.1f", c, b.CordsMM[0], sum)
		}
		larger := rolled(t, c[0], c[1], 1, 1.1*b.FormerMM)
		if larger.CordsMM[0] <= b.CordsMM[0] || larger.OuterMM <= b.OuterMM || larger.BareMM < b.BareMM {
			t.Errorf("%v: on a larger former a strand takes %.1f, it is %.1f wide and bare %.1f; on a smaller %.1f, %.1f and %.1f", c, larger.CordsMM[0], larger.OuterMM, larger.BareMM, b.CordsMM[0], b.OuterMM, b.BareMM)
		}
	}
}

// One round alone is a ring: what passes through it is as wide as its mandrel,
// two strands lie on the mandrel at every crossing, it is lower than it is wide
// on a wide mandrel, and a wider one takes more cord.
func TestNapkinRing(t *testing.T) {
	for m := 1; m <= MostTracks; m++ {
		last := RopeBall{}
		for _, d := range (weaving{m, true}).steps() {
			b := rolled(t, m, 1, 3, 3*d)
			near(t, "the opening", b.InnerMM, b.FormerMM, 0.03)
			near(t, "the outside", b.OuterMM, b.FormerMM+4*3, 0.15)
			if b.BareMM != 0 || len(b.RoundsMM) != 1 {
				t.Errorf("%d on %.1f: bare %.1f, %d rounds", m, b.FormerMM, b.BareMM, len(b.RoundsMM))
			}
			// Three leads of m strands lie side by side at the least, and a
			// track goes three times round.
			if b.HeightMM < 3*float64(m)*2 || b.CordsMM[0] < 3*math.Pi*(b.FormerMM+3) {
				t.Errorf("%d on %.1f: %.1f high, %.1f of cord", m, b.FormerMM, b.HeightMM, b.CordsMM[0])
			}
			if b.CordsMM[0] <= length(last) || b.OuterMM <= last.OuterMM {
				t.Errorf("%d: on %.1f a strand takes %.1f, on %.1f %.1f", m, b.FormerMM, b.CordsMM[0], last.FormerMM, length(last))
			}
			last = b
		}
	}
}

// No strand passes through another or itself: on the formers that were drawn up,
// in the middle between two, and where rounds are changed.
func TestStrandsOfARopeBallStayApart(t *testing.T) {
	for m := 1; m <= MostTracks; m++ {
		for side := 1; side <= m; side++ {
			if m%side != 0 {
				continue
			}
			rounds := m / side
			steps := weaving{m, rounds == 1}.steps()
			for i, former := range steps {
				at := []float64{former}
				if i > 0 {
					at = append(at, (steps[i-1]+former)/2)
				}
				for _, former := range at {
					b := rolled(t, side, rounds, 1, former)
					var paths [][]r3.Vec
					for _, w := range b.Paths() {
						fine := curve.Spline(w, false)
						paths = append(paths, fine.Resample(int(fine.Length()/0.15)).Points)
					}
					if g := leastGap(paths, 0); g < 0.85 {
						t.Errorf("%d strands, %d rounds on %.2f: they come as near as %.3f of one", side, rounds, former, g)
					}
				}
			}
		}
	}
}

// Published: the knot of three leads and four bights, on one strand, has the
// determinant 45. Every track of a ball is that knot still.
func TestTracksAreTurksHeads(t *testing.T) {
	for _, w := range weavings() {
		for _, former := range w.steps() {
			for j, pts := range embedded()[w.key(former)].Strands {
				c := curve.TurnY(curve.Curve{Points: pts, Closed: true}, 0.37).Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: 0.9*v.Y + 0.43*v.Z, Z: 0.9*v.Z - 0.43*v.Y} })
				found, err := curve.Crossings([]curve.Curve{c})
				if err != nil {
					t.Fatal(err)
				}
				if det := curve.Determinant(found, 1); det != 45 {
					t.Errorf("track %d of %s has the determinant %d", j+1, w.key(former), det)
				}
			}
		}
	}
}

func TestRopeBallRefusals(t *testing.T) {
	for name, a := range map[string]RopeAsk{
		"no strands": {Cord: rope(3), Rounds: 1}, "too many": {Cord: rope(3), Strands: 4, Rounds: 3}, "seven": {Cord: rope(3), Strands: 7, Rounds: 1}, "wide mandrel": {Cord: rope(3), Strands: 3, Rounds: 1, FormerMM: 90}, "narrow mandrel": {Cord: rope(3), Strands: 3, Rounds: 1, FormerMM: 9},
		"small former": {Cord: rope(3), Strands: 3, Rounds: 2, FormerMM: 4}, "large former": {Cord: rope(3), Strands: 3, Rounds: 2, FormerMM: 400},
		"no cord": {Cord: Cord{}, Strands: 3, Rounds: 2},
	} {
		_, err := MakeRope(a)
		var no *Refused
		if !errors.As(err, &no) {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if no.Passes > 0 && a.Strands > 0 {
			a.Rounds = no.Passes
			if _, err := MakeRope(a); err != nil {
				t.Errorf("%s: with the %d rounds that are offered: %v", name, no.Passes, err)
			}
		}
		if no.CoreMM > 0 {
			a.FormerMM = no.CoreMM
			if _, err := MakeRope(a); err != nil {
				t.Errorf("%s: on what is offered, %.1f mm: %v", name, no.CoreMM, err)
			}
		}
	}
}
