// Package memo remembers what was worked out, by name, for those whose results
// depend on nothing but what they are asked. It is bounded by bytes, not by
// count: a few large values cost as much as many small ones.
package memo

import (
	"math"
	"sync"

	"github.com/hashicorp/golang-lru/v2/simplelru"
	"golang.org/x/sync/singleflight"
)

// Cache keeps values of a kind by name, up to Most bytes; those asked for last
// stay. What many ask for at once is worked out once. The zero value is ready
// for use, by many goroutines at once.
//
// Invariant: the weights of what is held add up to held, and held is never
// above most(). A value that is larger than that by itself is given but
// not kept.
type Cache[T any] struct {
	Most int // bytes; DefaultMost where zero

	lock  sync.Mutex
	lru   *simplelru.LRU[string, item[T]]
	held  int
	going singleflight.Group
}

// DefaultMost is how much is kept where nothing else is said, bytes.
const DefaultMost = 8 << 20

type item[T any] struct {
	value T
	bytes int
}

func (c *Cache[T]) most() int {
	if c.Most > 0 {
		return c.Most
	}
	return DefaultMost
}

// Get gives what is kept under a name, working it out first where it must. What
// fails is not kept. Work that panics panics in everyone who waits for it.
func (c *Cache[T]) Get(name string, work func() (T, error)) (T, error) {
	return c.GetIf(name, func() (T, bool, error) {
		v, err := work()
		return v, err == nil, err
	})
}

// GetIf is Get for work that says itself whether what it gives may be kept.
func (c *Cache[T]) GetIf(name string, work func() (v T, keep bool, err error)) (T, error) {
	if v, ok := c.Has(name); ok {
		return v, nil
	}
	v, err, _ := c.going.Do(name, func() (any, error) {
		if v, ok := c.Has(name); ok { // it came while this one was on its way
			return v, nil
		}
		v, keep, err := work()
		if keep && err == nil {
			c.put(name, v)
		}
		return v, err
	})
	out, _ := v.(T)
	return out, err
}

// Has gives what is kept under a name, if it is.
func (c *Cache[T]) Has(name string) (T, bool) {
	c.lock.Lock()
	defer c.lock.Unlock()
	if c.lru == nil {
		var none T
		return none, false
	}
	it, ok := c.lru.Get(name)
	return it.value, ok
}

func (c *Cache[T]) put(name string, v T) {
	it := item[T]{v, Bytes(v) + len(name)}
	if it.bytes > c.most() {
		return
	}
	c.lock.Lock()
	defer c.lock.Unlock()
	if c.lru == nil {
		// The bound is on bytes; the list itself may hold as many as it likes.
		c.lru, _ = simplelru.NewLRU[string, item[T]](math.MaxInt, func(_ string, gone item[T]) { c.held -= gone.bytes })
	}
	c.lru.Remove(name)
	c.held += it.bytes
	c.lru.Add(name, it)
	for c.held > c.most() {
		c.lru.RemoveOldest()
	}
}

// Held is how much is kept now, bytes.
func (c *Cache[T]) Held() int {
	c.lock.Lock()
	defer c.lock.Unlock()
	return c.held
}

// Forget drops everything, to measure what working it out costs.
func (c *Cache[T]) Forget() {
	c.lock.Lock()
	defer c.lock.Unlock()
	if c.lru != nil {
		c.lru.Purge()
	}
}
