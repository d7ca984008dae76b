package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

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
	w.evenGate()
	w.joints()
	p.Ready = w.ready()
	w.warn()
	w.stopper()
	p.layout = &layouts{walk: w, bottom: p.LengthMM}
	p.layout.sort()
	p.Cautions = w.cautions()
	if len(w.legs) > 0 {
		if slices.ContainsFunc(p.Cords, func(c Cord) bool { return len(c.Legs) == 2 }) && !w.fromBall() || len(p.Joints) > 0 {
			says := "The legs are even after the first knot."
			if slices.ContainsFunc(p.Cords, func(c Cord) bool { return c.Short != "" }) {
				says = "After the first knot every fold still sits at its mark, and each short leg hangs on its side."
			}
			p.Checks = append([]Check{{"legs", 0, says}}, p.Checks...)
		}
		for _, c := range w.d.Cords {
			if s := c.Stuff; s.Make.Flat() && s.ThicknessMM != s.DiameterMM && s.ThicknessMM > 0 {
				p.Checks = append(p.Checks, Check{"good-side", -1, fmt.Sprintf("The good side of cord %s looks out all along; no turn has twisted it.", c.ID)})
			}
		}
		if p.WantedMM > 0 {
			p.Checks = append(p.Checks, Check{"length", -1, "Measured length against the plan."})
		}
	}
	return *p
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
	w.goesRound()
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
