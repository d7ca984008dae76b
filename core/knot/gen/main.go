// Command gen draws up the shapes and ways that package knot embeds and writes
// them to drawn.bin and ways.bin. Run it with go generate ./core/knot after
// changing a route; shapes whose route is as it was are drawn again all the
// same, so that what is embedded is always what the engine gives now. With
// -new only those are drawn that are not embedded yet or whose names begin with
// one of the arguments.
package main

import (
	"context"
	"flag"
	"fmt"
	"maps"
	"os"
	"runtime"
	"strings"
	"sync"

	"nimblebight/core/knot"
	"nimblebight/core/shape"
	"nimblebight/core/tighten"
)

func main() {
	onlyNew := flag.Bool("new", false, "draw only what is not embedded yet")
	flag.Parse()
	if *onlyNew {
		old, oldWays = knot.Embedded()
		for _, begin := range flag.Args() {
			again := func(key string, _ knot.Shape) bool { return strings.HasPrefix(key, begin) }
			maps.DeleteFunc(old, again)
			maps.DeleteFunc(oldWays, again)
		}
	}
	drawn, ok := drawAll(knot.Generated(), known, func(key string, p tighten.Problem) (map[string]knot.Shape, error) {
		s, err := knot.DrawUp(context.Background(), p, tighten.Settings{})
		return map[string]knot.Shape{key: s}, err
	})
	ways, ok2 := drawAll(knot.GeneratedWays(), knownWay, func(key string, p tighten.Problem) (map[string]knot.Shape, error) {
		frames, err := knot.DrawWay(p)
		out := map[string]knot.Shape{}
		for k, f := range frames {
			out[fmt.Sprintf("%s #%d", key, k)] = f
		}
		return out, err
	})
	// What came to rest is written also where something did not, so that
	// -new goes on from there.
	write("drawn.bin", drawn)
	write("ways.bin", ways)
	if !ok || !ok2 {
		os.Exit(1)
	}
}

// old and oldWays are what need not be drawn again.
var old, oldWays map[string]knot.Shape

// known finds a shape, or the frames of a way, among what is embedded.
func known(key string) (map[string]knot.Shape, bool) {
	out := map[string]knot.Shape{}
	if s, ok := old[key]; ok {
		out[key] = s
	}
	return out, len(out) > 0
}

func knownWay(key string) (map[string]knot.Shape, bool) {
	out := map[string]knot.Shape{}
	for k, s := range oldWays {
		if name, _, frame := strings.Cut(k, " #"); frame && name == key {
			out[k] = s
		}
	}
	return out, len(out) > 0
}

// drawAll works on as many problems at a time as there are processors.
func drawAll(problems map[string]tighten.Problem, known func(string) (map[string]knot.Shape, bool), draw func(string, tighten.Problem) (map[string]knot.Shape, error)) (map[string]knot.Shape, bool) {
	shapes, ok := map[string]knot.Shape{}, true
	var lock sync.Mutex
	var wg sync.WaitGroup
	turn := make(chan struct{}, runtime.NumCPU())
	for key, p := range problems {
		if kept, found := known(key); found {
			maps.Copy(shapes, kept)
			continue
		}
		wg.Add(1)
		go func() {
			defer wg.Done()
			turn <- struct{}{}
			defer func() { <-turn }()
			made, err := draw(key, p)
			lock.Lock()
			defer lock.Unlock()
			if err != nil {
				fmt.Fprintf(os.Stderr, "gen: %s: %v\n", key, err)
				ok = false
				return
			}
			for k, s := range made {
				shapes[k] = s
			}
		}()
	}
	wg.Wait()
	for key, s := range shapes { // one that cannot be embedded does not cost the others
		if _, err := shape.Pack(map[string]knot.Shape{key: s}); err != nil {
			fmt.Fprintln(os.Stderr, "gen:", err)
			delete(shapes, key)
			ok = false
		}
	}
	return shapes, ok
}

func write(name string, shapes map[string]knot.Shape) {
	b, err := shape.Pack(shapes)
	if err == nil {
		err = os.WriteFile(name, b, 0o644)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "gen:", err)
		os.Exit(1)
	}
	fmt.Printf("%s: %d shapes, %d bytes\n", name, len(shapes), len(b))
}
