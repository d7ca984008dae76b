package memo_test

import (
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"testing"

	"nimblebight/core/memo"
)

func TestWhatIsKeptIsWorkedOutOnce(t *testing.T) {
	var k memo.Cache[int]
	times := 0
	for range 3 {
		v, err := k.Get("a", func() (int, error) { times++; return 7, nil })
		if v != 7 || err != nil {
			t.Fatal(v, err)
		}
	}
	if times != 1 {
		t.Errorf("worked out %d times", times)
	}
	if v, _ := k.Get("b", func() (int, error) { return 8, nil }); v != 8 {
		t.Errorf("another name gives %d", v)
	}
}

func TestWhatFailsIsTriedAgain(t *testing.T) {
	var k memo.Cache[string]
	broken := errors.New("the cord broke")
	if _, err := k.Get("a", func() (string, error) { return "", broken }); !errors.Is(err, broken) {
		t.Errorf("said %v", err)
	}
	if v, err := k.Get("a", func() (string, error) { return "tied", nil }); v != "tied" || err != nil {
		t.Errorf("tried again: %q, %v", v, err)
	}
}

// It never holds more than it may, many may ask at once, and what was asked for
// last is still there.
func TestManyNamesByMany(t *testing.T) {
	k := memo.Cache[[]byte]{Most: 64 << 10}
	var wg sync.WaitGroup
	for range 8 {
		wg.Go(func() {
			for i := range 1000 {
				v, err := k.Get(fmt.Sprint(i), func() ([]byte, error) { return make([]byte, i), nil })
				if len(v) != i || err != nil {
					t.Errorf("%d bytes for %d, %v", len(v), i, err)
					return
				}
				if held := k.Held(); held > 64<<10 {
					t.Errorf("%d bytes are held", held)
					return
				}
			}
		})
	}
	wg.Wait()
	if _, ok := k.Has("999"); !ok {
		t.Error("the last one was dropped")
	}
	if _, ok := k.Has("1"); ok {
		t.Error("the first one was kept over all the others")
	}
	if k.Forget(); k.Held() != 0 {
		t.Errorf("after forgetting %d bytes are held", k.Held())
	}
}

func TestWhatIsTooLargeIsGivenAndNotKept(t *testing.T) {
	k := memo.Cache[[]byte]{Most: 100}
	for range 2 {
		if v, err := k.Get("big", func() ([]byte, error) { return make([]byte, 500), nil }); len(v) != 500 || err != nil {
			t.Fatal(len(v), err)
		}
	}
	if k.Held() != 0 {
		t.Errorf("%d bytes are held of a hundred", k.Held())
	}
}

// Of many who ask for one thing at once, one works it out.
func TestOneWorksForAll(t *testing.T) {
	var k memo.Cache[int]
	var times atomic.Int32
	go_, wg := make(chan struct{}), sync.WaitGroup{}
	for range 8 {
		wg.Go(func() {
			v, err := k.Get("a", func() (int, error) { <-go_; times.Add(1); return 5, nil })
			if v != 5 || err != nil {
				t.Error(v, err)
			}
		})
	}
	close(go_)
	wg.Wait()
	if times.Load() != 1 {
		t.Errorf("worked out %d times", times.Load())
	}
}

func TestBytes(t *testing.T) {
	type vec struct{ X, Y, Z float64 }
	type knot struct {
		Name  string
		Ways  [][]vec
		Next  *knot
		Other map[string]int
	}
	if got := memo.Bytes(make([]vec, 1000)); got < 24_000 || got > 24_100 {
		t.Errorf("a thousand points are %d bytes", got)
	}
	small := knot{Name: "fob", Ways: [][]vec{make([]vec, 10)}}
	big := knot{Name: "fob", Ways: [][]vec{make([]vec, 10), make([]vec, 1000)}, Next: &small, Other: map[string]int{"a": 1}}
	if a, b := memo.Bytes(small), memo.Bytes(big); b < a+24_000+a {
		t.Errorf("%d bytes, and with a thousand points and the first in it %d", a, b)
	}
	if memo.Bytes(nil) != 0 {
		t.Error("nothing weighs something")
	}
}
