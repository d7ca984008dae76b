package plan_test

import (
	"errors"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/caution"
	"nimblebight/core/knots/ball"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// from is a piece of a typed line on cords of 4 mm kernmantle.
func from(t *testing.T, line string, cords ...string) piece.Document {
	t.Helper()
	seq, err := notation.Parse(line)
	if err != nil {
		t.Fatal(err)
	}
	d := piece.Begin("a ball", "fist", piece.SplitRing(30, 2), 0)
	for _, id := range cords {
		d.Cords = append(d.Cords, piece.Cord{ID: id, Stuff: piece.Kernmantle(4, "#0f5c63")})
	}
	d.Sequence = seq
	return d
}

// A piece that is tied from its ball on hangs from its ring, the ball lowest,
// and is as long as it hangs; in hand it begins with the ball.
func TestABallHangsLowest(t *testing.T) {
	for _, line := range []string{
		"mount A B hitch=from-knot, monkeys-fist 3 mode=two-cords, snake-knot 6, finish fuse length=50mm",
		"mount A hitch=from-knot, monkeys-fist 4 core=wood, coil-loop 6",
	} {
		ids := []string{"A", "B"}[:1+strings.Count(line, " B ")]
		p := make1(t, from(t, line, ids...), plan.Options{})
		l := p.Layout()
		if len(l.Cores) != 1 || l.Hardware.Type != "split-ring" {
			t.Fatalf("%s: %d cores, hardware %s", line, len(l.Cores), l.Hardware.Type)
		}
		core := l.Cores[0]
		if ball := l.Sections[1]; core.At.Y < ball[0] || core.At.Y > ball[1] || math.Abs(ball[1]-p.LengthMM) > 0.1 {
			t.Errorf("%s: the core is at %.1f, the ball from %.1f to %.1f, the piece %.1f long", line, core.At.Y, ball[0], ball[1], p.LengthMM)
		}
		if last := l.Sections[len(l.Sections)-1]; last[1] > l.Sections[1][0] {
			t.Errorf("%s: what was tied last lies at %v, the ball at %v", line, last, l.Sections[1])
		}
		hand := make1(t, from(t, line, ids...), plan.Options{Until: 2}).Layout()
		if hand.Hardware.Type != "none" || hand.Sections[1][0] != 0 {
			t.Errorf("%s: in hand it hangs on %s, the ball from %.1f", line, hand.Hardware.Type, hand.Sections[1][0])
		}
	}
}

// What a plan cuts for a ball is what the ball takes, by as much looser as hands
// are, and what is hidden in the stopper besides.
func TestThePlanTakesTheBallsCord(t *testing.T) {
	d := from(t, "mount A hitch=from-knot, monkeys-fist 4 core=wood size=12mm, coil-loop 6", "A")
	p := make1(t, d, plan.Options{})
	b, err := ball.Make(ball.Ask{Cord: ball.Of(d.Cords[0].Stuff, d.Cords[0].Stuff.Figures()), Passes: 4, Mode: ball.OneCord, Core: ball.Core{Kind: ball.Wood, DiameterMM: 12}})
	if err != nil {
		t.Fatal(err)
	}
	if use := p.Sections[1].Use[0].MM; use < b.CordMM || use > 1.12*b.CordMM {
		t.Errorf("the plan gives the ball %.0f mm, it takes %.0f", use, b.CordMM)
	}
	if c := p.Cords[0]; c.Role != "strand" || c.FoldAtMM != 0 || c.CutMM <= c.NeedsMM || !strings.Contains(c.Measure, "not folded") {
		t.Errorf("%+v", c)
	}
	two := from(t, "mount A B hitch=from-knot, monkeys-fist 4 mode=two-cords, snake-knot 4, finish fuse", "A", "B")
	two.Cords[1].JoinedTo = "A"
	q := make1(t, two, plan.Options{})
	if !strings.Contains(q.Cords[1].Measure, "fuse it end to end with cord A") {
		t.Errorf("%s", q.Cords[1].Measure)
	}
	ball, err := ball.Make(ball.Ask{Cord: ball.Of(two.Cords[0].Stuff, two.Cords[0].Stuff.Figures()), Passes: 4, Mode: ball.TwoCords})
	if err != nil {
		t.Fatal(err)
	}
	for i, u := range q.Sections[1].Use {
		if u.MM <= 1.05*ball.CordsMM[i] {
			t.Errorf("cord %d gets %.0f mm for a ball of %.0f and half a stopper", i+1, u.MM, ball.CordsMM[i])
		}
	}
}

func TestWarningsOfABallHaveAWayOut(t *testing.T) {
	d := from(t, "mount A hitch=from-knot, monkeys-fist 4 core=wood size=9mm, coil-loop 6", "A")
	p := make1(t, d, plan.Options{})
	if len(p.Warnings) == 0 || p.Warnings[0].Code != "core-small" || p.Warnings[0].Fix == nil {
		t.Fatalf("%+v", p.Warnings)
	}
	mm, _ := p.Warnings[0].Fix.Set[0].Value.(float64)
	d.Sequence[1] = d.Sequence[1].Put("core.diameter_mm", mm)
	if p := make1(t, d, plan.Options{}); len(p.Warnings) != 0 {
		t.Errorf("on a core of %v mm: %+v", mm, p.Warnings)
	}
}

func TestWhatIsNoBallIsRefused(t *testing.T) {
	for _, c := range []struct{ line, path, says string }{
		{"mount A hitch=from-knot, square-knot 3", "sequence[0].hitch", "no ball comes next"},
		{"mount A, monkeys-fist 3", "sequence[1].do", "tied first"},
		{"mount A hitch=from-knot, monkeys-fist 3 mode=two-cords", "sequence[1].mode", "takes 2 cords"},
		{"mount A B hitch=from-knot, monkeys-fist 3", "sequence[1].mode", "takes 1 cord"},
		{"mount A hitch=from-knot, monkeys-fist 3 size=60mm", "sequence[1]", "slide off"},
		{"mount A B hitch=from-knot, rope-ball 2 side=3", "sequence[1].strands_per_pass", "takes 3 cords"},
		{"mount A B hitch=from-knot, rope-ball 2 side=2 former=900mm", "sequence[1].former_mm", "lies bare"},
	} {
		_, err := plan.Make(from(t, c.line, "A", "B"), plan.Options{})
		var ps piece.Problems
		if !errors.As(err, &ps) || !strings.HasPrefix(ps[0].Path, c.path) || !strings.Contains(ps[0].Message, c.says) {
			t.Errorf("%s: %v", c.line, err)
		}
	}
}

// A hard, heavy core is told before anything is cut, and the softer one that is
// offered takes the warning away; what a child could swallow is told either way.
func TestAHardCoreIsToldWithASofterOne(t *testing.T) {
	d := from(t, "mount A hitch=from-knot, monkeys-fist 5 core=steel, coil-loop 6", "A")
	p := make1(t, d, plan.Options{})
	if len(p.Warnings) != 1 || p.Warnings[0].Code != "hard-core" || p.Warnings[0].Fix == nil || !strings.Contains(p.Warnings[0].Message, "local law") {
		t.Fatalf("%+v", p.Warnings)
	}
	kind, _ := p.Warnings[0].Fix.Set[0].Value.(string)
	d.Sequence[1] = d.Sequence[1].Put("core.kind", kind)
	soft := make1(t, d, plan.Options{})
	if len(soft.Warnings) != 0 || soft.WeightG >= p.WeightG {
		t.Errorf("with %s: %+v, %.1f g of %.1f g", kind, soft.Warnings, soft.WeightG, p.WeightG)
	}
	for _, p := range []plan.Plan{p, soft} {
		if !slices.ContainsFunc(p.Cautions, func(c caution.Caution) bool {
			return c.ID == caution.Choking && strings.Contains(c.Says, "small child could swallow")
		}) {
			t.Errorf("%v", p.Cautions)
		}
	}
}

// A napkin ring hangs on nothing and is as long as it is high; cords that would
// hang on a ring are refused there, and the way out mends it.
func TestWhatHangsOnNothing(t *testing.T) {
	d := from(t, "mount A B C hitch=from-knot, rope-ball 1 side=3 former=34mm", "A", "B", "C")
	d.Purpose.HangsOn.Type = "none"
	p := make1(t, d, plan.Options{})
	r, err := ball.MakeRope(ball.RopeAsk{Cord: ball.Of(d.Cords[0].Stuff, d.Cords[0].Stuff.Figures()), Strands: 3, Rounds: 1, FormerMM: 34})
	if err != nil {
		t.Fatal(err)
	}
	if math.Abs(p.LengthMM-r.HeightMM) > 0.1*r.HeightMM || p.LengthMM >= r.OuterMM || len(p.Warnings) > 0 || len(p.Layout().Cores) > 0 {
		t.Errorf("%.1f mm long, %.1f high, %.1f wide, %d cores: %+v", p.LengthMM, r.HeightMM, r.OuterMM, len(p.Layout().Cores), p.Warnings)
	}
	for i, c := range p.Cords {
		takes := r.CordsMM[i] + 2*r.TuckMM
		if use := p.Sections[1].Use[i].MM; use < takes || use > 1.12*takes || c.CutMM <= use {
			t.Errorf("strand %s takes %.0f mm, the plan gives it %.0f and cuts %.0f", c.ID, takes, use, c.CutMM)
		}
	}
	said := strings.Join(wordsOf(p), "\n")
	for _, want := range []string{"mandrel", "4 bights", "off its mandrel", "Tuck both ends"} {
		if !strings.Contains(said, want) {
			t.Errorf("its steps say nothing of %q:\n%s", want, said)
		}
	}
	for line, path := range map[string]string{
		"mount A B, square-knot 3, finish dome":                "sequence[0].hitch",
		"mount A hitch=from-knot, monkeys-fist 4, coil-loop 6": "sequence[2].do",
	} {
		d := from(t, line, "A", "B")
		d.Purpose.HangsOn.Type = "none"
		_, err := plan.Make(d, plan.Options{})
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Path != path || ps[0].Fix == nil {
			t.Errorf("%s: %v", line, err)
			continue
		}
		d.Purpose.HangsOn.Type, _ = ps[0].Fix.Set[0].Value.(string)
		make1(t, d, plan.Options{})
	}
}

// wordsOf is what a plan's steps tell the maker.
func wordsOf(p plan.Plan) (out []string) {
	for _, s := range p.Steps {
		for _, a := range s.Actions {
			out = append(out, a.Text+" "+a.Detail)
		}
	}
	return out
}
