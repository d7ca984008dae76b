package scene_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
	"nimblebight/formats/svg"
)

// drawn plans and draws a typed line on two cords.
func drawn(t *testing.T, line string, o plan.Options, v scene.View) (plan.Plan, scene.Picture) {
	t.Helper()
	d := notation.With(piece.Begin("drawn", "charm", piece.SplitRing(40, 2), 0), line,
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, "#0f5c63")}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, "#e3c88f")})
	p, err := plan.Make(d, o)
	if err != nil {
		t.Fatal(err)
	}
	return p, scene.Render(p.Layout(), v)
}

// long is a line of many sections.
func long(sections, count int) string {
	parts := []string{"mount A B"}
	for i := range sections {
		if i%2 == 0 {
			parts = append(parts, fmt.Sprintf("square-knot %d", count))
		} else {
			parts = append(parts, "gap 8mm")
		}
	}
	return strings.Join(append(parts, "finish dome"), ", ")
}

// Plates lie one under the other without a gap, and each joins its neighbour.
func TestPlatesLeaveNoGap(t *testing.T) {
	for _, per := range []float64{0.5, 2, 9} {
		for _, back := range []bool{false, true} {
			_, pic := drawn(t, long(12, 3), plan.Options{}, scene.View{PerMM: per, Turn: turn(back)})
			for i := 1; i < len(pic.Places); i++ {
				a, b := pic.Places[i-1], pic.Places[i]
				end, begin := a.Y+pic.Plates[a.Plate].Bottom, b.Y+pic.Plates[b.Plate].Top
				if begin > end {
					t.Errorf("at %g px a mm plate %d ends at %d, the next begins at %d", per, i, end, begin)
				}
				if b.Y <= a.Y && i > 1 {
					t.Errorf("plate %d lies at %d, the one before at %d", i, b.Y, a.Y)
				}
			}
			for name := range pic.Plates {
				used := false
				for _, at := range pic.Places {
					used = used || at.Plate == name
				}
				if !used {
					t.Errorf("plate %s is laid nowhere", name)
				}
			}
		}
	}
}

// A plate is as wide as all that it shows, also where only the side of a strand hangs into it.
func TestPlatesAreAsWideAsWhatTheyShow(t *testing.T) {
	const off = 20 // hundredths of a millimetre: lines are smoothed
	for _, along := range []float64{0.5, 0.55, 0.6, 0.65, 0.7} {
		_, pic := drawn(t, "mount A B, overhand of=all", plan.Options{Until: 3, Along: along}, scene.View{PerMM: 8})
		for n, at := range pic.Places {
			plate := pic.Plates[at.Plate]
			for _, l := range plate.Layers {
				if l.Kind != scene.Body && l.Kind != scene.Lit {
					continue
				}
				for _, pts := range outlines(l, plate.Per) {
					for _, v := range pts {
						if v[1] > float64(plate.Top) && v[1] < float64(plate.Bottom) && (v[0] < float64(plate.Left-off) || v[0] > float64(plate.Right+off)) {
							t.Fatalf("at %.2f plate %d reaches from %d to %d, and shows %.0f", along, n, plate.Left, plate.Right, v[0])
						}
					}
				}
			}
		}
	}
}

// Seen from afar whole sections go together, and an edit leaves most plates as
// they were.
func TestFromAfarPlatesAreFew(t *testing.T) {
	_, near := drawn(t, long(80, 2), plan.Options{}, scene.View{PerMM: 6})
	_, far := drawn(t, long(80, 2), plan.Options{}, scene.View{PerMM: 0.5})
	if len(far.Places)*3 > len(near.Places) {
		t.Errorf("%d places near, %d from afar", len(near.Places), len(far.Places))
	}
	line := strings.Replace(long(80, 2), "square-knot 2", "square-knot 5", 1)
	_, edited := drawn(t, line, plan.Options{}, scene.View{PerMM: 0.5})
	fresh := 0
	for name := range edited.Plates {
		if _, ok := far.Plates[name]; !ok {
			fresh++
		}
	}
	if fresh > 3 || len(edited.Places) != len(far.Places) {
		t.Errorf("an edit of one section makes %d of %d plates anew", fresh, len(edited.Plates))
	}
}

// A window shows its stretch and nothing of the rest, and frames it.
func TestAWindowShowsItsStretch(t *testing.T) {
	p, whole := drawn(t, long(6, 4), plan.Options{}, scene.View{PerMM: 5})
	from, to := p.Sections[2].TopMM, p.Sections[4].TopMM
	_, part := drawn(t, long(6, 4), plan.Options{}, scene.View{PerMM: 5, From: from, To: to})
	if part.Height >= whole.Height || len(part.Places) >= len(whole.Places) {
		t.Errorf("a window of %.0f mm shows %d of %d plates", to-from, len(part.Places), len(whole.Places))
	}
	if got, want := float64(part.Height)/100, to-from; got < want-1 || got > want+3 {
		t.Errorf("a window of %.1f mm is framed %.1f high", want, got)
	}
	for _, at := range part.Places {
		if _, ok := whole.Plates[at.Plate]; !ok {
			t.Error("a window is drawn from plates of its own")
		}
	}
}

// A bead hides the strands that run through it and shows in its own colour.
func TestABeadHidesWhatRunsThroughIt(t *testing.T) {
	for _, back := range []bool{false, true} {
		p, pic := drawn(t, "mount A B, bead hole=8mm long=12mm wide=14mm colour=#c04040, finish dome", plan.Options{}, scene.View{PerMM: 6, Turn: turn(back)})
		b := p.Layout().Beads[0]
		seen := area(t, pic, b.At.Y-3, b.At.Y+3)
		if all := 6 * 13.0; seen["#c04040"] < 0.85*all {
			t.Errorf("back %v: of a bead 14 mm wide %.0f mm² are seen over 6 mm", back, seen["#c04040"])
		}
		for c, mm := range seen {
			if c != "#c04040" && mm > 4 {
				t.Errorf("back %v: %s shows %.1f mm² through the bead", back, c, mm)
			}
		}
	}
}

// A left-handed maker's picture is the mirror of the other, colour by colour.
func TestMirroredPictures(t *testing.T) {
	for _, line := range []string{"mount A B, square-knot 4, gap 8mm, switch-knot 2, finish dome", "mount A B, gap 9mm, berry-knot 1, overhand, finish dome", "mount A B, double-half-hitch, overhand of=one-leg, finish dome"} {
		v := scene.View{PerMM: 5}
		_, right := drawn(t, line, plan.Options{}, v)
		_, left := drawn(t, line, plan.Options{LeftHanded: true}, v)
		if d := right.Width - left.Width; d < -30 || d > 30 {
			t.Errorf("%s: %d wide, mirrored %d", line, right.Width, left.Width)
		}
		a, b := area(t, right, -5, 200), area(t, left, -5, 200)
		for c, mm := range a {
			if diff := b[c] - mm; mm > 20 && (diff > 0.05*mm || diff < -0.05*mm) {
				t.Errorf("%s: %s covers %.0f mm², mirrored %.0f", line, c, mm, b[c])
			}
		}
	}
}

// Between rows side by side, and between groups one under the other, the mat is
// seen and no dark ground.
func TestTheMatIsSeenBetweenRows(t *testing.T) {
	d := notation.With(piece.Begin("rows", "charm", piece.SplitRing(80, 2), 0), "mount A B C D, rows 1-4:(square-knot 5) 5-8:(square-knot 5), finish dome")
	var stuffs []cord.Stuff
	for i := range 4 {
		stuffs = append(stuffs, piece.Kernmantle(4, apart[i]))
		d.Cords = append(d.Cords, piece.Cord{ID: string(rune('A' + i)), Stuff: stuffs[i]})
	}
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	pic := bodies(t, scene.Render(p.Layout(), scene.View{PerMM: 6}))
	rows := p.Sections[1]
	_, grouped := drawn(t, "mount A B, 2x(square-knot 3, gap 14mm), finish dome", plan.Options{}, scene.View{PerMM: 6})
	for c, mm := range area(t, grouped, p.Sections[1].TopMM+42, p.Sections[1].TopMM+46) {
		if c != "#0f5c63" && c != "#e3c88f" && mm > 1 {
			t.Errorf("in a gap %.1f mm² are %s", mm, c)
		}
	}
	for y := rows.TopMM + 25; y < rows.TopMM+rows.HeightMM-12; y++ {
		if c := pic.at(0, 100*y); c != "" {
			t.Fatalf("at %.0f mm there is %s between the rows", y, c)
		}
	}
}

// A square knot of a row, seen at 40 pixels a cord, is a file of 10 KB or less.
func TestACellIsSmall(t *testing.T) {
	_, pic := drawn(t, "mount A B, square-knot 9, finish dome", plan.Options{}, scene.View{PerMM: 40 / 3.1})
	cells := 0
	for i, at := range pic.Places {
		if i < 3 || i > len(pic.Places)-3 { // how it hangs and how it ends
			continue
		}
		cells++
		var b strings.Builder
		one := pic
		one.Places = []scene.Place{at}
		if err := svg.Write(&b, one); err != nil {
			t.Fatal(err)
		}
		if b.Len() > 10<<10 {
			t.Errorf("knot %d takes %.1f KB", i, float64(b.Len())/1024)
		}
	}
	if cells < 4 {
		t.Errorf("only %d knots were looked at", cells)
	}
}

// In other colours a piece is the same plates.
func TestRecolouringDrawsNothing(t *testing.T) {
	draw := func(a, b string) scene.Picture {
		d := notation.With(piece.Begin("drawn", "charm", piece.SplitRing(40, 2), 0), "mount A B, square-knot 4, overhand, finish dome",
			piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, a)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, b)})
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		return scene.Render(p.Layout(), scene.View{PerMM: 5})
	}
	one, other := draw("#0f5c63", "#e3c88f"), draw("#b4532a", "#22313f")
	for i, at := range one.Places {
		if at != other.Places[i] {
			t.Errorf("plate %d is another in other colours", i)
		}
	}
	if fmt.Sprint(one.Colours) == fmt.Sprint(other.Colours) {
		t.Error("the colours are not told")
	}
}

// A stretch that cannot be drawn is told with its place and reason, and the rest of
// the picture stands.
func TestAFaultCostsItsStretch(t *testing.T) {
	p, whole := drawn(t, long(6, 3), plan.Options{}, scene.View{PerMM: 5})
	l := p.Layout()
	hurt := l.Strands[0].Points
	for i, q := range hurt {
		if y := (p.Sections[3].TopMM + p.Sections[4].TopMM) / 2; q.Y > y && q.Y < y+2 {
			hurt[i].X = math.NaN()
		}
	}
	scene.Forget()
	pic := scene.Render(l, scene.View{PerMM: 5})
	if len(pic.Faults) == 0 {
		t.Fatal("nothing is said of it")
	}
	for _, f := range pic.Faults {
		if f.Why == "" || f.Bottom <= f.Top || f.Section < 0 {
			t.Errorf("it is said that %+v", f)
		}
	}
	if kept := len(pic.Places); kept < len(whole.Places)/2 || kept >= len(whole.Places) {
		t.Errorf("of %d plates %d stand", len(whole.Places), kept)
	}
}
