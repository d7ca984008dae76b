package ball

import "fmt"

// ChokingMM is the width of the gauge that toys for small children are held
// to: what goes into a cylinder of this width can be swallowed.
const ChokingMM = 31.7

// heavyG is the weight from which a hard core is more than a trinket, g: that of
// a marble of 16 mm.
const heavyG = 5.0

// warn says what a maker should know before cutting. {12.3mm} in a message is
// a length, shown in the maker's units.
func (b *Ball) warn(rattles bool) {
	b.Warnings = []Warning{}
	say := func(w Warning, format string, args ...any) {
		w.Message = fmt.Sprintf(format, args...)
		b.Warnings = append(b.Warnings, w)
	}
	mm, r := b.Core.DiameterMM, b.Range
	instead := Warning{CoreMM: r.BestMM}
	more := ""
	if n, ok := Suits(b.Ask, mm); ok && n != b.Passes {
		instead.Passes = n
		more = fmt.Sprintf(", or tie %d passes", n)
	}
	switch {
	case b.Core.Kind == Wadding && mm <= r.MostMM:
	case rattles && mm < r.LeastMM-0.05:
		instead.Code = "core-small"
		if b.Core.Kind == Stopper {
			say(instead, "The stopper (%s) comes to {%.1fmm}, {%.1fmm} less than %d passes close on: wrap it with tape or a few turns of cord up to {%.1fmm}%s.", b.StopperKnot, mm, r.LeastMM-mm, b.Passes, r.BestMM, more)
			break
		}
		say(instead, "The core is {%.1fmm} too small: the turns lock on one another before they reach it, and it rattles. Take one of {%.1fmm} to {%.1fmm}%s.", r.LeastMM-mm, r.LeastMM, r.MostMM, more)
	case mm > r.MostMM+0.05:
		instead.Code = "core-large"
		say(instead, "The core is {%.1fmm} too large: it shows at the corners, {%.1fmm} wide. Take one of {%.1fmm} to {%.1fmm}%s.", mm-r.MostMM, b.BareMM, r.LeastMM, r.MostMM, more)
	}
	edge := 0
	for _, f := range b.Faces() {
		if f.Flaw != "" {
			edge++
		}
	}
	if edge > 0 {
		say(Warning{Code: "turn-on-edge"}, "On %d of the six faces the first turn of a band rides on the edge where the cord changes bands: with %d passes its neighbours do not hold it. Press it over to them as you draw up, and look at every face twice.", edge, b.Passes)
	}
	if b.Core.Kind.Hard() && b.CoreG >= heavyG {
		soft := cores[b.Core.Kind].soft
		light := Core{Kind: soft, DiameterMM: mm}.Weight(b.Cord)
		say(Warning{Code: "hard-core", Kind: soft}, "A ball tied round a %s (%.0f g with its core) is hard enough to hurt and may count as a weapon where you live: follow local law, and never swing it. A %s of the same size makes it %.0f g.",
			b.Core.Kind.Name(), b.WeightG, soft.Name(), b.WeightG-b.CoreG+light)
	}
	if b.CornerMM < ChokingMM {
		say(Warning{Code: "choking"}, "{%.1fmm} across its corners, it goes into a cylinder of {%.1fmm}, the usual gauge for what a small child could swallow: keep it from small children.", b.CornerMM, ChokingMM)
	}
}
