package scene_test

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
	"nimblebight/formats/svg"
)

func planned(t testing.TB, id string, o plan.Options) (plan.Plan, []cord.Stuff) {
	t.Helper()
	for _, p := range patterns.All() {
		if p.ID != id {
			continue
		}
		pl, err := plan.Make(p.Document, o)
		if err != nil {
			t.Fatal(err)
		}
		var stuffs []cord.Stuff
		for _, c := range p.Document.Cords {
			stuffs = append(stuffs, c.Stuff)
		}
		return pl, stuffs
	}
	t.Fatalf("no pattern %s", id)
	return plan.Plan{}, nil
}

// turn is how far a piece is turned to be seen from its face or its back.
func turn(back bool) float64 {
	if back {
		return 180
	}
	return 0
}

// turned is a layout turned about the work's axis.
func turned(l plan.Layout, angle float64) plan.Layout {
	out := l
	out.Strands = nil
	for _, s := range l.Strands {
		s.Points = curve.TurnY(curve.Curve{Points: s.Points}, angle).Points
		out.Strands = append(out.Strands, s)
	}
	return out
}

// area adds up what is painted of each colour, in square millimetres, as it is
// seen: on a grid of points, the last body painted there.
func area(t *testing.T, p scene.Picture, top, bottom float64) map[string]float64 {
	t.Helper()
	const step = 25 // hundredths
	seen := bodies(t, p)
	out := map[string]float64{}
	for y := 100 * top; y < 100*bottom; y += step {
		for x := float64(p.Left); x < float64(p.Left+p.Width); x += step {
			if c := seen.at(x, y); c != "" {
				out[c] += step * step / 1e4
			}
		}
	}
	return out
}

// eachLayer goes through the layers of a picture as they are painted, each with
// where its plate is laid and the stretch of it that is shown.
func eachLayer(p scene.Picture, f func(l scene.Layer, y, from, to, per int)) {
	for _, at := range p.Places {
		plate := p.Plates[at.Plate]
		for _, l := range plate.Layers {
			f(l, at.Y, at.Y+plate.Top, at.Y+plate.Bottom, plate.Per)
		}
	}
}

// painted is the colour that a layer is painted in; a darkened one is another.
func painted(p scene.Picture, l scene.Layer) string {
	c := l.Paint.Colour
	if l.Paint.Cord >= 0 {
		c = p.Colours[l.Paint.Cord]
	}
	if l.Paint.Dark > 0 {
		c += " darkened"
	}
	return c
}

// outlines are the paths of a layer as points, hundredths of a millimetre.
func outlines(l scene.Layer, per int) [][][2]float64 {
	var out [][][2]float64
	k := 100 / float64(per)
	at := func(p scene.Point) [2]float64 { return [2]float64{k * float64(p.X), k * float64(p.Y)} }
	for _, path := range l.Paths {
		from := at(path.Start)
		pts := [][2]float64{from}
		for _, c := range path.Curve {
			a, b, end := at(c.A), at(c.B), at(c.End)
			const parts = 6
			for n := 1; n <= parts; n++ {
				t := float64(n) / parts
				s := 1 - t
				var q [2]float64
				for i := range q {
					q[i] = s*s*s*from[i] + 3*s*s*t*a[i] + 3*s*t*t*b[i] + t*t*t*end[i]
				}
				pts = append(pts, q)
			}
			from = end
		}
		out = append(out, pts)
	}
	return out
}

func winding(pts [][2]float64, x, y float64) int {
	n := 0
	for i, a := range pts {
		b := pts[(i+1)%len(pts)]
		side := (b[0]-a[0])*(y-a[1]) - (x-a[0])*(b[1]-a[1])
		if a[1] <= y && b[1] > y && side > 0 {
			n++
		} else if a[1] > y && b[1] <= y && side < 0 {
			n--
		}
	}
	return n
}

// A piece turned over twice is the same picture; turned over once in space, its
// face is what was its back.
func TestTurnedOverTwiceIsTheSamePicture(t *testing.T) {
	p, _ := planned(t, "grouped-fob", plan.Options{})
	v := scene.View{PerMM: 5}
	face := scene.Render(p.Layout(), v)
	again := scene.Render(turned(p.Layout(), 2*math.Pi), v)
	if again.Width != face.Width || again.Height != face.Height || len(again.Bands) != len(face.Bands) {
		t.Errorf("turned over twice it is %dx%d, it was %dx%d", again.Width, again.Height, face.Width, face.Height)
	}
	a, b := area(t, face, 20, 60), area(t, again, 20, 60)
	for c, mm := range a {
		if math.Abs(b[c]-mm) > 0.01*mm+1 {
			t.Errorf("%s covers %.1f mm², turned over twice %.1f", c, mm, b[c])
		}
	}
	v.Turn = 180
	back := area(t, scene.Render(p.Layout(), v), 20, 60)
	over := area(t, scene.Render(turned(p.Layout(), math.Pi), scene.View{PerMM: 5}), 20, 60)
	for c, mm := range back {
		if math.Abs(over[c]-mm) > 0.02*mm+2 {
			t.Errorf("%s covers %.1f mm² of the back, turned in space %.1f of the face", c, mm, over[c])
		}
	}
}

// On the face the bars are of the cord that crosses in front; on the back the
// colours change places, the same amount of each.
func TestColoursChangePlaces(t *testing.T) {
	p, stuffs := planned(t, "two-colour-fob", plan.Options{})
	top, bottom := p.Sections[1].TopMM+15, p.Sections[1].TopMM+80
	face := area(t, scene.Render(p.Layout(), scene.View{PerMM: 8}), top, bottom)
	back := area(t, scene.Render(p.Layout(), scene.View{PerMM: 8, Turn: 180}), top, bottom)
	a, b := stuffs[0].Colour, stuffs[1].Colour
	if math.Abs(face[a]-back[b]) > 0.03*face[a] || math.Abs(face[b]-back[a]) > 0.03*face[b] {
		t.Errorf("face %s %.0f mm², %s %.0f; back %.0f and %.0f: they do not change places", a, face[a], b, face[b], back[a], back[b])
	}
	// What shows of the fillers and between the cords is the small part that a
	// good tier leaves.
	seen, dark := 0.0, 0.0
	for c, mm := range face {
		seen += mm
		if c != a && c != b {
			dark += mm
		}
	}
	if dark > 0.09*seen {
		t.Errorf("%.1f %% of the face is filler", 100*dark/seen)
	}
	if seen < 0.85*(bottom-top)*17 {
		t.Errorf("only %.0f mm² of a row %.0f mm long are covered", seen, bottom-top)
	}
}

// Each from both sides, at all scales by turns.
func TestEveryPatternDrawsFromBothSidesAtAllScales(t *testing.T) {
	t.Parallel()
	for n, p := range patterns.All() {
		pl, _ := planned(t, p.ID, plan.Options{})
		for i, per := range []float64{1.5, 4, 9, 25} {
			for _, back := range []bool{false, true} {
				if scene.LeftOut(n+i, back) {
					continue
				}
				pic := scene.Render(pl.Layout(), scene.View{PerMM: per, Turn: turn(back)})
				var b bytes.Buffer
				if err := svg.Write(&b, pic); err != nil {
					t.Fatal(err)
				}
				dec := xml.NewDecoder(bytes.NewReader(b.Bytes()))
				for {
					if _, err := dec.Token(); errors.Is(err, io.EOF) {
						break
					} else if err != nil {
						t.Fatalf("%s at %g: %v", p.ID, per, err)
					}
				}
				if b.Len() > 650<<10 {
					t.Errorf("%s at %g px/mm takes %d kB", p.ID, per, b.Len()>>10)
				}
				if strings.Contains(b.String(), "NaN") {
					t.Errorf("%s at %g holds a NaN", p.ID, per)
				}
				want := pl.LengthMM
				for _, b := range pl.Look().Beads { // and so does a ring in its last knot
					if b.Shape == knot.RingShape {
						want = math.Max(want, b.At.Y+b.LengthMM/2)
					}
				}
				if far := p.Document.Purpose.EndsOn; far != nil { // what it ends on hangs below that
					want += far.InnerMM + 1.5*far.WireMM
				}
				if got := float64(pic.Top+pic.Height) / 100; got < want-0.5 || got > want+4 {
					t.Errorf("%s is drawn down to %.1f mm, it is %.1f long", p.ID, got, want)
				}
			}
		}
	}
}

func TestBandsLieUnderOneAnother(t *testing.T) {
	p, _ := planned(t, "cotton-charm", plan.Options{})
	pic := scene.Render(p.Layout(), scene.View{PerMM: 4})
	if len(pic.Bands) != len(p.Sections) {
		t.Fatalf("%d bands for %d sections", len(pic.Bands), len(p.Sections))
	}
	for i, b := range pic.Bands {
		if b.Bottom < b.Top || b.Right <= b.Left {
			t.Errorf("band %d is %+v", i, b)
		}
		if i > 0 && b.Top != pic.Bands[i-1].Bottom {
			t.Errorf("band %d begins at %d, the one above ends at %d", i, b.Top, pic.Bands[i-1].Bottom)
		}
	}
}

func TestTheStrandInHandIsOutlined(t *testing.T) {
	p, _ := planned(t, "two-colour-fob", plan.Options{Until: 7})
	pic := scene.Render(p.Layout(), scene.View{PerMM: 9, From: -10, To: 60})
	moving := 0
	eachLayer(pic, func(l scene.Layer, _, _, _, _ int) {
		if l.Kind == scene.Moving {
			for _, path := range l.Paths {
				moving += len(path.Curve)
			}
		}
	})
	if moving < 5 {
		t.Errorf("the strand in hand has an edge of %d curves", moving)
	}
	whole, _ := planned(t, "two-colour-fob", plan.Options{})
	eachLayer(scene.Render(whole.Layout(), scene.View{PerMM: 9}), func(l scene.Layer, _, _, _, _ int) {
		if l.Kind == scene.Moving {
			t.Error("a finished piece has a strand in hand")
		}
	})
}

// A cord that is put on is in hand as a whole: nothing of it is among the rest.
func TestACordThatIsPutOnIsLitWhole(t *testing.T) {
	p, _ := planned(t, "two-colour-fob", plan.Options{Until: 1})
	kinds := map[scene.Kind]bool{}
	eachLayer(scene.Render(p.Layout(), scene.View{PerMM: 9}), func(l scene.Layer, _, _, _, _ int) {
		if l.Paint.Cord == 0 && (l.Kind == scene.Body || l.Kind == scene.Lit) {
			kinds[l.Kind] = true
		}
	})
	if !kinds[scene.Lit] || kinds[scene.Body] {
		t.Errorf("of the cord that is put on there are %v", kinds)
	}
}

// Each kind of hardware is drawn, and the cords sit on its wire: at the wire's
// middle there is metal or cord, never the mat.
func TestPiecesHangOnTheirHardware(t *testing.T) {
	for _, on := range []piece.Hardware{piece.SplitRing(30, 2), {Type: "rod", InnerMM: 24, WireMM: 4}, {Type: "swivel-clip", InnerMM: 28, WireMM: 3}, {Type: "carabiner", InnerMM: 30, WireMM: 4}} {
		d := patterns.All()[0].Document
		d.Purpose.HangsOn = on
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		pic := scene.Render(p.Layout(), scene.View{PerMM: 6})
		if pic.Top >= -100*int(on.WireMM)/2 {
			t.Errorf("%s: nothing is drawn above the wire", on.Type)
		}
		seen := area(t, pic, -on.WireMM/2, on.WireMM/2)
		metal, all := 0.0, 0.0
		for c, mm := range seen {
			all += mm
			if c != d.Cords[0].Stuff.Colour && c != d.Cords[1].Stuff.Colour {
				metal += mm
			}
		}
		if all < 15*on.WireMM*0.8 || metal == 0 {
			t.Errorf("%s: at the wire %.1f mm² are seen, %.1f of them metal", on.Type, all, metal)
		}
	}
}

// The same layout gives the same picture, to the letter.
func TestPicturesAreTheSameEveryTime(t *testing.T) {
	p, _ := planned(t, "spiral-fob", plan.Options{})
	v := scene.View{PerMM: 5}
	first := fmt.Sprint(scene.Render(p.Layout(), v))
	for range 3 {
		if again := fmt.Sprint(scene.Render(p.Layout(), v)); again != first {
			t.Fatal("drawn again it is another picture")
		}
	}
}

// A fringe is wider at its tips than at the wrap, and in the cord's colour.
func TestAFringeOpens(t *testing.T) {
	p, stuffs := planned(t, "cotton-charm", plan.Options{})
	pic := scene.Render(p.Layout(), scene.View{PerMM: 6})
	ends := p.Sections[len(p.Sections)-1]
	width := func(y float64) float64 { return area(t, pic, y, y+1)[stuffs[0].Colour] }
	if top, tips := width(ends.TopMM+3), width(ends.TopMM+ends.HeightMM-6); tips <= 0.9*top || top == 0 {
		t.Errorf("at the wrap %.1f mm wide, at the tips %.1f", top, tips)
	}
}

// Melted ends are capped in a darker shade of their cord.
func TestMeltedEndsAreCapped(t *testing.T) {
	for _, how := range []string{"singe-and-press", "dome"} {
		d := patterns.All()[0].Document
		d.Sequence = append([]knot.Section{}, d.Sequence...)
		d.Sequence[2] = d.Sequence[2].Put("how", how)
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		pic := scene.Render(p.Layout(), scene.View{PerMM: 8})
		caps := 0.0
		for c, mm := range area(t, pic, p.LengthMM-1.5, p.LengthMM+3) {
			if c != d.Cords[0].Stuff.Colour && c != d.Cords[1].Stuff.Colour {
				caps += mm
			}
		}
		if caps < 2 {
			t.Errorf("%s: %.1f mm² of cap are seen", how, caps)
		}
	}
}

func ExampleRender() {
	d := patterns.All()[0].Document
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		fmt.Println(err)
		return
	}
	pic := scene.Render(p.Layout(), scene.View{PerMM: 4})
	fmt.Println(pic.View, len(pic.Bands), "sections")
	// Output: face 3 sections
}

// The knots of a row that look alike are one plate, and an edit draws only what
// it changed.
func TestKnotsThatLookAlikeAreOnePlate(t *testing.T) {
	p, _ := planned(t, "two-colour-fob", plan.Options{})
	pic := scene.Render(p.Layout(), scene.View{PerMM: 4})
	if len(pic.Places) != 2+p.Sections[1].Count || len(pic.Plates) > 7 {
		t.Errorf("%d knots are %d plates in %d places", p.Sections[1].Count, len(pic.Plates), len(pic.Places))
	}
	d := patterns.All()[0].Document
	d.Sequence = append([]knot.Section{}, d.Sequence...)
	d.Sequence[1].Count++
	more, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	again := scene.Render(more.Layout(), scene.View{PerMM: 4})
	if len(again.Places) != len(pic.Places)+1 {
		t.Errorf("one knot more makes %d places of %d", len(again.Places), len(pic.Places))
	}
	for key := range again.Plates {
		if _, ok := pic.Plates[key]; !ok {
			t.Error("one knot more needs a plate that the row had not")
		}
	}
}

// An edit is drawn with what was drawn before at hand; a first drawing is not.
func BenchmarkFace(b *testing.B) {
	for _, per := range []float64{2, 4, 9} {
		for _, first := range []bool{true, false} {
			b.Run(fmt.Sprintf("%gpx/first=%v", per, first), func(b *testing.B) {
				p, _ := planned(b, "two-colour-fob", plan.Options{})
				l := p.Layout()
				b.ReportAllocs()
				for n := 0; b.Loop(); n++ {
					if first {
						scene.Forget()
					}
					scene.Render(l, scene.View{PerMM: per})
				}
			})
		}
	}
}

// A ball of eight passes by itself, as the page of balls shows it, nothing of it
// drawn before.
func BenchmarkBall(b *testing.B) {
	stuff := piece.Kernmantle(4, "#0f5c63")
	made, err := ball.Make(ball.Ask{Cord: ball.Of(stuff, stuff.Figures()), Passes: 8, Mode: ball.OneCord})
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for n := 0; b.Loop(); n++ {
		scene.Forget()
		scene.Render(plan.BallLayout(made, made.Seen(n%6), []cord.Stuff{stuff, stuff}), scene.View{PerMM: 320 / made.FaceMM})
	}
}

// An edit in the middle of a long piece: plan and picture.
func BenchmarkEditOfTwoHundredSections(b *testing.B) {
	line := "mount A B"
	for i := range 198 {
		line += []string{", square-knot 3", ", gap 8mm", ", half-knot 4", ", switch-knot 2", ", gap 9mm", ", berry-knot 1"}[i%6]
	}
	d := notation.With(piece.Begin("long", "charm", piece.SplitRing(30, 2), 0), line+", finish dome",
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, "#0f5c63")}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, "#e3c88f")})
	edit := func(count int) {
		d.Sequence[97].Count = count
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			b.Fatal(err)
		}
		scene.Render(p.Look(), scene.View{PerMM: 4})
	}
	edit(1) // the piece is there before it is edited
	n := 0
	for b.Loop() {
		n++
		edit(2 + n%5)
	}
}
