package knots_test

import (
	"math"
	"os"
	"slices"
	"testing"

	"nimblebight/core/knots/ball"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Every embedded shape is measured again: its strands touch and do not pass
// through one another.
func TestEmbeddedShapesTouch(t *testing.T) {
	n := 0
	for _, f := range shapes.Families() {
		for name, s := range f.Embedded() {
			n++
			if s.Gap < 0.99 || s.Gap > 1.01 {
				t.Errorf("%s of %s: least gap %.4f", name, f.Folder, s.Gap)
			}
			for _, pts := range s.Strands {
				for _, v := range pts {
					if math.IsNaN(v.X + v.Y + v.Z) {
						t.Fatalf("%s of %s is not a curve", name, f.Folder)
					}
				}
			}
		}
	}
	if n < 300 {
		t.Fatalf("only %d shapes are embedded", n)
	}
}

// What is embedded carries the fingerprint of the problem that its route gives
// now, of the solver and of the settings; nothing is missing, and nothing else is
// there. Where this fails, make shapes draws up what is stale.
func TestEmbeddedShapesAreOfTheirRoutes(t *testing.T) {
	for _, f := range shapes.Families() {
		wanted := f.Problems()
		for name := range f.Embedded() {
			if _, ok := wanted[name]; !ok {
				t.Errorf("%s of %s is embedded, but no route gives it", name, f.Folder)
			}
		}
		for name, p := range wanted {
			switch s, ok := f.Embedded()[name]; {
			case !ok:
				t.Errorf("%s of %s is not embedded", name, f.Folder)
			case s.Made != tighten.Fingerprint(p, f.Settings(name)):
				t.Errorf("%s of %s was drawn up from another route or by another solver", name, f.Folder)
			}
		}
		if f.Moving == nil {
			continue
		}
		for name, p := range f.Moving() {
			if s := f.EmbeddedFrames()[shapes.FrameKey(name, 0)]; s.Made != tighten.Fingerprint(p, shapes.FrameSettings) {
				t.Errorf("the key frames of %s of %s are of another route or another solver", name, f.Folder)
			}
		}
	}
}

// The stoppers of balls are knots of other folders, embedded with the balls.
func TestEmbeddedStoppersAreOfTheirRoutes(t *testing.T) {
	all := ball.Stoppers()
	if len(all) != 2 {
		t.Fatalf("%d stoppers", len(all))
	}
	for _, r := range all {
		if s := ball.Embedded()[ball.StopperKey(r.Name)]; s.Made != ball.StopperMade(r) || len(s.Strands) != 1 {
			t.Errorf("the stopper %s is not embedded, or was drawn up from another route or by another solver", r.Name)
		}
	}
}

// redrawn are those that are always drawn up again.
var redrawn = []string{"flat 1 1.00 over 1.00", "flat 1 1.55 over 1.00", "flat 1 2.15 over 1.00", "flat 1 1.00 over 0.56", "spiral 1 1.00 over 1.00",
	"hitch over 1.00", "larks-head on 0.60", "berry of 2 over 1.00", "overhand", "pretzel", "wall of 4, passes 1", "round braid"}

// The solver still gives what is embedded, node by node.
func TestTheSolverGivesWhatIsEmbedded(t *testing.T) {
	n := 0
	for _, f := range shapes.Families() {
		for name, p := range f.Problems() {
			// All of them take an hour of one core; short ones of every kind stand for the rest.
			if !slices.Contains(redrawn, name) && os.Getenv("BIGHT_ALL_SHAPES") == "" {
				continue
			}
			n++
			t.Run(f.Folder+" "+name, func(t *testing.T) {
				t.Parallel()
				now, err := shapes.DrawUp(t.Context(), p, f.Settings(name))
				if err != nil {
					t.Fatal(err)
				}
				was := f.Embedded()[name]
				if math.Abs(now.Pitch-was.Pitch) > 1e-9 || math.Abs(now.Twist-was.Twist) > 1e-9 || len(now.Strands) != len(was.Strands) {
					t.Fatalf("pitch %v, twist %v; embedded are %v, %v", now.Pitch, now.Twist, was.Pitch, was.Twist)
				}
				for i, pts := range now.Strands {
					for k, v := range pts {
						if d := r3.Norm(r3.Sub(v, was.Strands[i][k])); d > 2/shapes.Grain {
							t.Fatalf("strand %d is off by %.4f of a diameter at node %d", i, d, k)
						}
					}
				}
			})
		}
	}
	if n < len(redrawn) {
		t.Errorf("only %d shapes were drawn up again, there should be %d", n, len(redrawn))
	}
}
