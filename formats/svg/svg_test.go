package svg_test

import (
	"errors"
	"os"
	"strings"
	"testing"

	"nimblebight/core/scene"
	"nimblebight/formats/svg"
)

func picture() scene.Picture {
	return scene.Picture{View: "face", Left: -100, Top: -50, Width: 2000, Height: 4000,
		Places: []scene.Place{{Plate: "a", Y: 300}, {Plate: "a", Y: 700}},
		Plates: map[string]scene.Plate{"a": {Left: -80, Right: 900, Bottom: 400, Layers: []scene.Layer{
			{Kind: scene.Body, Lines: []scene.Line{{{}, {X: 100}, {X: 100, Y: 100}}}, Colour: "#0f5c63"},
			{Kind: scene.Shadow, Lines: []scene.Line{{{}, {X: 50, Y: 50}}}, Width: 12},
			{Kind: scene.Ink, Lines: []scene.Line{{{}, {X: 100}}, {{X: 7, Y: -3}, {X: 5, Y: 2}}}, Width: 20},
		}}}}
}

func TestAFileIsAsLargeAsThePiece(t *testing.T) {
	var b strings.Builder
	if err := svg.Write(&b, picture()); err != nil {
		t.Fatal(err)
	}
	for _, part := range []string{`width="20mm"`, `height="40mm"`, `viewBox="-100 -50 2000 4000"`, `fill="#0f5c63" d="M0 0l100 0 0 100z"`, `stroke-width="20"`, `y="300"`, `y="700"`} {
		if !strings.Contains(b.String(), part) {
			t.Errorf("%s is missing from %s", part, b.String())
		}
	}
	if strings.Count(b.String(), "<path") != 6 {
		t.Errorf("a plate of three layers, laid twice, makes %d paths", strings.Count(b.String(), "<path"))
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
		if got := p.Plates["a"].Layers[2].D; got != "M0 0l100 0M7 -3l-2 5" {
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
	p := scene.Picture{Width: 100, Height: 100, Places: []scene.Place{{Plate: "a"}},
		Plates: map[string]scene.Plate{"a": {Right: 9, Bottom: 9, Layers: []scene.Layer{{Kind: scene.Body, Lines: []scene.Line{{{}, {X: 9, Y: 9}, {X: 9}}}, Colour: "#b4532a"}}}}}
	if err := svg.Write(os.Stdout, p); err != nil {
		return
	}
	// Output: <svg xmlns="http://www.w3.org/2000/svg" width="1mm" height="1mm" viewBox="0 0 100 100"><svg x="-40" y="0" width="89" height="9" viewBox="-40 0 89 9" overflow="hidden"><path fill="#b4532a" d="M0 0l9 9 0-9z"/></svg></svg>
}
