package plan

import (
	"fmt"
	"slices"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/piece"

	"gonum.org/v1/gonum/spatial/r3"
)

// A piece that begins with a ball is planned in the order in which it is tied:
// ball, sinnet, ring. It hangs the other way up.

// forTheNext notes the cords that the ball after a mount is tied of.
func (w *walk) forTheNext(i int, path string, s knot.Section, t knot.Terms) error {
	if len(w.hanging) > 0 || i > 0 {
		return problem(path, "hitch", "is from-knot, but the ball is tied first of all; put this mount at the beginning")
	}
	if seq := w.d.Sequence; len(seq) < 2 || knot.TermsOf(seq[1]).Begins != knot.OfTheLast {
		ball, ok := knot.That(func(k knot.Knot) bool { return k.First && k.Anew != nil })
		if !ok {
			return problem(path, "hitch", "is from-knot, but no ball comes next that its cords could come out of")
		}
		first := ball.Anew(1, t.Cords) // the mount is there already
		return piece.Problems{{Path: path + ".hitch", Message: "is from-knot, but no ball comes next that its cords could come out of",
			Fix: &Fix{Label: "Tie a " + ball.Name + " there", Set: []Set{{Path: "sequence", Value: slices.Insert(slices.Clone(w.written), 1, first...)}}}}}
	}
	w.ball = t.Cords
	w.keep(Section{Index: i, Do: s.Do, Use: []Use{}, OrderAfter: []string{}, GapShare: 1}, 0, 0)
	w.plan.Steps = append(w.plan.Steps, stepOf(i, s.Do, 1))
	return nil
}

// hangsOnNothing refuses what is put on or made in a ring where there is none.
func (w *walk) hangsOnNothing(path string, t knot.Terms) error {
	says := "puts cords on, but the piece hangs on nothing; say what it hangs on, or begin with a ball and hitch=from-knot"
	field := "hitch"
	if t.Hardware {
		says, field = "makes its eye in a ring, but the piece hangs on nothing; say what it hangs on", "do"
	}
	return piece.Problems{{Path: path + "." + field, Message: says,
		Fix: &Fix{Label: "Hang it on a split ring", Set: []Set{{Path: "purpose.hangs_on.type", Value: "split-ring"}}}}}
}

// ballLegs are the legs that come out of a ball, by cord.
func (w *walk) ballLegs(path string, t knot.Terms) ([]*leg, error) {
	if len(w.hanging) > 0 || w.ball == nil {
		return nil, problem(path, "do", "is a ball, which is tied first, before anything hangs; begin with mount hitch=from-knot, then the ball: the ring comes last")
	}
	if n := len(w.ball); n != t.Wants {
		out := piece.Problem{Path: path + "." + t.WantsAt, Message: fmt.Sprintf("is %s, so it takes %d cord%s; the mount names %d", t.As, t.Wants, plural(t.Wants, "", "s"), n)}
		if t.Suits != nil {
			if set, label := t.Suits(n); set != nil {
				out.Fix = &Fix{Label: label, Set: []Set{{Path: out.Path, Value: set}}}
			}
		}
		if out.Fix == nil && n > t.Wants {
			label := "Take the first cord"
			if t.Wants > 1 {
				label = fmt.Sprintf("Take the first %d cords", t.Wants)
			}
			out.Fix = &Fix{Label: label, Set: []Set{{Path: "sequence[0]." + knot.TermsOf(w.d.Sequence[0]).CordsAt, Value: w.ball[:t.Wants]}}}
		}
		return nil, piece.Problems{out}
	}
	var own []*leg
	for _, id := range w.ball {
		for n := range t.Legs {
			own = append(own, &leg{cord: w.d.CordByID(id), n: n})
		}
	}
	w.ball = []string{}
	return own, nil
}

// fromBall tells whether the piece begins with a ball and hangs the other way up.
func (w *walk) fromBall() bool {
	return len(w.d.Sequence) > 0 && knot.TermsOf(w.d.Sequence[0]).Begins == knot.ForTheNext
}

// hungUp turns a layout of a piece that was tied from its ball on, so that it
// hangs from its other end.
func (y *Layout) hungUp(eye float64) {
	if eye == 0 {
		eye = y.Bottom
		y.Hardware.Type = "none"
	}
	over := func(v r3.Vec) r3.Vec { return r3.Vec{X: -v.X, Y: eye - v.Y, Z: v.Z} }
	for _, s := range y.Strands {
		for i, v := range s.Points {
			s.Points[i] = over(v)
		}
		for i, at := range s.Sheath {
			s.Sheath[i].Up = r3.Sub(over(at.Up), over(r3.Vec{}))
		}
	}
	for i := range y.Beads {
		y.Beads[i].At = over(y.Beads[i].At)
	}
	for i := range y.Cores {
		y.Cores[i].At = over(y.Cores[i].At)
		y.Cores[i].Sides = curve.Curve{Points: y.Cores[i].Sides}.Map(func(v r3.Vec) r3.Vec { return r3.Sub(over(v), over(r3.Vec{})) }).Points
	}
	for i, s := range y.Sections {
		y.Sections[i] = [2]float64{eye - s[1], eye - s[0]}
	}
	for i, s := range y.Sides {
		y.Sides[i] = [2]float64{-s[1], -s[0]}
	}
	for i, c := range y.Cuts {
		y.Cuts[i] = eye - c
	}
	slices.Sort(y.Cuts)
	y.Bottom = eye
	for _, s := range y.Strands {
		for _, v := range s.Points {
			y.Bottom = max(y.Bottom, v.Y)
		}
	}
}

// BallLayout is a ball by itself, hanging on nothing: strands as they are given
// by package fist.
func BallLayout(b ball.Ball, strands []ball.Strand, stuffs []cord.Stuff) Layout {
	middle := r3.Vec{Y: b.CornerMM / 2}
	lay := Layout{Hardware: piece.Hardware{Type: "none", InnerMM: 20, WireMM: 2}, Bottom: b.CornerMM, Stuffs: stuffs}
	for _, s := range stuffs {
		lay.Figures = append(lay.Figures, s.Figures())
	}
	for _, s := range strands {
		out := Strand{Cord: s.Cord, Ends: [2]string{"cut", "cut"}}
		for _, v := range s.Points {
			out.Points = append(out.Points, r3.Add(v, middle))
			out.Section = append(out.Section, 0)
			out.Lies = append(out.Lies, knot.Pressed)
		}
		out.Index = len(lay.Strands)
		lay.Strands = append(lay.Strands, out)
	}
	lay.Thick = b.Ask.Cord.DiameterMM
	lay.Sections, lay.Sides = [][2]float64{{0, b.CornerMM}}, [][2]float64{{-b.CornerMM / 2, b.CornerMM / 2}}
	colour := b.Core.Kind.Colour()
	if colour == "" {
		colour = "#8a8f86" // of the cord, in its own shade
	}
	lay.Cores = []knot.CoreAt{{At: middle, DiameterMM: b.Core.DiameterMM, Colour: colour}}
	return lay
}
