package row

import (
	"errors"
	"math"
	"sync"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/shapes"

	"gonum.org/v1/gonum/spatial/r3"
)

func strandsOf(mm ...float64) []knot.Strand {
	var out []knot.Strand
	for i, d := range mm {
		s := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: d, Colour: "#123456"}
		out = append(out, knot.Strand{Cord: i, Stuff: s, Figures: s.Figures(), Diameter: s.DrawnUp(), At: r3.Vec{X: float64(i)}, Dir: r3.Vec{Y: 1}})
	}
	return out
}

func equal(n int, worker, filler float64) []float64 {
	out := []float64{worker}
	for range n {
		out = append(out, filler)
	}
	return append(out, worker)
}

// What makers tie is drawn up at build time: one to eight fillers of the
// workers' own cord, and pairs of cords from 0.75 to 6 mm, in every row and
// spiral. None of it is rough, and no strand passes through another.
func TestWhatMakersTieIsEmbedded(t *testing.T) {
	labels := []float64{0.75, 1.2, 2.2, 3, 4, 6}
	tied := 0
	check := func(do string, strands []knot.Strand) {
		tied++
		got, err := knot.Tie(knot.Work{Section: knot.Section{Do: do, Count: 3}, Strands: strands})
		if err != nil {
			t.Errorf("%s on %v: %v", do, strands, err)
			return
		}
		if got.Rough != nil {
			t.Errorf("%s, %d strands, %.2f over %.2f: it is rough, %s", do, len(strands), strands[0].Diameter, strands[1].Diameter, got.Rough.Key)
		}
		if got.Gap < shapes.Floor {
			t.Errorf("%s, %d strands, %.2f over %.2f: gap %.2f", do, len(strands), strands[0].Diameter, strands[1].Diameter, got.Gap)
		}
	}
	for _, do := range []string{"square-knot", "half-knot"} {
		for _, d := range labels {
			for n := 1; n <= 8; n++ {
				check(do, strandsOf(equal(n, d, d)...))
			}
			for _, f := range labels {
				for n := 1; n <= 2; n++ {
					check(do, strandsOf(equal(n, d, f)...))
				}
				check(do, strandsOf(d, f, d, f)) // two cords side by side
			}
		}
	}
	if tied < 300 {
		t.Errorf("only %d were tied", tied)
	}
}

// Beyond a ratio that no hand ties it is refused, with the nearest that works.
func TestTooUnlikeCordsAreRefused(t *testing.T) {
	for _, do := range []string{"square-knot", "half-knot"} {
		for _, mm := range [][]float64{{0.75, 20, 0.75}, {20, 0.75, 20}, {0.75, 4, 20}} {
			strands := strandsOf(mm...)
			_, err := knot.Tie(knot.Work{Section: knot.Section{Do: do, Count: 2}, Strands: strands})
			var no *knot.Refused
			if !errors.As(err, &no) {
				t.Errorf("%s on %v: %v", do, mm, err)
				continue
			}
			ways, ok := no.Set.([]knot.CordThickness)
			if !ok || len(ways) == 0 {
				t.Errorf("%s on %v: the way out is %+v", do, mm, no.Set)
				continue
			}
			for _, way := range ways {
				if mm[way.Cord] != 20 {
					t.Errorf("%s on %v: the way out changes cord %d", do, mm, way.Cord)
				}
				mm[way.Cord] = way.DiameterMM
			}
			if _, err := knot.Tie(knot.Work{Section: knot.Section{Do: do, Count: 2}, Strands: strandsOf(mm...)}); err != nil {
				t.Errorf("%s on %v, the way out: %v", do, mm, err)
			}
		}
	}
}

// A spiral over mixed fillers is answered at once by a near one that takes no
// less cord, and no more than it says. Then it is drawn up behind, kept on the
// shelf, and found there after a restart.
func TestARoughSpiralIsDrawnUpBehind(t *testing.T) {
	lock, shelf := sync.Mutex{}, map[string][]byte{}
	restart := func() { // nothing is in memory, the shelf is
		shapes.Shelf(func(key string) ([]byte, bool) {
			lock.Lock()
			defer lock.Unlock()
			b, ok := shelf[key]
			return b, ok
		}, func(key string, b []byte) {
			lock.Lock()
			defer lock.Unlock()
			shelf[key] = b
		})
		knot.Forget()
		rows.Forget()
	}
	restart()
	defer shapes.Shelf(nil, nil)
	strands := strandsOf(4, 4, 2.2, 3, 4)
	work := knot.Work{Section: knot.Section{Do: "half-knot", Count: 6}, Strands: strands}
	rough, err := knot.Tie(work)
	if err != nil || rough.Rough == nil {
		t.Fatalf("rough %+v, %v", rough.Rough, err)
	}
	told := 0
	if err := shapes.DrawLive(t.Context(), []shapes.Rough{*rough.Rough}, func(s shapes.State) {
		if told++; s.Key != rough.Rough.Key || s.Most <= 0 || s.Step < 0 {
			t.Errorf("told %+v", s)
		}
	}); err != nil || told == 0 {
		t.Fatal(err, told)
	}
	own, err := knot.Tie(work)
	if err != nil || own.Rough != nil {
		t.Fatalf("its own shape is there and it is still rough: %+v, %v", own.Rough, err)
	}
	for _, i := range []int{0, 4} {
		most := rough.Paths[i].Length()
		least := most * (1 - rough.Rough.Share)
		if got := own.Paths[i].Length(); got > most*1.005 || got < least*0.995 {
			t.Errorf("strand %d takes %.1f mm; said were %.1f to %.1f", i+1, got, least, most)
		}
	}
	if len(shelf) != 1 {
		t.Fatalf("%d shapes are on the shelf", len(shelf))
	}
	restart()
	again, err := knot.Tie(work)
	if err != nil || again.Rough != nil || math.Abs(again.Height-own.Height) > 0.01 {
		t.Errorf("after a restart %.3f mm high, it was %.3f; rough %+v, %v", again.Height, own.Height, again.Rough, err)
	}
	// What is spoilt on the shelf is drawn up again and not believed.
	for key := range shelf {
		shelf[key] = []byte("moth-eaten")
	}
	restart()
	if spoilt, err := knot.Tie(work); err != nil || spoilt.Rough == nil {
		t.Errorf("a spoilt shape was taken: %+v, %v", spoilt.Rough, err)
	}
}
