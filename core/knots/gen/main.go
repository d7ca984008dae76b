// Command gen draws up the shapes and key frames that the folders of knots embed,
// and writes each folder's drawn.bin and frames.bin. Run it with make shapes.
//
// It draws what is not embedded yet and what its route or the solver no longer
// gives; with -all it draws everything again and says how far each shape moved.
// With names as arguments only what begins so is drawn. What is drawn is kept in
// the folder given by -work till all is done, so that a run that was stopped goes
// on where it was.
package main

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"flag"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"

	_ "nimblebight/core/knots" // what is to be drawn
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

// job is one problem to be drawn up.
type job struct {
	family *shapes.Family
	name   string
	frames bool
	p      tighten.Problem
}

// draw gives the shape, or the key frames, of the job.
func (j job) draw() (map[string]shapes.Shape, error) {
	if !j.frames {
		s, err := shapes.DrawUp(context.Background(), j.p, j.family.Settings(j.name))
		return map[string]shapes.Shape{j.name: s}, err
	}
	out := map[string]shapes.Shape{}
	all, err := shapes.DrawFrames(j.p)
	for k, s := range all {
		out[shapes.FrameKey(j.name, k)] = s
	}
	return out, err
}

// embedded is what is embedded of the job now.
func (j job) embedded() map[string]shapes.Shape {
	out := map[string]shapes.Shape{}
	if !j.frames {
		if s, ok := j.family.Embedded()[j.name]; ok {
			out[j.name] = s
		}
		return out
	}
	for k, s := range j.family.EmbeddedFrames() {
		if name, _, ok := strings.Cut(k, " #"); ok && name == j.name {
			out[k] = s
		}
	}
	return out
}

// made is the fingerprint that the job's shapes must carry.
func (j job) made() string {
	if j.frames {
		return tighten.Fingerprint(j.p, shapes.FrameSettings)
	}
	return tighten.Fingerprint(j.p, j.family.Settings(j.name))
}

func jobs() []job {
	var out []job
	for _, f := range shapes.Families() {
		add := func(problems func() map[string]tighten.Problem, frames bool) {
			if problems == nil {
				return
			}
			all := problems()
			for _, name := range slices.Sorted(maps.Keys(all)) {
				out = append(out, job{f, name, frames, all[name]})
			}
		}
		add(f.Problems, false)
		add(f.Moving, true)
	}
	return out
}

func main() {
	all := flag.Bool("all", false, "draw everything again")
	root := flag.String("knots", ".", "the folder of the folders of knots")
	work := flag.String("work", filepath.Join(os.TempDir(), "nimble-bight-shapes"), "where what is drawn is kept till all is done")
	flag.Parse()
	if err := run(*all, *root, *work, flag.Args()); err != nil {
		fmt.Fprintln(os.Stderr, "gen:", err)
		os.Exit(1)
	}
}

func run(all bool, root, work string, begins []string) error {
	if err := os.MkdirAll(work, 0o755); err != nil {
		return err
	}
	drawn := map[*shapes.Family][2]map[string]shapes.Shape{}
	var todo []job
	for _, j := range jobs() {
		if _, ok := drawn[j.family]; !ok {
			drawn[j.family] = [2]map[string]shapes.Shape{{}, {}}
		}
		now := j.embedded()
		stale := len(now) == 0
		for _, s := range now {
			stale = stale || s.Made != j.made()
		}
		wanted := len(begins) == 0 && (all || stale)
		for _, b := range begins {
			wanted = wanted || strings.HasPrefix(j.name, b)
		}
		if wanted {
			todo = append(todo, j)
		} else {
			maps.Copy(drawn[j.family][kind(j)], now)
		}
	}
	failed := 0
	done := 0
	begun := time.Now()
	var lock sync.Mutex
	each(todo, func(j job) {
		file := filepath.Join(work, fileOf(j))
		made, err := kept(file)
		if err != nil {
			if made, err = j.draw(); err == nil {
				err = keep(file, made)
			}
		}
		lock.Lock()
		defer lock.Unlock()
		done++
		says := shapes.Moved(j.embedded(), made)
		if err != nil {
			failed++
			says = err.Error()
			made = j.embedded() // what was there stays
		}
		maps.Copy(drawn[j.family][kind(j)], made)
		fmt.Printf("%d of %d, %.0f s: %s: %s\n", done, len(todo), time.Since(begun).Seconds(), j.name, says)
	})
	for f, kinds := range drawn {
		for k, name := range [2]string{"drawn.bin", "frames.bin"} {
			if len(kinds[k]) == 0 {
				continue
			}
			b, err := shapes.Pack(kinds[k])
			if err != nil {
				return err
			}
			if err := os.WriteFile(filepath.Join(root, f.Folder, name), b, 0o644); err != nil {
				return err
			}
		}
	}
	if failed > 0 {
		return fmt.Errorf("%d of %d could not be drawn up", failed, len(todo))
	}
	return os.RemoveAll(work)
}

func kind(j job) int {
	if j.frames {
		return 1
	}
	return 0
}

// each works on as many jobs at a time as there are processors.
func each(todo []job, work func(job)) {
	var wg sync.WaitGroup
	next := make(chan job)
	for range runtime.NumCPU() {
		wg.Add(1)
		go func() {
			defer wg.Done()
			for j := range next {
				work(j)
			}
		}()
	}
	for _, j := range todo {
		next <- j
	}
	close(next)
	wg.Wait()
}

// fileOf names what is kept of a job by what it is drawn from.
func fileOf(j job) string {
	sum := sha256.Sum256([]byte(fmt.Sprint(j.family.Folder, j.name, j.frames, j.made())))
	return hex.EncodeToString(sum[:12])
}

func kept(file string) (map[string]shapes.Shape, error) {
	b, err := os.ReadFile(file)
	if err != nil {
		return nil, err
	}
	m, err := shapes.Unpack(b)
	if err == nil && len(m) == 0 {
		err = errors.New("nothing in it")
	}
	return m, err
}

func keep(file string, m map[string]shapes.Shape) error {
	b, err := shapes.Pack(m)
	if err != nil {
		return err
	}
	if err := os.WriteFile(file+".new", b, 0o644); err != nil {
		return err
	}
	return os.Rename(file+".new", file) // whole or not at all
}
