// Package side does work side by side, on as many processors as there are.
package side

import (
	"fmt"
	"runtime"
	"runtime/debug"
	"sync"
	"sync/atomic"
)

// Panic is what [Each] panics with where one of its workers did: the worker's
// own value and stack, which would otherwise be lost with its goroutine and end
// the program.
type Panic struct {
	Value any
	Stack []byte
}

func (p *Panic) Error() string { return fmt.Sprintf("%v", p.Value) }

// Each does n things, numbered from 0, as many at a time as there are
// processors, and comes back when all are done. If one of them panics the
// others are let finish what they are at, no new one is begun, and Each panics
// with a [*Panic].
func Each(n int, do func(i int)) {
	var wg sync.WaitGroup
	var next atomic.Int64
	var first atomic.Pointer[Panic]
	var over atomic.Bool // set before the stack is taken, which takes its time
	for range min(n, runtime.GOMAXPROCS(0)) {
		wg.Go(func() {
			defer func() {
				if v := recover(); v != nil {
					over.Store(true)
					first.CompareAndSwap(nil, &Panic{v, debug.Stack()})
				}
			}()
			for i := int(next.Add(1)) - 1; i < n && !over.Load(); i = int(next.Add(1)) - 1 {
				do(i)
			}
		})
	}
	wg.Wait()
	if p := first.Load(); p != nil {
		panic(p)
	}
}

// Guard does work and turns a panic of it into a [*Panic] error.
func Guard(work func() error) (err error) {
	defer func() {
		switch v := recover().(type) {
		case nil:
		case *Panic:
			err = v
		default:
			err = &Panic{v, debug.Stack()}
		}
	}()
	return work()
}
