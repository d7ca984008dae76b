// Package inspect says what to look at on a tied piece, in order: how to look, what is
// right and what is wrong, drawn from the piece's own curves, and the way back. What is
// wrong is drawn of a piece that is tied so in earnest.
package inspect

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// Item is one thing to inspect. {12.3mm} in its words is a length in the maker's units.
type Item struct {
	ID      string `json:"id"`      // of this piece, as long as its sequence stays
	Section int    `json:"section"` // -1 for the whole piece
	Where   string `json:"where"`
	What    string `json:"what"`
	How     string `json:"how,omitempty"`
	// Back is the way back from what is wrong.
	Back  string `json:"back,omitempty"`
	Right *Shown `json:"right,omitempty"`
	Wrong *Shown `json:"wrong,omitempty"`
}

// Shown is how it can look: a stretch of a piece that is tied so.
type Shown struct {
	Says string `json:"says,omitempty"`
	// Turn is from where it is looked at, degrees; FromMM and ToMM the stretch of it.
	Turn   float64 `json:"turn"`
	FromMM float64 `json:"from_mm"`
	ToMM   float64 `json:"to_mm"`

	Document piece.Document `json:"-"`
	// Plan is that of the document.
	Plan plan.Plan `json:"-"`
}

// inspector goes through a planned piece.
type inspector struct {
	d   piece.Document
	p   plan.Plan
	o   plan.Options
	out []Item
}

// Of lists what to inspect on a piece that is planned by some options: the cords first,
// then section by section, then the whole.
func Of(d piece.Document, p plan.Plan, o plan.Options) []Item {
	n := &inspector{d: d, p: p, o: o, out: []Item{}}
	n.legs()
	for _, s := range p.Sections {
		if s.Index >= len(d.Sequence) {
			continue
		}
		n.slips(s)
		n.sides(s)
		n.count(s)
		n.fillers(s)
		n.checks(s.Index)
		n.ends(s)
	}
	n.checks(-1)
	return n.out
}

func (n *inspector) where(section int) string {
	if section < 0 {
		return "the whole piece"
	}
	k, _ := knot.Get(n.d.Sequence[section].Do)
	return fmt.Sprintf("section %d, %s", section+1, k.Name)
}

func (n *inspector) put(i Item) {
	i.ID = fmt.Sprintf("%d-%d", i.Section, len(n.out))
	i.Where = n.where(i.Section)
	n.out = append(n.out, i)
}

// most is how much of a section is shown, mm: what is seen at a glance.
const most = 70.0

// stretch is where a section lies in the picture, no more than a glance of it from where
// it is begun, with what is beside it; ends is set to begin at its other end. ok is false
// where the plan has no such section.
func stretch(p plan.Plan, section int, ends bool) (from, to float64, ok bool) {
	i := slices.IndexFunc(p.Sections, func(s plan.Section) bool { return s.Index == section })
	look := p.Look()
	if i < 0 || i >= len(look.Sections) {
		return 0, 0, false
	}
	from, to = look.Sections[i][0]-4, look.Sections[i][1]+6
	// A piece that begins with a ball hangs by its end: its first section is the lowest.
	below := math.Abs(look.Sections[i][0]-p.Sections[i].TopMM) > 0.5
	if below != ends {
		return math.Max(from, to-most), to, true
	}
	return from, math.Min(to, from+most), true
}

// shown is a section as it is planned.
func (n *inspector) shown(section int, says string, ends bool) *Shown {
	from, to, ok := stretch(n.p, section, ends)
	if !ok {
		return nil
	}
	return &Shown{Says: says, Turn: n.p.Turn, FromMM: from, ToMM: to, Document: n.d, Plan: n.p}
}

// tied plans a document with other sections in the place of one, nil where it cannot be
// tied so. The stretch that is shown is as long as that of the right state, from where the
// section begins; ends shows the very stretch of the right state instead.
func (n *inspector) tied(section int, instead []knot.Section, says string, right *Shown, ends bool) *Shown {
	d := n.d
	d.Sequence = slices.Concat(n.d.Sequence[:section:section], instead, n.d.Sequence[section+1:])
	p, err := plan.Make(d, n.o)
	if err != nil || right == nil {
		return nil
	}
	out := &Shown{Says: says, Turn: p.Turn, FromMM: right.FromMM, ToMM: right.ToMM, Document: d, Plan: p}
	from, to, ok := stretch(p, section, false)
	switch long := right.ToMM - right.FromMM; {
	case !ok:
		return nil
	case ends:
	case to-from < most-1 && len(instead) == 1 || from == right.FromMM:
		out.FromMM, out.ToMM = from, from+long
	default:
		out.FromMM, out.ToMM = to-long, to
	}
	return out
}

// slips are the states that the knot itself knows.
func (n *inspector) slips(s plan.Section) {
	sec := n.d.Sequence[s.Index]
	k, _ := knot.Get(sec.Do)
	if k.Wrong == nil {
		return
	}
	if sec.Count == 0 {
		sec.Count = s.Count
	}
	for _, w := range k.Wrong(sec) {
		right := n.shown(s.Index, "Right.", false)
		n.put(Item{Section: s.Index, What: w.What, How: w.How, Back: w.Back, Right: right, Wrong: n.tied(s.Index, w.Instead, w.Says, right, false)})
	}
}

// sides shows a row that was gone on with from the other side, as after a pause.
func (n *inspector) sides(s plan.Section) {
	sec := n.d.Sequence[s.Index]
	k, _ := knot.Get(sec.Do)
	f, side, ok := begins(k, sec)
	if !ok || s.Count < 4 {
		return
	}
	first, second := sec, sec
	first.FitMM, second.FitMM = 0, 0
	// The slip lies where it is seen in the picture.
	first.Count = min(s.Count/2, 3)
	second.Count = s.Count - first.Count
	second = second.With(f, knot.Opposite(side))
	right := n.shown(s.Index, fmt.Sprintf("Right: every one begins %s.", side), false)
	says := fmt.Sprintf("After %d it was gone on with from the other side: begun %s instead of %s.", first.Count, knot.Opposite(side), side)
	wrong := n.tied(s.Index, []knot.Section{first, second}, says, right, false)
	if wrong == nil {
		return
	}
	n.put(Item{Section: s.Index, What: fmt.Sprintf("All %d are begun on one side, also after every pause.", s.Count),
		How:   "Follow one cord down the face from knot to knot: it does the same in each.",
		Back:  fmt.Sprintf("Untie down to the knot where it changes; %d come after it at the most. The next begins %s.", s.Count-1, side),
		Right: right, Wrong: wrong})
}

// begins is on which side a section begins, and the field that says so; ok is false for one
// that has no side, or that does not stand by itself.
func begins(k knot.Knot, sec knot.Section) (f knot.Field, side string, ok bool) {
	i := slices.IndexFunc(k.Fields, knot.Field.Sided)
	if i < 0 || k.Holds != knot.Nothing || k.Outside {
		return f, "", false
	}
	f = k.Fields[i]
	v, _ := sec.Value(f)
	if side, _ = v.(string); side == "" {
		side = f.Default
	}
	return f, side, true
}

// count shows a section that is one knot short.
func (n *inspector) count(s plan.Section) {
	sec := n.d.Sequence[s.Index]
	if s.KnotMM == 0 || s.Count < 2 {
		return
	}
	right := n.shown(s.Index, "Right: here the last of them ends.", true)
	fewer := sec
	fewer.Count, fewer.FitMM = s.Count-1, 0
	n.put(Item{Section: s.Index, What: fmt.Sprintf("%d are tied, {%.0fmm} long.", s.Count, s.HeightMM),
		How:   fmt.Sprintf("Count the bumps at one edge, in fives, and measure it; one knot is {%.1fmm}.", s.KnotMM),
		Back:  "Where one is missing, untie what is below and tie it; where one is too many, untie it. Its cord is in the spare.",
		Right: right, Wrong: n.tied(s.Index, []knot.Section{fewer}, fmt.Sprintf("One is missing: it ends {%.1fmm} sooner.", s.KnotMM), right, true)})
}

// seen is from which share of fillers on they are said to be seen.
const seen = 0.002

// fillers says how much of the strands that are tied over may be seen: as much as in the
// picture.
func (n *inspector) fillers(s plan.Section) {
	works, over := false, false
	for _, u := range s.Use {
		works, over = works || u.Works, over || !u.Works
	}
	if !works || !over || s.KnotMM == 0 || s.Count < 3 {
		return
	}
	from, to, ok := stretch(n.p, s.Index, false)
	if !ok || n.p.Turn != 0 {
		return
	}
	// The first and the last knot lie beside bare strands.
	v := scene.View{PerMM: 8, From: from + 4 + s.KnotMM, To: to - 6 - s.KnotMM}
	if v.To <= v.From {
		return
	}
	share := scene.Fillers(n.p.Layout(), v)
	what := "No strand that is tied over shows on the face between the knots."
	if share >= seen {
		what = fmt.Sprintf("Of the strands that are tied over no more shows on the face than in the picture, %.0f %% of the row.", math.Max(1, 100*share))
	}
	n.put(Item{Section: s.Index, What: what, How: "Bend the row a little backwards and look between the knots.",
		Back: "Push the knots up along the strands they are tied over, from the lowest to the highest, and pull each worker home.", Right: n.shown(s.Index, "Right.", false)})
}

// checks are what the plan says to look at.
func (n *inspector) checks(section int) {
	for _, c := range n.p.Checks {
		if c.Section != section || c.Code == "legs" || c.Code == "length" {
			continue
		}
		i := Item{Section: section, What: c.Message, How: "Hold it beside the picture, face and back."}
		if section >= 0 {
			i.Right = n.shown(section, "Right.", false)
		}
		n.put(i)
	}
}

// ends are looked at as their finish says.
func (n *inspector) ends(s plan.Section) {
	sec := n.d.Sequence[s.Index]
	k, _ := knot.Get(sec.Do)
	f, ok := k.Field("how")
	if !ok {
		return
	}
	v, _ := sec.Value(f)
	how, _ := v.(string)
	if w, ok := finish.Get(how); ok {
		n.put(Item{Section: s.Index, What: w.Look, How: "Look at every end from all sides, and pull each once.", Back: w.Undo, Right: n.shown(s.Index, "Right.", false)})
	}
}

// legs shows the first knot with the legs even, and with one of them pulled through by as
// much as a knot takes.
func (n *inspector) legs() {
	if !slices.ContainsFunc(n.p.Checks, func(c plan.Check) bool { return c.Code == "legs" }) {
		return
	}
	first := slices.IndexFunc(n.p.Sections, func(s plan.Section) bool { k, _ := knot.Get(s.Do); return !k.Mounts && !k.Bare })
	if first >= 0 {
		if k, _ := knot.Get(n.p.Sections[first].Do); k.Ends || k.Holds != knot.Nothing || k.Fold != nil || k.First {
			first = -1 // what holds others shows no first knot of its own
		}
	}
	var item Item
	for _, c := range n.p.Checks {
		if c.Code == "legs" {
			item = Item{Section: -1, What: c.Message, How: "Hold the fold where it hangs and lay the legs beside the tape: each measures what the gate at the first knot said.",
				Back: "Loosen the first knot and pull the cord through its fold; later the piece is untied to there, or an end is made up by a shorter finish."}
		}
	}
	if first >= 0 {
		item.Right, item.Wrong = n.even(n.p.Sections[first])
	}
	n.put(item)
}

// even are the piece down to its first knot with all ends hanging alike, and with one end
// longer and the other shorter by what a knot takes.
func (n *inspector) even(s plan.Section) (right, wrong *Shown) {
	end, ok := knot.That(func(k knot.Knot) bool { return k.Finish != nil })
	if !ok || len(s.OrderAfter) < 2 {
		return nil, nil
	}
	one := n.d.Sequence[s.Index]
	one.Count, one.FitMM = min(1, s.Count), 0
	takes := 0.0
	for _, u := range s.Use {
		if u.Works {
			takes = math.Max(takes, u.MM/float64(max(1, s.Count)))
		}
	}
	if takes > most { // so large a knot would be drawn too small to be seen
		return nil, nil
	}
	hang := 10 + takes/2 // the shorter end is still seen
	cord, _, _ := strings.Cut(s.OrderAfter[0], ".")
	cut := func(mm float64, places ...int) knot.Section {
		return end.Finish(finish.Plain).Put("length_mm", mm).Put("ends", places)
	}
	other := slices.IndexFunc(s.OrderAfter, func(leg string) bool { return leg != s.OrderAfter[0] && strings.HasPrefix(leg, cord+".") })
	if other < 0 {
		return nil, nil
	}
	state := func(says string, ends ...knot.Section) *Shown {
		d := n.d
		d.Purpose.LengthMM, d.Purpose.AroundMM = 0, 0
		d.Sequence = slices.Concat(n.d.Sequence[:s.Index:s.Index], []knot.Section{one}, ends)
		p, err := plan.Make(d, n.o)
		if err != nil {
			return nil
		}
		return &Shown{Says: says, Turn: p.Turn, FromMM: -8, ToMM: p.LengthMM + 4, Document: d, Plan: p}
	}
	right = state(fmt.Sprintf("Right: both legs of cord %s are as long as they were measured.", cord), cut(hang))
	rest := []knot.Section{cut(hang-takes/2, 1), cut(hang+takes/2, other)}
	if len(s.OrderAfter) > 2 {
		rest = append(rest, cut(hang))
	}
	if right == nil {
		return nil, nil
	}
	wrong = state(fmt.Sprintf("Cord %s was pulled through its fold by {%.0fmm}: its legs are uneven by what a knot takes, and one runs out a knot sooner.", cord, takes/2), rest...)
	if wrong != nil {
		right.ToMM = math.Max(right.ToMM, wrong.ToMM)
		wrong.ToMM = right.ToMM
	}
	return right, wrong
}
