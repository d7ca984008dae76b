// Command gen draws up the shapes that package knot embeds and writes them to
// drawn.bin. Run it with go generate ./core/knot after changing a route.
package main

import (
	"fmt"
	"os"
	"runtime"
	"sync"

	"nimblebight/core/knot"
)

func main() {
	problems := knot.Generated()
	shapes := make(map[string]knot.Shape, len(problems))
	var lock sync.Mutex
	var wg sync.WaitGroup
	turn := make(chan struct{}, runtime.NumCPU())
	failed := false
	for key, p := range problems {
		wg.Add(1)
		go func() {
			defer wg.Done()
			turn <- struct{}{}
			defer func() { <-turn }()
			s, err := knot.DrawUp(p)
			lock.Lock()
			defer lock.Unlock()
			if err != nil {
				fmt.Fprintf(os.Stderr, "gen: %s: %v\n", key, err)
				failed = true
				return
			}
			shapes[key] = s
		}()
	}
	wg.Wait()
	if failed {
		os.Exit(1)
	}
	b, err := knot.Pack(shapes)
	if err == nil {
		err = os.WriteFile("drawn.bin", b, 0o644)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "gen:", err)
		os.Exit(1)
	}
	fmt.Printf("drew up %d shapes, %d bytes\n", len(shapes), len(b))
}
