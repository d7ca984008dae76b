// Command gen grows the films that package loose embeds. Run it with make shapes.
//
// It grows what is not embedded yet and what its knot or the loosening no longer gives. A
// film that would not be read is left out, and it says why; it is not tried again till its knot
// or the loosening changes.
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"runtime"
	"sync"

	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
	"nimblebight/core/knots/loose"
	"nimblebight/core/loosen"
	"nimblebight/core/shapes"
)

func main() {
	folder := flag.String("folder", ".", "the folder of package loose")
	all := flag.Bool("all", false, "grow everything again")
	only := flag.String("knot", "", "grow the films of this knot again, and no others")
	film := flag.String("film", "", "grow this film again, and no others")
	flag.Parse()
	if err := run(*folder, *all, *only, *film); err != nil {
		fmt.Fprintln(os.Stderr, "gen:", err)
		os.Exit(1)
	}
}

type job struct {
	name, made string
	p          loosen.Problem
}

func run(folder string, all bool, only, film string) error {
	file := filepath.Join(folder, "films.bin")
	b, err := os.ReadFile(file)
	if err != nil && !errors.Is(err, os.ErrNotExist) {
		return fmt.Errorf("reading the films: %w", err)
	}
	have, err := shapes.Unpack(b)
	if err != nil {
		return fmt.Errorf("reading the films: %w", err)
	}
	kept := map[string]shapes.Shape{}
	// What is laid in the way of another knot needs that one's film.
	for _, bands := range []bool{false, true} {
		growAll(jobs(have, kept, all, only, film, bands), kept)
		if b, err = shapes.Pack(kept); err != nil {
			return err
		}
		if kept, err = shapes.Unpack(b); err != nil { // as they are when they are read
			return err
		}
	}
	if err := os.WriteFile(file, b, 0o644); err != nil {
		return fmt.Errorf("writing the films: %w", err)
	}
	return nil
}

// jobs are the films to grow, those in bands or all others; what need not be grown goes from have
// to kept.
func jobs(have, kept map[string]shapes.Shape, all bool, only, film string, bands bool) []job {
	var todo []job
	for _, k := range knot.All() {
		for _, n := range loose.Strands {
			for _, of := range loose.Problems(k, n, func(id string) []knot.Film { return loose.FilmsIn(kept, id) }) {
				if (of.Problem.Bands != nil) != bands {
					continue
				}
				j := job{of.Name, loose.Fingerprint(of.Problem), of.Problem}
				out := have[loose.LeftOut(j.name)]
				again := have[shapes.FrameKey(j.name, 0)].Made != j.made && out.Made != j.made || all
				if only != "" || film != "" {
					again = k.ID == only || j.name == film
				}
				if again {
					todo = append(todo, j)
					continue
				}
				if out.Made == j.made {
					kept[loose.LeftOut(j.name)] = out
				}
				for i := 0; ; i++ {
					s, ok := have[shapes.FrameKey(j.name, i)]
					if !ok {
						break
					}
					kept[shapes.FrameKey(j.name, i)] = s
				}
			}
		}
	}
	return todo
}

// growAll grows films, as many at once as there are processors, into kept.
func growAll(todo []job, kept map[string]shapes.Shape) {
	var lock sync.Mutex
	var group sync.WaitGroup
	next := make(chan job)
	for range runtime.NumCPU() {
		group.Go(func() {
			for j := range next {
				made, err := grow(j)
				lock.Lock()
				if err != nil {
					fmt.Printf("%s: left out: %v\n", j.name, err)
					kept[loose.LeftOut(j.name)] = shapes.Shape{Made: j.made}
				} else {
					fmt.Printf("%s: %d frames\n", j.name, len(made))
					maps.Copy(kept, made)
				}
				lock.Unlock()
			}
		})
	}
	for _, j := range todo {
		next <- j
	}
	close(next)
	group.Wait()
}

// growths are how far a knot is loosened, in turn, till its film can be read; routed and banded, how
// loose one is at most that is drawn up from what hands lay, or laid in bands.
var growths, routed, banded = []float64{loosen.UsualGrowth, 1.6, 1.35}, []float64{3.2, 2.4}, []float64{3.2}

// spread is how far out hands hold strands that would hide one another, diameters.
const spread = 1.25

// grow grows the frames of a film: from what hands lay where that is told, or from the knot.
func grow(j job) (map[string]shapes.Shape, error) {
	var tries []loosen.Problem
	try := func(p loosen.Problem, growths []float64) {
		for _, g := range growths {
			p.Growth = g
			tries = append(tries, p)
		}
	}
	if j.p.Bands != nil {
		try(j.p, banded)
	} else {
		if j.p.Route != nil {
			try(j.p, routed)
		}
		tight := j.p
		tight.Route = nil
		try(tight, growths)
		if tight.Across {
			tight.Spread = spread
			try(tight, growths)
		}
	}
	var f loosen.Film
	var err error
	for _, p := range tries {
		if f, err = loosen.Grow(context.Background(), p); err != nil {
			continue
		}
		if err = f.Readable(); err == nil {
			break
		}
	}
	if err != nil {
		return nil, err
	}
	out := map[string]shapes.Shape{}
	for k, frame := range f.Frames {
		out[shapes.FrameKey(j.name, k)] = shapes.Shape{Strands: frame, Made: j.made}
	}
	return out, nil
}
