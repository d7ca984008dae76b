// Package shapes is where knots that were drawn up are kept: those of build time,
// embedded with the program, and those that are drawn up while it runs. What a
// shape is the shape of, the packages that draw it up know.
//
// A folder of knots registers one [Family], with the problems of the shapes that
// it wants embedded, and asks it for a [Shape] by name. What is embedded carries
// the fingerprint of the problem and the solver that made it, so that a route
// that was changed and not drawn up again is found by a test.
package shapes

import (
	"bytes"
	"compress/gzip"
	"encoding/gob"
	"fmt"
	"io"
	"math"
	"sort"

	"gonum.org/v1/gonum/spatial/r3"
)

// Shape is a knot drawn up, in diameters of its first strand.
type Shape struct {
	Strands [][]r3.Vec
	Pitch   float64 // of a cell
	Twist   float64 // radians a cell
	Gap     float64 // least distance over mean diameter
	// Made is the fingerprint of the problem, the settings and the solver that
	// it was drawn up by; empty where it was worked out from others.
	Made string
}

// packed is a shape as it is embedded: thousandths of a diameter.
type packed struct {
	Key               string
	Pitch, Twist, Gap float64
	Strands           [][]int16
	Made              string
}

// Grain is into how many parts of a diameter a packed place is rounded.
const Grain = 1000.0

// Pack writes shapes by their names.
func Pack(m map[string]Shape) ([]byte, error) {
	var out []packed
	for key, s := range m {
		p := packed{Key: key, Pitch: s.Pitch, Twist: s.Twist, Gap: s.Gap, Made: s.Made}
		for _, pts := range s.Strands {
			row := make([]int16, 0, 3*len(pts))
			for _, v := range pts {
				for _, x := range [3]float64{v.X, v.Y, v.Z} {
					if math.Abs(x*Grain) > math.MaxInt16 {
						return nil, fmt.Errorf("shapes: %s reaches %.1f diameters, too far to embed", key, x)
					}
					row = append(row, int16(math.Round(x*Grain)))
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

// Unpack reads what Pack wrote; nothing is no shapes.
func Unpack(b []byte) (map[string]Shape, error) {
	if len(b) == 0 {
		return map[string]Shape{}, nil
	}
	z, err := gzip.NewReader(bytes.NewReader(b))
	if err != nil {
		return nil, err
	}
	whole, err := io.ReadAll(z) // to its end, where the checksum stands
	if err != nil {
		return nil, err
	}
	var in []packed
	if err := gob.NewDecoder(bytes.NewReader(whole)).Decode(&in); err != nil {
		return nil, err
	}
	m := make(map[string]Shape, len(in))
	for _, p := range in {
		s := Shape{Pitch: p.Pitch, Twist: p.Twist, Gap: p.Gap, Made: p.Made}
		for _, row := range p.Strands {
			pts := make([]r3.Vec, 0, len(row)/3)
			for i := 0; i+2 < len(row); i += 3 {
				pts = append(pts, r3.Vec{X: float64(row[i]) / Grain, Y: float64(row[i+1]) / Grain, Z: float64(row[i+2]) / Grain})
			}
			s.Strands = append(s.Strands, pts)
		}
		m[p.Key] = s
	}
	return m, nil
}
