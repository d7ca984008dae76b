package trainer

import (
	"context"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/loosen"
	"nimblebight/core/memo"

	"gonum.org/v1/gonum/spatial/r3"
)

// Own is what comes of a knot as the maker led it.
type Own struct {
	// Film is its drawing up: the diagram as it was led first, the drawn-up curve last.
	Film knot.Film
	// Falls is set where nothing holds: drawn up, every strand hangs straight.
	Falls bool
	// Share is how much cord it takes drawn up, in times the knot that was to be led.
	Share float64
}

// straightOff is how much longer than straight a strand that hangs straight may be, diameters.
const straightOff = 0.5

// owns are those that were drawn up, by the knot and its slips.
var owns = memo.Cache[Own]{Most: 16 << 20}

// Own draws the knot up as it was led: the asks of slips passed the other way, all others as
// the knot has them. An ask that is not there is refused.
func (l Lesson) Own(ctx context.Context, slips []int) (Own, error) {
	if err := l.check(slips); err != nil {
		return Own{}, err
	}
	slips = slices.Clone(slips)
	slices.Sort(slips)
	slips = slices.Compact(slips)
	return owns.Get(fmt.Sprint(l.Knot, slips), func() (Own, error) {
		if l.opened != nil {
			return Own{Film: knot.Film(l.opened.Film(l.onRound(slips), constructed)), Share: 1}, nil
		}
		film, err := loosen.Draw(ctx, l.hung(l.led(slips)), l.across, l.still)
		if err != nil {
			return Own{}, fmt.Errorf("trainer: %s as it was led: %w", l.Name, err)
		}
		beyond := func(frame [][]vec) (all, most float64) {
			for _, pts := range frame {
				b := knot.BeyondStraight(pts)
				all, most = all+b, math.Max(most, b)
			}
			return all, most
		}
		took, most := beyond(film.Frames[len(film.Frames)-1])
		right, _ := beyond(l.film.Frames[len(l.film.Frames)-1])
		return Own{Film: knot.Film(film), Falls: most < straightOff, Share: took / math.Max(1e-9, right)}, nil
	})
}

// onRound are the strands round what they lie on with these asks passed the other way: each place
// stands off by as much as it does in the diagram. It is constructed: what they lie on holds them
// there, and where one is led the other way they press into one another.
func (l Lesson) onRound(slips []int) [][]vec {
	led := l.led(slips)
	out := make([][]vec, len(led))
	for i, pts := range led {
		for n, v := range pts {
			at := l.round[i][n]
			out[i] = append(out[i], r3.Add(at, r3.Scale(v.Z-l.diagram[i][n].Z, l.opened.Outward(at))))
		}
	}
	return out
}

// hung are strands of the diagram as they hang.
func (l Lesson) hung(frame [][]vec) [][]vec {
	if l.across {
		return loosen.Hung(frame)
	}
	return frame
}

// led is the diagram with these asks passed the other way.
func (l Lesson) led(slips []int) [][]vec {
	at := make([]loosen.Crossing, 0, len(slips))
	for _, k := range slips {
		a := l.Asks[k]
		at = append(at, loosen.Crossing{A: a.Strand, AtA: a.At, B: a.With, AtB: a.WithAt})
	}
	return loosen.Switch(l.diagram, at)
}

// Says is what came of it, in a sentence.
func (l Lesson) Says(o Own, slips []int) string {
	switch made := l.makes(slips); {
	case len(slips) == 0:
		return fmt.Sprintf("Drawn up it is the %s.", l.Name)
	case o.Falls:
		return "Drawn up as you led it, nothing holds: the strands pull straight."
	case made.Makes != "":
		return fmt.Sprintf("Drawn up as you led it, it is %s %s.", article(made.Makes), made.Makes)
	case l.opened != nil:
		lie := "lie"
		if len(slips) == 1 {
			lie = "lies"
		}
		return fmt.Sprintf("Closed up as you led it, it is no %s: %d of its crossings %s the other way.", l.Name, len(slips), lie)
	default:
		return fmt.Sprintf("Drawn up as you led it, it is no %s: it takes %.1f times its cord.", l.Name, o.Share)
	}
}
