package shape

import (
	"testing"
)

func TestPackRoundTrip(t *testing.T) {
	m := map[string]Shape{"a": {Pitch: 2, Twist: 0.5, Gap: 1, Strands: [][]Vec{{{X: 1.2344, Y: -3, Z: 0.001}, {X: 2}}}}}
	b, err := Pack(m)
	if err != nil {
		t.Fatal(err)
	}
	back, err := Unpack(b)
	if err != nil {
		t.Fatal(err)
	}
	if got := back["a"].Strands[0][0]; got != (Vec{X: 1.234, Y: -3, Z: 0.001}) || back["a"].Pitch != 2 {
		t.Errorf("came back as %+v", back["a"])
	}
	if _, err := Pack(map[string]Shape{"far": {Strands: [][]Vec{{{X: 40}}}}}); err == nil {
		t.Error("a node 40 diameters away fits no small integer, yet was packed")
	}
	if _, err := Unpack([]byte("not a shape")); err == nil {
		t.Error("rubbish was unpacked")
	}
}
