package knot

import (
	"fmt"
	"math"
)

// Beads: strands are led through the hole of a bead together.
//
// Right: the bead sits against the knot above and looks the right way. Wrong:
// a bead that must be forced; the sheath frays in its hole.
func init() {
	add(Knot{
		ID: "bead", Name: "bead", Family: "beads",
		OtherNames: []string{"bead on strands"},
		For:        "a bead on any strands; the others pass it by",
		Fields: append([]Field{{Key: "strands", Short: "strands", Label: "strands", Kind: "places"}},
			beadFields("")...),
		fill: func(s *Section) { s.Bead = &Bead{HoleMM: 7, LengthMM: 10, WidthMM: 12} },
		tie:  tieBead,
	})
}

// beadFields are the fields of a bead; it need not be given where only one
// choice of the named field wants it.
func beadFields(of string) []Field {
	need := of == ""
	return []Field{
		{Key: "bead.hole_mm", Short: "hole", Label: "bead hole", Kind: "length", Needed: need, Most: 200},
		{Key: "bead.length_mm", Short: "long", Label: "bead length", Kind: "length", Needed: need, Most: 500},
		{Key: "bead.width_mm", Short: "wide", Label: "bead width", Kind: "length", Needed: need, Most: 300},
		{Key: "bead.colour", Short: "colour", Label: "bead colour", Kind: "colour"},
	}
}

// Refused is the error for a section that cannot be tied as it stands, with a
// value of one of its fields that can.
type Refused struct {
	Field string
	Why   string
	Set   any // nil where no value helps
	Label string
}

// CordThickness is a way out by another cord: which cord of the piece, and how
// thick it should be.
type CordThickness struct {
	Cord       int
	DiameterMM float64
}

// RingWidth is a way out by a wider ring: by how much, inside.
type RingWidth struct{ GrowMM float64 }

func (r *Refused) Error() string { return r.Why }

// CirclesInHole is the diameter of the hole that n equal circles of diameter
// one just pass together: the best known packings of circles in a circle.
func CirclesInHole(n int) float64 {
	known := []float64{0, 1, 2, 2.155, 2.414, 2.701, 3, 3, 3.304, 3.613}
	if n < len(known) {
		return known[max(0, n)]
	}
	return math.Sqrt(float64(n) / 0.8) // what a bundle comes to
}

// pass is the hole that strands need together, mm: that of as many of the mean
// thickness, and never less than the two thickest side by side. A sheath that
// gives may be squeezed by its give on the way through.
func pass(leads []Lead) float64 {
	sum, give := 0.0, 0.0
	first, second := 0.0, 0.0
	for _, l := range leads {
		sum += l.Diameter * l.Diameter
		give += l.Stuff.Give()
		if l.Diameter > first {
			first, second = l.Diameter, first
		} else {
			second = math.Max(second, l.Diameter)
		}
	}
	n := float64(len(leads))
	mean := math.Sqrt(sum / n)
	return math.Max(CirclesInHole(len(leads))*mean, first+second) * (1 - give/n)
}

// threads tells whether strands pass a bead together.
func threads(b *Bead, leads []Lead, who string) error {
	if b == nil || b.HoleMM == 0 {
		fit := Bead{LengthMM: 10}
		if b != nil { // what is said of it stays
			fit = *b
		}
		fit.HoleMM = math.Ceil(2*pass(leads)) / 2
		fit.WidthMM = math.Max(fit.WidthMM, math.Ceil(pass(leads))+5)
		return &Refused{Field: "bead", Why: "a bead is wanted, but none is given; say its hole, length and width", Set: &fit, Label: "Take a bead that they pass"}
	}
	if b.WidthMM <= b.HoleMM {
		return &Refused{Field: "bead.width_mm", Why: fmt.Sprintf("the bead is %.1f mm wide and its hole %.1f mm; a bead is wider than its hole", b.WidthMM, b.HoleMM),
			Set: math.Ceil(b.HoleMM) + 4}
	}
	if need := pass(leads); b.HoleMM < need {
		return &Refused{Field: "bead.hole_mm", Why: fmt.Sprintf("%s need a hole of %.1f mm to pass the bead together; its hole is %.1f mm", who, need, b.HoleMM),
			Set: math.Ceil(2*need) / 2}
	}
	return nil
}

// seats are where strands run in a bead's hole, about its middle.
func seats(leads []Lead) []Vec {
	radii, from := []float64{}, []Vec{}
	x := 0.0
	for _, l := range leads {
		x += l.Diameter
	}
	x = -x / 2
	for _, l := range leads {
		radii, from = append(radii, l.Diameter/2), append(from, Vec{X: x + l.Diameter/2})
		x += l.Diameter
	}
	ds, _ := bundles.Get(fmt.Sprintf("seats %.6f %.6f", radii, from), func() ([]disc, error) { return bundle(radii, from, len(radii)), nil })
	out := make([]Vec, len(ds))
	for i, q := range ds {
		out[i] = Vec{X: q.x, Z: q.z}
	}
	return out
}

func tieBead(w Work) (Tied, error) {
	if err := threads(w.Section.Bead, w.Leads, fmt.Sprintf("%d strand%s", len(w.Leads), plural(len(w.Leads)))); err != nil {
		return Tied{}, err
	}
	b := *w.Section.Bead
	t := Tied{Height: b.LengthMM, Repeats: 1, Gap: 1, Order: identity(len(w.Leads))}
	for _, at := range seats(w.Leads) {
		t.Paths = append(t.Paths, Path{Points: []Vec{at, {X: at.X, Y: b.LengthMM / 2, Z: at.Z}, {X: at.X, Y: b.LengthMM, Z: at.Z}}})
		t.Clear = math.Max(t.Clear, 0.05*w.Leads[0].Diameter)
	}
	t.Beads = []BeadAt{{At: Vec{Y: b.LengthMM / 2}, Bead: b}}
	t.Actions = []Action{{Moves: -1, Text: fmt.Sprintf("Put the bead on strand%s %s.", plural(len(w.Leads)), places(numbered(1, len(w.Leads)))),
		Detail: "Melt the ends together to a point, or tape them, to lead them through.", Gate: "The bead sits against the knot above and looks the right way."}}
	return t, nil
}
