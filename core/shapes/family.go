package shapes

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"slices"
	"strings"
	"sync"

	"nimblebight/core/tighten"
)

// Family is what one folder of knots has drawn up at build time.
//
// Invariants: every embedded shape is of one of the problems; every shape of
// every problem is embedded. A test holds both.
type Family struct {
	Folder string // under core/knots, where drawn.bin and frames.bin are
	// Problems are the shapes that are embedded, by name; Drawn is what
	// drawn.bin holds of them.
	Problems func() map[string]tighten.Problem
	Drawn    []byte
	// Slow, where it is not nil, tells of what needs more steps than usual how it is
	// drawn up.
	Slow func(name string) tighten.Settings
	// Moving are the knots whose key frames are embedded, by name, and Frames
	// what frames.bin holds of them.
	Moving func() map[string]tighten.Problem
	Frames []byte

	once struct {
		drawn, frames func() map[string]Shape
	}
}

var families []*Family

// Register makes a family known to the generator and to the tests. It is called
// while the program starts, once a folder.
func Register(f *Family) *Family {
	unpack := func(name string, b []byte) func() map[string]Shape {
		return sync.OnceValue(func() map[string]Shape {
			m, err := Unpack(b)
			if err != nil {
				panic(fmt.Sprintf("shapes: %s of %s cannot be read: run make shapes: %v", name, f.Folder, err))
			}
			return m
		})
	}
	f.once.drawn, f.once.frames = unpack("drawn.bin", f.Drawn), unpack("frames.bin", f.Frames)
	families = append(families, f)
	return f
}

// Families lists the families by folder.
func Families() []*Family {
	return slices.SortedFunc(slices.Values(families), func(a, b *Family) int { return strings.Compare(a.Folder, b.Folder) })
}

// Settings are how a shape of the family is drawn up.
func (f *Family) Settings(name string) tighten.Settings {
	if f.Slow == nil {
		return tighten.Settings{}
	}
	return f.Slow(name)
}

// Embedded are the shapes that are embedded, by name.
func (f *Family) Embedded() map[string]Shape { return f.once.drawn() }

// EmbeddedFrames are the key frames that are embedded, by name and number.
func (f *Family) EmbeddedFrames() map[string]Shape { return f.once.frames() }

// Shape gives the shape of a problem that is drawn up at build time. The problem
// is not looked at: it stands there so that a name and its problem are written
// together.
func (f *Family) Shape(name string, _ func() tighten.Problem) (Shape, error) {
	if s, ok := f.Embedded()[name]; ok {
		return s, nil
	}
	return Shape{}, fmt.Errorf("the shape %q of %s is not embedded: run make shapes", name, f.Folder)
}

// Digest names packed shapes by what they hold: 16 hexadecimal digits.
func Digest(packed ...[]byte) string {
	h := sha256.New()
	for _, b := range packed {
		h.Write(b)
	}
	return hex.EncodeToString(h.Sum(nil)[:8])
}

// All is what is embedded of every family, for [Digest].
func All() [][]byte {
	var out [][]byte
	for _, f := range Families() {
		out = append(out, f.Drawn)
	}
	return out
}
