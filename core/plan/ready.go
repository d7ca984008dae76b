package plan

import (
	"fmt"
	"strings"
)

// ready are the moves before the first one that ties: every cord is measured and cut, ends
// are prepared where that is done on the table, cords are fused, and what is folded is
// folded. The folds come last, so that the scissors are put away before the first one.
func (w *walk) ready() []Action {
	out, folds := []Action{}, []Action{}
	for i, c := range w.plan.Cords {
		if c.Role == "unused" {
			continue
		}
		s := w.d.Cords[i].Stuff
		lay := "straight"
		if s.Make.Stretches() {
			lay = "without pull"
		}
		at := Action{Cord: c.ID, Colour: c.Colour}
		cut := at
		cut.Table = "cut"
		cut.Text = fmt.Sprintf("Measure {%.0fmm} of cord %s and cut it.", c.CutMM, c.ID)
		cut.Detail = fmt.Sprintf("Lay it %s along the tape measure. It is %s %s.", lay, s.Make.Name(), s.Material)
		out = append(out, cut)
		if c.fold != "" {
			at.Table, at.Text, at.Detail = "fold", c.fold+".", strings.ToUpper(c.parts[:1])+c.parts[1:]+"."
			folds = append(folds, at)
		}
	}
	for _, r := range w.plan.Prepared {
		if !r.Way.Early {
			continue
		}
		out = append(out, Action{Table: "prepare", Text: r.Way.How, Detail: fmt.Sprintf("It is for %s: section %d leads them through something tight.", strings.Join(r.Legs, ", "), r.Section+1)})
	}
	for _, j := range w.plan.Joints {
		c := w.plan.Cords[w.d.CordByID(j.Cord)]
		out = append(out, Action{Table: "fuse", Cord: c.ID, Colour: c.Colour, Text: fmt.Sprintf("Fuse cord %s end to end with cord %s.", j.Cord, j.To), Detail: strings.TrimSpace(w.saysJoint(j, c.CutMM+w.plan.Cords[w.d.CordByID(j.To)].CutMM))})
	}
	return append(out, folds...)
}
