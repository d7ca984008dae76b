package knot

import (
	"context"
	"errors"
	"math"
	"sync"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/tighten"
)

func leadsOf(mm ...float64) []Lead {
	var out []Lead
	for i, d := range mm {
		s := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: d, Colour: "#123456"}
		out = append(out, Lead{Cord: i, Stuff: s, Diameter: s.DrawnUp(), At: Vec{X: float64(i)}, Dir: Vec{Y: 1}})
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
	check := func(do string, leads []Lead) {
		tied++
		got, err := Tie(Work{Section: Section{Do: do, Count: 3}, Leads: leads})
		if err != nil {
			t.Errorf("%s on %v: %v", do, leads, err)
			return
		}
		if got.Rough != nil {
			t.Errorf("%s, %d strands, %.2f over %.2f: it is rough, %s", do, len(leads), leads[0].Diameter, leads[1].Diameter, got.Rough.Key)
		}
		if got.Gap < leastBetween {
			t.Errorf("%s, %d strands, %.2f over %.2f: gap %.2f", do, len(leads), leads[0].Diameter, leads[1].Diameter, got.Gap)
		}
	}
	for _, do := range []string{"square-knot", "half-knot"} {
		for _, d := range labels {
			for n := 1; n <= 8; n++ {
				check(do, leadsOf(equal(n, d, d)...))
			}
			for _, f := range labels {
				for n := 1; n <= 2; n++ {
					check(do, leadsOf(equal(n, d, f)...))
				}
				check(do, leadsOf(d, f, d, f)) // two cords side by side
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
			leads := leadsOf(mm...)
			_, err := Tie(Work{Section: Section{Do: do, Count: 2}, Leads: leads})
			var no *Refused
			if !errors.As(err, &no) {
				t.Errorf("%s on %v: %v", do, mm, err)
				continue
			}
			ways, ok := no.Set.([]CordThickness)
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
			if _, err := Tie(Work{Section: Section{Do: do, Count: 2}, Leads: leadsOf(mm...)}); err != nil {
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
	Shelf(func(key string) ([]byte, bool) {
		lock.Lock()
		defer lock.Unlock()
		b, ok := shelf[key]
		return b, ok
	}, func(key string, b []byte) {
		lock.Lock()
		defer lock.Unlock()
		shelf[key] = b
	})
	defer Shelf(nil, nil)
	leads := leadsOf(4, 4, 2.2, 3, 4)
	work := Work{Section: Section{Do: "half-knot", Count: 6}, Leads: leads}
	rough, err := Tie(work)
	if err != nil || rough.Rough == nil {
		t.Fatalf("rough %+v, %v", rough.Rough, err)
	}
	told := 0
	if err := DrawLive(t.Context(), []Rough{*rough.Rough}, func(s State) {
		if told++; s.Key != rough.Rough.Key || s.Most <= 0 || s.Step < 0 {
			t.Errorf("told %+v", s)
		}
	}); err != nil || told == 0 {
		t.Fatal(err, told)
	}
	own, err := Tie(work)
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
	// A restart: nothing is in memory, the shelf is.
	if len(shelf) != 1 {
		t.Fatalf("%d shapes are on the shelf", len(shelf))
	}
	live.done.Forget()
	tieds.Forget()
	rows.Forget()
	again, err := Tie(work)
	if err != nil || again.Rough != nil || math.Abs(again.Height-own.Height) > 0.01 {
		t.Errorf("after a restart %.3f mm high, it was %.3f; rough %+v, %v", again.Height, own.Height, again.Rough, err)
	}
	// What is spoilt on the shelf is drawn up again and not believed.
	for key := range shelf {
		shelf[key] = []byte("moth-eaten")
	}
	live.done.Forget()
	tieds.Forget()
	rows.Forget()
	if spoilt, err := Tie(work); err != nil || spoilt.Rough == nil {
		t.Errorf("a spoilt shape was taken: %+v, %v", spoilt.Rough, err)
	}
}

// A drawing up goes on while anybody wants it and ends with the last.
func TestADrawingUpEndsWithTheLastWhoWantsIt(t *testing.T) {
	_, p := spiralCell(1, []float64{3.1, 2.9, 3.3, 2.8, 3.2, 3})
	r := Rough{Key: "a long one", problem: p}
	first, leave1 := context.WithCancel(t.Context())
	second, leave2 := context.WithCancel(t.Context())
	begun := make(chan struct{}, 100)
	told := func(State) {
		select {
		case begun <- struct{}{}:
		default:
		}
	}
	var wg sync.WaitGroup
	ended := make([]error, 2)
	for i, ctx := range []context.Context{first, second} {
		wg.Go(func() { ended[i] = DrawLive(ctx, []Rough{r}, told) })
	}
	<-begun
	live.lock.Lock()
	j := live.jobs[r.Key]
	live.lock.Unlock()
	if j == nil {
		t.Fatal("nothing is being drawn up")
	}
	leave1()
	<-begun // the other still hears of it
	select {
	case <-j.ended:
		t.Fatal("it ended with the first who left")
	default:
	}
	leave2()
	wg.Wait()
	<-j.ended
	for i, err := range ended {
		if !errors.Is(err, context.Canceled) {
			t.Errorf("%d: %v", i, err)
		}
	}
	live.lock.Lock()
	defer live.lock.Unlock()
	if len(live.jobs) != 0 || live.failed[r.Key] != "" {
		t.Errorf("left behind: %d jobs, %q", len(live.jobs), live.failed[r.Key])
	}
}

// What does not come to rest says why, once, and is not tried again.
func TestWhatDoesNotComeToRestSaysWhy(t *testing.T) {
	tries := 0
	r := Rough{Key: "no knot", problem: func() tighten.Problem {
		tries++
		return tighten.Problem{Strands: []tighten.Strand{{Route: []Vec{{}, {Y: 1}}, Diameter: 1}}}
	}}
	for range 2 {
		var last State
		if err := DrawLive(t.Context(), []Rough{r}, func(s State) { last = s }); err != nil {
			t.Fatal(err)
		}
		if last.Error == "" || last.Done {
			t.Errorf("told %+v", last)
		}
	}
	if tries != 1 {
		t.Errorf("tried %d times", tries)
	}
	live.lock.Lock()
	delete(live.failed, r.Key)
	live.lock.Unlock()
}
