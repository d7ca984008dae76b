package plan

import (
	"nimblebight/core/cord"
	"nimblebight/core/gauge"
	"nimblebight/core/piece"
)

// hold is the millimetres of an end that a tool needs to tie the last knot with it: of
// a strand that works, and of one that is tied over.
type hold struct{ works, filler float64 }

// holds are those of the tools. They are makers' figures for fingers; a needle takes up
// its thread's length of cord, a haemostat what its jaws grip.
var holds = map[piece.Tool]hold{
	piece.Fingers:   {60, 15},
	piece.Needle:    {20, 10},
	piece.Haemostat: {30, 10},
}

// held notes what must hang beyond a knot that strands were just tied in.
func (l *leg) held(h hold, works bool) {
	mm := h.filler
	if works {
		mm = h.works
	}
	l.hold = max(l.hold, mm)
}

// Of are the options with what a document says of its cutting and of the weights of its
// cords, and nothing left open.
func (o Options) Of(d piece.Document) Options {
	if c := d.Cutting; c != nil {
		if c.OneIn != 0 {
			o.OneIn = c.OneIn
		}
		if c.Hold != "" {
			o.Hold = c.Hold
		}
		if c.Geometry {
			o.Gauge = nil
		}
	}
	if !o.OneIn.Valid() {
		o.OneIn = gauge.DefaultRisk
	}
	if _, ok := holds[o.Hold]; !ok {
		o.Hold = piece.Fingers
	}
	var stuffs []cord.Stuff
	for _, c := range d.Cords {
		stuffs = append(stuffs, c.Stuff)
	}
	o.Gauge = o.Gauge.Knowing(stuffs...)
	return o
}
