// Command gen draws up the balls that package ball embeds and writes them to
// balls.bin as they come, so that a run that was stopped goes on where it was. Run it
// with make shapes.
//
// It draws the chains that are not embedded yet and those whose route or solver is
// another one now; with -all it draws everything again. It says how far each moved.
package main

import (
	"context"
	"flag"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"runtime"
	"sync"
	"time"

	_ "nimblebight/core/knots" // the routes of the stoppers
	"nimblebight/core/knots/ball"
	"nimblebight/core/shapes"
)

// job is balls that are drawn up together.
type job struct {
	name string
	keys []string
	made string
	draw func() (map[string]shapes.Shape, error)
}

func jobs() []job {
	var out []job
	for _, c := range ball.Wanted() {
		keys := c.Keys()
		out = append(out, job{keys[0] + " and larger", keys, c.Made(), c.DrawUp})
	}
	for _, r := range ball.Stoppers() {
		key := ball.StopperKey(r.Name)
		out = append(out, job{key, []string{key}, ball.StopperMade(r), func() (map[string]shapes.Shape, error) {
			s, err := ball.DrawStopper(context.Background(), r)
			return map[string]shapes.Shape{key: s}, err
		}})
	}
	return out
}

func main() {
	all := flag.Bool("all", false, "draw everything again")
	folder := flag.String("folder", ".", "the folder of balls.bin")
	flag.Parse()
	if err := run(*all, filepath.Join(*folder, "balls.bin")); err != nil {
		fmt.Fprintln(os.Stderr, "gen:", err)
		os.Exit(1)
	}
}

func run(all bool, file string) error {
	embedded := ball.Embedded()
	balls := map[string]shapes.Shape{}
	var todo []job
	for _, j := range jobs() {
		stale := all
		for _, k := range j.keys {
			if s, ok := embedded[k]; ok {
				balls[k] = s // what was there stays till it is drawn again
			}
			stale = stale || embedded[k].Made != j.made
		}
		if stale {
			todo = append(todo, j)
		}
	}
	var lock sync.Mutex
	var group sync.WaitGroup
	turn := make(chan struct{}, runtime.NumCPU())
	begun, done, failed := time.Now(), 0, 0
	for _, j := range todo {
		group.Add(1)
		turn <- struct{}{}
		go func() {
			defer func() { <-turn; group.Done() }()
			made, err := j.draw()
			lock.Lock()
			defer lock.Unlock()
			done++
			says := ""
			if err == nil {
				says = shapes.Moved(was(embedded, j.keys), made)
				maps.Copy(balls, made)
				err = write(file, balls)
			}
			if err != nil {
				failed++
				says = err.Error()
			}
			fmt.Printf("%d of %d, %.0f s: %s: %s\n", done, len(todo), time.Since(begun).Seconds(), j.name, says)
		}()
	}
	group.Wait()
	if failed > 0 {
		return fmt.Errorf("%d of %d could not be drawn up", failed, len(todo))
	}
	return write(file, balls)
}

func was(embedded map[string]shapes.Shape, keys []string) map[string]shapes.Shape {
	out := map[string]shapes.Shape{}
	for _, k := range keys {
		if s, ok := embedded[k]; ok {
			out[k] = s
		}
	}
	return out
}

// write puts the balls in their file, whole or not at all.
func write(file string, balls map[string]shapes.Shape) error {
	b, err := shapes.Pack(balls)
	if err != nil {
		return err
	}
	if err := os.WriteFile(file+".new", b, 0o644); err != nil {
		return err
	}
	return os.Rename(file+".new", file)
}
