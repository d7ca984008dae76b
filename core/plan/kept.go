package plan

import "sync"

// kept remembers what was worked out, by name; it forgets everything when it
// holds too much.
type kept[T any] struct {
	lock sync.Mutex
	m    map[string]T
}

const mostKept = 1000

func (k *kept[T]) get(name string, work func() (T, error)) (T, error) {
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
	if k.m == nil || len(k.m) >= mostKept {
		k.m = map[string]T{}
	}
	k.m[name] = v
	return v, nil
}
