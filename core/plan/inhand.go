package plan

import (
	"math"
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// What is shown of the work in hand, diameters of the thickest cord.
const (
	handLeast = 19.0 // tall: three or four knots above it, and some of the strands below
	handMost  = 44.0 // tall: more would be too small to be read
	handReach = 40.0 // below where the knot in hand begins nothing of it is looked for
	handStep  = 2.0  // the frame goes on by so much at once, so that it stands still from move to move
	wireNear  = 3.0  // so near to the top the wire is shown too: it helps to see where one is
	wireAbove = 8.0
)

// InHand is the stretch of y to look at in the picture of the work in hand, mm.
//
// Law: the place of the hand, where the strand of the last action crosses another for the last
// time, lies in the middle third of it.
func (p Plan) InHand() (from, to float64) {
	l := p.Look()
	t := l.Thick
	if t == 0 {
		t = 1
	}
	low, high, hand, _ := l.Hand()
	mid := handStep * t * math.Round(hand/(handStep*t))
	tall := math.Max(handLeast*t, math.Min(handMost*t, 2*math.Max(mid-low, high-mid)+2*handStep*t))
	from, to = mid-tall/2, mid+tall/2
	if l.Hardware.Type == "none" && len(l.Sections) <= 2 { // a ball in hand is seen whole
		from = math.Min(from, -wireNear*t)
		for _, c := range l.Cores {
			to = math.Max(to, c.At.Y-from+c.At.Y) // as much of it below its middle as above
		}
	}
	if from < wireNear*t {
		from = math.Min(from, -wireAbove*t)
		to = math.Max(to, from+1.6*(mid-from)) // the hand stays in its third
	}
	return from, to
}

// Hand is from where to where the strand of the last action crosses others, and where for the
// last time on its way, y in mm; where it crosses none, as far as the knot in hand goes, and
// crosses is unset.
func (l Layout) Hand() (low, high, at float64, crosses bool) {
	t := l.Thick
	begin := l.MovingFrom
	bottom := 0.0
	for _, s := range l.Sections {
		bottom = math.Max(bottom, s[1])
	}
	if math.IsInf(begin, -1) { // all of a cord was put on
		begin = math.Max(0, bottom-3*t)
	}
	low, high = math.Inf(1), math.Inf(-1)
	var legs []curve.Curve
	var moving []int          // which of those that moved each leg is, -1 for none
	upwards := map[int]bool{} // strands whose first leg runs from its end
	for _, s := range l.Near(begin-t, begin+handReach*t) {
		var pts []r3.Vec
		leg := 0
		upwards[s.Index] = s.Fold != 0
		put := func() {
			if len(pts) > 1 {
				moving = append(moving, -1)
				for k, m := range l.Moving {
					if m.Strand == s.Index && (m.Leg < 0 || s.Fold == 0 || m.Leg == leg) { // a cord that is not folded has one leg
						moving[len(legs)] = k
					}
				}
				if slices.ContainsFunc(legs, func(c curve.Curve) bool { return c.Points[0] == pts[0] }) {
					pts = pts[1:] // two cords that are fused meet there
				}
				legs = append(legs, curve.Curve{Points: pts})
			}
			pts = nil
		}
		for i, v := range s.Points {
			if s.Fold > 0 && i == s.Fold-1 {
				pts = append(pts, v)
				put()
				leg = 1
			}
			if s.Fold < 0 {
				leg = 1
			}
			pts = append(pts, v)
		}
		put()
	}
	last := math.Inf(-1)
	see := func(leg int, on, y float64) {
		if len(l.Moving) > 0 && moving[leg] < 0 { // of no single one all count
			return
		}
		low, high = math.Min(low, y), math.Max(high, y)
		if len(l.Moving) > 0 && l.Moving[0].Leg == 0 && upwards[l.Moving[0].Strand] { // its points come from its end
			on = -on
		}
		if on > last && moving[leg] <= 0 { // the hand is at the first
			last, at = on, y
		}
	}
	if found, err := curve.Crossings(legs); err == nil {
		for _, c := range found {
			if c.Y > begin-t && c.Y < begin+handReach*t {
				see(c.Over, c.OverAt, c.Y)
				see(c.Under, c.UnderAt, c.Y)
			}
		}
	}
	if crosses = low <= high; !crosses {
		low, high = begin, math.Max(begin, math.Min(bottom, begin+6*t))
		at = (low + high) / 2
	}
	return low, high, at, crosses
}
