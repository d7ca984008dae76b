package shapes

import (
	"context"
	"fmt"
	"math"
	"sync"
	"sync/atomic"
	"time"

	"nimblebight/core/curve"
	"nimblebight/core/memo"
	"nimblebight/core/side"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// What makers seldom tie is not drawn up at build time. It is given at once by
// the nearest that is, marked as rough, and drawn up behind for those who wait
// for it: one at a time, each for as long as anybody wants it.

// Rough says of a section that its curves are those of a near shape.
type Rough struct {
	// Key names the shape of its own that is to be drawn up.
	Key string
	// Share is by what part of it the length may be too long; it is never too
	// short.
	Share float64

	Problem func() tighten.Problem
}

// And gives the rougher of two.
func (r *Rough) And(o *Rough) *Rough {
	if r == nil || (o != nil && o.Share > r.Share) {
		return o
	}
	return r
}

// live are the shapes that were drawn up since the program started, and those
// that are being drawn up.
var live = &drawing{jobs: map[string]*job{}, failed: map[string]string{}, turn: make(chan struct{}, 1)}

type drawing struct {
	done memo.Cache[Shape]
	turn chan struct{} // one at a time

	lock   sync.Mutex
	jobs   map[string]*job
	failed map[string]string // why some did not come to rest
	load   func(key string) ([]byte, bool)
	keep   func(key string, content []byte)
}

// job is one drawing up. It ends when it is done or nobody wants it.
type job struct {
	wanted int
	stop   context.CancelFunc
	step   atomic.Int64
	ended  chan struct{}
	err    error
}

// Shelf tells where shapes that are drawn up live are kept over restarts. What
// load gives is measured again before it is used.
func Shelf(load func(key string) ([]byte, bool), keep func(key string, content []byte)) {
	live.lock.Lock()
	defer live.lock.Unlock()
	live.load, live.keep = load, keep
	live.failed = map[string]string{}
	live.done.Forget()
}

// failure is how a shelf remembers that a problem does not come to rest.
const failure = "does not come to rest: "

// DrawnLive gives a shape that was drawn up since the program started, or before
// that and kept, if it was.
func DrawnLive(key string, problem func() tighten.Problem) (Shape, bool) {
	return live.have(key, problem)
}

func (d *drawing) have(key string, problem func() tighten.Problem) (Shape, bool) {
	if s, ok := d.done.Has(key); ok {
		return s, true
	}
	d.lock.Lock()
	load, why := d.load, d.failed[key]
	d.lock.Unlock()
	if load == nil || why != "" {
		return Shape{}, false
	}
	b, ok := load(shelfKey(key, problem(), tighten.Settings{}))
	if !ok {
		return Shape{}, false
	}
	if len(b) > len(failure) && string(b[:len(failure)]) == failure {
		d.lock.Lock()
		d.failed[key] = string(b[len(failure):])
		d.lock.Unlock()
		return Shape{}, false
	}
	s, ok := unpacked(key, b)
	if !ok { // spoilt: it is drawn up again
		return Shape{}, false
	}
	s, _ = d.done.Get(key, func() (Shape, error) { return s, nil })
	return s, true
}

// unpacked is the shape of a name in what a shelf gave, where it could be one.
func unpacked(key string, b []byte) (Shape, bool) {
	m, err := Unpack(b)
	s, ok := m[key]
	return s, err == nil && ok && sound(s)
}

// sound tells whether a shape could be what it says.
func sound(s Shape) bool {
	if len(s.Strands) == 0 || !(s.Gap > 0.9) || !(s.Pitch >= 0) {
		return false
	}
	for _, pts := range s.Strands {
		if len(pts) < 3 {
			return false
		}
		for _, v := range pts {
			if math.IsNaN(v.X+v.Y+v.Z) || math.IsInf(v.X+v.Y+v.Z, 0) {
				return false
			}
		}
	}
	return true
}

func shelfKey(key string, p tighten.Problem, set tighten.Settings) string {
	return fmt.Sprintf("%s %s", key, tighten.Fingerprint(p, set))
}

// State is how far a drawing up has come.
type State struct {
	Key   string `json:"key"`
	Step  int    `json:"step"`            // of its steps
	Most  int    `json:"most"`            // that it takes at most
	Done  bool   `json:"done"`            // it can be had
	Error string `json:"error,omitempty"` // why it cannot
}

// mostSteps are the steps of both stages of a drawing up.
const mostSteps = 2 * tighten.UsualSteps

// DrawLive draws up the shapes that rough sections want, one after the other,
// and comes back when all are done, one cannot be, or ctx ends. What others wait
// for too goes on for them. told is called, never at the same time, with how far
// the one in hand has come.
func DrawLive(ctx context.Context, wanted []Rough, told func(State)) error {
	for _, r := range wanted {
		if r.Problem == nil {
			continue
		}
		if err := live.draw(ctx, r, told); err != nil {
			return err
		}
	}
	return ctx.Err()
}

func (d *drawing) draw(ctx context.Context, r Rough, told func(State)) error {
	if _, ok := d.have(r.Key, r.Problem); ok {
		told(State{Key: r.Key, Step: mostSteps, Most: mostSteps, Done: true})
		return nil
	}
	d.lock.Lock()
	if why := d.failed[r.Key]; why != "" {
		d.lock.Unlock()
		told(State{Key: r.Key, Most: mostSteps, Error: why})
		return nil
	}
	j := d.jobs[r.Key]
	if j == nil {
		own, stop := context.WithCancel(context.Background())
		j = &job{stop: stop, ended: make(chan struct{})}
		d.jobs[r.Key] = j
		go d.work(own, r, j)
	}
	j.wanted++
	d.lock.Unlock()
	defer func() {
		d.lock.Lock()
		defer d.lock.Unlock()
		if j.wanted--; j.wanted == 0 {
			j.stop() // the last one who wanted it is gone
			if d.jobs[r.Key] == j {
				delete(d.jobs, r.Key)
			}
		}
	}()
	tick := time.NewTicker(250 * time.Millisecond)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-tick.C:
			told(State{Key: r.Key, Step: int(j.step.Load()), Most: mostSteps})
		case <-j.ended:
			s := State{Key: r.Key, Step: int(j.step.Load()), Most: mostSteps, Done: j.err == nil}
			if j.err != nil {
				s.Error = j.err.Error()
			}
			told(s)
			return nil
		}
	}
}

// work draws one shape up when its turn comes.
func (d *drawing) work(ctx context.Context, r Rough, j *job) {
	defer close(j.ended)
	select {
	case d.turn <- struct{}{}:
		defer func() { <-d.turn }()
	case <-ctx.Done():
		j.err = ctx.Err()
		return
	}
	p := r.Problem()
	var s Shape
	err := side.Guard(func() error {
		var err error
		s, err = DrawUp(ctx, p, tighten.Settings{Progress: func(stage, step int, _, _ float64) {
			j.step.Store(int64(stage*tighten.UsualSteps + step))
		}})
		return err
	})
	j.err = err
	if ctx.Err() != nil { // given up, which says nothing of the knot
		return
	}
	d.lock.Lock()
	keep := d.keep
	if err != nil {
		d.failed[r.Key] = err.Error()
	}
	d.lock.Unlock()
	var b []byte
	if err != nil {
		b = []byte(failure + err.Error())
	} else {
		_, _ = d.done.Get(r.Key, func() (Shape, error) { return s, nil })
		if b, err = Pack(map[string]Shape{r.Key: s}); err != nil {
			return // it reaches too far to be packed; it is there till the program ends
		}
	}
	if keep != nil {
		keep(shelfKey(r.Key, p, tighten.Settings{}), b)
	}
}

// Now gives a shape that is drawn up while the caller waits, or kept since it was.
func Now(key string, p tighten.Problem, set tighten.Settings) (Shape, error) {
	return live.now(key, p, set)
}

func (d *drawing) now(key string, p tighten.Problem, set tighten.Settings) (Shape, error) {
	return d.done.Get(key, func() (Shape, error) {
		d.lock.Lock()
		load, keep := d.load, d.keep
		d.lock.Unlock()
		shelf := shelfKey(key, p, set)
		if load != nil {
			if b, ok := load(shelf); ok {
				if s, ok := unpacked(key, b); ok {
					return s, nil
				}
			}
		}
		s, err := DrawUp(context.Background(), p, set)
		if err != nil {
			return s, err
		}
		if keep != nil {
			if b, err := Pack(map[string]Shape{key: s}); err == nil { // else it is there till the program ends
				keep(shelf, b)
			}
		}
		return s, nil
	})
}

// Enlarge is a shape r times as large.
func Enlarge(s Shape, r float64) Shape {
	out := Shape{Pitch: r * s.Pitch, Twist: s.Twist, Gap: s.Gap}
	for _, pts := range s.Strands {
		out.Strands = append(out.Strands, curve.Curve{Points: pts}.Map(func(v r3.Vec) r3.Vec { return r3.Scale(r, v) }).Points)
	}
	return out
}
