package server

import (
	"math"
	"strconv"

	"github.com/gin-gonic/gin"
	"gonum.org/v1/gonum/spatial/r3"

	"nimblebight/core/curve"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Space is a section's curves, to be turned in space.
type Space struct {
	Section int         `json:"section"`
	Strands []Thread    `json:"strands"`
	Balls   []SpaceBall `json:"balls,omitempty"`
}

// SpaceBall is a core, about the same middle.
type SpaceBall struct {
	AtY        float64 `json:"at_y"`
	DiameterMM float64 `json:"diameter_mm"`
	Colour     string  `json:"colour"`
}

// Thread is a stretch of cord in space.
type Thread struct {
	Cord       string  `json:"cord"`
	Colour     string  `json:"colour"`
	DiameterMM float64 `json:"diameter_mm"`
	// Points are x, y, z in mm, one after the other, about the section's
	// middle; y runs down, z out of the face.
	Points []float64 `json:"points"`
}

// spaceOf gives the curves of ?section= of a piece, with a little of what is
// above and below it.
func (s *Server) spaceOf(c *gin.Context) {
	_, d, _, pl, err := s.planned(c)
	if err != nil {
		failed(c, err)
		return
	}
	n, err := strconv.Atoi(c.Query("section"))
	if err != nil || n < 0 || n >= len(pl.Sections) {
		failed(c, piece.Problems{{Path: "section", Message: "is not one of the piece's sections; they count from 0"}})
		return
	}
	answer(c, space(pl, d, n), nil)
}

// mostTurned is how much of a long section is shown, mm per mm of cord.
const mostTurned = 16.0

func space(pl plan.Plan, d piece.Document, section int) Space {
	out := Space{Section: section, Strands: []Thread{}}
	l := pl.Look()
	thick := 0.0
	for _, c := range pl.Cords {
		thick = math.Max(thick, c.DrawnUpMM)
	}
	from, to := l.Sections[section][0]-thick, l.Sections[section][1]+thick
	to = math.Min(to, from+mostTurned*thick)
	middle := (from + to) / 2
	for _, s := range l.Near(from, to) {
		c := d.Cords[s.Cord]
		var run []r3.Vec
		flush := func() {
			if len(run) > 1 && (curve.Curve{Points: run}).Length() > 2*l.Figures[s.Cord].DrawnUpMM { // no crumbs at the borders
				out.Strands = append(out.Strands, thread(c.ID, c.Stuff.Colour, l.Figures[s.Cord].DrawnUpMM, run, middle))
			}
			run = nil
		}
		for i, v := range s.Points {
			in := v.Y >= from && v.Y <= to
			if i > 0 && in != (s.Points[i-1].Y >= from && s.Points[i-1].Y <= to) { // the place on the border
				a, b := s.Points[i-1], v
				y := from
				if (a.Y > to) != (b.Y > to) {
					y = to
				}
				run = append(run, curve.Lerp(a, b, (y-a.Y)/(b.Y-a.Y)))
			}
			if in {
				run = append(run, v)
			} else {
				flush()
			}
		}
		flush()
	}
	for _, b := range l.Cores {
		if b.At.Y > from && b.At.Y < to {
			out.Balls = append(out.Balls, SpaceBall{AtY: b.At.Y - middle, DiameterMM: b.DiameterMM, Colour: b.Colour})
		}
	}
	return out
}

// thread is a run of cord with its y from the middle, close enough to bend.
func thread(cord, colour string, mm float64, run []r3.Vec, middle float64) Thread {
	t := Thread{Cord: cord, Colour: colour, DiameterMM: mm, Points: []float64{}}
	line := curve.Spline(run, false)
	n := max(3, int(line.Length()/(0.3*mm)))
	for _, v := range line.Resample(n).Points {
		for _, x := range [3]float64{v.X, v.Y - middle, v.Z} {
			t.Points = append(t.Points, math.Round(100*x)/100)
		}
	}
	return t
}
