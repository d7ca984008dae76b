package knot

import (
	"math"
	"os"
	"strings"
	"testing"
)

// Every embedded shape is measured again: its strands touch and do not pass
// through one another.
func TestEmbeddedShapesTouch(t *testing.T) {
	if n := len(embedded()); n < 20 {
		t.Fatalf("only %d shapes are embedded", n)
	}
	for key, s := range embedded() {
		if s.Gap < 0.99 || s.Gap > 1.01 {
			t.Errorf("%s: least gap %.4f", key, s.Gap)
		}
		for _, pts := range s.Strands {
			for _, v := range pts {
				if math.IsNaN(v.X + v.Y + v.Z) {
					t.Fatalf("%s is not a curve", key)
				}
			}
		}
	}
}

// The generator still gives what is embedded, and nothing else is.
func TestGeneratorGivesTheEmbeddedShapes(t *testing.T) {
	want := Generated()
	for key := range embedded() {
		if _, ok := want[key]; !ok {
			t.Errorf("%s is embedded, but no route gives it", key)
		}
	}
	for key, p := range want {
		old, ok := embedded()[key]
		if !ok {
			t.Errorf("%s is not embedded: run go generate ./core/knot", key)
			continue
		}
		// All of them take half a minute; the short ones stand for the rest.
		few := strings.HasSuffix(key, "over 1.00") || key == "flat 1 1.00 over 0.56" || key == "larks-head on 0.60"
		if !few && os.Getenv("BIGHT_ALL_SHAPES") == "" {
			continue
		}
		now, err := DrawUp(p)
		if err != nil {
			t.Errorf("%s: %v", key, err)
			continue
		}
		if math.Abs(now.Pitch-old.Pitch) > 1e-9 || math.Abs(now.Twist-old.Twist) > 1e-9 || len(now.Strands) != len(old.Strands) {
			t.Errorf("%s: pitch %v, twist %v; embedded are %v, %v", key, now.Pitch, now.Twist, old.Pitch, old.Twist)
		}
		for i, pts := range now.Strands {
			for k, v := range pts {
				if o := old.Strands[i][k]; math.Abs(v.X-o.X)+math.Abs(v.Y-o.Y)+math.Abs(v.Z-o.Z) > 3/grain {
					t.Fatalf("%s: strand %d differs at node %d", key, i, k)
				}
			}
		}
	}
}

func TestPackRoundTrip(t *testing.T) {
	m := map[string]Shape{"a": {Pitch: 2, Twist: 0.5, Gap: 1, Strands: [][]Vec{{{X: 1.2344, Y: -3, Z: 0.001}, {X: 2}}}}}
	b, err := Pack(m)
	if err != nil {
		t.Fatal(err)
	}
	back, err := unpack(b)
	if err != nil {
		t.Fatal(err)
	}
	if got := back["a"].Strands[0][0]; got != (Vec{X: 1.234, Y: -3, Z: 0.001}) || back["a"].Pitch != 2 {
		t.Errorf("came back as %+v", back["a"])
	}
	if _, err := Pack(map[string]Shape{"far": {Strands: [][]Vec{{{X: 40}}}}}); err == nil {
		t.Error("a node 40 diameters away fits no small integer, yet was packed")
	}
	if _, err := unpack([]byte("not a shape")); err == nil {
		t.Error("rubbish was unpacked")
	}
}
