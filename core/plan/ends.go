package plan

import (
	"cmp"
	"fmt"
	"reflect"
	"slices"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
)

// End is the end of a strand, with how it is finished.
type End struct {
	// Place is its name: its place when the first finish begins, from the left. It
	// keeps it.
	Place    int     `json:"place"`
	Cord     string  `json:"cord"`
	Leg      string  `json:"leg"`     // as A.1 for the first leg of cord A
	Section  int     `json:"section"` // that finishes it, -1 for none
	How      string  `json:"how"`     // "" where it is not finished
	LengthMM float64 `json:"length_mm,omitempty"`
	// Under is under how many crossings it is buried, Bead what it goes through, where
	// its finish asks for that.
	Under int        `json:"under,omitempty"`
	Bead  *knot.Bead `json:"bead,omitempty"`
	// With are the other ends that are finished with it in one section.
	With []int `json:"with,omitempty"`
	// Measures are what its finish leaves, cuts and hides, nil where it cannot be so.
	Measures *knot.Ending `json:"measures,omitempty"`
	// Ways are all finishes as they suit its cord, best first, those that are ruled out
	// last.
	Ways []finish.Choice `json:"ways,omitempty"`

	// At is its place from the left when the finishes begin that it is finished in, Of how
	// many hang there then, and Below the section above them, -1 for none.
	At    int `json:"at"`
	Of    int `json:"of"`
	Below int `json:"below"`

	run int // the run of finishes it is finished in
}

// run is a run of finishes with nothing tied between them: sections from, to.
type run struct{ from, to int }

// runs are those of a sequence; the last stands at its end and may be empty.
func runs(seq []knot.Section) []run {
	var out []run
	for i, s := range seq {
		if k, _ := knot.Get(s.Do); !k.Ends {
			continue
		}
		if n := len(out); n > 0 && out[n-1].to == i {
			out[n-1].to++
		} else {
			out = append(out, run{i, i + 1})
		}
	}
	if n := len(out); n == 0 || out[n-1].to < len(seq) {
		out = append(out, run{len(seq), len(seq)})
	}
	return out
}

// EndsOf gives each strand that hangs before the first finish the finish that it
// gets, wherever in the piece that is, in the order of their names. A finish that
// cannot be, as a fuse of one end till the other is chosen, is told all the same.
func EndsOf(d piece.Document, o Options) ([]End, error) {
	plain := d
	plain.Sequence = slices.Clone(d.Sequence)
	for i, s := range d.Sequence {
		if k, _ := knot.Get(s.Do); k.Ends {
			plain.Sequence[i] = s.Put("how", finish.Plain)
		}
	}
	p, err := Make(plain, o)
	if err != nil {
		return nil, err
	}
	ends := endsOf(d, p)
	if whole, err := Make(d, o); err == nil {
		for i := range ends {
			for _, e := range whole.Endings {
				if e.Leg == ends[i].Leg && e.Section == ends[i].Section {
					m := e.Ending
					ends[i].Measures = &m
				}
			}
		}
	}
	return ends, nil
}

// endsOf gives the ends of a document whose strands hang as in a plan.
func endsOf(d piece.Document, p Plan) []End {
	before := func(i int) []string {
		var order []string
		for _, s := range p.Sections {
			if s.Index < i {
				order = s.OrderAfter
			}
		}
		if p.LeftHanded { // places are counted as the document counts them
			order = slices.Clone(order)
			slices.Reverse(order)
		}
		return order
	}
	all := runs(d.Sequence)
	names := before(all[0].from)
	out := []End{}
	for n, r := range all {
		type hang struct {
			leg string
			at  int
		}
		var hanging []hang // those that are not finished yet
		for k, leg := range before(r.from) {
			hanging = append(hanging, hang{leg, k + 1})
		}
		put := func(h hang, section int) {
			cord, _, _ := strings.Cut(h.leg, ".")
			e := End{Place: slices.Index(names, h.leg) + 1, Cord: cord, Leg: h.leg, Section: section, run: n, At: h.at, Of: len(before(r.from)), Below: r.from - 1}
			if e.Place == 0 {
				e.Place = len(names) + len(out) + 1
			}
			if c := d.CordByID(cord); c >= 0 {
				place := finish.Place{Covers: p.coversOf(h.leg)}
				for _, o := range hanging {
					beside, _, _ := strings.Cut(o.leg, ".")
					if b := d.CordByID(beside); b >= 0 && o.leg != h.leg {
						place.Beside = append(place.Beside, d.Cords[b].Stuff)
					}
				}
				e.Ways = finish.For(d.Cords[c].Stuff, place)
			}
			if section >= 0 {
				e.How, _ = valueOf(d.Sequence[section], "how").(string)
				e.LengthMM, _ = valueOf(d.Sequence[section], "length_mm").(float64)
				e.Under, _ = valueOf(d.Sequence[section], "under").(int)
				e.Bead = d.Sequence[section].Bead()
			}
			out = append(out, e)
		}
		for i := r.from; i < r.to; i++ {
			places, _ := d.Sequence[i].Stays()
			var left []hang
			for k, h := range hanging {
				if len(places) == 0 || slices.Contains(places, k+1) {
					put(h, i)
				} else {
					left = append(left, h)
				}
			}
			hanging = left
		}
		if n == len(all)-1 {
			for _, h := range hanging {
				put(h, -1)
			}
		}
	}
	slices.SortStableFunc(out, func(a, b End) int { return cmp.Compare(a.Place, b.Place) })
	for i := range out {
		for _, e := range out {
			if e.Section >= 0 && e.Section == out[i].Section && e.Place != out[i].Place {
				out[i].With = append(out[i].With, e.Place)
			}
		}
	}
	return out
}

// alike tells whether two ends are finished alike.
func (e End) alike(o End) bool {
	return e.How == o.How && e.LengthMM == o.LengthMM && e.Under == o.Under && reflect.DeepEqual(e.Bead, o.Bead)
}

// beadFor is a bead that two ends of a stuff pass.
func beadFor(s cord.Stuff, o Options) *knot.Bead {
	figures := o.Gauge.Figures(s)
	l := knot.Strand{Stuff: s, Figures: figures, Diameter: figures.DrawnUpMM}
	b := knot.BeadFor([]knot.Strand{l, l})
	return &b
}

func valueOf(s knot.Section, key string) any {
	k, _ := knot.Get(s.Do)
	f, ok := k.Field(key)
	if !ok {
		return nil
	}
	v, _ := s.Value(f)
	return v
}

// Finished is the sequence in which the ends are finished as they say: the fewest
// sections, each in the run of finishes that it is in. What a section says besides
// stays with it. Ends that are not there are refused.
func Finished(d piece.Document, o Options, wanted []End) ([]knot.Section, error) {
	end, ok := knot.That(func(k knot.Knot) bool { return k.Finish != nil })
	if !ok {
		return nil, fmt.Errorf("plan: nothing here ends strands")
	}
	ends, err := EndsOf(d, o)
	if err != nil {
		return nil, err
	}
	for _, w := range wanted {
		i := slices.IndexFunc(ends, func(e End) bool { return e.Place == w.Place })
		if i < 0 {
			return nil, piece.Problems{{Path: "ends", Message: fmt.Sprintf("name end %d, but %s", w.Place, hang(len(ends)))}}
		}
		ends[i].How, ends[i].LengthMM, ends[i].Under, ends[i].Bead = w.How, w.LengthMM, w.Under, w.Bead
		if f, ok := finish.Get(w.How); ok && f.WantsBead && w.Bead == nil {
			if c := d.CordByID(ends[i].Cord); c >= 0 {
				ends[i].Bead = beadFor(d.Cords[c].Stuff, o)
			}
		}
	}
	all := runs(d.Sequence)
	seq := slices.Clone(d.Sequence)
	for n := len(all) - 1; n >= 0; n-- {
		type group struct {
			End
			of []End
		}
		var groups []group
		here := 0
		sorted := slices.SortedStableFunc(slices.Values(ends), func(a, b End) int { return cmp.Compare(a.At, b.At) })
		for _, e := range sorted {
			if e.run != n {
				continue
			}
			here++
			if e.How == "" {
				continue
			}
			k := slices.IndexFunc(groups, func(g group) bool { return g.alike(e) })
			if k < 0 {
				groups, k = append(groups, group{End: e}), len(groups)
			}
			groups[k].of = append(groups[k].of, e)
		}
		// Sections that were there keep their order, new ones come after them.
		slices.SortStableFunc(groups, func(a, b group) int {
			x, y := a.of[0].Section, b.of[0].Section
			if x < 0 || y < 0 {
				return cmp.Compare(y, x)
			}
			return cmp.Compare(x, y)
		})
		var made []knot.Section
		var gone []int
		for _, g := range groups {
			s := end.Finish(g.How)
			if was := g.of[0].Section; was >= 0 {
				s = d.Sequence[was]
			}
			var places []int
			for _, e := range g.of {
				at := e.At
				for _, q := range gone {
					if q < e.At {
						at--
					}
				}
				places = append(places, at)
			}
			for _, e := range g.of {
				gone = append(gone, e.At)
			}
			if n == len(all)-1 && len(gone) == here { // before the last run others hang there, which go on
				places = nil
			}
			s = s.Put("how", g.How).Put("length_mm", g.LengthMM).Put("under", g.Under).Put("ends", places)
			made = append(made, s.PutBead(g.Bead))
		}
		seq = slices.Concat(seq[:all[n].from], made, seq[all[n].to:])
	}
	return seq, nil
}
