package plan

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/piece"

	"gonum.org/v1/gonum/spatial/r3"
)

// Joint is where two cords that are folded as one are fused.
type Joint struct {
	Cord string `json:"cord"` // the one that says that it is fused, on whose leg it lies
	To   string `json:"to"`
	// MM is how far it lies from the fold, along that leg; 0 at the fold.
	MM      float64 `json:"mm"`
	Section int     `json:"section"` // where it lies
	Hidden  bool    `json:"hidden"`  // knots or a bead cover it
	Hides   []Hide  `json:"hides"`   // where it would be covered, one place a section
}

// Hide is a place that covers a joint.
type Hide struct {
	MM      float64 `json:"mm"`
	Section int     `json:"section"`
}

// joint is how long a fused joint is, mm: so much must be covered for it to hide.
const joint = 8.0

// placeJoints moves the joint of cords that are folded as one to where it is wanted:
// the cord that it is fused to goes on past the fold by so much. A piece in hand that
// has not come so far keeps it at the fold.
func (w *walk) placeJoints() error {
	for ci, c := range w.d.Cords {
		if c.JoinedTo == "" || !w.foldedAsOne(ci) {
			continue
		}
		own, other := w.legOf(ci), w.legOf(w.partner(ci))
		mm, sections, hides := w.walked(own)
		out := Joint{Cord: c.ID, To: c.JoinedTo, MM: c.JointMM, Hides: []Hide{}}
		all := mm[len(mm)-1]
		for _, h := range hides {
			if !slices.ContainsFunc(out.Hides, func(v Hide) bool { return v.Section == h.section }) {
				out.Hides = append(out.Hides, Hide{math.Round((h.from + h.to) / 2), h.section})
			}
			if c.JointMM-joint/2 >= h.from-1e-9 && c.JointMM+joint/2 <= h.to+1e-9 {
				out.Hidden = true
			}
		}
		if c.JointMM >= all-joint/2 {
			if w.stop {
				continue
			}
			at := fmt.Sprintf("cords[%d].joint_mm", ci)
			fix := &Fix{Label: "Put it at the fold", Set: []Set{{Path: at, Value: 0}}}
			if len(out.Hides) > 0 {
				fix = &Fix{Label: fmt.Sprintf("Hide it %g mm from the fold", out.Hides[0].MM), Set: []Set{{Path: at, Value: out.Hides[0].MM}}}
			}
			ps := piece.Problems{{Path: at, Message: fmt.Sprintf("is %g mm, but only %.0f mm of cord %s run from the fold to its end", c.JointMM, math.Floor(all), c.ID), Fix: fix}}
			w.d.Locate(ps)
			return ps
		}
		k, _ := slices.BinarySearch(mm, c.JointMM)
		out.Section = max(0, sections[k])
		if c.JointMM > 0 {
			w.moveJoint(own, other, mm, c.JointMM)
		}
		w.plan.Joints = append(w.plan.Joints, out)
	}
	return nil
}

// legOf is the one leg of a cord.
func (w *walk) legOf(ci int) *leg {
	return w.legs[slices.IndexFunc(w.legs, func(l *leg) bool { return l.cord == ci })]
}

// span is a stretch of a leg, mm from its beginning.
type span struct {
	from, to float64
	section  int
}

// walked is how much cord lies between a leg's beginning and each of its points, mm, in
// which section that is, and the stretches, long enough for a joint, that knots tied
// over the leg or beads cover. It is the curve's length, by as much longer in each
// section as its parts say.
func (w *walk) walked(l *leg) (mm []float64, sections []int, covered []span) {
	takes, long := map[int]float64{}, map[int]float64{}
	for _, p := range l.parts {
		takes[p.Section] += p.MM
	}
	var points []r3.Vec
	var lies []knot.Lie
	l.each(func(v r3.Vec, section int, lie knot.Lie) {
		step := 0.0
		if n := len(points); n > 0 {
			step = r3.Norm(r3.Sub(v, points[n-1]))
		}
		long[section] += step
		points, lies = append(points, v), append(lies, lie)
		mm, sections = append(mm, step), append(sections, section)
	})
	cover := func(k int, from, to float64) { // of the step to point k, as shares
		at := span{mm[k-1] + from*(mm[k]-mm[k-1]), mm[k-1] + to*(mm[k]-mm[k-1]), sections[k]}
		if n := len(covered); n > 0 && at.from-covered[n-1].to < 1e-6 && covered[n-1].section == at.section {
			covered[n-1].to = math.Max(covered[n-1].to, at.to)
		} else {
			covered = append(covered, at)
		}
	}
	for k := 1; k < len(mm); k++ {
		if s := sections[k]; long[s] > 0 {
			mm[k] *= takes[s] / long[s]
		}
		mm[k] += mm[k-1]
		if lies[k] == knot.Filler && lies[k-1] == knot.Filler {
			cover(k, 0, 1)
			continue
		}
		for _, b := range w.beads {
			if from, to := within(b, points[k-1], points[k]); from < to {
				cover(k, from, to)
			}
		}
	}
	return mm, sections, slices.DeleteFunc(covered, func(s span) bool { return s.to-s.from < joint })
}

// within is which part of the way from a to b lies in a bead, as shares; none where the
// second is not above the first.
func within(b knot.BeadAt, from, to r3.Vec) (float64, float64) {
	if b.Shape == knot.RingShape || b.Across || math.Abs(from.X-b.At.X) > b.WidthMM/2 || math.Abs(to.X-b.At.X) > b.WidthMM/2 {
		return 0, 0
	}
	high, low := b.At.Y-b.LengthMM/2-from.Y, b.At.Y+b.LengthMM/2-from.Y
	step := to.Y - from.Y
	if math.Abs(step) < 1e-9 {
		if high < 0 && low > 0 {
			return 0, 1
		}
		return 0, 0
	}
	high, low = high/step, low/step
	return math.Max(0, math.Min(high, low)), math.Min(1, math.Max(high, low))
}

// moveJoint gives the first so many mm of a leg to the leg of the cord that it is fused
// to: curve, parts and what the sections take of each.
func (w *walk) moveJoint(own, other *leg, mm []float64, upTo float64) {
	own.together()
	other.together()
	k, _ := slices.BinarySearch(mm, upTo) // the first point at or beyond it
	at := curve.Lerp(own.points[k-1], own.points[k], (upTo-mm[k-1])/math.Max(mm[k]-mm[k-1], 1e-9))
	points, section, lies := []r3.Vec{at}, []int{own.section[k]}, []knot.Lie{own.lies[k]}
	for i := k - 1; i >= 0; i-- {
		points, section, lies = append(points, own.points[i]), append(section, own.section[i]), append(lies, own.lies[i])
	}
	if n := len(points) - 1; r3.Norm2(r3.Sub(points[n], other.points[0])) < 1e-12 {
		points, section, lies = points[:n], section[:n], lies[:n]
	}
	other.points, other.section, other.lies = append(points, other.points...), append(section, other.section...), append(lies, other.lies...)
	own.points = append([]r3.Vec{at}, own.points[k:]...)
	own.section = append([]int{own.section[k]}, own.section[k:]...)
	own.lies = append([]knot.Lie{own.lies[k]}, own.lies[k:]...)
	other.measured()
	own.measured()

	var given, kept []Part
	left := upTo
	for _, p := range own.parts {
		part := math.Min(left, p.MM)
		left -= part
		if part > 0 {
			given = append(given, Part{p.Section, part})
		}
		if part < p.MM {
			kept = append(kept, Part{p.Section, p.MM - part})
		}
	}
	slices.Reverse(given)
	other.parts, own.parts = append(given, other.parts...), kept
	from, to := w.d.Cords[own.cord].ID, w.d.Cords[other.cord].ID
	for _, p := range given {
		handTies(own, other, p)
		w.handUse(p, from, to)
	}
}

// handTies gives the other leg the knots of a part that it takes now.
func handTies(own, other *leg, p Part) {
	left := p.MM
	for k := range own.ties {
		if t := &own.ties[k]; t.section == p.Section && left > 0 {
			part := math.Min(left, t.mm)
			other.ties = append(other.ties, ties{t.section, t.family, part, t.knots})
			t.mm, left = t.mm-part, left-part
		}
	}
}

// handUse writes that a section takes so much of one cord rather than of another.
func (w *walk) handUse(p Part, from, to string) {
	for i := range w.plan.Sections {
		s := &w.plan.Sections[i]
		if s.Index != p.Section {
			continue
		}
		left := p.MM
		var more []Use
		for k := range s.Use {
			if u := &s.Use[k]; u.Cord == from && left > 0 {
				part := math.Min(left, u.MM)
				u.MM, left = u.MM-part, left-part
				more = append(more, Use{Strand: u.Strand, Cord: to, MM: part})
			}
		}
		s.Use = append(slices.DeleteFunc(s.Use, func(u Use) bool { return u.MM == 0 && u.Cord == from }), more...)
		return
	}
}

// saysJoint is what is said of a joint where its cords are cut; whole is both together.
func (w *walk) saysJoint(j Joint, whole float64) string {
	if j.MM == 0 {
		return fmt.Sprintf(" Together they are {%.0fmm}, and the joint is the fold: pull at it before you go on.", whole)
	}
	says := fmt.Sprintf(" Together they are {%.0fmm}. Fold them on cord %s, {%.0fmm} from the joint: pull at it before you go on.", whole, j.To, j.MM)
	k, _ := knot.Get(w.d.Sequence[j.Section].Do)
	if j.Hidden {
		return says + fmt.Sprintf(" The joint then hides in section %d, %s.", j.Section+1, k.Name)
	}
	return says + fmt.Sprintf(" The joint then shows in section %d, %s.", j.Section+1, k.Name)
}
