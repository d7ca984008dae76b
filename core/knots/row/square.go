// Package row ties square knots and half knots: two workers over fillers, one
// knot under the other. Others that are made of such rows ask [Tie] for theirs.
package row

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/memo"
	"nimblebight/core/move"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// SquareSettings of square knots.
type SquareSettings struct {
	Start knot.Side `json:"start,omitempty" typed:"start" label:"starts" default:"left"`
}

// HalfSettings of half knots.
type HalfSettings struct {
	Hand knot.Side `json:"hand,omitempty" typed:"hand" label:"hand" default:"left"`
}

// Square is a section of so many square knots.
func Square(count int, start knot.Side) knot.Section {
	return knot.Section{Do: "square-knot", Count: count, Settings: SquareSettings{Start: start}}
}

// takes are the strands of a row: two workers and the fillers between them.
var takes = knot.Takes{Least: 3, Most: 2 + mostFillers}

func terms(knot.Section) knot.Terms { return knot.Terms{Takes: takes} }

// Square knots and half knots: two workers tied over fillers.
//
// Half knot: worker 1 crosses in front of the fillers and under the last
// worker; that one goes behind the fillers and up through worker 1's loop. A
// square knot is a half knot and its mirror. A row of square knots is the flat
// sinnet (the cobra stitch of the paracord people); half knots all of one hand
// turn into the spiral sinnet.
//
// Right: the cord that crosses in front makes the bars of the face, the other
// the bumps at the edges; on the back they change places. After each knot the
// next one starts on the side with the lowest bump. Wrong: twice the same half
// in a flat row; the row begins to turn.
//
// Makers differ in the side they begin on; the right hand finds the left
// worker first, so left is the default.
func init() {
	knot.Add(knot.Knot{
		ID: "square-knot", Name: "square knot", Family: "flat and spiral sinnets",
		OtherNames: []string{"flat knot", "cobra stitch", "solomon bar"},
		For:        "flat sinnets: key fobs, straps, lanyards",
		Repeats:    true,
		Schools: []knot.School{{Field: "start", Default: "left",
			Why: "the left worker is the first to hand; begin right for a row that is a mirror of another"}},
		Short:    []string{"sk"},
		Glyph:    "M4 3v6l16 4v8M20 3v6L4 13v8M10 3v18M14 3v18",
		Common:   true,
		Places:   true,
		Settings: SquareSettings{},
		Terms:    terms,
		Wrong:    wrongSquare,
		Tie:      func(w knot.Work) (knot.Tied, error) { return Tie(w, 2, start(w)) },
		Hold: func(w knot.Work, action int, along float64) (knot.Tied, error) {
			return holdRow(w, 2, start(w), action, along)
		},
		Thumb:  &knot.Thumb{Works: 6, Over: 1.5}, // a foot of cord for an inch of row
		Sample: knot.Sample{Line: "mount A B, square-knot 4", Cords: 2, Section: 1},
	})
	knot.Add(knot.Knot{
		ID: "half-knot", Name: "half knot", Family: "flat and spiral sinnets",
		OtherNames: []string{"half hitch sinnet", "spiral sinnet", "half square knot"},
		For:        "one locks a flat row; many of one hand make the spiral sinnet",
		Repeats:    true,
		Schools: []knot.School{{Field: "hand", Default: "left",
			Why: "the spiral then turns the way the first half of a square knot leans"}},
		Short:    []string{"hk"},
		Glyph:    "M4 3c0 8 16 10 16 18M20 3c0 8-16 10-16 18M12 3v18",
		Places:   true,
		Settings: HalfSettings{},
		Terms:    terms,
		Wrong:    wrongHalf,
		Tie:      func(w knot.Work) (knot.Tied, error) { return Tie(w, 1, hand(w)) },
		Hold: func(w knot.Work, action int, along float64) (knot.Tied, error) {
			return holdRow(w, 1, hand(w), action, along)
		},
		Thumb:  &knot.Thumb{Works: 6, Over: 1.5},
		Sample: knot.Sample{Line: "mount A B, half-knot 4", Cords: 2, Section: 1},
	})
}

func init() {
	knot.AddRoute(knot.Route{
		Name: "square-knot", Family: "flat and spiral sinnets", About: "half knots and their mirrors over two fillers", Sinnet: true,
		Problem: func() tighten.Problem { _, p := flatCell(1, []float64{1, 1}); return p() },
		Measure: knot.PerStrand, Of: "a worker a half knot", Published: 6.65 + 2*0.96, Share: 0.01, Height: 2.00,
	})
	knot.AddRoute(knot.Route{
		Name: "half-knot-spiral", Family: "flat and spiral sinnets", About: "half knots all of one hand over two fillers", Sinnet: true,
		Problem: func() tighten.Problem { _, p := spiralCell(1, []float64{1, 1}); return p() },
		Measure: worker, Of: "a worker a half knot", Published: 8.33, Share: 0.01, Height: 1.76,
	})
}

// worker is the cord that the first of two workers takes in one half knot: its
// own nodes and the step to where it goes on.
func worker(r tighten.Result) float64 {
	a, b := r.Strands[0].Points, r.Strands[1].Points
	seam := knot.Curve([]r3.Vec{a[len(a)-1], tighten.Image(r.Cell, 1, b[0])})
	return r.Strands[0].Length() + seam.Length()
}

const mostFillers = 8

// HalfKnot is the path of one worker through a half knot over a row of
// fillers w wide and thick thick, from its left turn to its right one. The two
// workers are a pair twisted one and a half turns along x, with the fillers
// through the middle of the middle turn; phase 0 is the worker that crosses in
// front, phase pi the other one.
func HalfKnot(w, thick, worker, phase float64) []r3.Vec {
	side, rho := 1.8*worker, 0.85*worker
	middle := w + 1.5*worker
	outer := middle/2 + side
	front := thick/2 + 0.8*worker
	var out []r3.Vec
	put := func(x, turn, r float64) {
		out = append(out, r3.Vec{X: x, Y: 1.5*worker - rho*math.Cos(turn+phase), Z: -r * math.Sin(turn+phase)})
	}
	for i := range 5 {
		u := (float64(i) + 0.5) / 5
		put(-outer+u*side, math.Pi*u, rho)
	}
	n := max(5, int(middle*1.5))
	for i := range n {
		u := (float64(i) + 0.5) / float64(n)
		put(-middle/2+u*middle, math.Pi*(1+u), front/math.Max(0.3, math.Sin(math.Pi*u)))
	}
	for i := range 5 {
		u := (float64(i) + 0.5) / 5
		put(middle/2+u*side, math.Pi*(2+u), rho)
	}
	if phase != 0 { // the other worker comes from the right
		for i, j := 0, len(out)-1; i < j; i, j = i+1, j-1 {
			out[i], out[j] = out[j], out[i]
		}
	}
	return out
}

func key(what string, second float64, fillers []float64) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s 1 %.2f over", what, second)
	for _, f := range fillers {
		fmt.Fprintf(&b, " %.2f", f)
	}
	return b.String()
}

func rowOf(fillers []float64) (w, thick float64) {
	for _, f := range fillers {
		w += f
		thick = math.Max(thick, f)
	}
	return w, thick
}

func workersOver(second float64, w, thick float64) []tighten.Strand {
	big := math.Max(1, second)
	return []tighten.Strand{
		{Route: HalfKnot(w, thick, big, 0), Diameter: 1, Next: 0},
		{Route: HalfKnot(w, thick, big, math.Pi), Diameter: second, Next: 1},
	}
}

// flatCell is one half knot of a flat sinnet; the next one is its mirror.
// Diameters are in those of the worker that crosses in front. Fillers are held
// straight: pulled on, they would be a hidden squeeze.
func flatCell(second float64, fillers []float64) (string, func() tighten.Problem) {
	return key("flat", second, fillers), func() tighten.Problem {
		w, thick := rowOf(fillers)
		p := tighten.Problem{Strands: workersOver(second, w, thick), Cell: &tighten.Cell{Pitch: 3 * math.Max(1, second), Mirror: true}}
		x := -w / 2
		for _, f := range fillers {
			p.Bars = append(p.Bars, tighten.Bar{From: r3.Vec{X: x + f/2, Y: -60}, To: r3.Vec{X: x + f/2, Y: 60}, Diameter: f})
			x += f
		}
		return p
	}
}

// spiralCell is one half knot of a spiral sinnet; the next one is the same,
// turned by what it finds natural. The fillers turn with it, lightly held.
func spiralCell(second float64, fillers []float64) (string, func() tighten.Problem) {
	return key("spiral", second, fillers), func() tighten.Problem {
		w, thick := rowOf(fillers)
		pitch := 3 * math.Max(1, second)
		p := tighten.Problem{Strands: workersOver(second, w, thick), Cell: &tighten.Cell{Pitch: pitch, Twist: 0.3, FreeTwist: true}}
		p.Strands[0].Next, p.Strands[1].Next = 1, 0
		x := -w / 2
		for i, f := range fillers {
			at := 1.02 * (x + f/2)
			var route []r3.Vec
			for _, u := range []float64{0.02, 0.35, 0.65, 0.94} {
				s, c := math.Sincos(0.3 * u)
				route = append(route, r3.Vec{X: c * at, Y: u * pitch, Z: -s * at})
			}
			p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: f, Next: 2 + i, Pull: 0.3})
			x += f
		}
		return p
	}
}

func start(w knot.Work) knot.Side { return knot.Of[SquareSettings](w.Section).Start }

func hand(w knot.Work) knot.Side { return knot.Of[HalfSettings](w.Section).Hand }

// Tie ties halves half knots for each count of the section, the first on the given
// side. Of the section only the count and the strands matter.
func Tie(w knot.Work, halves int, start knot.Side) (knot.Tied, error) {
	n := len(w.Strands)
	if n < 3 {
		return knot.Tied{}, fmt.Errorf("%s needs two workers and a filler between them; it has %d strands", w.Section.Do, n)
	}
	if n-2 > mostFillers {
		return knot.Tied{}, fmt.Errorf("%s takes at most %d fillers; it has %d", w.Section.Do, mostFillers, n-2)
	}
	// Begun on the right it is the mirror of the same begun on the left.
	right := start == "right"
	strands := append([]knot.Strand{}, w.Strands...)
	if right {
		knot.Flip(strands)
	}
	first, last := strands[0], strands[n-1]
	d := first.Diameter
	var fillers []float64
	for _, l := range strands[1 : n-1] {
		fillers = append(fillers, even(l.Diameter/d))
	}
	// Workers of two sizes change sizes at every half: only the flat cell of
	// equal workers, or a spiral of them, repeats by itself.
	second := notch(last.Diameter / d)
	count := max(1, w.Section.Count) * halves
	if w.HalfKnots > 0 {
		count = w.HalfKnots
	}
	flat := halves == 2 || count == 1
	if !flat && second != 1 { // each half swaps them, so both are drawn as the thicker
		d = math.Max(d, last.Diameter)
		second = 1
		for i, l := range strands[1 : n-1] {
			fillers[i] = even(l.Diameter / d)
		}
	}
	if err := tieable(strands); err != nil {
		return knot.Tied{}, err
	}
	found, err := rowShape(flat, second, fillers)
	if err != nil {
		return knot.Tied{}, err
	}
	shape := found.shape
	cell := tighten.Cell{Pitch: shape.Pitch, Twist: shape.Twist, Mirror: flat}
	// A long row is its first knots again and again; after an even number of
	// half knots every thread is where it began.
	head, times, rest := count, 0, 0
	many := headKnots
	if !flat && count > 2*headTurns {
		// A very long spiral is led to a whole number of turns in each head, by
		// less than a degree in a half knot, so that its picture repeats.
		many = headTurns
		cell.Twist = math.Round(cell.Twist*headTurns/(2*math.Pi)) * 2 * math.Pi / headTurns
	}
	if count > 2*many {
		head, times, rest = many, count/many-1, count%many
	}
	threads, _ := repeat(shape, cell, head)
	tails := make([][]r3.Vec, len(threads))
	if rest > 0 {
		tails, _ = repeat(shape, cell, rest)
	}
	t := knot.Tied{Loose: true, HalfKnots: true, Row: count > 1, Gap: shape.Gap, Repeats: max(1, w.Section.Count), Turned: float64(count) * cell.Twist, Rough: found.rough}

	// The row begins where its workers are at the widest.
	top := (threads[0][0].Y + threads[1][0].Y) / 2
	t.Height = float64(count) * shape.Pitch * d * squeeze(strands)
	t.Clear = 0.5 * d
	place := func(v r3.Vec) r3.Vec {
		return r3.Vec{X: d * v.X, Y: d * squeeze(strands) * (v.Y - top), Z: d * v.Z}
	}
	paths, ends := [][]r3.Vec{threads[0]}, [][]r3.Vec{tails[0]}
	if len(threads) == 2 { // fillers held straight
		x, _ := rowOf(fillers)
		x = -x / 2
		for _, f := range fillers {
			run := float64(count) * shape.Pitch
			var line []r3.Vec
			for _, y := range []float64{0, 0.45 * shape.Pitch, run - 0.45*shape.Pitch, run} {
				line = append(line, r3.Vec{X: x + f/2, Y: top + y})
			}
			paths, ends = append(paths, line), append(ends, nil)
			x += f
		}
	} else {
		paths, ends = append(paths, threads[2:]...), append(ends, tails[2:]...)
	}
	paths, ends = append(paths, threads[1]), append(ends, tails[1])
	for i, p := range paths {
		filler := i > 0 && i < n-1
		lies := func(pts []r3.Vec, whole bool) []knot.Lie {
			out := make([]knot.Lie, len(pts))
			for k := range pts {
				switch {
				case filler && (!whole || (k > 0 && k < len(pts)-1)):
					out[k] = knot.Filler
				case !filler && t.Row:
					out[k] = knot.InRow
				}
			}
			return out
		}
		straight := filler && flat // it is led through all of the row at once
		pts := knot.Curve(p).Map(place).Points
		path := knot.Path{Points: pts, Lies: lies(pts, times == 0 || straight)}
		if times > 0 && !straight {
			step := float64(many) * shape.Pitch * d * squeeze(strands)
			path.More = &knot.More{Times: times, Step: step, Turn: float64(many) * cell.Twist}
			if many == headTurns {
				path.More.Turn = 0
			}
			for _, v := range ends[i] {
				v = knot.Turned(place(v), float64(times+1)*path.More.Turn)
				v.Y += float64(times+1) * step
				path.More.Tail = append(path.More.Tail, v)
			}
			path.More.TailLies = lies(path.More.Tail, false)
		}
		t.Paths = append(t.Paths, path)
	}
	for k := 0; k <= count; k++ {
		t.Cells = append(t.Cells, t.Height*float64(k)/float64(count))
	}
	for k := range count {
		t.Orders = append(t.Orders, orderAfter(n, k+1, cell.Twist))
	}
	t.Order = slices.Clone(t.Orders[count-1])
	t.Turned -= math.Pi * math.Round(t.Turned/math.Pi)

	// What is over what does not change with size or count, so it is read once.
	read, err := readings.Get(fmt.Sprint(found.name, halves, min(halves, count)), func() (reading, error) {
		return readHalf(t.Paths, t.Cells, halves, head)
	})
	if err != nil {
		return knot.Tied{}, err
	}
	t.Moves, t.Shows = moves(read.acts, n), slices.Clone(read.sights)
	if right { // back to the maker's left and right
		t.Mirror(n)
	}
	return t, nil
}

// orderAfter is the order of n strands after so many half knots, each turned so far: the workers
// change sides at every one; what has turned more than a quarter is seen from its other side.
func orderAfter(n, count int, twist float64) []int {
	out := knot.Identity(n)
	if count%2 == 1 {
		out[0], out[n-1] = n-1, 0
	}
	if half := int(math.Round(float64(count) * twist / math.Pi)); half%2 != 0 {
		slices.Reverse(out)
	}
	return out
}

// headKnots are the half knots of a long row that it repeats, headTurns those of
// a very long spiral. Both are even.
const (
	headKnots = 48
	headTurns = 240
)

// MostRatio is by how much the thickest cord of a row may be thicker than the
// thinnest: 6 mm and 0.75 mm. Beyond it the thin one cuts in and the thick one
// does not bend round it, and nobody ties it.
const MostRatio = 8.0

// tieable refuses cords that are too unlike to be tied over one another.
func tieable(strands []knot.Strand) error {
	thin, thick := strands[0], strands[0]
	for _, l := range strands {
		if l.Diameter < thin.Diameter {
			thin = l
		}
		if l.Diameter > thick.Diameter {
			thick = l
		}
	}
	r := thick.Diameter / thin.Diameter
	if r <= MostRatio*1.001 {
		return nil
	}
	most := math.Floor(100*thick.Stuff.DiameterMM*MostRatio/r) / 100
	var thinner []knot.CordThickness
	for _, l := range strands {
		if ratio := l.Diameter / thin.Diameter; ratio > MostRatio && !slices.ContainsFunc(thinner, func(c knot.CordThickness) bool { return c.Cord == l.Cord }) {
			thinner = append(thinner, knot.CordThickness{Cord: l.Cord, DiameterMM: math.Floor(100*l.Stuff.DiameterMM*MostRatio/ratio) / 100})
		}
	}
	return &knot.Refused{Field: "strands", Why: fmt.Sprintf("the thickest cord is %.1f times as thick as the thinnest (%.2f and %.2f mm drawn up); up to %g times can be tied, so that one may be of %g mm at most", r, thick.Diameter, thin.Diameter, MostRatio, most),
		Set: thinner, Label: fmt.Sprintf("Take one of %g mm", most)}
}

func squeeze(strands []knot.Strand) float64 {
	return math.Max(strands[0].Figures.Squeeze, strands[len(strands)-1].Figures.Squeeze)
}

// repeat lays count cells one under the other and gives the threads that start
// at each strand of the first one, from the place where it is farthest out, and
// the strand each has become at the end.
func repeat(s shapes.Shape, c tighten.Cell, count int) ([][]r3.Vec, []int) {
	next := func(i int) int {
		if !c.Mirror && i < 2 {
			return 1 - i
		}
		return i
	}
	image := func(k int, v r3.Vec) r3.Vec { return tighten.Image(c, k, v) }
	// cut finds where strand i begins, as a node of it or (negative) of the
	// strand before it.
	cut := func(i int) int {
		if c.Mirror {
			return 0 // anchored there
		}
		prev := s.Strands[next(i)]
		n, m := len(s.Strands[i])/3, len(prev)/3
		best, at := -1.0, 0
		for k := -m; k < n; k++ {
			var v r3.Vec
			if k < 0 {
				v = image(-1, prev[len(prev)+k])
			} else {
				v = s.Strands[i][k]
			}
			if r := math.Hypot(v.X, v.Z); r > best+1e-9 {
				best, at = r, k
			}
		}
		return at
	}
	threads, became := make([][]r3.Vec, len(s.Strands)), make([]int, len(s.Strands))
	start := 0.0
	for i := range s.Strands {
		var nodes []r3.Vec
		at := i
		prev := s.Strands[next(i)]
		from := len(prev)
		for _, v := range prev {
			nodes = append(nodes, image(-1, v))
		}
		for k := 0; k <= count; k++ {
			if k == count {
				became[i] = at
			}
			for _, v := range s.Strands[at] {
				nodes = append(nodes, image(k, v))
			}
			at = next(at)
		}
		length := len(s.Strands[became[i]])
		var a, b int
		if i < 2 {
			a = from + cut(i)
			b = len(nodes) - length + cut(became[i])
			start += nodes[a].Y / 2
		} else { // a filler begins and ends level with the workers
			a, b = level(nodes, start), level(nodes, start+float64(count)*c.Pitch)
		}
		threads[i] = nodes[a : b+1]
	}
	return threads, became
}

// level is the node nearest to y of a thread that runs down.
func level(nodes []r3.Vec, y float64) int {
	best, at := math.Inf(1), 0
	for i, v := range nodes {
		if d := math.Abs(v.Y - y); d < best {
			best, at = d, i
		}
	}
	return at
}

// halfRead is one worker's path through one half knot as it is met along the
// curve.
type halfRead struct {
	half, moves int
	front       bool // it crosses the fillers in front
	over, under []int
}

// reading is what was read off a row's curves.
type reading struct {
	acts   []halfRead
	sights []knot.Sight
}

var readings memo.Cache[reading] // of shape and halves

// readHalf reads off the curves of the first halves half knots what each worker
// passes over and under, and what is seen on the face and the back.
func readHalf(paths []knot.Path, cells []float64, halves, count int) (reading, error) {
	n := len(paths)
	halves = min(halves, count)
	// A little more than the first cells, so that no crossing is cut off.
	var cs []curve.Curve
	for _, p := range paths {
		end := len(p.Points)
		if n := len(p.Points) * halves / count; len(p.Points) > 3 && n > 3 {
			end = min(end, n+1)
		}
		cs = append(cs, curve.Curve{Points: p.Points[:end]})
	}
	crossings, err := curve.Crossings(cs)
	if err != nil {
		return reading{}, err
	}
	halfOf := func(y float64) int {
		for k := 0; k+1 < len(cells); k++ {
			if y < cells[k+1] {
				return k
			}
		}
		return len(cells) - 2
	}
	var out []halfRead
	for h := range halves {
		pair := [2]halfRead{{half: h, moves: 0}, {half: h, moves: n - 1}}
		for w := range pair {
			r := &pair[w]
			for _, c := range crossings {
				if halfOf(c.Y) != h {
					continue
				}
				if c.Over == r.moves && c.Under != r.moves {
					r.over = appendNew(r.over, c.Under)
				}
				if c.Under == r.moves && c.Over != r.moves {
					r.under = appendNew(r.under, c.Over)
				}
			}
			for _, o := range r.over {
				if o > 0 && o < n-1 {
					r.front = true
				}
			}
		}
		// The one that crosses in front lays its loop first.
		if !pair[0].front {
			pair[0], pair[1] = pair[1], pair[0]
		}
		out = append(out, pair[0], pair[1])
	}
	var sights []knot.Sight
	seen := map[string]bool{}
	inner := 0.0
	for _, p := range paths[1 : n-1] {
		inner = math.Max(inner, math.Abs(p.Points[0].X))
	}
	for _, c := range crossings {
		if (c.Over != 0 && c.Over != n-1) || (c.Under != 0 && c.Under != n-1) || c.Over == c.Under {
			continue
		}
		where := "middle"
		if c.X < -inner-1e-6 {
			where = "left"
		} else if c.X > inner+1e-6 {
			where = "right"
		}
		if !seen[where] {
			seen[where] = true
			sights = append(sights, knot.Sight{Where: where, Face: c.Over, Back: c.Under})
		}
	}
	return reading{out, sights}, nil
}

func appendNew(xs []int, x int) []int {
	for _, y := range xs {
		if y == x {
			return xs
		}
	}
	return append(xs, x)
}

// moves are the half knots that were read, each two moves.
func moves(hs []halfRead, n int) []move.Move {
	order := knot.Identity(n)
	fillers := knot.Numbered(1, n-2)
	var out []move.Move
	for i := 0; i+1 < len(hs); i += 2 {
		a, b := hs[i], hs[i+1]
		from, to := move.Left, move.Right
		if order[0] != a.moves {
			from, to = to, from
		}
		at := slices.Clone(order)
		out = append(out, move.Move{Strand: a.moves, From: from, To: to, Order: at,
			Passes: []move.Pass{{How: move.How(a.front), Of: fillers}, {How: move.Under, Of: []int{b.moves}}},
			Text:   "{me}, from the {from}, across {front 0}.",
			Detail: "Leave a loop at the {from} and lay it {over 1}."})
		out = append(out, move.Move{Strand: b.moves, From: to, To: from, Order: at,
			Passes: []move.Pass{{How: move.How(b.front), Of: fillers}, {How: move.Over, Of: []int{a.moves}}},
			Text:   "{me}, from the {from}, {front 0} and up through the loop.",
			Detail: "Draw both up evenly till the half knot sits against the one above."})
		order[0], order[n-1] = order[n-1], order[0]
	}
	return out
}
