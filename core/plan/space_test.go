package plan_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ends"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/demo"

	"gonum.org/v1/gonum/spatial/r3"
)

// rehearse is every document that ships, to try a law on.
func rehearse() []piece.Document {
	docs := demo.Pieces()
	for _, p := range patterns.All() {
		docs = append(docs, p.Document)
	}
	return docs
}

// No two cords pass through one another anywhere in a piece: they come no
// nearer than their drawn-up radii, less their give. A row is pressed along y,
// its sections with it, so there the distance is measured as it was before.
func TestCordsDoNotPassThroughEachOther(t *testing.T) {
	for _, d := range rehearse() {
		t.Run(d.Name, func(t *testing.T) {
			p, err := plan.Make(d, plan.Options{})
			if err != nil {
				t.Fatal(err)
			}
			l := p.Layout()
			type leg struct {
				cord  int
				curve curve.Curve
			}
			var legs []leg
			for _, s := range l.Strands {
				// The two legs of a cord meet at its fold; from the mount down
				// they are as strange to each other as any two cords.
				parts := [][2]int{{0, len(s.Points)}}
				if s.Fold > 0 && knot.TermsOf(d.Sequence[0]).Begins != knot.ForTheNext {
					parts = [][2]int{{0, s.Fold}, {s.Fold, len(s.Points)}}
				}
				for _, part := range parts {
					var c curve.Curve
					for k := part[0]; k < part[1]; k++ {
						q := s.Section[k]
						fused := q >= 0 && ends.Fuses(d.Sequence[q]) // ends that are fused meet
						folded := q >= 0 && mounts(d.Sequence[q])    // and so do legs in their mount
						if !fused && (s.Fold == 0 && !joined(d, s.Cord) || !folded) {
							c.Points = append(c.Points, s.Points[k])
						}
					}
					legs = append(legs, leg{s.Cord, c})
				}
			}
			worst, where := math.Inf(1), ""
			for i, a := range legs {
				for _, b := range legs[i+1:] {
					sa, sb := d.Cords[a.cord].Stuff, d.Cords[b.cord].Stuff
					ky := math.Min(sa.Squeeze(), sb.Squeeze())
					unpress := func(v r3.Vec) r3.Vec { v.Y /= ky; return v }
					if bent(d) { // what was pressed along its row no longer lies along y
						unpress = func(v r3.Vec) r3.Vec { return v }
					}
					reach := (sa.DrawnUp() + sb.DrawnUp()) / 2
					give := math.Max(sa.Give(), sb.Give())
					if bent(d) {
						give = 1 - ky*(1-give)
					}
					gap := 1 + curve.Gap(a.curve.Map(unpress), sa.DrawnUp(), b.curve.Map(unpress), sb.DrawnUp())/reach
					if gap-(1-give) < worst {
						worst, where = gap-(1-give), fmt.Sprintf("cords %s and %s at %.2f of touching, give %.2f", d.Cords[a.cord].ID, d.Cords[b.cord].ID, gap, give)
					}
				}
			}
			if worst < 0 {
				t.Errorf("%s", where)
			}
		})
	}
}

// joined tells whether a cord is fused to another one.
func joined(d piece.Document, cord int) bool {
	return d.Cords[cord].JoinedTo != "" || slices.ContainsFunc(d.Cords, func(c piece.Cord) bool { return c.JoinedTo == d.Cords[cord].ID })
}

func mounts(s knot.Section) bool {
	k, _ := knot.Get(s.Do)
	return k.Mounts
}

// bent tells whether what is tied straight is bent afterwards.
func bent(d piece.Document) bool {
	for _, s := range d.Sequence {
		if t := knot.TermsOf(s); t.Bends || t.Begins == knot.ForTheNext {
			return true
		}
	}
	return false
}
