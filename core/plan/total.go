package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/finish"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// loose is how much cord hangs below the work in a picture of it half tied, mm
// per millimetre of diameter.
const looseTail = 9.0

// finish adds up when the last section is walked.
func (w *walk) finish() Plan {
	p := &w.plan
	w.hanging = slices.DeleteFunc(w.hanging, w.runOf)
	for _, l := range w.hanging { // not ended: they hang on a little
		d := w.thick(l)
		tail := 0.0
		if w.stop {
			tail = looseTail * d
		} else {
			tail = 2 * d
		}
		l.free(-1, knot.Free, r3.Vec{X: l.at.X, Y: l.at.Y + tail, Z: l.at.Z})
		l.form = "cut"
	}
	for _, l := range w.legs {
		d := w.thick(l)
		p.LengthMM = math.Max(p.LengthMM, l.low)
		p.WidthMM = math.Max(p.WidthMM, 2*l.wide+d)
	}
	switch {
	case w.fromBall() && w.eye > 0:
		p.LengthMM = w.eye // from the wire that it hangs on
	case w.inside: // the outside of its last knot
		p.LengthMM = math.Max(p.LengthMM, w.y)
	case w.fromBall(): // it hangs on nothing: the outside of its last strand
		p.LengthMM = math.Max(p.LengthMM, w.y)
	}
	if len(w.runs) > 0 { // from wire to wire
		p.LengthMM = w.far
	}
	w.cords()
	w.joints()
	w.warn()
	w.stopper()
	p.layout = &layouts{walk: w, bottom: p.LengthMM}
	p.layout.sort()
	var stuffs []cord.Stuff
	for _, c := range w.d.Cords {
		stuffs = append(stuffs, c.Stuff)
	}
	p.Cautions = append(p.Cautions, finish.Cautions(w.flame, stuffs)...)
	if len(w.legs) > 0 {
		if slices.ContainsFunc(p.Cords, func(c Cord) bool { return len(c.Legs) == 2 }) && !w.fromBall() || len(p.Joints) > 0 {
			p.Checks = append([]Check{{"legs", 0, "The legs are even after the first knot."}}, p.Checks...)
		}
		if p.WantedMM > 0 {
			p.Checks = append(p.Checks, Check{"length", -1, "Measured length against the plan."})
		}
	}
	return *p
}

// cut is the length of a leg that runs short once in forty, with what fingers
// need, mm, not yet rounded.
func (w *walk) cut(l *leg) float64 {
	g := w.loose[l.cord]
	hold := fillerHandling
	if l.worked {
		hold = workerHandling
	}
	return needs(l) + g.Enough(l.knotwork, l.rulered) + math.Max(hold, l.trim)
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
	for _, l := range append(slices.Clone(w.legs), w.own...) {
		l.parts = addParts(l.parts)
	}
	for ci, c := range w.d.Cords {
		out := Cord{ID: c.ID, Role: "unused", Colour: c.Stuff.Colour, DrawnUpMM: w.figures[ci].DrawnUpMM, Legs: []Leg{}}
		g := w.loose[ci]
		var legs [2]*leg
		for _, l := range w.legs {
			if l.cord == ci {
				legs[l.n] = l
			}
		}
		var own *leg
		for _, l := range w.own {
			if l.cord == ci {
				own = l
			}
		}
		switch {
		case legs[0] != nil && legs[1] != nil:
			out.Role = "legs"
			// A cord out of a ball is not folded: its start is as long as it must be.
			short := c.Legs.ShortInside || w.fromBall()
			cuts := [2]float64{w.cut(legs[0]), w.cut(legs[1])}
			knotwork, rulered := legs[0].knotwork+legs[1].knotwork, legs[0].rulered+legs[1].rulered
			out.SpreadMM = g.Spread(knotwork, rulered) + legs[0].rough + legs[1].rough
			switch {
			case c.Legs.FirstMM > 0:
				cuts[0] = c.Legs.FirstMM
			case !short:
				cuts[0] = math.Max(cuts[0], cuts[1])
				cuts[1] = cuts[0]
			}
			// One leg is measured out, from its end to the fold; the rest is the
			// other. What is measured is rounded up, and the whole after it.
			out.FoldLeg = 0
			if c.Legs.FirstMM == 0 && cuts[1] < cuts[0] {
				out.FoldLeg = 1
			}
			if c.Legs.FirstMM == 0 && short {
				cuts[out.FoldLeg] = roundUp(cuts[out.FoldLeg], w.o.FoldToMM)
			}
			out.CutMM = roundUp(cuts[0]+cuts[1], w.o.RoundUpMM)
			if c.Legs.FirstMM == 0 && !short { // in the middle of what is cut
				cuts[out.FoldLeg] = out.CutMM / 2
			}
			cuts[1-out.FoldLeg] = out.CutMM - cuts[out.FoldLeg]
			out.FoldAtMM = cuts[out.FoldLeg]
			out.FoldSide = w.sideOf(out.FoldLeg)
			equal := roundUp(2*math.Max(w.cut(legs[0]), w.cut(legs[1])), w.o.RoundUpMM)
			out.SavedMM = math.Max(0, equal-out.CutMM)
			out.Measure = w.measure(out, c.Legs.FirstMM == 0 && !short, legs[1-out.FoldLeg].worked)
			for n, l := range legs {
				lg := Leg{NeedsMM: needs(l), CutMM: cuts[n], Role: "filler", Parts: l.parts}
				if l.worked {
					lg.Role = "worker"
				}
				lg.ShortMM = math.Max(0, lg.NeedsMM-lg.CutMM)
				out.NeedsMM += lg.NeedsMM
				out.Legs = append(out.Legs, lg)
			}
		case legs[0] != nil: // out of a ball, in which it begins
			l := legs[0]
			out.Role = "strand"
			out.NeedsMM = needs(l)
			out.SpreadMM = g.Spread(l.knotwork, l.rulered) + l.rough
			out.CutMM = roundUp(w.cut(l), w.o.RoundUpMM)
			out.Legs = []Leg{{NeedsMM: out.NeedsMM, CutMM: out.CutMM, Role: "worker", Parts: l.parts}}
			out.Measure = fmt.Sprintf("Cut {%.0fmm}; it is not folded.", out.CutMM)
			if to := w.partner(ci); to >= 0 && (c.JoinedTo != "" || !w.fromBall()) {
				out.Measure = fmt.Sprintf("Cut {%.0fmm} and fuse it end to end with cord %s.", out.CutMM, w.d.Cords[to].ID)
			}
		case own != nil:
			out.Role = "wrap"
			out.NeedsMM = needs(own)
			out.SpreadMM = g.Spread(own.knotwork, own.rulered) + own.rough
			out.CutMM = roundUp(out.NeedsMM+g.Enough(own.knotwork, own.rulered)+2*wrapHandling, w.o.RoundUpMM)
			out.Legs = []Leg{{NeedsMM: out.NeedsMM, CutMM: out.CutMM, Role: "wrap", Parts: own.parts}}
			out.Measure = fmt.Sprintf("Cut {%.0fmm}; it is not folded.", out.CutMM)
		}
		if out.Role != "unused" {
			out.LeftMM = out.CutMM - out.NeedsMM
		}
		if out.FoldAtMM > 0 && !w.fromBall() { // said again where it is put on
			for _, s := range w.plan.Steps {
				for k, a := range s.Actions {
					if mounts := knot.TermsOf(w.d.Sequence[s.Section]).Legs == 2; mounts && a.Cord == out.ID {
						s.Actions[k].Detail = out.Measure + " " + a.Detail
					}
				}
			}
		}
		w.plan.WeightG += out.NeedsMM / 1000 * w.figures[ci].Weight
		w.plan.Cords = append(w.plan.Cords, out)
	}
}

// joints says of cords that hang as one what the whole is.
func (w *walk) joints() {
	for _, j := range w.plan.Joints {
		a, b := &w.plan.Cords[w.d.CordByID(j.Cord)], &w.plan.Cords[w.d.CordByID(j.To)]
		if says := w.saysJoint(j, a.CutMM+b.CutMM); a.Measure != "" && b.Measure != "" {
			a.Measure, b.Measure = a.Measure+says, b.Measure+says
		}
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

// measure says how a cord is folded: one leg is measured, the rest is the other
// one. {fold} stands for that length, so that every page shows it alike.
func (w *walk) measure(c Cord, middle, works bool) string {
	rest := "the longer leg"
	if works {
		rest = "the working leg"
	}
	switch {
	case w.fromBall():
		return "Measure {fold} for the start; the ball begins there, and the rest is the working end."
	case middle:
		return "Fold in the middle, {fold} from either end."
	}
	return fmt.Sprintf("Measure {fold} from the end of the %s leg and fold there; the rest is %s.", c.FoldSide, rest)
}

// say adds a warning.
func (w *walk) say(code string, section int, fix *Fix, format string, args ...any) {
	w.plan.Warnings = append(w.plan.Warnings, Warning{code, section, fmt.Sprintf(format, args...), fix})
}

// warn looks for what will go wrong at the table. {12.3mm} in a message is a
// length, shown in the maker's units.
func (w *walk) warn() {
	for ci, c := range w.plan.Cords {
		for n, l := range c.Legs {
			if l.ShortMM <= 0 {
				continue
			}
			w.short(ci, n, l)
		}
	}
	if n := len(w.hanging); n > 0 && !w.stop {
		var fix *Fix
		if end, ok := knot.That(func(k knot.Knot) bool { return k.Finish != nil }); ok {
			how := finish.Instead(w.d.Cords[w.hanging[0].cord].Stuff)
			f, _ := finish.Get(how)
			seq := append(slices.Clone(w.written), end.Finish(how))
			fix = &Fix{Label: "Finish them: " + f.Name, Set: []Set{{Path: "sequence", Value: seq}}}
		}
		w.say("ends-not-finished", len(w.d.Sequence)-1, fix,
			"%d end%s hang%s on without a finish.", n, plural(n, "", "s"), plural(n, "s", ""))
	}
	w.crowded()
	w.blade()
	if want := w.plan.WantedMM; want > 0 && len(w.legs) > 0 && w.d.Purpose.BetweenMM == 0 {
		w.offLength(want)
	}
	for ci, c := range w.plan.Cords {
		if c.Role == "unused" {
			var keep []any
			for k, other := range w.d.Cords {
				if k != ci {
					keep = append(keep, other)
				}
			}
			if keep == nil {
				keep = []any{}
			}
			w.say("cord-unused", -1, &Fix{Label: "Put cord " + c.ID + " back", Set: []Set{{Path: "cords", Value: keep}}}, "Cord %s is not in the sequence, so nothing is cut of it.", c.ID)
		}
	}
}

func plural(n int, one, more string) string {
	if n == 1 {
		return one
	}
	return more
}

// short says where a leg that was given too short runs out.
func (w *walk) short(ci, n int, l Leg) {
	role, code := "filler", "filler-short"
	if l.Role == "worker" {
		role, code = "working", "worker-short"
	}
	last := 0 // part of the last knot the leg is in
	for k, p := range l.Parts {
		if w.knotted[p.Section] {
			last = k
		}
	}
	left, section, place := l.CutMM, l.Parts[last].Section, ""
	reach := -l.CutMM
	for k, p := range l.Parts {
		if k <= last {
			reach += p.MM
		}
		if left >= 0 && left < p.MM && k <= last {
			section = p.Section
			if s := w.plan.Sections[section]; s.KnotMM > 0 {
				place = fmt.Sprintf(", at knot %d of %d", min(s.Count, int(left/p.MM*float64(s.Count))+1), s.Count)
			}
		}
		left -= p.MM
	}
	fix := &Fix{Label: "Let the plan find the fold", Set: []Set{{Path: fmt.Sprintf("cords[%d].legs", ci), Value: "short-inside"}}}
	if reach > 0 {
		w.say(code, section, fix, "The %s leg of cord %s (leg %d) runs out {%.1fmm} before the last knot%s.", role, w.d.Cords[ci].ID, n+1, reach, place)
		return
	}
	w.say(code, l.Parts[len(l.Parts)-1].Section, fix, "The %s leg of cord %s (leg %d) reaches the last knot but is {%.1fmm} too short to be finished.", role, w.d.Cords[ci].ID, n+1, l.ShortMM)
}

// crowded warns of more lark's heads than the wire holds side by side.
func (w *walk) crowded() {
	hw := w.d.Purpose.HangsOn
	if hw.Type == "rod" || hw.Type == "none" || len(w.d.Sequence) == 0 {
		return
	}
	// On a round wire heads sit along its lower half, else side by side.
	room := hw.InnerMM
	if r := hw.BendMM(); r > 0 {
		room = math.Pi * r
	}
	if n := len(knot.TermsOf(w.d.Sequence[0]).Cords); n > 0 && w.along > 0 {
		w.plan.Heads = n
		w.plan.HeadsFit = max(1, int(room/(w.along/float64(n))))
	}
	if wide := w.along; wide > room {
		need := wide + 1
		where := fmt.Sprintf("the %s is {%.1fmm} wide inside", strings.ReplaceAll(hw.Type, "-", " "), hw.InnerMM)
		if hw.BendMM() > 0 {
			need = 2*(wide+1)/math.Pi - hw.WireMM
			where = fmt.Sprintf("the lower half of the %s is {%.1fmm} long, and they crowd up its sides", strings.ReplaceAll(hw.Type, "-", " "), room)
		}
		w.say("mount-crowded", 0, &Fix{Label: "Take a wider one", Set: []Set{{Path: "purpose.hangs_on.inner_mm", Value: math.Ceil(need)}}},
			"The heads need {%.1fmm} side by side; %s.", wide, where)
	}
}

// tieInstead is another count for a section of the sequence.
func (w *walk) tieInstead(section, count int) *Fix {
	sets := []Set{{Path: fmt.Sprintf("sequence[%d].count", section), Value: count}}
	if w.written[section].FitMM != 0 {
		sets = append(sets, Set{Path: fmt.Sprintf("sequence[%d].fit_mm", section), Value: 0})
	}
	return &Fix{Label: fmt.Sprintf("Tie %d instead of %d", count, w.plan.Sections[section].Count), Set: sets}
}

// offLength says by how much the piece misses the wanted length and which
// count comes nearest.
func (w *walk) offLength(want float64) {
	best := -1
	for i, s := range w.plan.Sections {
		if s.KnotMM > 0 && (best < 0 || s.HeightMM > w.plan.Sections[best].HeightMM) {
			best = i
		}
	}
	off := w.plan.LengthMM - want
	if best < 0 || w.fold != nil { // the length of a folded band is that of its loop
		return
	}
	s := w.plan.Sections[best]
	n := max(1, s.Count-int(math.Round(off/s.KnotMM)))
	if n == s.Count || math.Abs(off) <= s.KnotMM/2 {
		return
	}
	which := "longer"
	if off < 0 {
		which = "shorter"
	}
	w.say("length-off", best, w.tieInstead(best, n),
		"The piece comes out {%.1fmm} %s than the {%.1fmm} you want.", math.Abs(off), which, want)
}
