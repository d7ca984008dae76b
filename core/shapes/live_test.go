package shapes

import (
	"context"
	"errors"
	"math"
	"sync"
	"testing"

	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// wide is a trefoil so wide that it takes a while to be drawn up.
func wide() tighten.Problem {
	s := tighten.Strand{Diameter: 1, Closed: true}
	for k := range 240 {
		t := 2 * math.Pi * float64(k) / 240
		r := 40 + 12*math.Cos(3*t)
		s.Route = append(s.Route, r3.Vec{X: r * math.Cos(2*t), Y: r * math.Sin(2*t), Z: 12 * math.Sin(3*t)})
	}
	return tighten.Problem{Strands: []tighten.Strand{s}}
}

// A drawing up goes on while anybody wants it and ends with the last.
func TestADrawingUpEndsWithTheLastWhoWantsIt(t *testing.T) {
	r := Rough{Key: "a long one", Problem: wide}
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
	r := Rough{Key: "no knot", Problem: func() tighten.Problem {
		tries++
		return tighten.Problem{Strands: []tighten.Strand{{Route: []r3.Vec{{}, {Y: 1}}, Diameter: 1}}}
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
