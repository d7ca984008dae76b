package shapes

import (
	"nimblebight/core/curve"
	"nimblebight/core/tighten"
)

// Floor is how near strands may come in a shape that is taken between others, over
// the mean of their diameters: the give of soft cord takes up what is missing to
// touching. A shape that is under it is not used. It is judged, not derived.
const Floor = 0.8

// Measured is a shape with the least distance of its strands from one another, from
// themselves and from the bars of the problem that it stands for, measured on the
// shape itself, however it came to be.
func Measured(p tighten.Problem, s Shape) Shape {
	curves := make([]curve.Curve, len(s.Strands))
	for i, pts := range s.Strands {
		curves[i] = curve.Curve{Points: pts}
	}
	var cell tighten.Cell
	if p.Cell != nil {
		cell = *p.Cell
		cell.Pitch, cell.Twist = s.Pitch, s.Twist
	}
	s.Gap = tighten.GapOf(p, curves, cell)
	return s
}

// Between is the shape of one parameter taken between the two of its steps that it
// lies between, node by node, and measured. Beyond the steps it is that of the
// nearest. cell gives the name and the problem of each value.
func (f *Family) Between(steps []float64, x float64, nodes int, cell func(float64) (string, func() tighten.Problem)) (Shape, error) {
	x = max(steps[0], min(x, steps[len(steps)-1]))
	k := 0
	for k < len(steps)-2 && steps[k+1] < x {
		k++
	}
	u := (x - steps[k]) / (steps[k+1] - steps[k])
	a, err := f.Shape(cell(steps[k]))
	if err != nil {
		return Shape{}, err
	}
	b, err := f.Shape(cell(steps[k+1]))
	if err != nil {
		return Shape{}, err
	}
	out := Shape{Pitch: a.Pitch + u*(b.Pitch-a.Pitch), Twist: a.Twist + u*(b.Twist-a.Twist)}
	for i := range a.Strands {
		p, q := curve.Curve{Points: a.Strands[i]}.Resample(nodes).Points, curve.Curve{Points: b.Strands[i]}.Resample(nodes).Points
		for n := range p {
			p[n] = curve.Lerp(p[n], q[n], u)
		}
		out.Strands = append(out.Strands, p)
	}
	_, problem := cell(x)
	return Measured(problem(), out), nil
}
