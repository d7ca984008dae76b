package plan

import (
	"slices"
	"strings"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
)

// Stage is a stage of the work on a piece, in the order in which makers work. What
// is checked and logged comes after the piece and is not told by its plan.
type Stage string

// The stages that a plan tells of.
const (
	AtPurpose Stage = "purpose"
	AtStuff   Stage = "stuff"
	AtCut     Stage = "cut"
	AtTie     Stage = "tie"
	AtFinish  Stage = "finish"
)

// done are the stages that have what they need: something to work on, and no
// warning of theirs. ended is set where every strand ends in what is tied.
func done(d piece.Document, warnings []Warning, ended bool) []Stage {
	warned := func(of func(code string) bool) bool {
		return slices.ContainsFunc(warnings, func(w Warning) bool { return of(w.Code) })
	}
	has := func(of func(k knot.Knot) bool) bool {
		return slices.ContainsFunc(d.Sequence, func(s knot.Section) bool {
			k, ok := knot.Get(s.Do)
			return ok && of(k)
		})
	}
	is := func(codes ...string) func(string) bool {
		return func(code string) bool { return slices.Contains(codes, code) }
	}
	out := []Stage{}
	for _, s := range []struct {
		stage Stage
		done  bool
	}{
		{AtPurpose, d.Purpose.LengthMM+d.Purpose.BetweenMM+d.Purpose.BladeMM > 0 && !warned(is("mount-crowded", "swings-into-the-blade", "stands-stiff", "blade-too-near"))},
		{AtStuff, len(d.Cords) > 0 && !warned(is("cord-unused"))},
		{AtCut, len(d.Cords) > 0 && !warned(func(c string) bool { return strings.HasSuffix(c, "-short") })},
		{AtTie, has(func(k knot.Knot) bool { return !k.Mounts && !k.Ends }) && !warned(is("length-off", "room-between", "too-long-between"))},
		{AtFinish, (has(func(k knot.Knot) bool { return k.Ends }) || ended && len(d.Cords) > 0) && !warned(is("ends-not-finished", "flame-on-natural-fibre", "finish-unsuited"))},
	} {
		if s.done {
			out = append(out, s.stage)
		}
	}
	return out
}
