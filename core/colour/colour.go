// Package colour tells colours of cord apart: as they are seen, and as they are seen by
// eyes that lack a kind of cone.
package colour

import (
	"fmt"
	"math"
	"slices"

	"github.com/lucasb-eyer/go-colorful"

	"nimblebight/core/cord"
)

// Eye is a way of seeing colours.
type Eye string

// The eyes: the usual ones, and those that lack the cones for long (protan), middle
// (deutan) or short waves (tritan).
const (
	Usual  Eye = "usual"
	Protan Eye = "protan"
	Deutan Eye = "deutan"
	Tritan Eye = "tritan"
)

// Eyes lists them, the usual ones first.
func Eyes() []Eye { return []Eye{Usual, Protan, Deutan, Tritan} }

// matrices turn linear red, green and blue into what an eye without a kind of cone makes of
// them, as published by Machado, Oliveira and Fernandes (2009) for full severity.
var matrices = map[Eye][3][3]float64{
	Protan: {{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}},
	Deutan: {{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}},
	Tritan: {{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}},
}

// parse reads a colour written as #rrggbb.
func parse(hex string) (colorful.Color, error) {
	c, err := colorful.Hex(hex)
	if err != nil || !cord.IsColour(hex) {
		return c, fmt.Errorf("is %.20q, which is no colour; write it as #rrggbb", hex)
	}
	return c, nil
}

// Check says what is wrong with a colour that cannot be read.
func Check(hex string) error {
	_, err := parse(hex)
	return err
}

// As is a colour as an eye sees it. What cannot be read stays as it is.
//
// Laws: the usual eye sees every colour as it is; every eye sees grey as grey.
func As(hex string, eye Eye) string {
	m, other := matrices[eye]
	c, err := parse(hex)
	if !other || err != nil {
		return hex
	}
	r, g, b := c.LinearRgb()
	row := func(k int) float64 { return m[k][0]*r + m[k][1]*g + m[k][2]*b }
	return colorful.LinearRgb(row(0), row(1), row(2)).Clamped().Hex()
}

// Difference is CIEDE2000 between two colours, in its usual units: about 1 is the least that
// an eye sees beside each other. What cannot be read differs from all.
func Difference(a, b string) float64 {
	x, err := parse(a)
	y, err2 := parse(b)
	if err != nil || err2 != nil {
		return math.Inf(1)
	}
	return 100 * x.DistanceCIEDE2000(y)
}

// Enough is the difference from which two cords are told apart at the table, at lamp light
// and from an arm's length; judged there.
const Enough = 12

// Seen is how far two colours are apart to the eye that tells them apart least.
func Seen(a, b string) (difference float64, eye Eye) {
	difference = math.Inf(1)
	for _, e := range Eyes() {
		if d := Difference(As(a, e), As(b, e)); d < difference {
			difference, eye = d, e
		}
	}
	return difference, eye
}

// Instead is, of some colours, the one that is nearest to a colour and that every eye tells
// apart from all others it lies beside; "" where none is.
func Instead(hex string, beside, from []string) string {
	all := slices.Clone(from)
	slices.SortStableFunc(all, func(a, b string) int {
		return int(math.Copysign(1, Difference(hex, a)-Difference(hex, b)))
	})
	for _, c := range all {
		if c == hex || slices.ContainsFunc(beside, func(o string) bool { d, _ := Seen(c, o); return d < Enough }) {
			continue
		}
		return c
	}
	return ""
}
