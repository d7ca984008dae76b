// Package kept remembers what was worked out, by name, for the packages of core
// whose results depend on nothing but what they are asked.
package kept

import "sync"

// By keeps values of a kind by name. It forgets everything when it holds too
// much, which costs working it out again and nothing else. The zero value is
// ready for use, by many goroutines at once.
type By[T any] struct {
	lock sync.Mutex
	m    map[string]T
}

const most = 2000

// Get gives what is kept under a name, working it out first where it must. What
// fails is not kept.
func (k *By[T]) Get(name string, work func() (T, error)) (T, error) {
	k.lock.Lock()
	v, ok := k.m[name]
	k.lock.Unlock()
	if ok {
		return v, nil
	}
	v, err := work()
	if err != nil {
		return v, err
	}
	k.lock.Lock()
	defer k.lock.Unlock()
	if k.m == nil || len(k.m) >= most {
		k.m = map[string]T{}
	}
	k.m[name] = v
	return v, nil
}
