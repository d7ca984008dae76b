package plan

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/colour"
	"nimblebight/core/cord"
	"nimblebight/core/gauge"
)

// Why is what the cut of a cord is made of, mm; together they are the cut.
type Why struct {
	KnotworkMM float64 `json:"knotwork_mm"` // what its knots take, on the median
	MeasuredMM float64 `json:"measured_mm"` // what lies bare between them
	FinishMM   float64 `json:"finish_mm"`   // what its finish leaves and trims
	SpreadMM   float64 `json:"spread_mm"`   // so that it runs short no more often than asked
	HoldMM     float64 `json:"hold_mm"`     // what the hand needs beyond what the finish leaves and trims
	EvenMM     float64 `json:"even_mm"`     // what legs that are not found cost
	RoundingMM float64 `json:"rounding_mm"`
}

// Rests are the shares of the doubt in what knots take that each source has taken
// away; what is left rests on geometry and on what is known of any hand. Together they
// are 1.
type Rests struct {
	Geometry float64 `json:"geometry"`
	Swatches float64 `json:"swatches"`
	Logs     float64 `json:"logs"`
}

// Known is what is known of a cord, and of the hand in the families of knots that take
// it. Doubts are standard deviations, as shares.
type Known struct {
	Kind    string  `json:"kind"` // of [cord.Stuff.Kind]
	LabelMM float64 `json:"label_mm"`
	// LabelDoubt is what is in doubt of the drawn-up diameter by the label, Doubt what
	// still is.
	LabelDoubt float64 `json:"label_doubt"`
	Doubt      float64 `json:"doubt"`
	Hands      []Habit `json:"hands"`
}

// Habit is by what this maker ties a family of knots looser than ideal ones.
type Habit struct {
	Family string  `json:"family"`
	Loose  float64 `json:"loose"`
	Doubt  float64 `json:"doubt"`
}

// known tells what is known of a cord that knots take.
func (w *walk) known(s cord.Stuff, l gauge.Leg) Known {
	var none *gauge.Estimate
	out := Known{Kind: s.Kind(), LabelMM: s.Figures().DrawnUpMM, Hands: []Habit{}}
	_, out.LabelDoubt = none.Diameter(s)
	_, out.Doubt = w.gauge.Diameter(s)
	for _, k := range l.Knots {
		loose, doubt := w.gauge.Hand(k.Family)
		out.Hands = append(out.Hands, Habit{k.Family, loose, doubt})
	}
	return out
}

// doubt is what is in doubt of a leg's length.
func (w *walk) doubt(l *leg) gauge.Leg {
	out := gauge.Leg{Rulered: l.rulered}
	for _, t := range l.ties {
		if t.mm > 0 {
			out.Add(gauge.Of(w.d.Cords[l.cord].Stuff, t.family), t.mm, t.knots)
		}
	}
	return out
}

// measured is a leg with what is cut of it.
type measured struct {
	*leg
	needs, allowed float64
}

// cut is what a leg is cut, mm, not yet rounded.
func (m measured) cut() float64 { return m.needs + m.allowed + m.extra() }

// extra is what must hang beyond what the leg needs: fingers hold what the finish
// leaves and trims, and what was made ready for threading, before they need more. A cord that is tied round others has two ends
// to hold, or needs what its knot says.
func (m measured) extra() float64 {
	if m.beyond > 0 {
		return m.beyond
	}
	return math.Max(m.hold, math.Max(m.trim, m.off))
}

// add puts what a leg is cut to the reasons.
func (y *Why) add(m measured) {
	trim := math.Min(math.Max(m.trim, m.off), m.extra())
	knotwork := math.Min(m.knotwork(), m.needs-m.leave) // a row that is crossed is bent a little shorter
	y.KnotworkMM += knotwork
	y.FinishMM += m.leave + trim
	y.MeasuredMM += m.needs - knotwork - m.leave
	y.SpreadMM += m.allowed
	y.HoldMM += m.extra() - trim
}

func (y Why) sum() float64 {
	return y.KnotworkMM + y.MeasuredMM + y.FinishMM + y.SpreadMM + y.HoldMM + y.EvenMM + y.RoundingMM
}

func needs(l *leg) float64 {
	sum := 0.0
	for _, p := range l.parts {
		sum += p.MM
	}
	return sum
}

// addParts adds up what lies next to one another of one section.
func addParts(ps []Part) []Part {
	out := ps[:0:0]
	for _, p := range ps {
		if n := len(out); n > 0 && out[n-1].Section == p.Section {
			out[n-1].MM += p.MM
			continue
		}
		out = append(out, p)
	}
	return out
}

// cords fills the cut list.
func (w *walk) cords() {
	all := append(slices.Clone(w.legs), w.own...)
	doubts := make([]gauge.Leg, len(all))
	legs := make([]measured, len(all))
	for i, l := range all {
		l.parts = addParts(l.parts)
		doubts[i] = w.doubt(l)
		legs[i] = measured{leg: l, needs: needs(l)}
		if i >= len(w.legs) && l.beyond == 0 {
			l.beyond = 2 * holds[w.o.Hold].works
		}
	}
	allowed := make([]float64, len(all))
	if w.o.Until == 0 { // nothing is cut of a piece half tied
		allowed = w.gauge.Enough(doubts, w.o.OneIn, gauge.Everything)
	}
	plain := allowed
	if w.gauge != nil && w.o.Until == 0 {
		plain = w.gauge.Enough(doubts, w.o.OneIn, gauge.Geometry)
	}
	for i := range legs {
		legs[i].allowed = allowed[i]
	}
	for ci, c := range w.d.Cords {
		out := Cord{ID: c.ID, Role: "unused", Colour: c.Stuff.Colour, ColourName: colour.Name(c.Stuff.Colour), DrawnUpMM: w.figures[ci].DrawnUpMM, Legs: []Leg{}, Rests: Rests{Geometry: 1}}
		var whole gauge.Leg
		var of []measured
		geometry := 0.0
		for i, l := range legs {
			if l.cord != ci {
				continue
			}
			of = append(of, l)
			whole = whole.Join(doubts[i])
			out.NeedsMM += l.needs
			out.Allowed += l.allowed
			geometry += plain[i]
			out.SpreadMM += l.rough
			out.Why.add(l)
		}
		slices.SortStableFunc(of, func(a, b measured) int { return a.n - b.n })
		if out.NeedsMM > 0 {
			out.Allowed, out.ByGeometry = out.Allowed/out.NeedsMM, geometry/out.NeedsMM
		}
		out.SpreadMM += w.gauge.Spread(whole)
		out.Rests = w.rests(whole)
		out.Known = w.known(c.Stuff, whole)
		switch {
		case len(of) == 2 && slices.Contains(w.legs, of[0].leg):
			out.Role = "legs"
			w.folds(&out, ci, of[0], of[1])
		case len(of) == 1 && slices.Contains(w.legs, of[0].leg): // out of a ball, in which it begins
			out.Role = "strand"
			out.CutMM = roundUp(of[0].cut(), w.o.RoundUpMM)
			out.Legs = []Leg{{NeedsMM: out.NeedsMM, CutMM: out.CutMM, Role: "worker", Parts: of[0].parts, BeyondMM: of[0].extra(), doubt: whole}}
			out.Measure = fmt.Sprintf("Cut {%.0fmm}; it is not folded.", out.CutMM)
			if to := w.partner(ci); to >= 0 && (c.JoinedTo != "" || !w.fromBall()) {
				out.Measure = fmt.Sprintf("Cut {%.0fmm} and fuse it end to end with cord %s.", out.CutMM, w.d.Cords[to].ID)
			}
		case len(of) == 1:
			out.Role = "wrap"
			out.CutMM = roundUp(of[0].cut(), w.o.RoundUpMM)
			out.Legs = []Leg{{NeedsMM: out.NeedsMM, CutMM: out.CutMM, Role: "wrap", Parts: of[0].parts, BeyondMM: of[0].extra(), doubt: whole}}
			out.Measure = fmt.Sprintf("Cut {%.0fmm}; it is not folded.", out.CutMM)
		}
		if out.Role != "unused" {
			out.Thumb = w.thumb(of)
			out.LeftMM = out.CutMM - out.NeedsMM
			out.Why.RoundingMM = out.CutMM - out.Why.sum()
		}
		if c.Stuff.Make.Stretches() && out.Measure != "" {
			out.Measure += " Lay it out without pull."
		}
		w.plan.WeightG += out.NeedsMM / 1000 * w.figures[ci].Weight
		for n := range out.Legs {
			out.Legs[n].Bands = w.bands(ci, n, out.Legs[n].CutMM)
		}
		w.plan.Cords = append(w.plan.Cords, out)
	}
}

// rests tells on what the figure of a leg rests.
func (w *walk) rests(l gauge.Leg) Rests {
	common := func(b gauge.Basis) float64 {
		plain := gauge.Leg{} // without what nobody can know: single knots and the ruler
		for _, k := range l.Knots {
			k.SquareN = 0
			plain.Knots = append(plain.Knots, k)
		}
		return w.gauge.Variance(plain, b)
	}
	before := common(gauge.Geometry)
	if before <= 0 || w.gauge == nil {
		return Rests{Geometry: 1}
	}
	swatched, all := common(gauge.Swatches)/before, common(gauge.Everything)/before
	return Rests{Geometry: all, Swatches: math.Max(0, 1-swatched), Logs: math.Max(0, swatched-all)}
}

// folds fills the figures of a cord that is folded: one leg is measured out, from its
// end to the fold, and the rest is the other. What is measured is rounded up, and the
// whole after it. The plan finds the fold unless the document says where it is; where
// equal legs cost nothing, it is in the middle.
func (w *walk) folds(out *Cord, ci int, first, second measured) {
	c := w.d.Cords[ci]
	legs := [2]measured{first, second}
	cuts := [2]float64{first.cut(), second.cut()}
	longest := math.Max(cuts[0], cuts[1])
	whole := roundUp(2*longest, w.o.RoundUpMM) // with equal legs
	short := 0
	if cuts[1] < cuts[0] {
		short = 1
	}
	measures := roundUp(cuts[short], w.o.FoldToMM)
	found := math.Min(whole, roundUp(measures+longest, w.o.RoundUpMM))
	exactly := cuts[0] + cuts[1]
	// A cord out of a ball is not folded: its start is as long as it must be.
	middle := !w.fromBall() && c.Legs.FirstMM == 0 && (c.Legs.Equal || found >= whole)
	switch {
	case c.Legs.FirstMM > 0:
		out.FoldLeg = 0
		cuts[0] = c.Legs.FirstMM
		out.CutMM = roundUp(cuts[0]+cuts[1], w.o.RoundUpMM)
		cuts[1] = out.CutMM - cuts[0]
		out.Why.EvenMM = cuts[0] - legs[0].cut()
	case middle:
		out.FoldLeg = short
		out.CutMM = whole
		cuts = [2]float64{whole / 2, whole / 2}
		out.Why.EvenMM = 2*longest - exactly
	default:
		out.FoldLeg = short
		out.CutMM = found
		cuts[short] = measures
		cuts[1-short] = found - measures
	}
	out.FoldAtMM = cuts[out.FoldLeg]
	out.FoldSide = w.sideOf(out.FoldLeg)
	if cuts[0] != cuts[1] {
		out.Short = w.sideOf(0)
		if cuts[1] < cuts[0] {
			out.Short = w.sideOf(1)
		}
	}
	out.SavedMM = math.Max(0, whole-out.CutMM)
	out.WastedMM = math.Max(0, out.CutMM-found)
	works := [2]bool{first.worked, second.worked}
	out.fold, out.parts = w.measure(*out, middle, works)
	out.Measure = out.fold + ": " + out.parts + "."
	for n, l := range legs {
		lg := Leg{NeedsMM: l.needs, CutMM: cuts[n], Role: "filler", Name: w.legName(*out, n, works), Side: w.sideOf(n), Parts: l.parts, BeyondMM: l.extra(), doubt: w.doubt(l.leg)}
		if l.worked {
			lg.Role = "worker"
		}
		lg.ShortMM = math.Max(0, lg.NeedsMM-lg.CutMM)
		out.Legs = append(out.Legs, lg)
	}
}

// sideOf is the side on which a leg of a folded cord hangs down from its mount,
// as the maker sees it: the first leg is the left one, or the right one where
// the left hand leads.
func (w *walk) sideOf(leg int) string {
	if (leg == 0) != w.o.LeftHanded {
		return "left"
	}
	return "right"
}

// measure says how a cord is folded and what its legs are, without their stops: one leg is
// measured, the rest is the other one. {fold} stands for that length, so that every page shows it alike.
func (w *walk) measure(c Cord, middle bool, works [2]bool) (fold, legs string) {
	if w.fromBall() {
		return "Measure {fold} for the start", "the ball begins there, and the rest is the working end"
	}
	if middle {
		return "Hold both ends together at 0 of the tape measure and fold it in the middle, at {fold}", "both legs are equal"
	}
	return fmt.Sprintf("Lay the end of the %s leg at 0 of the tape measure and fold at {fold}", c.FoldSide),
		fmt.Sprintf("that is the %s, the rest is the %s", w.legName(c, c.FoldLeg, works), w.legName(c, 1-c.FoldLeg, works))
}

// legName is what a leg of a folded cord is called: by its length, where they differ, and
// by what it does.
func (w *walk) legName(c Cord, leg int, works [2]bool) string {
	says := "inner leg"
	if works[leg] {
		says = "working leg"
	}
	switch {
	case c.Short == "":
		return says
	case c.Short == w.sideOf(leg):
		return "short " + says
	}
	return "long " + says
}
