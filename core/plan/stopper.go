package plan

import (
	"cmp"
	"fmt"
	"slices"

	"nimblebight/core/knot"
)

// stopper says whether a knot of the piece stops at the hole that it must not pass, and
// which other one would in place of the widest.
func (w *walk) stopper() {
	hole := w.d.Purpose.StopsMM
	if hole == 0 || w.stop || len(w.plan.Sections) == 0 {
		return
	}
	widest := slices.MaxFunc(w.plan.Sections, func(a, b Section) int { return cmp.Compare(a.StopsMM, b.StopsMM) })
	if widest.StopsMM == 0 {
		w.say("passes-the-hole", -1, nil, "Nothing here stops at a hole of {%.1fmm}: tie a knot in it.", hole)
		return
	}
	name := func(s knot.Section) string { k, _ := knot.Get(s.Do); return k.Name }
	i := widest.Index
	if widest.StopsMM >= hole {
		w.plan.Checks = append(w.plan.Checks, Check{"stops", i, fmt.Sprintf("The %s does not pass a hole of {%.1fmm} when it is pulled hard.", name(w.written[i]), hole)})
		return
	}
	w.say("passes-the-hole", i, w.wider(i, hole), "The %s stops a hole of {%.1fmm} at most; pulled hard it may pass one of {%.1fmm}.", name(w.written[i]), widest.StopsMM, hole)
}

// wider is a section in place of another, on as many strands, that a hole stops: of
// all knots the one that does so with the least to spare.
func (w *walk) wider(i int, hole float64) *Fix {
	at := slices.IndexFunc(w.plan.Sections, func(s Section) bool { return s.Index == i })
	var strands []knot.Strand
	for _, u := range w.plan.Sections[at].Use {
		if ci := w.d.CordByID(u.Cord); ci >= 0 && u.Strand > 0 {
			strands = append(strands, knot.Strand{Cord: ci, Stuff: w.d.Cords[ci].Stuff, Figures: w.figures[ci], Diameter: w.figures[ci].DrawnUpMM})
		}
	}
	var best knot.Section
	spare := 0.0
	for _, k := range knot.All() {
		if k.Tie == nil || k.Mounts || k.Ends || k.First {
			continue
		}
		s, err := knot.New(k.ID)
		if err != nil {
			continue
		}
		tries := []knot.Section{s}
		for _, f := range k.Fields { // each other choice, and each other count
			for _, c := range f.Choices {
				tries = append(tries, s.With(f, c))
			}
			if f.Kind == "count" && f.Most > 0 && f.Most <= 3 {
				tries = append(tries, s.With(f, f.Most))
			}
		}
		for _, s := range tries {
			t := knot.TermsOf(s)
			if t.Begins != knot.OnStrands || t.Bends || len(t.Cords) > 0 || !t.Takes.Has(len(strands)) {
				continue
			}
			tied, err := knot.Tie(knot.Work{Section: s, Strands: strands, LeftHanded: w.o.LeftHanded})
			if over := tied.StopsMM - hole; err == nil && over >= 0 && (best.Do == "" || over < spare) {
				best, spare = s, over
			}
		}
	}
	if best.Do == "" || w.into != nil {
		return nil
	}
	k, _ := knot.Get(best.Do)
	seq := slices.Clone(w.written)
	seq[i] = best
	return &Fix{Label: fmt.Sprintf("Tie a %s there", k.Name), Set: []Set{{Path: "sequence", Value: seq}}}
}
