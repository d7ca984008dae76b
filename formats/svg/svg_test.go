package svg_test

import (
	"errors"
	"os"
	"strings"
	"testing"

	"nimblebight/core/scene"
	"nimblebight/formats/svg"
)

// line is a path over points, straight from each to the next.
func line(pts ...scene.Point) scene.Path {
	out := scene.Path{Start: pts[0]}
	for i, p := range pts[1:] {
		out.Curve = append(out.Curve, scene.Cubic{A: pts[i], B: p, End: p})
	}
	return out
}

func picture() scene.Picture {
	return scene.Picture{View: "face", Left: -100, Top: -50, Width: 2000, Height: 4000, Colours: []string{"#0f5c63"},
		Places: []scene.Place{{Plate: "a", Y: 300}, {Plate: "a", Y: 700}},
		Plates: map[string]scene.Plate{"a": {Left: -80, Right: 900, Bottom: 400, Per: 200, Layers: []scene.Layer{
			{Kind: scene.Body, Paths: []scene.Path{line(scene.Point{}, scene.Point{X: 100}, scene.Point{X: 100, Y: 100})}},
			{Kind: scene.Body, Paths: []scene.Path{line(scene.Point{}, scene.Point{X: 7}, scene.Point{Y: 7})}, Paint: scene.Paint{Cord: -1, Colour: "#c9a35a", Dark: 50}},
			{Kind: scene.Mark, Paths: []scene.Path{line(scene.Point{}, scene.Point{X: 50, Y: 50})}, Width: 12},
			{Kind: scene.Ink, Paths: []scene.Path{line(scene.Point{}, scene.Point{X: 100}), {Start: scene.Point{X: 7, Y: -3}, Curve: []scene.Cubic{{A: scene.Point{X: 7, Y: 9}, B: scene.Point{X: 5, Y: 2}, End: scene.Point{X: 1, Y: 1}}}}}, Width: 20},
		}}}}
}

func TestAFileIsAsLargeAsThePiece(t *testing.T) {
	var b strings.Builder
	if err := svg.Write(&b, picture()); err != nil {
		t.Fatal(err)
	}
	for _, part := range []string{`width="20mm"`, `height="40mm"`, `viewBox="-100 -50 2000 4000"`, `fill="#0f5c63" d="M0 0l100 0 0 100z"`, `fill="#706442"`, `viewBox="-340 0 2320 800"`, `stroke="#ffffff" stroke-opacity="0.16"`, `stroke-width="20"`, `y="300"`, `y="700"`} {
		if !strings.Contains(b.String(), part) {
			t.Errorf("%s is missing from %s", part, b.String())
		}
	}
	if strings.Count(b.String(), "<path") != 8 {
		t.Errorf("a plate of four layers, laid twice, makes %d paths", strings.Count(b.String(), "<path"))
	}
}

// What the browser is sent is what the file holds, and plates that are known are
// not written again.
func TestABrowserPaintsWhatTheFileHolds(t *testing.T) {
	var b strings.Builder
	if err := svg.Write(&b, picture()); err != nil {
		t.Fatal(err)
	}
	written := 0
	known := map[string]svg.Plate{}
	keep := func(name string, write func() svg.Plate) svg.Plate {
		if _, ok := known[name]; !ok {
			written++
			known[name] = write()
		}
		return known[name]
	}
	for range 2 {
		p := svg.Of(picture(), keep)
		for _, l := range p.Plates["a"].Layers {
			if !strings.Contains(b.String(), `d="`+l.D+`"`) {
				t.Errorf("%s of the browser is not in the file", l.D)
			}
		}
		if got := p.Plates["a"].Layers[3].D; got != "M0 0l100 0M7-3c0 12-2 5-6 4" {
			t.Errorf("two strokes are written %s", got)
		}
	}
	if written != 1 {
		t.Errorf("one plate was written %d times", written)
	}
}

type full struct{}

var errFull = errors.New("the disk is full")

func (full) Write([]byte) (int, error) { return 0, errFull }

func TestAFailedWriteSaysSo(t *testing.T) {
	if err := svg.Write(full{}, picture()); !errors.Is(err, errFull) || !strings.Contains(err.Error(), "writing the picture") {
		t.Errorf("said %v", err)
	}
}

func ExampleWrite() {
	p := scene.Picture{Width: 100, Height: 100, Places: []scene.Place{{Plate: "a"}}, Colours: []string{"#b4532a"},
		Plates: map[string]scene.Plate{"a": {Right: 9, Bottom: 9, Per: 100, Layers: []scene.Layer{{Kind: scene.Body, Paths: []scene.Path{line(scene.Point{}, scene.Point{X: 9, Y: 9}, scene.Point{X: 9})}}}}}}
	if err := svg.Write(os.Stdout, p); err != nil {
		return
	}
	// Output: <svg xmlns="http://www.w3.org/2000/svg" width="1mm" height="1mm" viewBox="0 0 100 100"><svg x="-90" y="0" width="189" height="9" viewBox="-90 0 189 9" overflow="hidden"><path fill="#b4532a" d="M0 0l9 9 0-9z"/></svg></svg>
}
