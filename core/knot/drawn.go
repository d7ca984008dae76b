package knot

import (
	"bytes"
	"compress/gzip"
	"context"
	_ "embed" // the shapes drawn up at build time
	"encoding/gob"
	"fmt"
	"math"
	"sort"
	"sync"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"
)

//go:generate go run ./gen

// Shape is a knot drawn up, in diameters of its first strand.
type Shape struct {
	Strands [][]Vec
	Pitch   float64 // of a cell
	Twist   float64 // radians a cell
	Gap     float64 // least distance over mean diameter
}

//go:embed drawn.bin
var drawnBin []byte

var (
	shapes     = map[string]*shapeOnce{}
	shapesLock sync.Mutex
	embedded   = sync.OnceValue(func() map[string]Shape {
		m, err := unpack(drawnBin)
		if err != nil {
			panic("knot: the embedded shapes cannot be read: run go generate ./core/knot: " + err.Error())
		}
		return m
	})
)

type shapeOnce struct {
	once  sync.Once
	shape Shape
	err   error
}

// drawn gives the shape of a problem: from the embedded ones, from those drawn
// up since the program started, or by drawing it up now, which takes about a
// second.
func drawn(key string, p func() tighten.Problem) (Shape, error) {
	if s, ok := embedded()[key]; ok {
		return s, nil
	}
	shapesLock.Lock()
	if len(shapes) > 4000 {
		shapes = map[string]*shapeOnce{}
	}
	so := shapes[key]
	if so == nil {
		so = &shapeOnce{}
		shapes[key] = so
	}
	shapesLock.Unlock()
	so.once.Do(func() { so.shape, so.err = DrawUp(p()) })
	if so.err != nil {
		return Shape{}, fmt.Errorf("drawing up %s: %w", key, so.err)
	}
	return so.shape, nil
}

func DrawUp(p tighten.Problem) (Shape, error) {
	r, err := tighten.Draw(context.Background(), p, tighten.Settings{})
	if err != nil {
		return Shape{}, err
	}
	s := Shape{Pitch: r.Cell.Pitch, Twist: r.Cell.Twist, Gap: r.Gap}
	for _, c := range r.Strands {
		s.Strands = append(s.Strands, c.Points)
	}
	if p.Cell != nil && p.Cell.Mirror && len(s.Strands) == 2 {
		s.Strands = anchored(s, r.Cell)
	}
	return s, nil
}

// anchored gives the two workers of a flat row from where the first is
// farthest to the left and the second farthest to the right: while it is drawn
// up a thread may slide along itself.
func anchored(s Shape, c tighten.Cell) [][]Vec {
	const cells = 3
	type turn struct {
		at int
		y  float64
	}
	var threads [2][]Vec
	var turns [2][]turn
	for i, pts := range s.Strands {
		for k := -cells; k <= cells; k++ {
			for _, v := range pts {
				threads[i] = append(threads[i], tighten.Image(c, k, v))
			}
		}
		side := float64(2*i - 1) // the first to the left, the second to the right
		n := len(pts)
		for at := n; at+n < len(threads[i]); at++ {
			best := true // of all within half a cell
			for k := at - n/2; k <= at+n/2 && best; k++ {
				best = side*threads[i][k].X <= side*threads[i][at].X
			}
			if best {
				turns[i] = append(turns[i], turn{at, threads[i][at].Y})
			}
		}
	}
	least := math.Inf(1)
	var from [2]int
	for _, a := range turns[0] {
		for _, b := range turns[1] {
			if d := 10*math.Abs(a.y-b.y) + math.Abs(a.y); d < least {
				least, from = d, [2]int{a.at, b.at}
			}
		}
	}
	out := make([][]Vec, 2)
	for i, pts := range s.Strands {
		out[i] = append([]Vec{}, threads[i][from[i]:from[i]+len(pts)]...)
	}
	return out
}

// packed is a shape as it is embedded: thousandths of a diameter.
type packed struct {
	Key               string
	Pitch, Twist, Gap float64
	Strands           [][]int16
}

const grain = 1000.0

// Pack writes shapes for embedding.
func Pack(m map[string]Shape) ([]byte, error) {
	var out []packed
	for key, s := range m {
		p := packed{Key: key, Pitch: s.Pitch, Twist: s.Twist, Gap: s.Gap}
		for _, pts := range s.Strands {
			row := make([]int16, 0, 3*len(pts))
			for _, v := range pts {
				for _, x := range [3]float64{v.X, v.Y, v.Z} {
					if math.Abs(x*grain) > math.MaxInt16 {
						return nil, fmt.Errorf("knot: shape %s reaches %.1f diameters, too far to embed", key, x)
					}
					row = append(row, int16(math.Round(x*grain)))
				}
			}
			p.Strands = append(p.Strands, row)
		}
		out = append(out, p)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Key < out[j].Key })
	var b bytes.Buffer
	z := gzip.NewWriter(&b)
	if err := gob.NewEncoder(z).Encode(out); err != nil {
		return nil, err
	}
	if err := z.Close(); err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}

func unpack(b []byte) (map[string]Shape, error) {
	if len(b) == 0 {
		return map[string]Shape{}, nil
	}
	z, err := gzip.NewReader(bytes.NewReader(b))
	if err != nil {
		return nil, err
	}
	var in []packed
	if err := gob.NewDecoder(z).Decode(&in); err != nil {
		return nil, err
	}
	m := make(map[string]Shape, len(in))
	for _, p := range in {
		s := Shape{Pitch: p.Pitch, Twist: p.Twist, Gap: p.Gap}
		for _, row := range p.Strands {
			pts := make([]Vec, 0, len(row)/3)
			for i := 0; i+2 < len(row); i += 3 {
				pts = append(pts, Vec{X: float64(row[i]) / grain, Y: float64(row[i+1]) / grain, Z: float64(row[i+2]) / grain})
			}
			s.Strands = append(s.Strands, pts)
		}
		m[p.Key] = s
	}
	return m, nil
}

// Generated names the shapes that are embedded, each with its problem.
func Generated() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, t := range familyThick {
		for _, n := range familyCount {
			key, p := flatCell(1, same(n, t))
			out[key] = p()
		}
	}
	unequalProblems(out)
	for _, t := range spiralThick {
		for n := 1; n <= mostSpiral; n++ {
			key, p := spiralCell(1, same(n, t))
			out[key] = p()
		}
	}
	for _, d := range headBars {
		key, p := headOn(d)
		out[key] = p()
	}
	for _, d := range berryFillers {
		for squares := 2; squares <= 3; squares++ {
			key, p := berryRoute(squares, d)
			out[key] = p()
		}
	}
	out["overhand"] = overhandRoute()
	for _, d := range legCores {
		key, p := overhandRound(d)
		out[key] = p()
	}
	for _, d := range hitchFillers {
		key, p := hitchOver(d)
		out[key] = p()
	}
	return out
}

// asCurve is a strand of a shape as an open curve.
func asCurve(pts []Vec) curve.Curve { return curve.Curve{Points: pts} }

// even takes a ratio of diameters that two scales would not tell from one as
// one.
func even(r float64) float64 {
	if math.Abs(r-1) < 0.03 {
		return 1
	}
	return r
}

// notch rounds a ratio of diameters up to the next fiftieth, so that nearly
// equal cords share a shape that is drawn up for them and none is drawn too
// thin.
func notch(r float64) float64 { return math.Ceil(even(r)*50-1e-6) / 50 }
