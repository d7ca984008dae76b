package plan

import (
	"fmt"
	"math"
	"strings"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
)

// leaves is what a section leaves open for a hand, a head or a handle.
type leaves struct {
	section int
	knot.Opening
}

// What goes through a loop wants a little more than it measures, and falls out of one that
// is much wider; what a knot sits on may differ by as much as its cord gives. Shares,
// judged at the table.
const (
	easy     = 1.02
	wellOver = 1.15
	loose    = 1.5
	snugly   = 0.04
)

// goesRound compares what the piece goes round with what its knots leave open.
func (w *walk) goesRound() {
	want := w.d.Purpose.AroundMM
	if want == 0 || w.stop {
		return
	}
	kind, _ := piece.KindOf(w.d.Purpose.Kind)
	ask, asked := kind.Ask(piece.AroundKey)
	if !asked {
		return
	}
	what := strings.TrimSuffix(ask.What, ", thumb laid in,")
	if len(w.openings) == 0 {
		w.say("goes-round-nothing", -1, nil, "Nothing in the piece goes round %s yet: no section leaves an opening that is measured.", what)
		return
	}
	o := w.openings[0]
	field, _ := knotField(w.d.Sequence[o.section], o.Field)
	fix := func(round float64) *Fix {
		to := math.Ceil(round * o.PerMM)
		if o.Snug {
			to = math.Round(round*o.PerMM*10) / 10
		}
		return &Fix{Label: fmt.Sprintf("Make the %s %g mm", field, to), Set: []Set{{Path: fmt.Sprintf("sequence[%d].%s", o.section, o.Field), Value: to}}}
	}
	switch {
	case o.Snug && math.Abs(o.RoundMM-want) > snugly*want:
		more := "narrow"
		if o.RoundMM > want {
			more = "wide"
		}
		w.say("sits-badly", o.section, fix(want), "It is {%.0fmm} round inside, {%.0fmm} too %s for %s of {%.0fmm}.", o.RoundMM, math.Abs(o.RoundMM-want), more, what, want)
	case !o.Snug && o.RoundMM < easy*want:
		w.say("does-not-go-over", o.section, fix(easy*want), "It opens to {%.0fmm} round inside: {%.0fmm} too little to go over %s of {%.0fmm}.", o.RoundMM, easy*want-o.RoundMM, what, want)
	case !o.Snug && !o.Closes && o.RoundMM > loose*want:
		w.say("slips-off", o.section, fix(wellOver*want), "It is {%.0fmm} round inside, so wide for %s of {%.0fmm} that it slips off.", o.RoundMM, what, want)
	}
}

// knotField is what a field of a section is called.
func knotField(s knot.Section, key string) (string, bool) {
	k, _ := knot.Get(s.Do)
	f, ok := k.Field(key)
	return f.Label, ok
}
