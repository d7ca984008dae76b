package plan_test

import (
	"errors"
	"testing"

	"nimblebight/core/piece"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// Wherever the joint of two cords lies, the piece and the cord of both together are the
// same, and the two cords meet there: so far from the fold as is said.
func TestAJointMovesNoCurve(t *testing.T) {
	for _, line := range []string{tied, tiedFromFar, "mount A, gap 20mm, snake-knot 6, bead hole=9mm long=14mm wide=16mm, overhand, finish dome"} {
		d := tether(line, 0)
		at := make1(t, d, plan.Options{})
		hides := at.Joints[0].Hides
		if len(hides) == 0 || at.Joints[0].Hidden || at.Joints[0].Section != 0 {
			t.Fatalf("%s: the joint at the fold is said to lie %+v", line, at.Joints)
		}
		for _, mm := range []float64{7, hides[0].MM} {
			d.Cords[1].JointMM = mm
			p := make1(t, d, plan.Options{})
			near(t, line+": long", p.LengthMM, at.LengthMM, 1e-9)
			for i, sign := range []float64{1, -1} {
				near(t, line+": cord "+p.Cords[i].ID, p.Cords[i].NeedsMM, at.Cords[i].NeedsMM+sign*mm, 1e-6)
			}
			a, b := p.Layout().Strands[0].Points[0], p.Layout().Strands[1].Points[0]
			near(t, line+": between both ends at the joint", r3.Norm(r3.Sub(a, b)), 0, 1e-9)
			if j := p.Joints[0]; j.Hidden != (mm == hides[0].MM) || j.Hidden && j.Section != hides[0].Section {
				t.Errorf("%s: %g mm from the fold the joint is said to lie %+v, it hides at %+v", line, mm, j, hides)
			}
		}
	}
}

// A joint beyond the end of its leg is refused with a place that will do; where the cord
// is fused to none, and below zero, the document is refused.
func TestAJointIsRefused(t *testing.T) {
	d := tether(tied, 0)
	d.Cords[1].JointMM = 5000
	_, err := plan.Make(d, plan.Options{})
	var ps piece.Problems
	if !errors.As(err, &ps) || ps[0].Path != "cords[1].joint_mm" || ps[0].Fix == nil {
		t.Fatalf("a joint 5 m from the fold: %v", err)
	}
	if p := make1(t, apply(t, d, *ps[0].Fix), plan.Options{}); !p.Joints[0].Hidden {
		t.Errorf("what is offered is %+v", p.Joints[0])
	}
	d.Cords[1].JointMM = -3
	alone := tether(tied, 0)
	alone.Cords[0].JointMM = 10
	for name, d := range map[string]piece.Document{"below zero": d, "of a cord that is fused to none": alone} {
		if len(d.Check()) == 0 {
			t.Errorf("a joint %s is not refused", name)
		}
	}
}
