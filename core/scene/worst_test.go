package scene_test

import (
	"errors"
	"fmt"
	"runtime"
	"runtime/debug"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// worst are the largest legal pieces, one for each limit.
func worst() map[string]piece.Document {
	out := map[string]piece.Document{}
	add := func(name string, cords int, mm float64, on piece.Hardware, line string) {
		d := piece.Begin(name, "charm", on, 0)
		var ids []string
		for i := range cords {
			id := fmt.Sprintf("c%d", i)
			ids = append(ids, id)
			d.Cords = append(d.Cords, piece.Cord{ID: id, Stuff: piece.Kernmantle(mm, "#0f5c63")})
		}
		wrap := piece.Cord{ID: "W", Stuff: piece.Kernmantle(mm, "#b4532a")}
		if strings.Contains(line, "gather") {
			d.Cords = append(d.Cords, wrap)
		}
		seq, err := notation.Parse(strings.ReplaceAll(line, "ALL", strings.Join(ids, " ")))
		if err != nil {
			panic(name + ": " + err.Error())
		}
		d.Sequence = seq
		out[name] = d
	}
	rod, ring := piece.Hardware{Type: "rod", InnerMM: 2000, WireMM: 2}, piece.SplitRing(2000, 0.3)
	fob := piece.SplitRing(60, 2)
	add("longest gap on most strands", 32, 0.3, rod, "mount ALL, gap 100m, finish dome")
	add("longest gaps in brackets", 32, 0.3, rod, "mount ALL, 400x(gap 120mm, gap 120mm), finish dome")
	add("thin cord on wide hardware", 32, 0.3, ring, "mount ALL, gap 20mm, finish dome")
	add("thick wire", 2, 0.3, piece.Hardware{Type: "swivel-clip", InnerMM: 2000, WireMM: 100}, "mount ALL, square-knot 4, finish dome")
	add("most square knots", 2, 4, fob, "mount ALL, square-knot 10000, finish dome")
	add("most square knots, most fillers", 5, 4, fob, "mount ALL, square-knot 10000, finish dome")
	add("longest spiral, most fillers", 5, 4, fob, "mount ALL, half-knot 10000, finish dome")
	add("most snake wraps", 1, 4, fob, "mount ALL, snake-knot 10000, finish dome")
	add("most berries", 2, 4, fob, "mount ALL, gap 12mm, berry-knot 460 squares=3, finish dome")
	add("most diamonds", 4, 4, fob, "mount ALL, diamond 1000, finish dome")
	add("most switch knots", 2, 4, fob, "mount ALL, switch-knot 9000 gap=8mm, finish dome")
	add("most sections", 2, 4, fob, "mount ALL"+strings.Repeat(", square-knot 5, gap 3mm, half-knot 7", 332)+", finish dome")
	add("deepest brackets", 32, 4, rod, "mount ALL, 9x(10x(10x(overhand of=all))), finish dome")
	add("brackets of small things beside many strands", 32, 4, rod, "mount ALL, 30x(31x(square-knot 1 strands=1-4)), finish dome")
	add("longest crossed rows", 4, 4, fob, "mount ALL, rows 1-4:(square-knot 490) 5-8:(square-knot 490 start=right) cross=3, finish dome")
	add("rows in brackets", 4, 4, fob, "mount ALL, 50x(rows 1-4:(square-knot 90) 5-8:(square-knot 90)), finish dome")
	add("longest folded band", 2, 4, fob, "mount ALL, square-knot 990, fold-back 3000mm, gather W turns=6, finish dome")
	add("most hitches", 32, 0.75, rod, "mount ALL"+strings.Repeat(", double-half-hitch direction=right, double-half-hitch direction=left", 79)+", finish dome")
	add("longest fringe", 32, 3, rod, "mount ALL, gap 20mm, finish fringe length=1000mm")
	return out
}

// peak tells the most memory that was in use while work ran, bytes.
func peak(work func()) uint64 {
	runtime.GC()
	var most atomic.Uint64
	stop, stopped := make(chan struct{}), make(chan struct{})
	look := func() {
		var m runtime.MemStats
		runtime.ReadMemStats(&m)
		if m.HeapInuse > most.Load() {
			most.Store(m.HeapInuse)
		}
	}
	go func() {
		defer close(stopped)
		tick := time.NewTicker(5 * time.Millisecond)
		defer tick.Stop()
		for {
			select {
			case <-stop:
				return
			case <-tick.C:
				look()
			}
		}
	}()
	work()
	look()
	close(stop)
	<-stopped
	return most.Load()
}

// mostMemory is what the largest legal piece may take with its picture, bytes.
const mostMemory = 300 << 20

// The largest legal pieces are planned and drawn, whole and in hand, within a
// memory that does not grow with them; what is refused says so.
func TestTheLargestLegalPiecesAreHandled(t *testing.T) {
	defer debug.SetMemoryLimit(debug.SetMemoryLimit(mostMemory * 4 / 5)) // as the server does
	for name, d := range worst() {
		if ps := d.Check(); len(ps) > 0 {
			t.Errorf("%s: %v", name, ps)
			continue
		}
		// What is refused says how much can be handled; that is the largest.
		var no piece.Problems
		if _, err := plan.Make(d, plan.Options{}); errors.As(err, &no) && no[0].Fix != nil && no[0].Path == "sequence[1].count" {
			d.Sequence[1].Count = no[0].Fix.Set[0].Value.(int)
			name += fmt.Sprintf(" (%d)", d.Sequence[1].Count)
		}
		begun := time.Now()
		var planned time.Duration
		var pic scene.Picture
		used := peak(func() {
			p, err := plan.Make(d, plan.Options{})
			planned = time.Since(begun)
			if err != nil {
				t.Errorf("%s: %v", name, err)
				return
			}
			pic = scene.Render(p.Look(), scene.View{PerMM: 1.5})
			half, err := plan.Make(d, plan.Options{Until: p.Actions / 2})
			if err != nil {
				t.Errorf("%s, half tied: %v", name, err)
				return
			}
			l := half.Look()
			low := 0.0
			for _, s := range l.Sections {
				low = max(low, s[1])
			}
			scene.Render(l, scene.View{PerMM: 9, From: low - 60, To: low + 30})
		})
		t.Logf("%-45s planned in %8v, all in %8v, %4d MB, %5d plates at %5d places", name, planned.Round(time.Millisecond), time.Since(begun).Round(time.Millisecond), used>>20, len(pic.Plates), len(pic.Places))
		if used > mostMemory {
			t.Errorf("%s takes %d MB", name, used>>20)
		}
	}
}
