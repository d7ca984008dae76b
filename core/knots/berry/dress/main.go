// Command dress dresses the berries anew, with a lock drawn up against each: it writes
// start.bin, which what is drawn up begins with. Run it in the folder of the knot, then
// make shapes.
package main

import (
	"context"
	"fmt"
	"os"
	"runtime"
	"sync"

	"nimblebight/core/knots/berry"
	"nimblebight/core/shapes"

	"golang.org/x/sync/errgroup"
)

func main() {
	out := map[string]shapes.Shape{}
	var lock sync.Mutex
	var all errgroup.Group
	all.SetLimit(runtime.NumCPU())
	for _, b := range berry.All() {
		all.Go(func() error {
			lines, err := berry.Dress(context.Background(), b.Squares, b.Filler)
			lock.Lock()
			defer lock.Unlock()
			fmt.Println(b)
			out[b.String()] = shapes.Shape{Strands: lines, Gap: 1}
			return err
		})
	}
	if err := all.Wait(); err != nil {
		fmt.Fprintln(os.Stderr, "dress:", err)
		os.Exit(1)
	}
	packed, err := shapes.Pack(out)
	if err == nil {
		err = os.WriteFile("start.bin", packed, 0o644)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "dress:", err)
		os.Exit(1)
	}
}
