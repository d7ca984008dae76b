package knot

import (
	"math"
	"os"
	"strings"
	"testing"

	"nimblebight/core/shape"
	"nimblebight/core/tighten"
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
		now, err := DrawUp(t.Context(), p, tighten.Settings{})
		if err != nil {
			t.Errorf("%s: %v", key, err)
			continue
		}
		if math.Abs(now.Pitch-old.Pitch) > 1e-9 || math.Abs(now.Twist-old.Twist) > 1e-9 || len(now.Strands) != len(old.Strands) {
			t.Errorf("%s: pitch %v, twist %v; embedded are %v, %v", key, now.Pitch, now.Twist, old.Pitch, old.Twist)
		}
		for i, pts := range now.Strands {
			for k, v := range pts {
				if o := old.Strands[i][k]; math.Abs(v.X-o.X)+math.Abs(v.Y-o.Y)+math.Abs(v.Z-o.Z) > 3/shape.Grain {
					t.Fatalf("%s: strand %d differs at node %d", key, i, k)
				}
			}
		}
	}
}
