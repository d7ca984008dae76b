package reach

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/finish"
	"nimblebight/core/gauge"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Place is where a piece is in the middle of the work: so many knots of a section are
// tied, and so much of each leg hangs below them.
type Place struct {
	Section int `json:"section"`
	Tied    int `json:"tied"`
	// LeftMM is what hangs below the last knot, by the legs' names, as A.1; a leg that is
	// not named has enough.
	LeftMM map[string]float64 `json:"left_mm"`
}

// Rest is what can still be tied.
type Rest struct {
	Section int `json:"section"`
	Tied    int `json:"tied"`
	Planned int `json:"planned"`
	// Knots is how many of the section can be tied in all as surely as the maker wants,
	// the rest of the piece as planned; Best how many if all goes as on the median. Below
	// Tied, not even the rest can be.
	Knots    int     `json:"knots"`
	Best     int     `json:"best"`
	LengthMM float64 `json:"length_mm"`
	// Leg is the one that runs out first, and ShortMM what it lacks for the piece as
	// planned, 0 where nothing does.
	Leg     string  `json:"leg"`
	ShortMM float64 `json:"short_mm"`
	Legs    []Hangs `json:"legs"`
	Offers  []Way   `json:"offers"`
}

// Hangs is a leg in the middle of the work, for the piece as planned.
type Hangs struct {
	Leg     string  `json:"leg"`
	LeftMM  float64 `json:"left_mm"`
	NeedsMM float64 `json:"needs_mm"` // to the end of the piece, on the median
	TakesMM float64 `json:"takes_mm"` // with all that is allowed and held
	// Against is what it took so far over what was planned; 0 where that is unknown.
	Against float64 `json:"against,omitempty"`
}

// Way is a way on with what is left.
type Way struct {
	Kind     string         `json:"kind" jsonschema:"enum=fewer,enum=shorter-ends,enum=last,enum=splice"`
	Label    string         `json:"label"`
	Says     string         `json:"says"`
	Knots    int            `json:"knots"`
	LengthMM float64        `json:"length_mm"`
	Document piece.Document `json:"document"`
}

// middle is a place with what is planned of it.
type middle struct {
	Place
	d    piece.Document
	o    plan.Options
	tied plan.Plan // with the knots that are tied and no more
}

// Middle tells what can still be tied from a place on, and offers ways to end the
// piece. cut are the lengths that the legs were cut to, by their names, where that is
// known: what they took so far then counts for the rest.
func Middle(d piece.Document, o plan.Options, at Place, cut map[string]float64) (Rest, error) {
	o = o.Of(d)
	now, err := plan.Make(d, o)
	if err != nil {
		return Rest{}, err
	}
	if at.Section < 0 || at.Section >= len(d.Sequence) {
		return Rest{}, refused("section", "is %d; the piece has %d", at.Section, len(d.Sequence))
	}
	sec, ok := byIndex(now, at.Section)
	planned := max(1, sec.Count)
	switch {
	case !ok || !grows(d, at.Section):
		return Rest{}, refused("section", "%d takes no count; go on to a row of knots, or back to one", at.Section+1)
	case at.Tied < 0 || at.Tied > planned:
		return Rest{}, refused("tied", "is %d knots; section %d has %d, and no more can have been tied", at.Tied, at.Section+1, planned)
	case len(at.LeftMM) == 0:
		return Rest{}, refused("left_mm", "is empty; measure what hangs below the last knot, of one leg at least")
	}
	legs := legsOf(now)
	for name, v := range at.LeftMM {
		_, ok := legs[name]
		switch {
		case !ok:
			return Rest{}, refused("left_mm."+name, "names a leg that does not hang there")
		case math.IsNaN(v) || v < 0 || v > piece.MostMM:
			return Rest{}, refused("left_mm."+name, "is %v mm; what hangs is from 0 to 100 m", v)
		}
		if c, known := cut[name]; known && v > c {
			return Rest{}, refused("left_mm."+name, "is %.0f mm, more than the %.0f mm that the leg was cut to", v, c)
		}
	}
	m := middle{Place: at, d: d, o: o}
	if m.tied, err = plan.Make(counted(d, at.Section, max(1, at.Tied)), o); err != nil {
		return Rest{}, err
	}
	out := Rest{Section: at.Section, Tied: at.Tied, Planned: planned, Offers: []Way{}}
	out.Legs = m.hangs(now, cut)
	for _, h := range out.Legs {
		if short := h.TakesMM - h.LeftMM; short > out.ShortMM+1e-9 || out.Leg == "" {
			out.Leg, out.ShortMM = h.Leg, math.Max(0, short)
		}
	}
	if out.Knots, out.Best, err = m.reach(d, cut); err != nil {
		return Rest{}, err
	}
	last, err := plan.Make(counted(d, at.Section, max(1, at.Tied, out.Knots)), o)
	if err != nil {
		return Rest{}, err
	}
	out.LengthMM = last.LengthMM
	if out.ShortMM > 0 {
		out.Offers, err = m.offers(out, cut)
	}
	return out, err
}

// legsOf are the legs of a plan by their names.
func legsOf(p plan.Plan) map[string]plan.Leg {
	out := map[string]plan.Leg{}
	for _, c := range p.Cords {
		if c.Role == "wrap" || c.Role == "unused" {
			continue
		}
		for n, l := range c.Legs {
			out[fmt.Sprintf("%s.%d", c.ID, n+1)] = l
		}
	}
	return out
}

// after is what a leg takes from the place on: what the sections below it take, and of
// the one in hand what is not tied yet.
func (m middle) after(name string, l plan.Leg) (rest, done float64) {
	tied := legsOf(m.tied)[name]
	for _, q := range l.Parts {
		if q.Section >= m.Section {
			rest += q.MM
		} else {
			done += q.MM
		}
	}
	if m.Tied > 0 {
		for _, q := range tied.Parts {
			if q.Section == m.Section {
				rest -= q.MM
				done += q.MM
			}
		}
	}
	return math.Max(0, rest), done
}

// hangs are the legs that were measured, for a plan of the whole piece.
func (m middle) hangs(p plan.Plan, cut map[string]float64) []Hangs {
	legs := legsOf(p)
	var names []string
	for name := range m.LeftMM {
		names = append(names, name)
	}
	slices.Sort(names)
	var out []Hangs
	doubts := make([]gauge.Leg, 0, len(names))
	for _, name := range names {
		l := legs[name]
		rest, done := m.after(name, l)
		h := Hangs{Leg: name, LeftMM: m.LeftMM[name]}
		doubt := l.Doubt()
		doubt.Knots = slices.Clone(doubt.Knots)
		share := rest / math.Max(rest+done, 1e-9)
		by := 1.0
		if c, known := cut[name]; known && done > 20 {
			h.Against = (c - h.LeftMM) / done
			by = m.sofar(doubt, h.Against, done/(rest+done))
		}
		h.NeedsMM = rest * by
		h.TakesMM = l.BeyondMM
		for i := range doubt.Knots { // what is left of it is in doubt
			doubt.Knots[i].MM *= share
			doubt.Knots[i].SquareN *= share
		}
		doubt.Rulered = int(math.Ceil(float64(doubt.Rulered) * share))
		out, doubts = append(out, h), append(doubts, doubt)
	}
	for i, a := range m.o.Gauge.Enough(doubts, m.o.OneIn, gauge.Everything) {
		out[i].TakesMM += out[i].NeedsMM + a
	}
	return out
}

// sofar is by what the rest takes more than planned when what is tied took so much
// more: the update of what all knots of the leg have in common by what was seen of it.
func (m middle) sofar(l gauge.Leg, against, share float64) float64 {
	if against < 0.5 || against > 2 {
		return 1 // it was not cut as planned
	}
	all, square := 0.0, 0.0
	for _, k := range l.Knots {
		all += k.MM
		square += k.SquareN
	}
	if all < 1 {
		return 1
	}
	single := gauge.KnotDoubt * gauge.KnotDoubt * square / (all * all)
	common := m.o.Gauge.Variance(l, gauge.Everything)/(all*all) - single
	noise := single/math.Max(share, 1e-6) + math.Pow(2*gauge.RulerMM/math.Max(share*all, 1), 2)
	return math.Exp(math.Log(against) * common / (common + noise))
}

// reach is how many knots of the section in hand can be tied in all, the rest of a
// document as it stands: as surely as asked, and on the median.
func (m middle) reach(d piece.Document, cut map[string]float64) (sure, best int, err error) {
	count := func(enough func(h Hangs, beyond float64) bool) (int, error) {
		n, ok, err := most(max(1, m.Tied), func(n int) (bool, error) {
			p, err := plan.Make(counted(d, m.Section, n), m.o)
			if err != nil {
				return false, err
			}
			legs := legsOf(p)
			for _, h := range m.hangs(p, cut) {
				if !enough(h, legs[h.Leg].BeyondMM) {
					return false, nil
				}
			}
			return true, nil
		})
		if !ok {
			n = max(1, m.Tied) - 1
		}
		return n, err
	}
	if sure, err = count(func(h Hangs, _ float64) bool { return h.TakesMM <= h.LeftMM+1e-6 }); err != nil {
		return 0, 0, err
	}
	best, err = count(func(h Hangs, beyond float64) bool { return h.NeedsMM+beyond <= h.LeftMM+1e-6 })
	return sure, best, err
}

// offers are the ways on where the piece cannot be tied as planned.
func (m middle) offers(r Rest, cut map[string]float64) ([]Way, error) {
	out := []Way{}
	put := func(kind, label, says string, d piece.Document, knots int) {
		p, err := plan.Make(d, m.o)
		if err != nil {
			return
		}
		out = append(out, Way{kind, label, says, knots, p.LengthMM, d})
	}
	enough := func(n int) int { return min(n, r.Planned) }
	if n := enough(r.Knots); n >= max(1, m.Tied) && n < r.Planned {
		says := fmt.Sprintf("%d more, then the rest as planned.", n-m.Tied)
		if n == m.Tied {
			says = "No more of them: the rest as planned."
		}
		put("fewer", fmt.Sprintf("Tie %d instead of %d", n, r.Planned), says, counted(m.d, m.Section, n), n)
	}
	if d, name, ok := m.shorter(); ok {
		if n, _, err := m.reach(d, cut); err != nil {
			return nil, err
		} else if n = enough(n); n >= max(1, m.Tied) && n > r.Knots {
			put("shorter-ends", "Finish them by "+name, fmt.Sprintf("It leaves less: %d of %d knots.", n, r.Planned), counted(d, m.Section, n), n)
		}
	}
	for i := len(m.d.Sequence) - 1; i > m.Section; i-- {
		k, _ := knot.Get(m.d.Sequence[i].Do)
		if k.Ends {
			continue
		}
		if fewer, n := m.shorterRow(i, r, cut); n > 0 {
			put("last", fmt.Sprintf("Tie %d %s at the end", n, k.Name), fmt.Sprintf("All %d knots of the row in hand, and a shorter last row.", r.Planned), fewer, r.Planned)
			break
		}
		d := m.d
		d.Sequence = slices.Delete(slices.Clone(d.Sequence), i, i+1)
		if n, _, err := m.reach(d, cut); err == nil && enough(n) >= max(1, m.Tied) && enough(n) > r.Knots {
			n = enough(n)
			put("last", "End without the "+k.Name, fmt.Sprintf("The last section goes: %d of %d knots.", n, r.Planned), counted(d, m.Section, n), n)
		}
		break
	}
	if ci := m.d.CordByID(cordOf(r.Leg)); ci >= 0 && m.d.Cords[ci].Stuff.Material.Melts() {
		d := m.d
		d.Sequence = slices.Clone(d.Sequence)
		more := 0.0
		for _, h := range r.Legs {
			if h.Leg == r.Leg {
				more = math.Ceil((h.TakesMM-h.LeftMM+2*splice)/5) * 5
			}
		}
		s := d.Sequence[m.Section]
		note := fmt.Sprintf("Leg %s is spliced after knot %d with %.0f mm of the same cord; the joint lies inside the next knot.", r.Leg, m.Tied, more)
		if s.Note != "" {
			note = s.Note + " " + note
		}
		if len([]rune(note)) <= 2000 {
			d.Sequence[m.Section].Note = note
			put("splice", "Splice leg "+r.Leg, fmt.Sprintf("Fuse {%.0fmm} of the same cord to it and hide the joint inside the next knot, under the bar; roll it smooth and pull at it first.", more), d, r.Planned)
		}
	}
	slices.SortStableFunc(out, sooner)
	return out, nil
}

// shorterRow is the document with the row of a section, the last one, tied as often as
// what is left allows when all of the row in hand is tied; 0 where it is none, or not
// even one of its knots can be.
func (m middle) shorterRow(i int, r Rest, cut map[string]float64) (piece.Document, int) {
	if !grows(m.d, i) || m.d.Sequence[i].Count < 2 {
		return m.d, 0
	}
	n, ok, err := most(1, func(n int) (bool, error) {
		if n >= m.d.Sequence[i].Count {
			return false, nil
		}
		sure, _, err := m.reach(counted(m.d, i, n), cut)
		return sure >= r.Planned, err
	})
	if !ok || err != nil {
		return m.d, 0
	}
	return counted(m.d, i, n), n
}

// usual is how well a finish must suit a cord to be taken without being asked for.
const usual = 50

// splice is how much of each end a joint takes, mm.
const splice = 10.0

func cordOf(leg string) string {
	for i := len(leg) - 1; i >= 0; i-- {
		if leg[i] == '.' {
			return leg[:i]
		}
	}
	return leg
}

// shorter is the document with the finish that leaves the least of those that its
// cords take, each end by itself.
func (m middle) shorter() (piece.Document, string, bool) {
	d := m.d
	d.Sequence = slices.Clone(d.Sequence)
	changed, name := false, ""
	for i, s := range d.Sequence {
		k, _ := knot.Get(s.Do)
		if i < m.Section || !k.Ends || k.Finish == nil {
			continue
		}
		stuff := m.d.Cords[0].Stuff
		least, best := math.Inf(1), finish.Finish{}
		for _, f := range finish.All() {
			all := true
			for _, c := range m.d.Cords {
				good, _ := f.Fits(c.Stuff)
				all = all && good >= usual
			}
			if mm := f.Leave(stuff, 0) + f.Trim(stuff); all && f.Alone() && !f.WantsLength && mm < least {
				least, best = mm, f
			}
		}
		if best.ID == "" { // cords that burn: a straight cut, kept short
			if f, ok := finish.Get(finish.Plain); ok {
				d.Sequence[i], changed, name = k.Finish(f.ID).Put("length_mm", 10.0), true, f.Name
			}
			continue
		}
		d.Sequence[i], changed, name = k.Finish(best.ID), true, best.Name
	}
	return d, name, changed
}
