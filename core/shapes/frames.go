package shapes

import (
	"context"
	"fmt"
	"math"

	"nimblebight/core/memo"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Key frames show how a knot goes from the loose route to the drawn-up curve: a
// dozen shapes of the same nodes. Common ones are embedded; others are drawn
// when they are first asked for. At the vise a strand is led along the first
// frame, and when all are led the knot is drawn up frame by frame.

const (
	frameCount = 12
	frameNodes = 44 // of each strand
)

// FrameSettings are how key frames are drawn: coarser than shapes, for they are
// only looked at.
var FrameSettings = tighten.Settings{PerDiameter: []float64{3}, Frames: frameCount, Still: 1e-4}

var frames memo.Cache[[]Shape] // drawn while the program runs, by name

// DrawFrames draws the key frames of a problem, from loose to tight.
func DrawFrames(p tighten.Problem) ([]Shape, error) {
	r, err := tighten.DrawUp(context.Background(), p, FrameSettings)
	if err != nil {
		return nil, err
	}
	out := make([]Shape, len(r.Frames))
	for k, f := range r.Frames {
		out[k] = Shape{Pitch: r.Cells[k].Pitch, Twist: r.Cells[k].Twist, Gap: r.Gap, Made: tighten.Fingerprint(p, FrameSettings)}
		for _, c := range f {
			out[k].Strands = append(out[k].Strands, c.Resample(frameNodes).Points)
		}
	}
	return out, nil
}

// FrameKey names one key frame.
func FrameKey(name string, frame int) string { return fmt.Sprintf("%s #%d", name, frame) }

// KeyFrames gives the key frames of a problem by its name.
func (f *Family) KeyFrames(name string, p func() tighten.Problem) ([]Shape, error) {
	if _, ok := f.EmbeddedFrames()[FrameKey(name, 0)]; ok {
		out := make([]Shape, frameCount)
		for k := range out {
			out[k] = f.EmbeddedFrames()[FrameKey(name, k)]
		}
		return out, nil
	}
	return frames.Get(name, func() ([]Shape, error) { return DrawFrames(p()) })
}

// FrameAt is the shape between two frames, t from 0 (loose) to 1 (drawn up).
func FrameAt(frames []Shape, t float64) Shape {
	x := math.Max(0, math.Min(1, t)) * float64(len(frames)-1)
	k := min(int(x), len(frames)-2)
	u := x - float64(k)
	a, b := frames[k], frames[k+1]
	out := Shape{Pitch: a.Pitch + u*(b.Pitch-a.Pitch), Twist: a.Twist + u*(b.Twist-a.Twist), Gap: a.Gap}
	for i := range a.Strands {
		s := make([]r3.Vec, len(a.Strands[i]))
		for n := range s {
			s[n] = r3.Add(r3.Scale(1-u, a.Strands[i][n]), r3.Scale(u, b.Strands[i][n]))
		}
		out.Strands = append(out.Strands, s)
	}
	return out
}
