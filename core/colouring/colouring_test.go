package colouring_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/colour"
	"nimblebight/core/colouring"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

const lagoon, sand, rust, chalk = piece.Lagoon, piece.Sand, piece.Rust, piece.Chalk

func fob(line string, colours ...string) piece.Document {
	var cords []piece.Cord
	for i, c := range colours {
		cords = append(cords, piece.Cord{ID: string(rune('A' + i)), Stuff: piece.Kernmantle(4, c)})
	}
	return notation.With(piece.Begin("coloured", "key-fob", piece.SplitRing(40, 2), 0), line, cords...)
}

// drawer holds cords of the usual make and, in a colour that stands out, one of another.
func drawer() []colouring.Have {
	out := []colouring.Have{{Name: "white cotton", Stuff: piece.Cotton(4, "#ffffff")}}
	for name, c := range map[string]string{"lagoon": lagoon, "sand": sand, "rust": rust, "chalk": chalk, "night": "#22313f"} {
		out = append(out, colouring.Have{Name: name, Stuff: piece.Kernmantle(4, c)})
	}
	return out
}

func pick(colours ...string) []colouring.Chosen {
	var out []colouring.Chosen
	for _, c := range colours {
		out = append(out, colouring.Chosen{Colour: c})
	}
	return out
}

func of(t *testing.T, d piece.Document, chosen ...string) colouring.Answer {
	t.Helper()
	a, err := colouring.Of(d, plan.Options{}, pick(chosen...), colouring.ByContrast, drawer())
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// Shares add up to all of each side; turning a piece over swaps its sides; two cords that
// change places change their shares.
func TestLawsOfShares(t *testing.T) {
	laid := 0
	for n, pat := range patterns.All() {
		if n%2 == 1 {
			continue // every other one: some take seconds
		}
		a, err := colouring.Of(pat.Document, plan.Options{}, nil, colouring.ByContrast, nil)
		if err != nil {
			if !strings.Contains(err.Error(), "up to 6 are laid out") {
				t.Errorf("%s: %v", pat.ID, err)
			}
			continue
		}
		laid++
		for _, w := range a.Ways {
			face, back := 0.0, 0.0
			for _, s := range w.Shares {
				face, back = face+s.Face, back+s.Back
			}
			if math.Abs(face-1) > 1e-9 || math.Abs(back-1) > 1e-9 || w.Says == "" || len(w.Colours) != len(pat.Document.Cords) {
				t.Errorf("%s, %s: shares %.3f and %.3f", pat.ID, w.Says, face, back)
			}
			if _, err := plan.Make(w.Document, plan.Options{}); err != nil {
				t.Errorf("%s, %s: %v", pat.ID, w.Says, err)
			}
		}
		if i := slices.IndexFunc(a.Ways, func(w colouring.Way) bool { return w.Is }); i < 0 {
			t.Errorf("%s: the way in which it is now is not among %d", pat.ID, len(a.Ways))
		}
	}
	if laid < 12 {
		t.Errorf("%d patterns are laid out", laid)
	}
	d := fob("mount A B, square-knot 8, finish singe-and-press", lagoon, sand)
	a := of(t, d)
	swapped := fob("mount A B, square-knot 8, finish singe-and-press", sand, lagoon)
	b := of(t, swapped)
	share := func(a colouring.Answer, colour string) colouring.Share {
		for _, w := range a.Ways {
			if w.Is {
				for _, s := range w.Shares {
					if s.Colour == colour {
						return s
					}
				}
			}
		}
		return colouring.Share{}
	}
	if x, y := share(a, lagoon), share(b, sand); math.Abs(x.Face-y.Face) > 0.01 || math.Abs(x.Back-y.Back) > 0.01 {
		t.Errorf("lagoon shows %+v, sand in its place %+v", x, y)
	}
	if says := a.Ways[0].Says; !strings.Contains(says, "makes the bars on the face") || !strings.Contains(says, "lagoon") || !strings.Contains(says, "sand") {
		t.Errorf("it is said: %s", says)
	}
	// The worker of the bars shows on the face what the other one shows on the back.
	if x, y := share(a, lagoon), share(a, sand); math.Abs(x.Face-y.Back) > 0.05 {
		t.Errorf("lagoon shows %+v, sand %+v", x, y)
	}
}

// A flat row of two cords falls in one way: its colours change places when it is turned
// over. So says Burnside's lemma too: the ways that stay, summed over leaving it, mirroring
// it, turning it over and both, by four.
func TestTheNumberOfWaysIsThatOfBurnside(t *testing.T) {
	for line, colours := range map[string][]string{
		"mount A B, square-knot 8, finish singe-and-press":                 {lagoon, sand},
		"mount A B C, square-knot 4 strands=1-4, finish singe-and-press":   {lagoon, sand, rust},
		"mount A B, crown 6, finish singe-and-press":                       {lagoon, sand},
		"mount A B C, gap 10mm, square-knot 4 strands=2-5, finish dome":    {lagoon, sand, rust},
		"mount A B, 2x(square-knot 2, gap 10mm), half-knot 6, finish dome": {lagoon, sand},
	} {
		d := fob(line, colours...)
		a := of(t, d)
		if len(a.Ways) < 1 || len(a.Ways) > a.All {
			t.Fatalf("%s: %d ways of %d", line, len(a.Ways), a.All)
		}
		// Brute force: no two that are given look alike, and every one of all looks like one
		// that is given; that is what a count of orbits means.
		for i := range a.Ways {
			for j := range i {
				if colouring.Alike(a.Ways[i], a.Ways[j]) {
					t.Errorf("%s: ways %d and %d look alike", line, i, j)
				}
			}
		}
		if got := colouring.Burnside(d, plan.Options{}); got != len(a.Ways) {
			t.Errorf("%s: %d ways, by Burnside's lemma %d", line, len(a.Ways), got)
		}
	}
	if a := of(t, fob("mount A B, square-knot 8, finish singe-and-press", lagoon, sand)); len(a.Ways) != 3 || a.All != 8 {
		t.Errorf("a flat row of two colours falls in %d ways of %d", len(a.Ways), a.All)
	}
}

// Chosen colours all fall somewhere, and what cannot be is refused with a sentence.
func TestChosenColours(t *testing.T) {
	d := fob("mount A B C, square-knot 4 strands=2-5, finish dome", lagoon, sand, rust)
	a := of(t, d, chalk, rust)
	if a.All != 36 { // 2 to the 3, less the two of one colour, begun on either side, put on in three ways
		t.Errorf("two colours fall on three cords in %d ways", a.All)
	}
	for _, w := range a.Ways {
		if !slices.Contains(w.Colours, chalk) || !slices.Contains(w.Colours, rust) {
			t.Errorf("%v lacks a colour", w.Colours)
		}
	}
	for bad, says := range map[string]string{"#zzzzzz": "no colour", lagoon + " " + lagoon: "twice", rust: "one colour falls in one way", strings.Join([]string{lagoon, sand, rust, chalk}, " "): "for 3 cords"} {
		_, err := colouring.Of(d, plan.Options{}, pick(strings.Fields(bad)...), colouring.ByContrast, nil)
		if err == nil || !strings.Contains(fmt.Sprint(err), says) {
			t.Errorf("%s: %v, want %q", bad, err, says)
		}
	}
}

// Sorted by what is asked for, the first is the best.
func TestWaysAreSorted(t *testing.T) {
	d := fob("mount A B C, square-knot 6 strands=2-5, finish dome", lagoon, sand, rust)
	worth := map[colouring.Sort]func(w colouring.Way) float64{
		colouring.ByContrast: func(w colouring.Way) float64 { return w.Contrast },
		colouring.ByAlike:    func(w colouring.Way) float64 { return w.Alike },
		colouring.ByMost: func(w colouring.Way) float64 {
			return w.Shares[slices.IndexFunc(w.Shares, func(s colouring.Share) bool { return s.Colour == chalk })].Face +
				w.Shares[slices.IndexFunc(w.Shares, func(s colouring.Share) bool { return s.Colour == chalk })].Back
		},
	}
	for by, of := range worth {
		a, err := colouring.Of(d, plan.Options{}, pick(chalk, rust, lagoon), by, nil)
		if err != nil || len(a.Ways) < 3 {
			t.Fatalf("%s: %d ways, %v", by, len(a.Ways), err)
		}
		for i := 1; i < len(a.Ways); i++ {
			if of(a.Ways[i]) > of(a.Ways[i-1])+1e-6 {
				t.Errorf("%s: way %d is worth %.3f after %.3f", by, i, of(a.Ways[i]), of(a.Ways[i-1]))
			}
		}
	}
}

// Cords that meet and that some eye hardly tells apart are told, with one of the drawer
// that is.
func TestCordsThatCannotBeToldApart(t *testing.T) {
	red, green := "#a8552f", "#6f7f34"
	d := fob("mount A B, square-knot 6, finish dome", red, green)
	a := of(t, d)
	if len(a.Close) != 1 || a.Close[0].Usual < colour.Enough || a.Close[0].Difference >= colour.Enough || a.Close[0].Instead == "" || a.Close[0].Instead == "#ffffff" {
		t.Errorf("%+v", a.Close)
	}
	if b := of(t, fob("mount A B, square-knot 6, finish dome", lagoon, chalk)); len(b.Close) != 0 {
		t.Errorf("%+v", b.Close)
	}
}

// The same of a ball of two cords, with nothing remembered but its shape.
func BenchmarkOfABallAtFirst(b *testing.B) {
	d := fob("mount A B hitch=from-knot, monkeys-fist 4 mode=doubled, crown 6", lagoon, sand)
	for b.Loop() {
		scene.Forget()
		if _, err := colouring.Of(d, plan.Options{}, pick(lagoon, sand), colouring.ByContrast, nil); err != nil {
			b.Fatal(err)
		}
	}
}

// The benchmark lays out thirty-six ways of a fob.
func BenchmarkOf(b *testing.B) {
	d := fob("mount A B C, square-knot 8 strands=2-5, finish singe-and-press", lagoon, sand, rust)
	for b.Loop() {
		if _, err := colouring.Of(d, plan.Options{}, pick(lagoon, sand, rust), colouring.ByContrast, nil); err != nil {
			b.Fatal(err)
		}
	}
}

// The same with nothing remembered: what a maker waits for at first.
func BenchmarkOfAtFirst(b *testing.B) {
	d := fob("mount A B C, square-knot 8 strands=2-5, finish singe-and-press", lagoon, sand, rust)
	for b.Loop() {
		scene.Forget()
		if _, err := colouring.Of(d, plan.Options{}, pick(lagoon, sand, rust), colouring.ByContrast, nil); err != nil {
			b.Fatal(err)
		}
	}
}
