package turkshead

import (
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/knots/cover"
)

// Bounds beyond which a cover is warned of. They are judged; docs/rope.md states them.
const (
	// bareMost is the widest place between bands, as a share of the cord, that is taken
	// for closed: soft cord spreads over it. On a mandrel that it comes off it may be open.
	bareMost, openMost = 0.4, 0.65
	// offMost is how far a cover may stand off what it covers, as a share of the cord.
	offMost = 0.1
	// closes is the room that bands have from bight to bight, over what they take, from which
	// on it is worth a try.
	closes = 0.9
	// clearAngle is the least at which parts cross and are still seen to cross, degrees.
	clearAngle = 40.0
)

// flaws are what is wrong with a cover that can be tied.
func (w work) flaws(l cover.Laid) []knot.Flaw {
	var out []knot.Flaw
	put := func(f knot.Flaw, field string, weave *cover.Weave) {
		if weave != nil {
			f.Field = field
			n := map[string]int{"leads": weave.Leads, "bights": weave.Bights, "passes": weave.Passes}[field]
			f.Set, f.Label = n, fmt.Sprintf("Take %d %s", n, field)
		}
		out = append(out, f)
	}
	most := bareMost
	if w.set.Over == Mandrel {
		most = openMost
	}
	bare := func(c cover.Cover) bool { return c.Bare > most }
	off := func(c cover.Cover) bool { return !w.close(c) }
	blurred := func(c cover.Cover) bool { return c.Angle < clearAngle*math.Pi/180 }
	switch {
	case off(l.Cover):
		put(knot.Flaw{Code: "cover-stands-off", Says: fmt.Sprintf("%d bights in %d passes cannot close on {%.1fmm}: the cover stands off by {%.1fmm} all round.", w.weave.Bights, w.weave.Passes, w.thick, l.GapMM)},
			"bights", w.nearest(-1, func(c cover.Cover) bool { return !off(c) }))
	case blurred(l.Cover):
		put(knot.Flaw{Code: "cover-runs-together", Says: fmt.Sprintf("On {%.1fmm} its parts cross at only %.0f degrees: they lie side by side and the weave is hardly seen.", w.thick, l.Angle*180/math.Pi)},
			"bights", w.nearest(1, func(c cover.Cover) bool { return !blurred(c) && !off(c) }))
	case bare(l.Cover):
		f := knot.Flaw{Code: "cover-bare", Says: fmt.Sprintf("%d bights are few for {%.1fmm}: between the bands {%.1fmm} lies bare at the widest.", w.weave.Bights, w.thick, w.d*l.Bare)}
		put(f, "bights", w.nearest(1, func(c cover.Cover) bool { return !bare(c) && !off(c) }))
	}
	switch long := w.set.LengthMM; {
	case long == 0:
	case l.HighMM > long+0.05:
		put(knot.Flaw{Code: "cover-too-long", Says: fmt.Sprintf("The cover comes to {%.1fmm}, {%.1fmm} more than it is to cover.", l.HighMM, l.HighMM-long)},
			"leads", w.leadsFor(l))
	default:
		if more := w.leadsFor(l); more != nil && more.Leads > l.Leads {
			put(knot.Flaw{Code: "cover-too-short", Says: fmt.Sprintf("The cover comes to {%.1fmm}; of {%.1fmm} to cover {%.1fmm} stays bare.", l.HighMM, long, long-l.HighMM)}, "leads", more)
		}
	}
	return out
}

// close tells whether a cover closes on what it covers.
func (w work) close(c cover.Cover) bool { return (w.d*c.Inside-w.thick)/2 <= offMost*w.d }

// drawable tells whether a weave is one that the same cords tie and that is drawn up.
func (w work) drawable(next cover.Weave) bool {
	return next.Bands() == w.weave.Bands() && next.Meets() <= cover.MostMeets
}

// tries is how many weaves like this one are drawn up to find a way out: a maker waits for
// them.
func (w work) tries() int {
	const meets = 500 // of all of them together
	return max(1, min(6, meets/w.weave.Meets()))
}

// nearest is the weave with the next bights, more or fewer, that the same cords tie and
// that is good, drawn up to see; nil where there is none among those that are tried: the
// next few, and with more bights at last the one whose bands have just the room that they
// take.
func (w work) nearest(step int, good func(cover.Cover) bool) *cover.Weave {
	mandrel := w.thick / w.d
	next := w.weave
	for tries := w.tries(); tries > 0; {
		next.Bights += step
		if next.Bights < 2 || next.Bights > cover.MostBights {
			return nil
		}
		if !w.drawable(next) || next.Loose(mandrel) < closes {
			continue
		}
		if tries--; tries == 0 && step > 0 {
			for last := next; last.Bights <= cover.MostBights && last.Loose(mandrel) >= 1; last.Bights++ {
				if w.drawable(last) {
					next = last
				}
			}
		}
		if c, err := w.on(next); err == nil && good(c) {
			return &next
		}
	}
	return nil
}

// leadsFor is the weave with the most leads that the length to cover has room for, by what
// a lead of this one comes to, and drawn up to see; nil where there is none.
func (w work) leadsFor(l cover.Laid) *cover.Weave {
	next := w.weave
	next.Leads = min(int(w.set.LengthMM*float64(l.Leads)/l.HighMM), cover.MostLeads)
	for tries := min(3, w.tries()); tries > 0 && next.Leads >= 2; next.Leads-- {
		if next.Leads == w.weave.Leads {
			break // it is as good as it gets
		}
		if !w.drawable(next) {
			continue
		}
		tries--
		if c, err := w.on(next); err == nil && w.lay(c).HighMM <= w.set.LengthMM {
			return &next
		}
	}
	return nil
}
