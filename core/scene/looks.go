package scene

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// Work that goes round an axis is seen from the side, from its end, or unrolled. The
// last two are layouts of one section, drawn like any other: what lies over what comes
// from the same curves.

// Look is how a section that goes round is looked at.
type Look string

// From the working end, or its outside rolled off flat, cut open at the back.
const (
	FromEnd  Look = "end"
	Unrolled Look = "unrolled"
)

// Of is a section of a layout as it is looked at; a layout without strands where it has
// none.
//
// Laws: (1) seen from the end nothing changes its distance from anything; (2) unrolled,
// heights stay, and lengths along the round are those at the cords' mean distance from
// the axis.
func (k Look) Of(l plan.Layout, section int) plan.Layout {
	out := bare(l)
	if section < 0 || section >= len(l.Sections) {
		return out
	}
	switch k {
	case FromEnd:
		e := lookUpAt(l, section)
		out.Strands = e.strands(e.top - l.Thick)
	case Unrolled:
		out.Strands = unrolled(sectionRuns(l, section), l.Thick)
	}
	settle(&out)
	return out
}

// settle tells a layout how far down its strands go.
func settle(l *plan.Layout) {
	for _, s := range l.Strands {
		for _, v := range s.Points {
			l.Bottom = math.Max(l.Bottom, v.Y)
		}
	}
}

// bare is a layout of the same cords without strands.
func bare(l plan.Layout) plan.Layout {
	return plan.Layout{Hardware: piece.Hardware{Type: "none", InnerMM: 20, WireMM: 2}, Moving: l.Moving, MovingFrom: math.Inf(-1),
		Stuffs: l.Stuffs, Figures: l.Figures, Thick: l.Thick}
}

// SideOf is what is tied round a core, turned so that one of its sides looks to the eye;
// a layout without strands where it has no such side.
func SideOf(l plan.Layout, core knot.CoreAt, n int) plan.Layout {
	out := bare(l)
	out.Moving = nil
	if n < 0 || n >= len(core.Sides) {
		return out
	}
	z := core.Sides[n]
	y := curve.Across(r3.Vec{Y: 1}, z)
	x := r3.Cross(y, z)
	far := 0.0
	for i, at := range l.Sections {
		if at[0] > core.At.Y || at[1] < core.At.Y {
			continue
		}
		for _, s := range sectionRuns(l, i) {
			out.Strands = append(out.Strands, pieces(s, func(r3.Vec) bool { return true }, func(v r3.Vec) r3.Vec {
				v = r3.Sub(v, core.At)
				return r3.Vec{X: r3.Dot(v, x), Y: r3.Dot(v, y), Z: r3.Dot(v, z)}
			})...)
		}
	}
	for _, s := range out.Strands {
		for _, v := range s.Points {
			far = math.Max(far, r3.Norm(v))
		}
	}
	for _, s := range out.Strands { // a picture begins at 0
		for i := range s.Points {
			s.Points[i].Y += far + l.Thick
		}
	}
	out.Bottom = 2 * (far + l.Thick)
	return out
}

// sectionRuns are the stretches of strands that belong to a section.
func sectionRuns(l plan.Layout, section int) []plan.Strand {
	at := l.Sections[section]
	var out []plan.Strand
	for _, s := range l.Near(at[0]-4*l.Thick, at[1]+4*l.Thick) {
		for a := 0; a < len(s.Points); {
			if s.Section[a] != section {
				a++
				continue
			}
			e := a
			for e < len(s.Points) && s.Section[e] == section {
				e++
			}
			if e-a > 1 {
				run := plan.Strand{Cord: s.Cord, Index: s.Index, Points: s.Points[a:e], Section: s.Section[a:e], Lies: s.Lies[a:e], Fold: s.FoldFrom(a)}
				if s.Sheath != nil {
					run.Sheath = s.Sheath[a:e]
				}
				out = append(out, run)
			}
			a = e
		}
	}
	return out
}

// hangsFrom is the y from which on a strand hangs straight down to its lowest point, and a
// little lower.
func hangsFrom(pts []r3.Vec, lowest r3.Vec, thick float64) float64 {
	const aside, stub = 0.35, 1.5 // diameters
	from := math.Inf(-1)
	for _, v := range pts {
		if math.Hypot(v.X-lowest.X, v.Z-lowest.Z) > aside*thick {
			from = math.Max(from, v.Y)
		}
	}
	return math.Min(lowest.Y, from+stub*thick)
}

// unrolled rolls the outside of a section off, cut open at the back. What lies far inside
// it, as the strands under a cover, is left out.
func unrolled(runs []plan.Strand, thick float64) []plan.Strand {
	var away []float64
	top := math.Inf(1)
	for _, s := range runs {
		for _, v := range s.Points {
			away = append(away, math.Hypot(v.X, v.Z))
			top = math.Min(top, v.Y)
		}
	}
	if len(away) == 0 {
		return nil
	}
	slices.Sort(away)
	outer := away[len(away)*9/10]
	const inside = 0.45 // of the outermost: nearer to the axis it is not seen from outside
	const part = 0.5    // radians: what is seen of a strand for less is a scrap
	const goes = 1.0    // radians: what goes less far round only comes in, as strands to a cover
	mean, n := 0.0, 0.0
	for _, r := range away {
		if r > inside*outer {
			mean, n = mean+r, n+1
		}
	}
	mean /= n
	over := thick / mean // a little of it is drawn on both sides of the cut
	var out []plan.Strand
	for _, s := range runs {
		// How far round, without a jump where it comes past the back.
		round := make([]float64, len(s.Points))
		for i, v := range s.Points {
			round[i] = math.Atan2(v.X, v.Z)
			if i > 0 {
				round[i] += 2 * math.Pi * math.Round((round[i-1]-round[i])/(2*math.Pi))
			}
		}
		lo, hi := slices.Min(round), slices.Max(round)
		from, to := math.Inf(1), math.Inf(-1) // of what lies outside
		for i, v := range s.Points {
			if math.Hypot(v.X, v.Z) > inside*outer {
				from, to = math.Min(from, round[i]), math.Max(to, round[i])
			}
		}
		if to-from < goes {
			continue
		}
		for turn := math.Floor((lo + math.Pi) / (2 * math.Pi)); turn <= math.Floor((hi+math.Pi)/(2*math.Pi))+1; turn++ {
			flat := s
			flat.Points = make([]r3.Vec, len(s.Points))
			if s.Sheath != nil {
				flat.Sheath = slices.Clone(s.Sheath)
			}
			seen := make([]bool, len(s.Points))
			for i, v := range s.Points {
				a := round[i] - 2*math.Pi*turn
				r := math.Hypot(v.X, v.Z)
				flat.Points[i] = r3.Vec{X: mean * a, Y: v.Y - top + thick, Z: r}
				if s.Sheath != nil { // the side turns with the outside
					sin, cos := math.Sincos(a)
					up := s.Sheath[i].Up
					flat.Sheath[i].Up = r3.Vec{X: cos*up.X - sin*up.Z, Y: up.Y, Z: sin*up.X + cos*up.Z}
				}
				seen[i] = math.Abs(a) < math.Pi+over && r > inside*outer
			}
			for _, p := range cutOut(flat, seen) {
				box := curve.Curve{Points: p.Points}.Box()
				if box.Max.X-box.Min.X > part*mean {
					out = append(out, p)
				}
			}
		}
	}
	return out
}

// pieces are the parts of a strand whose points are wanted, mapped.
func pieces(s plan.Strand, want func(r3.Vec) bool, as func(r3.Vec) r3.Vec) []plan.Strand {
	seen := make([]bool, len(s.Points))
	for i, v := range s.Points {
		seen[i] = want(v)
	}
	s.Points = curve.Curve{Points: s.Points}.Map(as).Points
	if s.Sheath != nil {
		s.Sheath = slices.Clone(s.Sheath)
		for i := range s.Sheath {
			s.Sheath[i].Up = r3.Sub(as(s.Sheath[i].Up), as(r3.Vec{}))
		}
	}
	return cutOut(s, seen)
}

// cutOut are the parts of a strand that are seen.
func cutOut(s plan.Strand, seen []bool) []plan.Strand {
	var out []plan.Strand
	for a := 0; a < len(seen); {
		e := a
		for e < len(seen) && seen[e] {
			e++
		}
		if e-a > 2 {
			part := plan.Strand{Cord: s.Cord, Index: s.Index, Points: slices.Clone(s.Points[a:e]), Section: s.Section[a:e], Lies: slices.Clone(s.Lies[a:e]), Fold: s.FoldFrom(a)}
			if s.Sheath != nil {
				part.Sheath = slices.Clone(s.Sheath[a:e])
			}
			out = append(out, part)
		}
		a = max(e, a+1)
	}
	for i := range out { // flat there is no row to press
		for k, lie := range out[i].Lies {
			if lie != knot.Pressed {
				out[i].Lies[k] = knot.Knotted
			}
		}
	}
	return out
}
