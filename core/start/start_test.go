package start_test

import (
	"math"
	"reflect"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/cord"
	_ "nimblebight/core/knots"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/start"
)

func all(t *testing.T, a start.Ask) []start.Offer {
	t.Helper()
	if ps := a.Check(); len(ps) > 0 {
		t.Fatal(ps)
	}
	var out []start.Offer
	for _, make := range start.Offers(a, plan.Options{}) {
		out = append(out, make())
	}
	return out
}

// Where nothing is known every pattern is offered as it is, after a plain piece.
func TestWithoutCordsAnOfferIsItsPattern(t *testing.T) {
	offers := all(t, start.Ask{})
	own := patterns.All()
	if len(offers) != len(own)+1 || offers[0].Pattern != "" {
		t.Fatalf("%d offers for %d patterns, the first is %q", len(offers), len(own), offers[0].Pattern)
	}
	for i, o := range offers[1:] {
		if o.Why != "" || !reflect.DeepEqual(o.Document, own[i].Document) {
			t.Errorf("%s is not its pattern: %s", own[i].ID, o.Why)
		}
	}
}

// In the maker's cords every offer is of these and no others, and is planned, or says why it
// cannot be tied of them.
func TestOffersAreOfTheCordsThatThereAre(t *testing.T) {
	have := []cord.Stuff{piece.Kernmantle(5, piece.Moss), piece.Cotton(3, piece.Rust)}
	planned := 0
	for _, o := range all(t, start.Ask{Cords: have}) {
		if (o.Why == "") != (o.Plan.Actions > 0) {
			t.Errorf("%s has %d moves, and says %q", o.Name, o.Plan.Actions, o.Why)
		}
		if o.Why == "" {
			planned++
		}
		for _, c := range o.Document.Cords {
			if !reflect.DeepEqual(c.Stuff, have[0]) && !reflect.DeepEqual(c.Stuff, have[1]) {
				t.Errorf("%s: cord %s is %+v, which is not there", o.Name, c.ID, c.Stuff)
			}
		}
		if o.Pattern == "thin-over-thick" && (o.Document.Cords[0].Stuff.DiameterMM != 5 || o.Document.Cords[1].Stuff.DiameterMM != 3) {
			t.Errorf("over the thick cord of %v mm the thin one is %v mm", o.Document.Cords[0].Stuff.DiameterMM, o.Document.Cords[1].Stuff.DiameterMM)
		}
	}
	if planned < 20 {
		t.Errorf("%d offers can be tied", planned)
	}
}

// A piece that grows comes as near to the wanted length as whole knots allow: one more or one
// fewer is no nearer. Only pieces of the wanted kind are offered.
func TestOffersAreAsLongAsIsWanted(t *testing.T) {
	for _, want := range []float64{97} {
		for _, o := range all(t, start.Ask{Kind: "key-fob", LengthMM: want}) {
			if o.Why != "" || o.Document.Purpose.Kind != "key-fob" {
				t.Errorf("%s, a %s: %s", o.Name, o.Document.Purpose.Kind, o.Why)
				continue
			}
			if o.Document.Purpose.LengthMM != want {
				t.Errorf("%s wants %v mm", o.Name, o.Document.Purpose.LengthMM)
			}
			off := math.Abs(o.Plan.LengthMM - want)
			i, ok := grown(o)
			for _, by := range []int{-1, 1} {
				d := o.Document
				d.Sequence = slices.Clone(d.Sequence)
				if !ok || d.Sequence[i].Count+by < 1 {
					continue
				}
				d.Sequence[i].Count += by
				p, err := plan.Make(d, plan.Options{})
				if err == nil && math.Abs(p.LengthMM-want) < off {
					t.Errorf("%s comes to %.1f mm for %.0f; with %d in section %d to %.1f", o.Name, o.Plan.LengthMM, want, d.Sequence[i].Count, i+1, p.LengthMM)
				}
			}
		}
	}
}

// grown is the section whose count is not the pattern's.
func grown(o start.Offer) (section int, ok bool) {
	for _, p := range patterns.All() {
		for i, s := range p.Document.Sequence {
			if p.ID == o.Pattern && o.Document.Sequence[i].Count != s.Count {
				return i, true
			}
		}
	}
	return 0, false
}

func TestWhatCannotBeAsked(t *testing.T) {
	for want, a := range map[string]start.Ask{
		"kind":                 {Kind: "ladder"},
		"length_mm":            {LengthMM: -3},
		"cords":                {Cords: make([]cord.Stuff, start.MostCords+1)},
		"cords[0].diameter_mm": {Cords: []cord.Stuff{piece.Kernmantle(0, piece.Sand)}},
	} {
		ps := a.Check()
		if len(ps) == 0 || ps[0].Path != want || strings.TrimSpace(ps[0].Message) == "" {
			t.Errorf("%s: %+v", want, ps)
		}
	}
	if ps := (start.Ask{LengthMM: math.NaN()}).Check(); len(ps) != 1 {
		t.Errorf("no number is a length: %+v", ps)
	}
}

func BenchmarkOffers(b *testing.B) {
	for b.Loop() {
		for _, make := range start.Offers(start.Ask{LengthMM: 120, Cords: []cord.Stuff{piece.Kernmantle(4, piece.Lagoon)}}, plan.Options{}) {
			make()
		}
	}
}
