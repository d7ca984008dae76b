package shapes

import (
	"testing"

	"gonum.org/v1/gonum/spatial/r3"
)

func TestPackRoundTrip(t *testing.T) {
	m := map[string]Shape{"a": {Pitch: 2, Twist: 0.5, Gap: 1, Strands: [][]r3.Vec{{{X: 1.2344, Y: -3, Z: 0.001}, {X: 2}}}}}
	b, err := Pack(m)
	if err != nil {
		t.Fatal(err)
	}
	back, err := Unpack(b)
	if err != nil {
		t.Fatal(err)
	}
	if got := back["a"].Strands[0][0]; got != (r3.Vec{X: 1.234, Y: -3, Z: 0.001}) || back["a"].Pitch != 2 {
		t.Errorf("came back as %+v", back["a"])
	}
	if _, err := Pack(map[string]Shape{"far": {Strands: [][]r3.Vec{{{X: 40}}}}}); err == nil {
		t.Error("a node 40 diameters away fits no small integer, yet was packed")
	}
	if _, err := Unpack([]byte("not a shape")); err == nil {
		t.Error("rubbish was unpacked")
	}
}

// Bytes that were cut off or spoilt are refused; they are never read as another
// shape, nor do they bring the program down.
func TestSpoiltBytesAreRefused(t *testing.T) {
	m := map[string]Shape{}
	for _, name := range []string{"a", "b", "c"} {
		m[name] = Shape{Gap: 1, Strands: [][]r3.Vec{{{X: 1}, {Y: 2}, {Z: 3}}, {{X: -1}, {Y: -2}}}}
	}
	whole, err := Pack(m)
	if err != nil {
		t.Fatal(err)
	}
	for cut := 1; cut < len(whole); cut += 3 {
		if _, err := Unpack(whole[:cut]); err == nil {
			t.Errorf("the first %d of %d bytes were taken for whole", cut, len(whole))
		}
	}
	for at := 12; at < len(whole); at += 5 { // after the head, all is under a checksum
		spoilt := append([]byte{}, whole...)
		spoilt[at] ^= 0x10
		if _, err := Unpack(spoilt); err == nil {
			t.Errorf("a wrong byte at %d of %d went unseen", at, len(whole))
		}
	}
}

// The same shapes are the same bytes, in whatever order they were drawn.
func TestPackingIsTheSameEveryTime(t *testing.T) {
	build := func(names ...string) []byte {
		m := map[string]Shape{}
		for _, n := range names {
			m[n] = Shape{Pitch: float64(len(n)), Strands: [][]r3.Vec{{{X: float64(len(n))}, {X: 1}}}}
		}
		b, err := Pack(m)
		if err != nil {
			t.Fatal(err)
		}
		return b
	}
	if a, b := build("one", "three", "seventeen"), build("seventeen", "one", "three"); string(a) != string(b) {
		t.Error("the order of drawing shows in the bytes")
	}
}
