// Command gen draws up the balls that package fist embeds and writes them to
// balls.bin. Run it with go generate ./core/fist after changing a route or the
// engine. With -new only those are drawn that are not embedded yet or whose
// names begin with one of the arguments.
package main

import (
	"context"
	"flag"
	"fmt"
	"maps"
	"os"
	"runtime"
	"slices"
	"strings"
	"sync"

	"nimblebight/core/fist"
	"nimblebight/core/knot"
	"nimblebight/core/shape"
)

func main() {
	onlyNew := flag.Bool("new", false, "draw only what is not embedded yet")
	flag.Parse()
	shapes, failed := map[string]shape.Shape{}, false
	if *onlyNew {
		for _, r := range fist.StopperRoutes() {
			if s, ok := fist.Embedded()[fist.StopperKey(r)]; ok {
				shapes[fist.StopperKey(r)] = s
			}
		}
	}
	var lock sync.Mutex
	var wg sync.WaitGroup
	turn := make(chan struct{}, runtime.NumCPU())
	for _, chain := range fist.Wanted() {
		if *onlyNew && have(chain, shapes) {
			continue
		}
		wg.Add(1)
		go func() {
			defer wg.Done()
			turn <- struct{}{}
			defer func() { <-turn }()
			drawn, err := chain.Draw()
			lock.Lock()
			defer lock.Unlock()
			if err == nil {
				maps.Copy(shapes, drawn)
				err = write(shapes) // what is drawn is kept if the rest is broken off
			}
			if err != nil {
				fmt.Fprintln(os.Stderr, "gen:", err)
				failed = true
			}
		}()
	}
	wg.Wait()
	for _, r := range knot.Routes() {
		if !slices.Contains(fist.StopperRoutes(), r.Name) {
			continue
		}
		drawn, err := r.Draw(context.Background(), r.Settings(false))
		if err != nil {
			fmt.Fprintln(os.Stderr, "gen:", err)
			failed = true
			continue
		}
		shapes[fist.StopperKey(r.Name)] = shape.Shape{Gap: drawn.Gap, Strands: [][]fist.Vec{drawn.Strands[0].Points}}
	}
	if err := write(shapes); err != nil {
		fmt.Fprintln(os.Stderr, "gen:", err)
		failed = true
	}
	if failed {
		os.Exit(1)
	}
	fmt.Printf("balls.bin: %d balls\n", len(shapes))
}

// have takes a chain over that is embedded and that no argument asks to be drawn
// again.
func have(c fist.Chain, shapes map[string]shape.Shape) bool {
	for _, key := range c.Keys() {
		again := slices.ContainsFunc(flag.Args(), func(begin string) bool { return strings.HasPrefix(key, begin) })
		s, ok := fist.Embedded()[key]
		if !ok || again {
			return false
		}
		shapes[key] = s
	}
	return true
}

func write(shapes map[string]shape.Shape) error {
	b, err := shape.Pack(shapes)
	if err != nil {
		return err
	}
	return os.WriteFile("balls.bin", b, 0o644)
}
