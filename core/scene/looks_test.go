package scene_test

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"

	"gonum.org/v1/gonum/spatial/r3"
)

// around plans a typed line of cords A, B and C of 4 mm, and gives its layout and the
// first section that goes round.
func around(t *testing.T, line string) (plan.Layout, int) {
	t.Helper()
	d, at := document(t, line)
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	return p.Look(), at
}

// document is a typed line of cords A, B and C of 4 mm, and its first section that goes round or
// is tied from the end.
func document(t *testing.T, line string) (piece.Document, int) {
	t.Helper()
	d := piece.Begin("round", "charm", piece.SplitRing(24, 2), 0)
	for _, id := range []string{"A", "B", "C"} {
		d.Cords = append(d.Cords, piece.Cord{ID: id, Stuff: piece.Kernmantle(4, piece.Lagoon)})
	}
	seq, err := notation.Parse(line)
	if err != nil {
		t.Fatal(err)
	}
	d.Sequence = seq
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range p.Sections {
		if s.Around || s.FromEnd {
			return d, s.Index
		}
	}
	t.Fatalf("nothing of %q goes round", line)
	return d, 0
}

// points are all points of a layout's strands by how deep they lie for the eye.
func points(l plan.Layout) []r3.Vec {
	var out []r3.Vec
	for _, s := range l.Near(math.Inf(-1), math.Inf(1)) {
		out = append(out, s.Points...)
	}
	return out
}

// Seen from the end nothing changes its distance from anything, and it is no mirror image:
// what runs round one way does so still.
func TestFromTheEndIsAMotion(t *testing.T) {
	for _, line := range []string{"mount A B, crown 3", "mount A B, gap 12mm, multi-strand-diamond", "mount A B, gap 9mm, turks-head C"} {
		l, at := around(t, line)
		seen := points(scene.FromEnd.Of(l, at))
		if len(seen) < 50 {
			t.Fatalf("%s: %d points are seen", line, len(seen))
		}
		// The same points as they stand, by depth and place.
		back := func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: v.Z, Z: -v.Y} }
		all := points(l)
		off, found := r3.Vec{}, false
		for _, v := range all {
			if d := r3.Sub(v, back(seen[0])); math.Abs(d.X) < 1e-9 && math.Abs(d.Y) < 1e-9 {
				off, found = d, true
				break
			}
		}
		if !found {
			t.Fatalf("%s: no point stands where %v is seen", line, seen[0])
		}
		for _, v := range seen {
			at := r3.Add(back(v), off)
			if !near(all, at) {
				t.Errorf("%s: what is seen at %v stands nowhere", line, v)
				break
			}
		}
	}
}

// Unrolled, heights stay, what lies outside stays nearer to the eye, and a turn round the
// axis becomes as long as it is at the cords' mean distance.
func TestUnrolledKeepsHeights(t *testing.T) {
	for _, line := range []string{"mount A B, gap 9mm, turks-head C leads=3 bights=5", "mount A B, gap 12mm, multi-strand-diamond"} {
		l, at := around(t, line)
		whole, flat := curve.Curve{}, curve.Curve{Points: points(scene.Unrolled.Of(l, at))}
		for _, s := range l.Near(math.Inf(-1), math.Inf(1)) {
			for i, v := range s.Points {
				if s.Section[i] == at {
					whole.Points = append(whole.Points, v)
				}
			}
		}
		if len(flat.Points) < 50 {
			t.Fatalf("%s: %d points are seen", line, len(flat.Points))
		}
		a, b := whole.Box(), flat.Box()
		if high := b.Max.Y - b.Min.Y; high > a.Max.Y-a.Min.Y+1e-9 || high < 2*l.Thick {
			t.Errorf("%s: unrolled it is %.2f high, standing %.2f", line, high, a.Max.Y-a.Min.Y)
		}
		inner, outer := math.Inf(1), 0.0
		for _, v := range flat.Points { // how far out it lies is how near to the eye
			inner, outer = math.Min(inner, v.Z), math.Max(outer, v.Z)
		}
		wide := b.Max.X - b.Min.X
		if turn := wide - 2*l.Thick; turn < 2*math.Pi*inner || turn > 2*math.Pi*outer {
			t.Errorf("%s: a turn comes out %.1f long; at %.1f to %.1f from the axis it is %.1f to %.1f", line, turn, inner, outer, 2*math.Pi*inner, 2*math.Pi*outer)
		}
	}
}

// Seen from the end the frame stays while a strand is led, the way that it still has to go is
// shown till it is led, and every end has its number.
func TestTheHandSeenFromTheEnd(t *testing.T) {
	for _, line := range []string{"mount A B, crown 3", "mount A B, round-braid 3", "mount A B, gap 12mm, multi-strand-diamond", "mount A, gap 14mm, two-strand-diamond"} {
		d, at := document(t, line)
		whole, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		before := 0
		for _, s := range whole.Steps {
			if s.Section == at {
				break
			}
			before += s.Repeats * len(s.Actions)
		}
		for move := 1; move <= 2; move++ {
			hand := func(along float64) plan.Layout {
				p, err := plan.Make(d, plan.Options{Until: before + move, Along: along})
				if err != nil {
					t.Fatal(err)
				}
				return p.Look()
			}
			led := hand(1)
			var first scene.Picture
			for i, along := range []float64{0.1, 0.25, 0.4} {
				pic := scene.RenderHand(hand(along), led, at, scene.View{PerMM: 6})
				if len(pic.Ways) != len(led.Moving) {
					t.Errorf("%s, move %d at %.2f: %d ways are shown, %d strands are led", line, move, along, len(pic.Ways), len(led.Moving))
				}
				if want := len(led.Places); len(pic.Discs) != want {
					t.Errorf("%s, move %d at %.2f: %d ends have numbers, %d hang", line, move, along, len(pic.Discs), want)
				}
				if i == 0 {
					first = pic
				}
				if off := max(math.Abs(float64(pic.Width-first.Width)), math.Abs(float64(pic.Height-first.Height))); off > 10*led.Thick {
					t.Errorf("%s, move %d at %.2f: the frame is %d by %d, at first %d by %d", line, move, along, pic.Width, pic.Height, first.Width, first.Height)
				}
			}
			if pic := scene.RenderHand(led, led, at, scene.View{PerMM: 6}); len(pic.Ways) > 0 {
				t.Errorf("%s, move %d: led, a way is shown", line, move)
			}
		}
		if got := scene.RenderHand(plan.Layout{}, plan.Layout{}, at, scene.View{PerMM: 6}); !got.Empty() {
			t.Errorf("%s: an empty layout is drawn", line)
		}
	}
}

// What has no such section gives a layout of nothing, which is drawn as nothing.
func TestALookAtNothing(t *testing.T) {
	l, _ := around(t, "mount A B, crown 3")
	for _, at := range []int{-1, 7} {
		seen := scene.FromEnd.Of(l, at)
		if len(seen.Strands) > 0 || !scene.Render(seen, scene.View{PerMM: 6}).Empty() {
			t.Errorf("section %d, which is not there, is seen", at)
		}
	}
}

func near(pts []r3.Vec, v r3.Vec) bool {
	for _, u := range pts {
		if r3.Norm(r3.Sub(u, v)) < 1e-6 {
			return true
		}
	}
	return false
}
