// Package kept remembers what was worked out, by name, for those whose results
// depend on nothing but what they are asked. It keeps so many bytes and not so
// many things: a few large ones cost as much as many small ones.
package kept

import (
	"math"
	"sync"

	"github.com/hashicorp/golang-lru/v2/simplelru"
	"golang.org/x/sync/singleflight"
)

// By keeps values of a kind by name, up to Most bytes; those asked for last
// stay. What many ask for at once is worked out once. The zero value is ready
// for use, by many goroutines at once.
//
// Invariant: the weights of what is held add up to held, and held is never
// above most(). A value that is larger than that by itself is given and not
// kept.
type By[T any] struct {
	Most int // bytes; UsualMost where zero

	lock  sync.Mutex
	lru   *simplelru.LRU[string, item[T]]
	held  int
	going singleflight.Group
}

// UsualMost is how much is kept where nothing else is said, bytes.
const UsualMost = 8 << 20

type item[T any] struct {
	value T
	bytes int
}

func (k *By[T]) most() int {
	if k.Most > 0 {
		return k.Most
	}
	return UsualMost
}

// Get gives what is kept under a name, working it out first where it must. What
// fails is not kept. Work that panics panics in everyone who waits for it.
func (k *By[T]) Get(name string, work func() (T, error)) (T, error) {
	return k.GetIf(name, func() (T, bool, error) {
		v, err := work()
		return v, err == nil, err
	})
}

// GetIf is Get for work that says itself whether what it gives may be kept.
func (k *By[T]) GetIf(name string, work func() (v T, keep bool, err error)) (T, error) {
	if v, ok := k.Has(name); ok {
		return v, nil
	}
	v, err, _ := k.going.Do(name, func() (any, error) {
		if v, ok := k.Has(name); ok { // it came while this one was on its way
			return v, nil
		}
		v, keep, err := work()
		if keep && err == nil {
			k.put(name, v)
		}
		return v, err
	})
	out, _ := v.(T)
	return out, err
}

// Has gives what is kept under a name, if it is.
func (k *By[T]) Has(name string) (T, bool) {
	k.lock.Lock()
	defer k.lock.Unlock()
	if k.lru == nil {
		var none T
		return none, false
	}
	it, ok := k.lru.Get(name)
	return it.value, ok
}

func (k *By[T]) put(name string, v T) {
	it := item[T]{v, Bytes(v) + len(name)}
	if it.bytes > k.most() {
		return
	}
	k.lock.Lock()
	defer k.lock.Unlock()
	if k.lru == nil {
		// The bound is on bytes; the list itself may hold as many as it likes.
		k.lru, _ = simplelru.NewLRU[string, item[T]](math.MaxInt, func(_ string, gone item[T]) { k.held -= gone.bytes })
	}
	k.lru.Remove(name)
	k.held += it.bytes
	k.lru.Add(name, it)
	for k.held > k.most() {
		k.lru.RemoveOldest()
	}
}

// Held is how much is kept now, bytes.
func (k *By[T]) Held() int {
	k.lock.Lock()
	defer k.lock.Unlock()
	return k.held
}

// Forget drops everything, to measure what working it out costs.
func (k *By[T]) Forget() {
	k.lock.Lock()
	defer k.lock.Unlock()
	if k.lru != nil {
		k.lru.Purge()
	}
}
