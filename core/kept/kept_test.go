package kept_test

import (
	"errors"
	"fmt"
	"sync"
	"testing"

	"nimblebight/core/kept"
)

func TestWhatIsKeptIsWorkedOutOnce(t *testing.T) {
	var k kept.By[int]
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
	var k kept.By[string]
	broken := errors.New("the cord broke")
	if _, err := k.Get("a", func() (string, error) { return "", broken }); !errors.Is(err, broken) {
		t.Errorf("said %v", err)
	}
	if v, err := k.Get("a", func() (string, error) { return "tied", nil }); v != "tied" || err != nil {
		t.Errorf("tried again: %q, %v", v, err)
	}
}

// It never grows without bound, and many may ask at once.
func TestManyNamesByMany(t *testing.T) {
	var k kept.By[int]
	var wg sync.WaitGroup
	for g := range 8 {
		wg.Add(1)
		go func() {
			defer wg.Done()
			for i := range 3000 {
				v, err := k.Get(fmt.Sprint(i), func() (int, error) { return i, nil })
				if v != i || err != nil {
					t.Errorf("%d of %d: %d, %v", g, i, v, err)
					return
				}
			}
		}()
	}
	wg.Wait()
}
