package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/caution"
	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/gauge"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/piece"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// walk carries the strands through the sections.
type walk struct {
	d       piece.Document
	o       Options
	hanging []*leg // by place, from the left
	legs    []*leg
	own     []*leg
	y       float64
	clear   float64 // straight strand that the section above needs below it
	plan    Plan
	stop    bool
	actions int
	tops    [][2]float64
	cuts    []float64
	moving  []*leg // those that the action in hand leads, the one that it is about first
	movedY  float64
	putOn   bool   // a whole cord is in hand, not one of its legs
	places  []*leg // those that hung when the action in hand began, from the left
	inHand  []*leg // the strands of the section in hand, in their order
	beads   []knot.BeadAt
	cores   []knot.CoreAt
	eye     float64  // y of what the piece hangs on, where it takes that in last
	ball    []string // cords that come out of the ball that is tied next
	along   float64  // how much of the wire the mounted heads take
	// In a row of several the walk is confined to its strands; rowMiddle is
	// the x they are tied about.
	rowMiddle float64
	rowPlaces []int // of its strands in the whole piece; nil outside of rows
	fold      *folded
	bundled   bool // the section above drew the strands into a bundle
	around    bool // the section above goes round the axis of the work
	inside    bool // and the strands end inside it
	ringed    bool // a ring was taken in and nothing is tied below it yet
	// runs are strands' ways to the far hardware and back, far where its wire lies.
	// turned is what was laid before the work was turned round, nil where it was not.
	runs   []doubled
	far    float64
	turned *turnedRound
	// into is the section that what is tied in a repeat or a row belongs to.
	into *Section
	size size
	// What counts of each cord, and how loosely the maker ties it, resolved once.
	figures  []cord.Figures
	gauge    *gauge.Estimate
	open     float64 // bare strand above what comes next, mm
	openings []leaves
	calls    []caution.Call  // of what is tied and of the piece
	ruled    map[int]Section // rows that makers have a thumb rule for, by section
	knotted  map[int]bool    // sections that are knots, not bare lengths or ends
	// written is the sequence as it stands in the document, for what is said to
	// the maker; d is its mirror where the left hand leads.
	written []knot.Section
}

// ownPlaces are places as the maker counts them, in the whole of what hangs
// there.
func (w *walk) ownPlaces(places []int) []int {
	if !w.o.LeftHanded {
		return places
	}
	out := make([]int, 0, len(places))
	for _, p := range slices.Backward(places) {
		out = append(out, len(w.hanging)+1-p)
	}
	return out
}

// ownRow is a row's index as the maker counts them.
func (w *walk) ownRow(r, rows int) int {
	if w.o.LeftHanded {
		return rows - 1 - r
	}
	return r
}

func newWalk(d piece.Document, o Options) *walk {
	w := &walk{d: d, o: o, knotted: map[int]bool{}}
	w.gauge = o.Gauge
	for _, c := range d.Cords {
		w.figures = append(w.figures, w.gauge.Figures(c.Stuff))
	}
	w.plan = Plan{Name: d.Name, WantedMM: d.Purpose.LengthMM, LeftHanded: o.LeftHanded, OneIn: o.OneIn, Hold: o.Hold,
		Cords: []Cord{}, Sections: []Section{}, Warnings: []Warning{}, Checks: []Check{}, Steps: []Step{}, Cautions: []caution.Caution{}, Endings: []Ended{}, Prepared: []Prepared{}, Ready: []Action{}}
	return w
}

// thick is the diameter of a leg, drawn up, mm.
func (w *walk) thick(l *leg) float64 { return w.figures[l.cord].DrawnUpMM }

func (w *walk) strand(l *leg, middle, y float64) knot.Strand {
	s := w.d.Cords[l.cord].Stuff
	return knot.Strand{Cord: l.cord, Leg: l.n, Stuff: s, Figures: w.figures[l.cord], Diameter: w.thick(l),
		At: r3.Vec{X: l.at.X - middle, Y: l.at.Y - y, Z: l.at.Z}, Dir: l.dir}
}

func (w *walk) label(l *leg) string {
	if l.name == "" {
		l.name = fmt.Sprintf("%s.%d", w.d.Cords[l.cord].ID, l.n+1)
	}
	return l.name
}

// section walks one section; path names it in the document.
func (w *walk) section(i int, path string, s knot.Section) error {
	k, _ := knot.Get(s.Do)
	terms := knot.TermsOf(s)
	switch {
	case k.Holds != knot.Nothing:
		return w.compound(i, path, k, s)
	case k.Fold != nil:
		return w.foldBack(i, path, k, s)
	case k.RunsBack != nil:
		return w.runBack(i, path, k, s)
	case terms.Begins == knot.ForTheNext:
		return w.forTheNext(i, path, s, terms)
	}
	places, field := s.Stays()
	places = slices.Clone(places)
	if len(places) == 0 {
		for p, l := range w.hanging {
			if k.Ends && w.runOf(l) {
				continue // it goes on to the far end
			}
			places = append(places, p+1)
		}
	}
	if err := w.checkPlaces(path, field, places); err != nil {
		return err
	}
	on := w.d.Purpose.HangsOn
	if on.Type == "none" {
		on = piece.Hardware{Type: on.Type} // its widths count for nothing
	}
	if on.Type == "none" && (k.Mounts && !terms.HangsFree || terms.Hardware) {
		return w.hangsOnNothing(path, terms)
	}
	own, err := w.ownLegs(path, terms)
	if err != nil {
		return err
	}
	if len(places) == 0 && terms.Begins == knot.OnStrands {
		if w.inside {
			out := piece.Problem{Path: path + ".do", Message: fmt.Sprintf("is %s, but all strands end in the knot above it", s.Do)}
			if w.into == nil {
				out.Fix = &Fix{Label: "Leave out what follows it", Set: []Set{{Path: "sequence", Value: slices.Clone(w.written[:i])}}}
			}
			return piece.Problems{out}
		}
		return problem(path, "do", "is %s, but no strand hangs there; mount a cord first", s.Do)
	}
	middle := w.rowMiddle
	if len(places) < len(w.hanging) {
		middle = 0
		for _, p := range places {
			middle += w.hanging[p-1].at.X / float64(len(places))
		}
	}
	if w.fold != nil && k.Wraps == nil && !k.Ends {
		return problem(path, "do", "is %s after the band was folded back; gather it and finish its ends", s.Do)
	}
	work := knot.Work{Section: s, BarMM: on.WireMM, RingMM: on.BendMM(), DeepMM: on.DeepMM(), HoleMM: on.InnerMM, LeftHanded: w.o.LeftHanded}
	var chosen []*leg
	for _, p := range places {
		chosen = append(chosen, w.hanging[p-1])
		work.Strands = append(work.Strands, w.strand(w.hanging[p-1], middle, w.y))
	}
	if slip := w.o.Slip; slip != nil && slip.Section == i {
		work.Slip = slip.Slip
		if c := slip.Crossed; c > 0 && c < len(chosen) {
			chosen[c-1], chosen[c] = chosen[c], chosen[c-1]
			work.Strands[c-1], work.Strands[c] = work.Strands[c], work.Strands[c-1]
		}
	}
	for _, l := range own {
		work.Own = append(work.Own, w.strand(l, 0, 0))
	}
	if k.Ends {
		work.Covers = func(strand int) []knot.Cover { return w.covers(chosen[strand], middle) }
	}
	if k.Wraps != nil {
		work.Core = w.core(k.Wraps(work))
		work.Through = w.fold != nil && w.fold.led
	}
	tied, err := w.tieFitting(&work)
	if err != nil {
		return w.refused(path, err)
	}
	s.Count = work.Section.Count
	if err := w.ringOnce(i, path, tied); err != nil {
		return err
	}
	if k.Above != nil {
		w.roomAbove(i, k.Above(work.Strands))
	}
	if w.size.tooLarge() {
		return problem(path, "do", "makes the piece larger than can be drawn: it has some %d strands' turns through its sections; repeat it less often or on fewer strands", w.size.runs)
	}
	w.stepsOf(i, work, tied, places, append(append([]*leg{}, chosen...), own...))
	if w.o.Until > 0 {
		if done := w.inHandAt(); done > 0 {
			return w.hold(i, path, s, work, tied, chosen, own, places, middle, done)
		}
	}
	if w.fold != nil && !w.fold.led && tied.Ends { // they point up behind the band
		tied.Paths = slices.Clone(tied.Paths)
		for k := range tied.Paths {
			tied.Paths[k].Points = slices.Clone(tied.Paths[k].Points)
			for n := range tied.Paths[k].Points {
				tied.Paths[k].Points[n].Y *= -1
			}
		}
		tied.Settle()
		tied.Height = 0
	}
	w.lay(i, s, work, tied, chosen, own, places, middle)
	if w.fold != nil && !w.fold.led {
		w.y = w.fold.at
	}
	return nil
}

// ringOnce refuses a ring that is taken in where one is taken in already, with no knot
// between.
func (w *walk) ringOnce(i int, path string, t knot.Tied) error {
	ring := slices.ContainsFunc(t.Beads, func(b knot.BeadAt) bool { return b.Shape == knot.RingShape })
	if ring && w.ringed {
		out := piece.Problem{Path: path + ".do", Message: "takes in a ring where one is taken in already; tie a knot between them, or leave this one out"}
		if w.into == nil {
			out.Fix = &Fix{Label: "Leave this one out", Set: []Set{{Path: "sequence", Value: slices.Delete(slices.Clone(w.written), i, i+1)}}}
		}
		return piece.Problems{out}
	}
	w.ringed = !t.Loose && (ring || w.ringed) // a knot keeps it
	return nil
}

// ownLegs are the legs of the cords that a section brings with it.
func (w *walk) ownLegs(path string, t knot.Terms) ([]*leg, error) {
	if t.Begins == knot.OnHardware && len(w.hanging) > 0 {
		return nil, problem(path, "hitch", "is a second lark's head; put all cords on in one mount, or lay this one behind with hitch laid-behind")
	}
	if len(w.hanging)+t.Legs*len(t.Cords) > piece.MostStrands {
		return nil, problem(path, t.CordsAt, "makes more than %d strands", piece.MostStrands)
	}
	if t.Begins == knot.OfTheLast {
		return w.ballLegs(path, t)
	}
	var own []*leg
	for _, id := range t.Cords {
		ci := w.d.CordByID(id)
		other, err := w.joinedTo(path, t, ci)
		if err != nil {
			return nil, err
		}
		for n := range max(1, t.Legs) {
			if w.o.LeftHanded && t.Legs == 2 { // the first leg of a mirrored cord is the right one
				n = 1 - n
			}
			l := &leg{cord: ci, n: n}
			if t.Legs == 2 && other >= 0 { // each is one leg of the whole
				l.n = 0
				if n == 1 {
					l.cord = other
				}
			}
			own = append(own, l)
		}
	}
	return own, nil
}

// joinedTo is the cord that is fused to one that is folded, -1 for none: its other
// leg.
func (w *walk) joinedTo(path string, t knot.Terms, ci int) (int, error) {
	other := w.partner(ci)
	if t.Legs != 2 || other < 0 {
		return -1, nil
	}
	a, b := w.d.Cords[ci], w.d.Cords[other]
	if slices.Contains(t.Cords, b.ID) {
		at := path + "." + t.CordsAt
		left := slices.DeleteFunc(slices.Clone(t.Cords), func(id string) bool { return id == b.ID })
		if w.o.LeftHanded { // as the maker wrote them
			slices.Reverse(left)
		}
		return -1, piece.Problems{{Path: at, Message: fmt.Sprintf("names cords %s and %s, which are fused to one; name one of them, the other is its second leg", a.ID, b.ID),
			Fix: &Fix{Label: "Name cord " + a.ID + " alone", Set: []Set{{Path: at, Value: left}}}}}
	}
	if math.Abs(w.figures[ci].DrawnUpMM-w.figures[other].DrawnUpMM) > 0.05*w.figures[ci].DrawnUpMM {
		return -1, problem(fmt.Sprintf("cords[%d]", other), "joined_to", "fuses cords of %.1f and %.1f mm; cords that are folded as one are of one thickness", w.figures[ci].DrawnUpMM, w.figures[other].DrawnUpMM)
	}
	return other, nil
}

// partner is the cord that a cord is fused to, whichever of the two says so; -1 for
// none.
func (w *walk) partner(ci int) int {
	if to := w.d.Cords[ci].JoinedTo; to != "" {
		return w.d.CordByID(to)
	}
	return slices.IndexFunc(w.d.Cords, func(c piece.Cord) bool { return c.JoinedTo == w.d.Cords[ci].ID })
}

// roomAbove warns where what a section needs bare above it is not there.
func (w *walk) roomAbove(i int, need knot.Room) {
	if w.into != nil {
		return // what stands above it in a repeat is the maker's to see
	}
	if w.open >= need.MM-0.01 {
		return
	}
	seq := slices.Insert(slices.Clone(w.written), i, need.Gap)
	w.say(need.Code, i, &Fix{Label: need.Label, Set: []Set{{Path: "sequence", Value: seq}}}, need.Says, w.open, need.MM)
}

// checkPlaces refuses places that are not there, twice there or out of order.
func (w *walk) checkPlaces(path, field string, places []int) error {
	seen := map[int]bool{}
	beyond := 0
	for _, p := range places { // such places are not mirrored: they are the maker's own
		if p > len(w.hanging) && (beyond == 0 || p < beyond) {
			beyond = p
		}
	}
	for k, p := range places {
		if beyond > 0 || p < 1 {
			if beyond > 0 {
				p = beyond
			}
			return problem(path, field, "names place %d, but %s there", p, hang(len(w.hanging)))
		}
		if seen[p] || (k > 0 && p < places[k-1]) {
			return problem(path, field, "names places out of order; write them from the left, each once")
		}
		seen[p] = true
	}
	return nil
}

// hang says how many strands there are.
func hang(n int) string {
	switch n {
	case 0:
		return "no strand hangs"
	case 1:
		return "only 1 strand hangs"
	}
	return fmt.Sprintf("only %d strands hang", n)
}

// tieFitting ties the section, with as many knots as fit where it says fit_mm.
func (w *walk) tieFitting(work *knot.Work) (knot.Tied, error) {
	if work.Section.FitMM == 0 {
		return knot.Tie(*work)
	}
	total := func(n int) (float64, knot.Tied, error) {
		work.Section.Count = n
		t, err := knot.Tie(*work)
		if err != nil {
			return 0, t, err
		}
		return t.Height + w.fall(*work, t), t, nil
	}
	// The height grows evenly from the second knot on; a single one may stand
	// by itself.
	h2, _, err := total(2)
	if err != nil {
		return knot.Tied{}, err
	}
	h3, _, err := total(3)
	if err != nil {
		return knot.Tied{}, err
	}
	n := 2 + int(math.Floor((work.Section.FitMM-h2)/(h3-h2)+1e-9))
	n = max(1, min(n, piece.MostKnots))
	_, t, err := total(n)
	return t, err
}

// fall is the height in which the strands come to where the knot wants them.
func (w *walk) fall(work knot.Work, t knot.Tied) float64 {
	strands := work.Strands
	var from, to []knot.Way
	thick := 0.0
	for k, l := range strands {
		leaves, enters := knot.Way{At: l.At, Dir: l.Dir}, knot.WayIn(t.Paths[k].Points)
		if w.clear > 0 {
			leaves.Dir = r3.Vec{Y: 1}
		}
		if t.Clear > 0 {
			enters.Dir = r3.Vec{Y: 1}
		}
		from, to = append(from, leaves), append(to, enters)
		thick = math.Max(thick, l.Diameter)
	}
	f := knot.Fall(from, to, thick)
	if len(strands) > 2 && (w.bundled || knot.TermsOf(work.Section).Bundles) {
		switch round := w.around || t.Around; {
		case round && cross(from, to):
			f *= 2
		case !round || !turnedAlike(from, to):
			f *= 1.4 // where they pass one another on the way into a bundle or out of it
		}
	}
	if f < 0.02 {
		return 0
	}
	return w.clear + f + t.Clear
}

// cross tells whether two strands change sides on the way, as when a row closes to a ring
// or a ring opens to a row.
func cross(from, to []knot.Way) bool {
	for i := range from {
		for j := range i {
			if a, b := from[i].At.X-from[j].At.X, to[i].At.X-to[j].At.X; a*b < 0 {
				return true
			}
		}
	}
	return false
}

// turnedAlike tells whether all strands go round the middle together, so that none passes
// another.
func turnedAlike(from, to []knot.Way) bool {
	const alike = 0.5 // radians
	var mid [2]r3.Vec
	for i := range from {
		mid[0], mid[1] = r3.Add(mid[0], r3.Scale(1/float64(len(from)), from[i].At)), r3.Add(mid[1], r3.Scale(1/float64(len(to)), to[i].At))
	}
	turn := func(i int) float64 {
		a, b := r3.Sub(from[i].At, mid[0]), r3.Sub(to[i].At, mid[1])
		return math.Atan2(a.X*b.Z-a.Z*b.X, a.X*b.X+a.Z*b.Z)
	}
	for i := range from {
		if math.Abs(math.Remainder(turn(i)-turn(0), 2*math.Pi)) > alike {
			return false
		}
	}
	return true
}

// inHandAt counts the actions; in the section in hand it gives how many of its
// actions are done or doing, else zero.
func (w *walk) inHandAt() int {
	step := w.plan.Steps[len(w.plan.Steps)-1]
	before := w.actions
	w.actions += step.Repeats * len(step.Actions)
	if w.actions < w.o.Until {
		return 0
	}
	w.stop = true
	return w.o.Until - before
}

// ledBy are the strands that a move leads, of those of its knot: its own and those beside it.
func ledBy(m move.Move, strands []*leg) []*leg {
	var out []*leg
	for _, k := range append([]int{m.Strand}, m.With...) {
		if k >= 0 && k < len(strands) {
			out = append(out, strands[k])
		}
	}
	return out
}

// hold lays the section in hand: the parts of it that are closed, then the part
// that is being tied, as far as its action has come.
func (w *walk) hold(i int, path string, s knot.Section, work knot.Work, tied knot.Tied, chosen, own []*leg, places []int, middle float64, done int) error {
	n := len(tied.Moves)
	last := tied.Moves[(done-1)%n]
	who := afterRepeats(tied, w.inHand, (done-1)/n)
	w.moving = ledBy(last, who)
	w.movedY, w.places = w.y, w.counted(places, who, last.Order)
	if w.putOn = knot.TermsOf(s).Begins == knot.OnHardware; w.putOn { // all of the cord is in hand
		w.movedY = math.Inf(-1)
	}
	along := w.o.Along
	if along == 0 {
		along = 1
		if tied.HalfKnots && done%2 == 0 {
			along = knot.Led
		}
	}
	round := max(1, tied.PerRound)
	whole := done == n*tied.Repeats && along >= 1 && w.o.Along != 0 && !work.Slip.Astray
	closed := work
	inHand := work
	switch {
	case tied.HalfKnots:
		closed.HalfKnots = (done - 1) / 2
		inHand = closed
	case tied.Repeats > 1:
		closed.Section.Count = round * ((done - 1) / n)
		inHand.Section.Count = round
	default:
		closed.Section.Count = 0
	}
	held, ok := knot.Tied{}, false
	if !whole {
		var err error
		if held, ok, err = knot.Hold(inHand, (done-1)%n, along); err != nil {
			return w.refused(path, err)
		}
	}
	if !ok {
		if tied.Repeats > 1 && !whole { // as many as are tied with the one in hand
			work.Section.Count = round * ((done-1)/n + 1)
			t, err := knot.Tie(work)
			if err != nil {
				return w.refused(path, err)
			}
			tied = t
		}
		w.lay(i, s, work, tied, chosen, own, places, middle)
		return nil
	}
	if closed.HalfKnots > 0 || (!tied.HalfKnots && closed.Section.Count > 0) {
		t, err := knot.Tie(closed)
		if err != nil {
			return w.refused(path, err)
		}
		had := len(w.tops)
		w.lay(i, s, closed, t, chosen, own, places, middle)
		defer w.joinLast(had)
		w.clear = 0
		w.movedY = w.y
		// What is in hand is laid on the same strands where they have come to.
		work.Strands, chosen = work.Strands[:0:0], chosen[:0:0]
		for _, p := range places {
			chosen = append(chosen, w.hanging[p-1])
			work.Strands = append(work.Strands, w.strand(w.hanging[p-1], middle, w.y))
		}
		if led := ledBy(last, chosen); len(tied.Orders) == 0 && len(led) > 0 { // nothing else tells who hangs there
			w.moving = led
		}
	}
	w.movedY += held.HandMM
	w.plan.Slipped = held.Slipped
	w.lay(i, s, work, held, chosen, own, places, middle)
	return nil
}

// counted are the strands as the words of a move count them, nil where none hangs: those of its
// knot in the order in which they hang when it begins, where it names one, else as they came to
// the knot; in a row by their places in the whole piece.
func (w *walk) counted(places []int, who []*leg, order []int) []*leg {
	all, at := slices.Clone(w.hanging), make([]int, len(w.hanging))
	for i := range at {
		at[i] = i + 1
	}
	for k, place := range places {
		from := k
		if order != nil {
			from = order[k]
		}
		all[place-1] = who[from]
	}
	at = w.whole(at)
	out := make([]*leg, slices.Max(append(at, 0)))
	for i, place := range at {
		out[place-1] = all[i]
	}
	return out
}

// joinLast makes one section of those after the first so many: of what is closed and what is in hand.
func (w *walk) joinLast(had int) {
	if last := len(w.tops) - 1; last > had {
		w.tops[had][1] = w.tops[last][1]
		w.tops = w.tops[:had+1]
	}
}

// lay puts the tied section into space and hands the strands on.
func (w *walk) lay(i int, s knot.Section, work knot.Work, t knot.Tied, chosen, own []*leg, places []int, middle float64) {
	fall := w.fall(work, t)
	top := w.y
	sec := Section{Index: i, Do: s.Do, Count: s.Count, TopMM: top, GapShare: t.Gap, Use: make([]Use, 0, len(chosen)+len(own))}
	k, _ := knot.Get(s.Do)
	reach := 0.0
	off := r3.Vec{X: middle, Y: top + fall}
	take := func(l *leg, place int, p knot.Path, joint []r3.Vec) {
		from := l.at
		mm := 0.0
		begun := l.begun()
		if len(joint) > 0 {
			mm += r3.Norm(r3.Sub(joint[0], from)) + curve.Curve{Points: joint}.Length()
			l.free(i, knot.Knotted, joint...)
			from = l.at
		}
		if begun {
			mm += r3.Norm(r3.Sub(r3.Add(p.Points[0], off), from))
		}
		mm += p.Length()
		if t.Loose {
			c := w.d.Cords[l.cord].Stuff
			mm = w.gauge.Loose(c, k.Family)*w.figures[l.cord].Rest*(mm-t.BareMM) + t.BareMM
		}
		l.follow(i, p, off)
		low, left, right := p.Extent()
		l.reaches(low+off.Y, math.Max(math.Abs(left+middle), math.Abs(right+middle)))
		l.takes(i, mm)
		if t.Rough != nil {
			l.rough += mm * t.Rough.Share
			sec.RoughMM += mm * t.Rough.Share
		}
		if t.Loose {
			l.ties = append(l.ties, ties{i, k.Family, mm - t.BareMM, max(1, s.Count)})
		}
		if t.Ends && !t.Loose {
			l.leave += mm
		}
		if !t.Loose || t.BareMM > 0 {
			l.rulered++
		}
		sec.Use = append(sec.Use, Use{Strand: place, Cord: w.d.Cords[l.cord].ID, MM: mm})
	}
	joints := make([][]r3.Vec, len(chosen))
	for k, l := range chosen {
		p := t.Paths[k].Points
		to := r3.Vec{X: p[0].X + middle, Y: p[0].Y + top + fall, Z: p[0].Z}
		dirTo := knot.Heading(p, false)
		var joint []r3.Vec
		if fall > 0 {
			from, end := l.at, to
			from.Y += w.clear
			end.Y -= t.Clear
			dir := l.dir
			if w.clear > 0 {
				joint = append(joint, from)
				dir = r3.Vec{Y: 1}
			}
			if t.Clear > 0 {
				dirTo = r3.Vec{Y: 1}
			}
			joint = append(joint, knot.Join(from, end, dir, dirTo)...)
			if c := work.Slip.Crossed; c > 0 && (k == c-1 || k == c) { // one passes before the other
				before := w.thick(l) * float64(1-2*(k-c+1))
				for n := range joint {
					joint[n].Z += 0.6 * before * math.Sin(math.Pi*float64(n+1)/float64(len(joint)+1))
				}
			}
		}
		joints[k] = joint
	}
	terms := knot.TermsOf(s)
	bundle := terms.Bundles
	if fall > 0 && len(chosen) > 2 && (bundle || w.bundled) {
		w.part(chosen, joints)
	}
	w.bundled, w.around = bundle, t.Around
	for k, l := range chosen {
		take(l, places[k], t.Paths[k], joints[k])
		_, left, right := t.Paths[k].Extent()
		reach = math.Max(reach, math.Max(-left, right)+work.Strands[k].Diameter/2)
	}
	for k, l := range own {
		if len(t.Own[k].Points) == 0 { // it waits to be put on
			sec.Use = append(sec.Use, Use{Cord: w.d.Cords[l.cord].ID})
			continue
		}
		take(l, 0, t.Own[k], nil)
	}
	w.size.add(t, len(chosen)+len(own))
	if i == 0 {
		w.along = t.Along
	}
	bottom := top + fall + t.Height
	if !t.Ends { // ends are finished beside strands that go on
		w.stepAside(&sec, chosen, middle, reach, i, bottom)
	}
	w.inside = t.Ends && t.Around
	all := append(slices.Clone(chosen), own...)
	for _, m := range t.Moves {
		if t.Loose && m.Strand >= 0 && m.Strand < len(chosen) {
			sec.Use[m.Strand].Works = true
		}
	}
	for _, k := range t.Workers {
		sec.Use[k].Works = true
	}
	for k, l := range all {
		l.worked = l.worked || sec.Use[k].Works
		if t.Loose || sec.Use[k].Works {
			l.held(holds[w.o.Hold], sec.Use[k].Works)
		}
		l.beyond = t.OwnBeyondMM
	}
	for _, b := range t.Beads {
		b.At = r3.Vec{X: b.At.X + middle, Y: b.At.Y + top + fall, Z: b.At.Z}
		w.beads = append(w.beads, b)
	}
	if t.Core != nil {
		c := *t.Core
		c.At = r3.Add(c.At, off)
		w.cores = append(w.cores, c)
		w.plan.WeightG += c.WeightG
	}
	if r := t.Rough; r != nil {
		if !slices.Contains(w.plan.Rough, r.Key) {
			w.plan.Rough, w.plan.rough = append(w.plan.Rough, r.Key), append(w.plan.rough, *r)
		}
		if !slices.ContainsFunc(w.plan.Warnings, func(v Warning) bool { return v.Code == "drawn-roughly" && v.Section == i }) {
			w.say("drawn-roughly", i, nil, "This knot is not drawn up for just these cords yet. Till it is, a near shape stands for it, and it may take {%.0fmm} less cord than is said.", sec.RoughMM)
		}
	}
	for _, says := range t.Checks {
		w.plan.Checks = append(w.plan.Checks, Check{s.Do, i, says})
	}
	for _, th := range t.Threads {
		from := chosen
		if th.Own {
			from = own
		}
		ready := Prepared{Section: i, Way: th.Passing.Preparation, SpareMM: th.Passing.SpareMM}
		for _, k := range th.Strands {
			ready.Legs = append(ready.Legs, w.label(from[k]))
			from[k].off = math.Max(from[k].off, th.Passing.OffMM)
		}
		w.plan.Prepared = append(w.plan.Prepared, ready)
	}
	if t.Opening != nil {
		w.openings = append(w.openings, leaves{i, *t.Opening})
	}
	for _, c := range t.Cautions {
		c.Section = i
		w.calls = append(w.calls, c)
	}
	for _, f := range t.Warnings {
		var fix *Fix
		if f.Set != nil {
			fix = &Fix{Label: f.Label, Set: []Set{{Path: fmt.Sprintf("sequence[%d].%s", i, f.Field), Value: f.Set}}}
		}
		says := f.Says
		if all := append(slices.Clone(chosen), own...); f.Strand < len(all) {
			says = strings.ReplaceAll(says, "{cord}", w.d.Cords[all[f.Strand].cord].ID)
		}
		w.plan.Warnings = append(w.plan.Warnings, Warning{f.Code, i, says, fix})
	}
	w.open = 0
	if t.Open {
		w.open = fall + t.Height
	}
	if w.into == nil && !k.Ends && !k.Bare {
		w.knotted[i] = true
	}
	if t.Eye != 0 {
		w.eye = top + fall + t.Eye
	}
	w.handOn(terms, t, chosen, own, places)
	w.y, w.clear = bottom, t.Clear
	if t.Ends && len(w.hanging) > 0 {
		w.y = top
	}
	sec.HeightMM = bottom - top
	if !k.Mounts && !k.Ends {
		sec.PassesMM, sec.StopsMM = t.PassesMM, t.StopsMM
	}
	sec.Around = t.Around
	sec.FromEnd = knot.FromEnd(k, t)
	sec.Told = s.Told()
	if k.Counted != nil {
		sec.Counted = k.Counted(max(1, s.Count))
	}
	if n := len(t.Cells); n > 1 {
		sec.KnotMM = t.Height / float64(max(1, sec.Count))
	}
	sec.OrderAfter = make([]string, 0, len(w.hanging))
	for _, l := range w.hanging {
		sec.OrderAfter = append(sec.OrderAfter, w.label(l))
	}
	for _, v := range t.Shows {
		sec.Shows = append(sec.Shows, Sight{v.Where, w.d.Cords[chosen[v.Face].cord].ID, w.d.Cords[chosen[v.Back].cord].ID})
	}
	w.keep(sec, top, bottom)
	// A picture may be cut between knots: a flat row is the same after two
	// half knots, and a spiral of any length begins like a shorter one.
	const halves = 2
	each := 1
	if t.HalfKnots {
		each = halves
	}
	for k := each; k < len(t.Cells)-1; k += each {
		w.cuts = append(w.cuts, top+fall+t.Cells[k])
	}
	w.cuts = append(w.cuts, bottom)
	if t.Ends {
		for k, l := range chosen {
			l.ended = true
			l.endMM = work.Strands[k].At.Y + curve.Curve{Points: t.Paths[k].Points}.Length()
			if k >= len(t.Endings) { // it ends inside the knot
				continue
			}
			e := t.Endings[k]
			l.trim = e.TrimsMM + e.MeltsMM
			l.form, l.formWide = e.Form, e.Wide
			if e.BandMM > 0 {
				l.endMM -= e.BandMM
			}
			w.plan.Endings = append(w.plan.Endings, Ended{w.label(l), i, e})
		}
	}
}

// keep puts a planned section into the plan, or into the section that it is
// nested in.
func (w *walk) keep(sec Section, top, bottom float64) {
	if w.into == nil {
		w.plan.Sections = append(w.plan.Sections, sec)
		w.tops = append(w.tops, [2]float64{top, bottom})
		return
	}
	w.into.Use = append(w.into.Use, sec.Use...)
	w.into.OrderAfter = sec.OrderAfter
	w.into.RoughMM += sec.RoughMM
	w.into.GapShare = math.Min(w.into.GapShare, sec.GapShare)
}

// part keeps strands that are drawn into a bundle, or come out of one, from
// passing through one another on the way. It is done about where the first of them
// hangs, so that joints that are alike are parted once.
func (w *walk) part(legs []*leg, lines [][]r3.Vec) {
	d0 := legs[0].at
	strands := make([]tighten.Strand, len(legs))
	for k, l := range legs {
		strands[k].Diameter = w.thick(l)
		for _, v := range append([]r3.Vec{l.at}, lines[k]...) {
			strands[k].Route = append(strands[k].Route, r3.Sub(v, d0))
		}
	}
	parted, _ := knot.Parted(strands)
	for k, line := range parted {
		lines[k] = lines[k][:0:0]
		for _, v := range line[1:] {
			lines[k] = append(lines[k], r3.Add(v, d0))
		}
	}
}

// stepAside leads the strands that a section leaves out past it.
func (w *walk) stepAside(sec *Section, chosen []*leg, middle, reach float64, i int, bottom float64) {
	in := map[*leg]bool{}
	for _, l := range chosen {
		in[l] = true
	}
	side := -1.0
	edge := map[float64]float64{-1: reach, 1: reach}
	var left, right []*leg
	for _, l := range w.hanging {
		switch {
		case in[l]:
			side = 1
		case side < 0:
			left = append([]*leg{l}, left...)
		default:
			right = append(right, l)
		}
	}
	if len(chosen) == 0 { // a mount behind: nothing was chosen, nothing steps aside
		return
	}
	for _, group := range []struct {
		side float64
		legs []*leg
	}{{-1, left}, {1, right}} {
		for _, l := range group.legs {
			w.size.runs++
			d := w.thick(l)
			x := group.side * math.Max(group.side*(l.at.X-middle), edge[group.side]+d/2)
			edge[group.side] = math.Abs(x) + d/2
			if math.Abs(middle+x-l.at.X) < 1e-6 && math.Abs(l.at.Z) < 1e-6 && l.dir.Y > 1-1e-9 { // it hangs clear already
				mm := math.Max(0, bottom-l.at.Y)
				if mm > 0 {
					l.free(i, knot.Free, r3.Vec{X: l.at.X, Y: bottom})
				}
				l.takes(i, mm)
				sec.Use = append(sec.Use, Use{Strand: 1 + slices.Index(w.hanging, l), Cord: w.d.Cords[l.cord].ID, MM: mm})
				l.rulered++
				continue
			}
			down := r3.Vec{Y: 1}
			to := r3.Vec{X: middle + x}
			fall := knot.Fall([]knot.Way{{At: l.at, Dir: l.dir}}, []knot.Way{{At: to, Dir: down}}, d)
			to.Y = w.y + math.Min(math.Max(fall, 0.9*math.Abs(to.X-l.at.X)), bottom-w.y)
			line := append(knot.Join(l.at, to, l.dir, down), to, r3.Vec{X: to.X, Y: math.Max(bottom, to.Y)})
			mm := r3.Norm(r3.Sub(line[0], l.at)) + curve.Curve{Points: line}.Length()
			l.free(i, knot.Free, line...)
			l.takes(i, mm)
			sec.Use = append(sec.Use, Use{Strand: 1 + slices.Index(w.hanging, l), Cord: w.d.Cords[l.cord].ID, MM: mm})
			l.rulered++
			l.dir = down
		}
	}
}

// handOn gives the strands their places after the section.
func (w *walk) handOn(terms knot.Terms, t knot.Tied, chosen, own []*leg, places []int) {
	switch {
	case terms.Begins != knot.OnStrands:
		all := append(append([]*leg{}, chosen...), own...)
		w.hanging = w.hanging[:0:0]
		for _, k := range t.Order {
			if all[k].begun() {
				w.hanging = append(w.hanging, all[k])
			}
		}
		for _, l := range own {
			if l.begun() {
				w.legs = append(w.legs, l)
			}
		}
	case t.Ends:
		var left []*leg
		ends := map[*leg]bool{}
		for _, l := range chosen {
			ends[l] = true
		}
		for _, l := range w.hanging {
			if !ends[l] {
				left = append(left, l)
			}
		}
		w.hanging = left
	default:
		now := append([]*leg{}, w.hanging...)
		for k, from := range t.Order {
			now[places[k]-1] = chosen[from]
		}
		w.hanging = now
		for _, l := range own {
			if l.begun() {
				w.own = append(w.own, l)
			}
		}
	}
}

// stepOf is a step of a section that has no moves yet.
func stepOf(section int, do string, repeats int) Step {
	k, _ := knot.Get(do)
	return Step{Section: section, Do: do, Name: k.Name, Repeats: repeats, Actions: []Action{}}
}

// stepsOf writes what the maker does in this section.
func (w *walk) stepsOf(i int, work knot.Work, t knot.Tied, places []int, who []*leg) {
	w.inHand = who
	step := stepOf(i, work.Section.Do, t.Repeats)
	step.MM = t.LengthMM
	names := move.Names{Places: w.whole(places)}
	step.Actions = w.actionsOf(work, t, names, who)
	others, made := turns(t, who)
	for _, turn := range others {
		step.Turns = append(step.Turns, w.actionsOf(work, t, names, turn))
	}
	step.Made = made
	if n := len(step.Actions); t.HalfKnots && n > 2 {
		step.Half = n / 2
	}
	step.Gates = w.gates(t, who)
	w.plan.Steps = append(w.plan.Steps, step)
	w.plan.Actions += step.Repeats * len(step.Actions)
	if t.HalfKnots {
		for _, v := range t.Shows {
			if v.Where == "middle" {
				w.plan.Checks = append(w.plan.Checks, Check{"bars", i,
					fmt.Sprintf("Every bar on the face is cord %s, and the bars lie close.", w.d.Cords[who[v.Face].cord].ID)})
			}
		}
	}
}

// actionsOf are the moves of one repeat in words, made on these strands.
func (w *walk) actionsOf(work knot.Work, t knot.Tied, names move.Names, who []*leg) []Action {
	names.Cords = nil
	for _, l := range who {
		names.Cords = append(names.Cords, w.d.Cords[l.cord].ID)
	}
	out := []Action{}
	for k, m := range t.Moves {
		if last := len(out) - 1; m.Slack && k > 0 && !t.Moves[k-1].Slack && out[last].Gate == "" {
			out[last].Gate = "It is still loose: hold every crossing against the picture before you draw it up."
		}
		act := w.action(m, names, who)
		act.Led = knot.Shown(work, m)
		if t.Repeats <= 1 {
			act.Again = ""
		}
		out = append(out, act)
	}
	if n := len(out); t.HalfKnots && n > 2 {
		for k := 0; k < n; k += n / 2 {
			if a := &out[k]; a.From != "" {
				a.Because = "the lowest bump of the row is at the " + a.From
			}
		}
	}
	return out
}

// turns are the strands of a knot's repeats where they are others than those of the first, each
// way once, and which way each repeat is made, 0 for the first; none where all are made alike.
// Half knots change their workers round, and a spiral its sides too.
func turns(t knot.Tied, who []*leg) (out [][]*leg, made []int) {
	cords := func(strands []*leg) (all []int) {
		for _, l := range strands {
			all = append(all, l.cord)
		}
		return all
	}
	ways := [][]int{cords(who)}
	if one := ways[0]; t.Repeats <= 1 || len(one) == 0 || !slices.ContainsFunc(one, func(c int) bool { return c != one[0] }) {
		return nil, nil
	}
	for r := range t.Repeats {
		now := afterRepeats(t, who, r)
		is := cords(now)
		k := slices.IndexFunc(ways, func(had []int) bool { return slices.Equal(had, is) })
		if k < 0 {
			k, ways, out = len(ways), append(ways, is), append(out, now)
		}
		made = append(made, k)
	}
	if len(out) == 0 {
		return nil, nil
	}
	return out, made
}

// afterRepeats are the strands of a knot in the order in which they hang after so many repeats;
// cords of its own stay what they are.
func afterRepeats(t knot.Tied, who []*leg, repeats int) []*leg {
	out := slices.Clone(who)
	for k, from := range t.OrderAfter(repeats) {
		out[k] = who[from]
	}
	return out
}

// whole are places in a row as places in the whole piece.
func (w *walk) whole(places []int) []int {
	if w.rowPlaces == nil {
		return places
	}
	out := make([]int, len(places))
	for k, p := range places {
		out[k] = p
		if p <= len(w.rowPlaces) {
			out[k] = w.rowPlaces[p-1]
		}
	}
	return out
}

// action is a move in words, its strands named by their places in the piece and by
// their cords.
func (w *walk) action(m move.Move, names move.Names, who []*leg) Action {
	said := m.Say(names)
	out := Action{Text: said.Text, Detail: said.Detail, Gate: said.Gate, Again: said.Again, Led: knot.CanLead(m)}
	if m.Strand >= 0 && m.Strand < len(who) {
		c := w.d.Cords[who[m.Strand].cord]
		out.Cord, out.Colour = c.ID, c.Stuff.Colour
		out.From = string(m.Side(len(names.Places)))
		for _, l := range ledBy(m, who)[1:] {
			c := w.d.Cords[l.cord]
			if beside := (CordBeside{c.ID, c.Stuff.Colour}); c.ID != out.Cord && !slices.Contains(out.Beside, beside) {
				out.Beside = append(out.Beside, beside)
			}
		}
	}
	for _, o := range m.Of(move.Over) {
		out.Over = append(out.Over, w.label(who[o]))
	}
	for _, o := range m.Of(move.Under) {
		out.Under = append(out.Under, w.label(who[o]))
	}
	return out
}
