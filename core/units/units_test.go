package units_test

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"testing"

	"nimblebight/core/units"
)

// What is said of a length in inches is within half the finest part of it, and a fold
// is never said shorter than it is.
func TestInchesAreNear(t *testing.T) {
	for mm := 0.0; mm < 900; mm += 0.37 {
		half := units.InchMM / units.LengthParts / 2
		if got := read(t, units.Length(mm, true)); math.Abs(got-mm) > half+1e-9 {
			t.Fatalf("%.2f mm is said as %s", mm, units.Length(mm, true))
		}
		if got := read(t, units.FoldAt(mm, true)); got < mm-1e-4 || got > mm+2*half+1e-9 {
			t.Fatalf("a fold at %.2f mm is said as %s", mm, units.FoldAt(mm, true))
		}
	}
}

// read reads inches with a fraction, mm.
func read(t *testing.T, said string) float64 {
	t.Helper()
	sum := 0.0
	for _, w := range strings.Fields(strings.TrimSuffix(said, " in")) {
		top, bottom, _ := strings.Cut(w+"/1", "/")
		bottom, _, _ = strings.Cut(bottom, "/")
		a, err := strconv.ParseFloat(top, 64)
		b, err2 := strconv.ParseFloat(bottom, 64)
		if err != nil || err2 != nil {
			t.Fatalf("%q is no length", said)
		}
		sum += a / b
	}
	return sum * units.InchMM
}

func ExampleSaid() {
	fmt.Println(units.Said("The filler legs run out {40.0mm} before the last knot.", false))
	fmt.Println(units.Said("The filler legs run out {40.0mm} before the last knot.", true))
	// Output:
	// The filler legs run out 40 mm before the last knot.
	// The filler legs run out 1 9/16 in before the last knot.
}
