package scene_test

import (
	"fmt"
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// sheathed is a typed line on two cords, the first with a pattern on its sheath.
func sheathed(t *testing.T, line string, s cord.Sheath, shift float64) (plan.Plan, plan.Layout) {
	t.Helper()
	a := piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon), ShiftMM: shift}
	a.Stuff.Sheath = &s
	p, err := plan.Make(notation.With(piece.Begin("drawn", "charm", piece.SplitRing(40, 2), 0), line, a,
		piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)}), plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	return p, p.Layout()
}

// A cord that changes its colour every 20 mm shows it on a bare stretch every 20 mm, and a
// shift of 7 mm moves all of it by 7 mm.
func TestAChangingCordChangesInItsTrueRepeat(t *testing.T) {
	changes := func(shift float64) []float64 {
		s := cord.Sheath{Pattern: cord.Changing, Colours: []string{piece.Chalk}, RepeatMM: 40}
		_, l := sheathed(t, "mount A B, gap 150mm, square-knot 1", s, shift)
		from, to := l.Sections[1][0]+10, l.Sections[1][1]-10
		p := scene.Render(l, scene.View{PerMM: 6})
		seen := bodies(t, p)
		// Down the middle of the leftmost strand, which is of cord A.
		var x float64
		for i, v := range l.Strands[0].Points {
			if l.Strands[0].Section[i] == 1 {
				x = math.Min(x, v.X)
			}
		}
		var out []float64
		was := ""
		for y := from; y < to; y += 0.1 {
			is := seen.at(100*x, 100*y)
			if was != "" && is != was {
				out = append(out, y)
			}
			was = is
		}
		return out
	}
	at, moved := changes(0), changes(7)
	if len(at) < 5 {
		t.Fatalf("it changes at %v only", at)
	}
	for i := 1; i < len(at); i++ {
		if math.Abs(at[i]-at[i-1]-20) > 0.3 {
			t.Errorf("it changes at %v, which is not every 20 mm", at)
		}
	}
	// This is the leg before the fold or the one after it: it moves up or down.
	by := math.Mod(moved[0]-at[0]+60, 20)
	if math.Min(math.Abs(by-7), math.Abs(by-13)) > 0.3 {
		t.Errorf("a shift of 7 mm moves the changes from %v to %v", at, moved)
	}
}

// What the face does not show of a two-colour sheath the back does: together they show as
// much of either colour.
func TestAPieceTurnedOverShowsTheRestOfItsSheath(t *testing.T) {
	// One strand by itself: one that its neighbours press is not even about its middle.
	_, l := sheathed(t, "mount A hitch=single-end, gap 120mm, overhand", cord.Sheath{Pattern: cord.TwoColour, Colours: []string{piece.Chalk}, RepeatMM: 90}, 0)
	from, to := l.Sections[1][0]+5, l.Sections[1][1]-5
	face := area(t, scene.Render(l, scene.View{PerMM: 6}), from, to)
	back := area(t, scene.Render(l, scene.View{PerMM: 6, Turn: 180}), from, to)
	own, beside := face[piece.Lagoon]+back[piece.Lagoon], face[piece.Chalk]+back[piece.Chalk]
	if math.Abs(own-beside) > 0.03*(own+beside) {
		t.Errorf("both sides show %.1f mm2 of its own colour and %.1f of the other", own, beside)
	}
	if math.Abs(face[piece.Lagoon]-back[piece.Chalk]) > 0.05*own {
		t.Errorf("the face shows %.1f mm2 of one colour, the back %.1f of the other", face[piece.Lagoon], back[piece.Chalk])
	}
}

// The cells of a picture tell the colours that its regions are painted in.
func TestCellsTellWhatIsPainted(t *testing.T) {
	for _, s := range []cord.Sheath{{Pattern: cord.Striped, Colours: []string{piece.Chalk}, RepeatMM: 20}, {Pattern: cord.Changing, Colours: []string{piece.Chalk, piece.Moss}, RepeatMM: 50}} {
		_, l := sheathed(t, "mount A B, square-knot 6", s, 0)
		pic := scene.Render(l, scene.View{PerMM: 10})
		want, painted := area(t, pic, 0, l.Bottom), 0.0
		for _, c := range pic.Colours {
			painted += want[c]
		}
		cells := scene.CellsOf(l, scene.View{}, 10)
		got, all := map[string]float64{}, 0.0
		for i, c := range cells.Colour {
			if c < 0 {
				continue
			}
			if (c < 2) != (int8(c) == cells.Cord[i]) {
				t.Fatalf("colour %d is told of cord %d", c, cells.Cord[i])
			}
			got[pic.Colours[c]] += cells.CellMM * cells.CellMM
			all += cells.CellMM * cells.CellMM
		}
		for c, mm2 := range got {
			if math.Abs(mm2/all-want[c]/painted) > 0.02 {
				t.Errorf("%s: cells tell that %.3f is %s, painted is %.3f", s.Pattern, mm2/all, c, want[c]/painted)
			}
		}
	}
}

// A pattern goes on over the edges of plates: seen in two halves a piece shows what it
// shows as a whole.
func TestAPatternGoesOnFromPlateToPlate(t *testing.T) {
	_, l := sheathed(t, "mount A B, square-knot 4", cord.Sheath{Pattern: cord.TwoColour, Colours: []string{piece.Chalk}, RepeatMM: 35}, 0)
	whole := l
	whole.Cuts = nil
	a, b := bodies(t, scene.Render(l, scene.View{PerMM: 8})), bodies(t, scene.Render(whole, scene.View{PerMM: 8}))
	same, all := 0, 0
	for y := 100 * (l.Sections[1][0] + 3); y < 100*(l.Sections[1][1]-3); y += 23 {
		for x := -900.0; x < 900; x += 23 {
			p, q := a.at(x, y), b.at(x, y)
			if p == "" && q == "" {
				continue
			}
			all++
			if p == q {
				same++
			}
		}
	}
	if float64(same) < 0.97*float64(all) {
		t.Errorf("cut into plates it shows the same at %d of %d places", same, all)
	}
}

// Every pattern draws on every side, its own colours beside those of the cords.
func TestSheathsAreDrawn(t *testing.T) {
	for _, p := range cord.Patterns() {
		_, l := sheathed(t, "mount A B, square-knot 1, gap 24mm, round-braid 2", cord.Sheath{Pattern: p, Colours: []string{piece.Moss}, RepeatMM: 24}, 0)
		for _, turn := range []float64{75} {
			pic := scene.Render(l, scene.View{PerMM: 5, Turn: turn})
			if got := fmt.Sprint(pic.Colours); got != fmt.Sprint([]string{piece.Lagoon, piece.Sand, piece.Moss}) {
				t.Fatalf("the picture has the colours %s", got)
			}
			shown := area(t, pic, 0, l.Bottom)
			if shown[piece.Moss] < 0.01*shown[piece.Lagoon] {
				t.Errorf("%s, turned by %v: %.1f mm2 of it are seen beside %.1f", p, turn, shown[piece.Moss], shown[piece.Lagoon])
			}
		}
		for _, look := range []scene.Look{scene.FromEnd, scene.Unrolled} {
			pic := scene.Render(look.Of(l, 3), scene.View{PerMM: 5})
			if shown := area(t, pic, 0, 60); shown[piece.Moss] == 0 {
				t.Errorf("%s: nothing of it is seen %s", p, look)
			}
		}
	}
}
