package knot

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
