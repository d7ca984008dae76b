// Command gen draws up the balls that package fist embeds and writes them to
// balls.bin. Run it with go generate ./core/knots/ball after changing a route or the
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

	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/shapes"
)

func main() {
	onlyNew := flag.Bool("new", false, "draw only what is not embedded yet")
	flag.Parse()
	made, failed := map[string]shapes.Shape{}, false
	if *onlyNew {
		for _, r := range ball.StopperRoutes() {
			if s, ok := ball.Embedded()[ball.StopperKey(r)]; ok {
				made[ball.StopperKey(r)] = s
			}
		}
	}
	var lock sync.Mutex
	var wg sync.WaitGroup
	turn := make(chan struct{}, runtime.NumCPU())
	for _, chain := range ball.Wanted() {
		if *onlyNew && have(chain, made) {
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
				maps.Copy(made, drawn)
				err = write(made) // what is drawn is kept if the rest is broken off
			}
			if err != nil {
				fmt.Fprintln(os.Stderr, "gen:", err)
				failed = true
			}
		}()
	}
	wg.Wait()
	for _, r := range knot.Routes() {
		if !slices.Contains(ball.StopperRoutes(), r.Name) {
			continue
		}
		drawn, err := r.Draw(context.Background(), r.Settings(false))
		if err != nil {
			fmt.Fprintln(os.Stderr, "gen:", err)
			failed = true
			continue
		}
		made[ball.StopperKey(r.Name)] = shapes.Shape{Gap: drawn.Gap, Strands: [][]ball.Vec{drawn.Strands[0].Points}}
	}
	if err := write(made); err != nil {
		fmt.Fprintln(os.Stderr, "gen:", err)
		failed = true
	}
	if failed {
		os.Exit(1)
	}
	fmt.Printf("balls.bin: %d balls\n", len(made))
}

// have takes a chain over that is embedded and that no argument asks to be drawn
// again.
func have(c ball.Chain, made map[string]shapes.Shape) bool {
	for _, key := range c.Keys() {
		again := slices.ContainsFunc(flag.Args(), func(begin string) bool { return strings.HasPrefix(key, begin) })
		s, ok := ball.Embedded()[key]
		if !ok || again {
			return false
		}
		made[key] = s
	}
	return true
}

func write(made map[string]shapes.Shape) error {
	b, err := shapes.Pack(made)
	if err != nil {
		return err
	}
	return os.WriteFile("balls.bin", b, 0o644)
}
