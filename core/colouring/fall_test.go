package colouring_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/colouring"
	"nimblebight/core/cord"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// now is the way in which a piece is as it stands.
func now(t *testing.T, d piece.Document) colouring.Way {
	t.Helper()
	a := of(t, d)
	return a.Ways[slices.IndexFunc(a.Ways, func(w colouring.Way) bool { return w.Is })]
}

// What makers say of sinnets holds of what is seen: a square crown sinnet stands in columns
// of colour, in a round one they spiral, and half knots of one hand do too.
func TestColoursRunAsMakersSay(t *testing.T) {
	for line, want := range map[string]colouring.Run{
		"mount A B, crown 8 lay=square":                             colouring.Columns,
		"mount A B, crown 8 lay=round":                              colouring.Spirals,
		"mount A B, half-knot 24":                                   colouring.Spirals,
		"mount A, mount B hitch=laid-behind, switch-knot 6 gap=8mm": colouring.Stripes,
	} {
		if w := now(t, fob(line, lagoon, sand)); w.Runs != want {
			t.Errorf("%s runs in %q, not %q", line, w.Runs, want)
		}
	}
	if w := now(t, fob("mount A B, square-knot 8", lagoon, lagoon)); w.Runs != "" {
		t.Errorf("one colour runs in %q", w.Runs)
	}
}

// A ball of two cords shows one of them on two faces and the other on four.
func TestFacesOfABall(t *testing.T) {
	w := now(t, fob("mount A B hitch=from-knot, monkeys-fist 3 mode=two-cords", lagoon, sand))
	i := slices.IndexFunc(w.Sections, func(s colouring.Said) bool { return s.Section == 1 })
	if i < 0 || !strings.Contains(w.Sections[i].Says, "makes 2 faces") || !strings.Contains(w.Sections[i].Says, "makes 4 faces") {
		t.Errorf("it is said: %+v", w.Sections)
	}
	w = now(t, fob("mount A hitch=from-knot, monkeys-fist 3", lagoon))
	if !strings.Contains(w.Sections[0].Says, "all 6 faces") {
		t.Errorf("of one cord it is said: %+v", w.Sections)
	}
}

// One cord laid behind the other makes all of the row, and the other is tied over: the cut
// follows, and what is tied does not change.
func TestCordsArePutOnInOtherWays(t *testing.T) {
	d := fob("mount A B, square-knot 8, finish singe-and-press", lagoon, sand)
	found := 0
	for _, w := range of(t, d).Ways {
		if len(w.Changes) == 0 {
			continue
		}
		found++
		if !strings.Contains(w.Changes[0], "cord B laid behind, its legs outside") {
			t.Errorf("it is said: %v", w.Changes)
		}
		if n := len(w.Document.Sequence); n != 4 || w.Document.Sequence[2].Do != d.Sequence[1].Do || w.Document.Sequence[2].Count != 8 {
			t.Errorf("%d sections, %+v", n, w.Document.Sequence)
		}
		if most := slices.MaxFunc(w.Shares, func(a, b colouring.Share) int { return int(1000 * (a.Face - b.Face)) }); most.Colour != w.Colours[1] || most.Face < 0.75 {
			t.Errorf("cord B makes the row, but %s shows %.2f of the face", most.Name, most.Face)
		}
		p, err := plan.Make(w.Document, plan.Options{})
		if err != nil || p.Cords[1].NeedsMM < 1.5*p.Cords[0].NeedsMM {
			t.Errorf("the worker needs %.0f mm, the filler %.0f, %v", p.Cords[1].NeedsMM, p.Cords[0].NeedsMM, err)
		}
	}
	if found != 2 {
		t.Errorf("%d ways are put on otherwise", found)
	}
	// And back: from there the cords hang side by side.
	back := of(t, fob("mount A, mount B hitch=laid-behind, square-knot 8", lagoon, sand))
	if !slices.ContainsFunc(back.Ways, func(w colouring.Way) bool {
		return slices.Contains(w.Changes, "all cords side by side") && len(w.Document.Sequence) == 2
	}) {
		t.Error("cords that are laid behind are not put on side by side again")
	}
	// Cords of different kinds keep their places.
	thin := fob("mount A B, square-knot 8", lagoon, sand)
	thin.Cords[1].Stuff = piece.Kernmantle(2.2, sand)
	for _, w := range of(t, thin).Ways {
		if len(w.Changes) > 0 && strings.Contains(w.Changes[0], "behind") {
			t.Errorf("a thin cord is put on otherwise: %v", w.Changes)
		}
	}
}

// Each row begins on either side by itself, and it is said which.
func TestRowsBeginOneByOne(t *testing.T) {
	a := of(t, fob("mount A B, square-knot 4, gap 10mm, half-knot 6", lagoon, sand))
	if want := 2 * 4 * 2; a.All != want { // colours, sides, ways to put on
		t.Errorf("%d ways, want %d", a.All, want)
	}
	said := strings.Join(slices.Concat(changesOf(a)...), "; ")
	if !strings.Contains(said, "section 2, square knot, starts right") {
		t.Errorf("it is said: %s", said)
	}
}

func changesOf(a colouring.Answer) [][]string {
	var out [][]string
	for _, w := range a.Ways {
		out = append(out, w.Changes)
	}
	return out
}

// A cord of the drawer brings the pattern of its sheath with it, and it is drawn and counted
// where that cord falls.
func TestSheathsFallWithTheirCords(t *testing.T) {
	half := piece.Kernmantle(4, chalk)
	half.Sheath = &cord.Sheath{Pattern: cord.TwoColour, Colours: []string{rust}, RepeatMM: 30}
	have := append(drawer(), colouring.Have{Name: "barber", Stuff: half})
	d := fob("mount A B, square-knot 6", lagoon, sand)
	a, err := colouring.Of(d, plan.Options{}, []colouring.Chosen{{Colour: chalk, Name: "barber"}, {Colour: lagoon, Name: "lagoon"}}, colouring.ByContrast, have)
	if err != nil {
		t.Fatal(err)
	}
	for _, w := range a.Ways {
		at := slices.Index(w.Colours, chalk)
		if s := w.Document.Cords[at].Stuff.Sheath; s == nil || w.Document.Cords[1-at].Stuff.Sheath != nil {
			t.Fatalf("the pattern fell elsewhere: %v", w.Colours)
		}
		var own, beside float64
		for _, s := range w.Shares {
			switch s.Colour {
			case chalk:
				own = s.Face + s.Back
			case rust:
				beside = s.Face + s.Back
			}
		}
		// Halves of one cord: about as much of either is seen.
		if beside < 0.6*own || own < 0.6*beside {
			t.Errorf("%v: %.2f of its own colour are seen, %.2f of the other", w.Colours, own, beside)
		}
		if got := scene.Colours(a.Looks[w.Look].Layout.Stuffs); len(got) != len(w.Paints) {
			t.Errorf("it is drawn in %d colours and painted in %d", len(got), len(w.Paints))
		}
	}
}

// A thin accent that follows a pair is seen though it covers little; of cords that are equally
// thick none is called thin.
func TestAnAccentIsSeen(t *testing.T) {
	d := fob("mount A B, gap 8mm, double-diamond accent=C, finish dome", lagoon, sand, rust)
	d.Cords[2].Stuff = piece.Kernmantle(1.2, rust)
	if w := now(t, d); strings.Contains(w.Says, "rust is hidden") || !strings.Contains(w.Says, "rust shows as a thin line") {
		t.Errorf("of an accent it is said: %s", w.Says)
	}
	d = fob("mount A, mount B hitch=laid-behind, square-knot 8, finish singe-and-press", lagoon, sand)
	for _, w := range of(t, d).Ways {
		if strings.Contains(w.Says, "thin line") {
			t.Errorf("of cords that are equally thick it is said: %s", w.Says)
		}
	}
}

// A row whose workers and fillers differ in colour can be tied in halves; where they do not,
// that would change nothing and is not offered.
func TestHalvesOfARow(t *testing.T) {
	d := fob("mount A, mount B hitch=laid-behind, square-knot 9 start=right, finish dome", lagoon, sand)
	a, err := colouring.AlongOf(d, plan.Options{}, drawer())
	if err != nil || len(a.Halves) != 1 {
		t.Fatalf("%+v, %v", a.Halves, err)
	}
	h := a.Halves[0]
	if h.Section != 2 || !strings.Contains(h.Says, "Sand makes the bars of the upper half, lagoon") {
		t.Errorf("%d: %s", h.Section, h.Says)
	}
	knots := 0
	for _, s := range h.Sequence[2:5] {
		knots += s.Count
	}
	if knots != 9 || len(h.Sequence) != len(d.Sequence)+2 {
		t.Errorf("%d knots in %d sections", knots, len(h.Sequence))
	}
	if a, err := colouring.AlongOf(fob("mount A B, square-knot 9", lagoon, sand), plan.Options{}, nil); err != nil || len(a.Halves) != 0 {
		t.Errorf("workers and fillers of the same colours: %+v, %v", a.Halves, err)
	}
}

// A shift moves where the colours of a changing cord land; a whole repeat moves nothing.
func TestWhereARepeatLands(t *testing.T) {
	lands := func(shift float64) string {
		d := fob("mount A, mount B hitch=laid-behind, square-knot 8", lagoon, sand)
		d.Cords[1].Stuff.Sheath = &cord.Sheath{Pattern: cord.Changing, Colours: []string{rust}, RepeatMM: 200}
		d.Cords[1].ShiftMM = shift
		a, err := colouring.AlongOf(d, plan.Options{}, drawer())
		if err != nil || len(a.Cords) != 1 || a.Cords[0].ID != "B" || math.Abs(a.Cords[0].ShiftMM-math.Mod(shift, 200)) > 1e-9 || len(a.Cords[0].Lands) != 1 {
			t.Fatalf("%+v, %v", a, err)
		}
		return a.Cords[0].Lands[0].Says
	}
	first := lands(0)
	if !strings.HasPrefix(first, "Sand") || !strings.Contains(first, "rust from {") {
		t.Errorf("it lands: %s", first)
	}
	if other := lands(100); !strings.HasPrefix(other, "Rust") || !strings.Contains(other, "sand from {") {
		t.Errorf("half a repeat on it lands: %s", other)
	}
	if again := lands(200); again != first {
		t.Errorf("a whole repeat on it lands %s, not %s", again, first)
	}
}
