package ball

import "nimblebight/core/cord"

// Cord is a cord as a ball takes it.
type Cord struct {
	// DiameterMM is that of the cord drawn up hard, CoverMM how wide a turn of
	// it covers what is under it: as wide as its label, since a rigid core keeps
	// it from being packed. CoverMM is never less than DiameterMM.
	DiameterMM, CoverMM float64
	// Give is the share of its diameter by which it flattens where it is pressed.
	Give          float64
	GramsPerMetre float64
	Leather       bool
}

// Of is the cord of a stuff with the figures that count of it.
func Of(s cord.Stuff, f cord.Figures) Cord {
	return Cord{DiameterMM: f.DrawnUpMM, CoverMM: max(f.DrawnUpMM, f.LabelMM), Give: f.Give, GramsPerMetre: f.Weight, Leather: s.Make.Lace()}
}

// LeatherGive is all that leather flattens.
const LeatherGive = 0.05

// Hard is the diameter of the hard rope that takes as much cord: what is pressed
// to g of its diameter comes out (1 + 2g)/3 as large (measured against soft
// solves within 3 %).
func (c Cord) Hard() float64 { return c.DiameterMM * (1 - 2*c.Give/3) }

// SpareMM is the cord beside a ball where nothing else is said: tails and what
// fingers hold.
const SpareMM = 150.0
