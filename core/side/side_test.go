package side_test

import (
	"errors"
	"fmt"
	"strings"
	"sync/atomic"
	"testing"

	"nimblebight/core/side"
)

func TestEachDoesEverythingOnce(t *testing.T) {
	for _, n := range []int{0, 1, 2, 97} {
		done := make([]atomic.Int32, n)
		side.Each(n, func(i int) { done[i].Add(1) })
		for i := range done {
			if got := done[i].Load(); got != 1 {
				t.Errorf("of %d things number %d was done %d times", n, i, got)
			}
		}
	}
}

// A panic in a worker reaches the one who asked, with the worker's stack.
func TestAPanicComesToTheCaller(t *testing.T) {
	// So many that a worker is at them long after another one has panicked.
	const many = 100_000_000
	var begun atomic.Int32
	err := side.Guard(func() error {
		side.Each(many, func(i int) {
			begun.Add(1)
			if i == 3 {
				tangle(nil)
			}
		})
		return nil
	})
	var p *side.Panic
	if !errors.As(err, &p) {
		t.Fatalf("the caller got %v", err)
	}
	if !strings.Contains(string(p.Stack), "side_test.tangle") {
		t.Errorf("the stack does not name the place:\n%s", p.Stack)
	}
	if begun.Load() == many {
		t.Error("all the rest was done after the panic")
	}
}

func tangle(at []int) { at[1] = 0 }

func TestGuardLetsErrorsThrough(t *testing.T) {
	want := errors.New("snagged")
	if err := side.Guard(func() error { return want }); err != want {
		t.Errorf("the error became %v", err)
	}
	if err := side.Guard(func() error { return nil }); err != nil {
		t.Errorf("nothing became %v", err)
	}
}

func Example() {
	squares := make([]int, 4)
	side.Each(len(squares), func(i int) { squares[i] = i * i })
	fmt.Println(squares)
	// Output: [0 1 4 9]
}
