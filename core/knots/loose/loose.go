// Package loose keeps the films of knots: how each goes from loose to drawn up, loose as one
// sees it who ties it, from the face or at the working end. They are grown from the knots' own
// curves, or drawn up from the way that hands lay them, or laid in bands in the way of
// another knot, by package loosen when the program is built (make shapes); nothing of a knot
// is said here.
package loose

import (
	_ "embed" // the films
	"fmt"
	"math"
	"slices"
	"strings"
	"sync"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/loosen"
	"nimblebight/core/shapes"

	"github.com/cespare/xxhash/v2"
	"gonum.org/v1/gonum/spatial/r3"
)

//go:embed films.bin
var embedded []byte

// unpacked are the films by their names.
var unpacked = sync.OnceValues(func() (map[string]shapes.Shape, error) { return shapes.Unpack(embedded) })

func init() { knot.FilmsBy(func(id string) []knot.Film { return byKnot()[id] }) }

// byKnot are all films of each knot, those of its default way of tying first.
var byKnot = sync.OnceValue(func() map[string][]knot.Film {
	out := map[string][]knot.Film{}
	for _, name := range Names() { // none where they cannot be read, which a test does
		if f, ok := Film(name); ok {
			id, _, _ := strings.Cut(name, on)
			out[id] = append(out[id], f)
		}
	}
	return out
})

// Warm reads all films, so that the first picture at the vise is drawn as fast as the next.
func Warm() { byKnot() }

// Films are those of a knot as it is tied by default, by how many strands it is tied with.
func Films(id string) []knot.Film {
	all, err := unpacked()
	if err != nil {
		return nil
	}
	return FilmsIn(all, id)
}

// FilmsIn are those of a knot, tied by default, among packed frames.
func FilmsIn(all map[string]shapes.Shape, id string) []knot.Film {
	var out []knot.Film
	for _, n := range Strands {
		for _, across := range []bool{false, true} {
			if f, ok := filmIn(all, Name(id, n, across, "")); ok {
				out = append(out, f)
			}
		}
	}
	return out
}

// Film is the embedded film of a name.
func Film(name string) (knot.Film, bool) {
	all, err := unpacked()
	if err != nil {
		return knot.Film{}, false
	}
	return filmIn(all, name)
}

// filmIn is the film of a name among packed frames.
func filmIn(all map[string]shapes.Shape, name string) (knot.Film, bool) {
	f := knot.Film{Across: strings.Contains(name, fromEnd)}
	for k := 0; ; k++ {
		s, ok := all[shapes.FrameKey(name, k)]
		if !ok {
			return f, k > 0
		}
		f.Frames = append(f.Frames, s.Strands)
	}
}

// LeftOut is the key by which a film is known that was tried and could not be read.
func LeftOut(name string) string { return name + " left out" }

// Made is the fingerprint that a film carries, "" where there is none of that name.
func Made(name string) string {
	all, err := unpacked()
	if err != nil {
		return ""
	}
	return all[shapes.FrameKey(name, 0)].Made
}

// Strands are the numbers of strands that films are grown for.
var Strands = []int{1, 2, 3, 4, 5, 6, 8}

// on, fromEnd and with stand in names.
const on, fromEnd, with = " on ", " from the end", ", "

// Name names the film of a knot on so many strands, as it is looked at: from the face, or across
// the work, at the working end. So is what its way of tying says beyond the default.
func Name(id string, strands int, across bool, says string) string {
	out := fmt.Sprint(id, on, strands)
	if across {
		out += fromEnd
	}
	if says != "" {
		out += with + says
	}
	return out
}

// Named is the problem of a film, by its name, and the section that is tied so.
type Named struct {
	Name    string
	Section knot.Section
	Problem loosen.Problem
}

// Problems are those of all films of a knot on so many strands: as it is tied by default, and in
// every other way in which its strands lie elsewhere.
func Problems(k knot.Knot, strands int, films func(id string) []knot.Film) []Named {
	var out []Named
	ways := Ways(k)
	put := func(w Way, p loosen.Problem) {
		out = append(out, Named{Name(k.ID, strands, p.Across, w.Says), w.Section, p})
	}
	if p, ok := Problem(k, strands, films); ok && (k.Film == nil || strands == 1) { // else it makes it of that of one
		put(ways[0], p)
	}
	if k.Hold != nil || k.Part != nil {
		return out
	}
	for _, w := range ways[1:] {
		if p, ok := waysProblem(k, w, strands); ok && !slices.ContainsFunc(out, func(o Named) bool { return alike(o.Problem, p) }) {
			put(w, p)
		}
	}
	return out
}

// Problem is a knot as it is tied once on strands that hang side by side, or the part of it that
// stands for it, to be loosened; films finds those of a knot in whose way another one's strands
// are led in bands. Not ok for one that goes round, that has cords of its own, or that is not tied
// on so many strands.
func Problem(k knot.Knot, strands int, films func(id string) []knot.Film) (loosen.Problem, bool) {
	if k.Part != nil && k.Part.Of != "" {
		return inBands(k, strands, films(k.Part.Of))
	}
	if k.Part != nil {
		return part(*k.Part, strands)
	}
	return waysProblem(k, Ways(k)[0], strands)
}

// waysProblem is a knot as it is tied once in this way.
func waysProblem(k knot.Knot, w Way, strands int) (loosen.Problem, bool) {
	s, ok := once(k, w.Section, strands)
	if !ok {
		return loosen.Problem{}, false
	}
	return Tied(s, strands)
}

// part is the part of a knot that is loosened by itself.
func part(of knot.Part, strands int) (loosen.Problem, bool) {
	curves, err := of.Strands()
	if err != nil || len(curves) != strands {
		return loosen.Problem{}, false
	}
	var p loosen.Problem
	for i, c := range curves {
		p.Strands = append(p.Strands, loosen.Strand{Points: c.Points, Diameter: 1, Fixed: of.Still[i]})
	}
	return p, true
}

// Ring is the film of a knot that goes round, tied once on so many strands: it is stretched
// about its axis, which is constructed. Not ok for one that does not go round or is not tied
// so.
func Ring(k knot.Knot, strands, frames int) (knot.Film, bool) {
	s, ok := once(k, Ways(k)[0].Section, strands)
	if !ok {
		return knot.Film{}, false
	}
	t, d, ok := tied(s, strands)
	if !ok || !t.Around {
		return knot.Film{}, false
	}
	f, ok := knot.Stretched(t, d, frames)
	f.Across = true
	return f, ok
}

// once is a section of a knot when it is tied once on strands that hang.
func once(k knot.Knot, s knot.Section, strands int) (knot.Section, bool) {
	if k.Tie == nil || k.Bare || k.Mounts || k.Ends || k.First {
		return s, false
	}
	terms := knot.TermsOf(s)
	if terms.Begins != knot.OnStrands || len(terms.CordsAt) > 0 || strands < terms.Takes.Least || terms.Takes.Most > 0 && strands > terms.Takes.Most {
		return s, false
	}
	if s.Count > 0 {
		s.Count = max(1, k.LooseFrom)
	}
	return s, true
}

// tied ties a section on strands that hang side by side, d mm thick.
func tied(s knot.Section, strands int) (t knot.Tied, d float64, ok bool) {
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	d = stuff.DrawnUp()
	w := knot.Work{Section: s, BarMM: 2, RingMM: 16}
	for i := range strands {
		w.Strands = append(w.Strands, knot.Strand{Cord: i / 2, Leg: i % 2, Stuff: stuff, Figures: stuff.Figures(), Diameter: d, At: r3.Vec{X: (float64(i) - float64(strands-1)/2) * d}, Dir: r3.Vec{Y: 1}})
	}
	t, err := knot.Tie(w)
	t = t.Hung()
	return t, d, err == nil && !t.Ends && len(t.Beads) == 0 && len(t.Own) == 0 && len(t.Paths) == strands && len(t.Moves) > 0
}

// Tied is a section as it is tied on strands that hang side by side, diameters; not ok for
// one that goes round, that has cords of its own, or that cannot be tied so.
func Tied(s knot.Section, strands int) (loosen.Problem, bool) {
	t, d, ok := tied(s, strands)
	if !ok {
		return loosen.Problem{}, false
	}
	k, _ := knot.Get(s.Do)
	p := loosen.Problem{Across: knot.FromEnd(k, t)}
	for _, path := range t.Paths {
		in := loosen.Strand{Diameter: 1, Fixed: len(path.Lies) > 0}
		for _, v := range path.Points {
			in.Points = append(in.Points, r3.Scale(1/d, v))
		}
		for _, lie := range path.Lies {
			in.Fixed = in.Fixed && (lie == knot.Filler || lie == knot.Free)
		}
		p.Strands = append(p.Strands, in)
	}
	if t.AtEnd && len(t.Flat) == len(t.Paths) {
		for _, path := range t.Flat {
			p.Route = append(p.Route, curve.Curve{Points: path.Points}.Map(func(v r3.Vec) r3.Vec { return r3.Scale(1/d, v) }).Points)
		}
	}
	return p, true
}

// Fingerprint tells a problem, and what grows it, from others: hundredths of a diameter.
func Fingerprint(p loosen.Problem) string {
	h := xxhash.New()
	fmt.Fprint(h, loosen.Version)
	fmt.Fprint(h, p.Across)
	lines := slices.Clone(p.Route)
	if p.Bands != nil {
		fmt.Fprint(h, p.Bands.Of)
		for _, frame := range p.Bands.Film.Frames {
			lines = append(lines, frame...)
		}
	}
	for _, s := range p.Strands {
		fmt.Fprint(h, s.Fixed, ";")
		lines = append(lines, s.Points)
	}
	for _, pts := range lines {
		fmt.Fprint(h, len(pts), ";")
		for _, v := range pts {
			for _, x := range [3]float64{v.X, v.Y, v.Z} {
				fmt.Fprintf(h, "%.0f ", math.Floor(20*x+0.5))
			}
		}
	}
	return fmt.Sprintf("%016x", h.Sum64())
}

// Names are the names of all films that are embedded.
func Names() []string {
	all, err := unpacked()
	if err != nil {
		return nil
	}
	var out []string
	for key := range all {
		if name, _, ok := strings.Cut(key, " #"); ok && !slices.Contains(out, name) {
			out = append(out, name)
		}
	}
	slices.Sort(out)
	return out
}
