package plan_test

import (
	"fmt"
	"os"
	"regexp"
	"strings"
	"testing"
	"unicode"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// lengths are the places in a text that are shown in the maker's units.
var lengths = regexp.MustCompile(`\{-?[0-9]+(\.[0-9])?mm\}|\{(length|fold)\}`)

// sentence tells what is wrong with a text that a maker reads.
func sentence(s string) string {
	plain := strings.TrimSpace(lengths.ReplaceAllString(s, "1 mm"))
	switch first := []rune(plain); {
	case plain == "":
		return "is empty"
	case strings.ContainsAny(plain, "{}"):
		return "holds a length that is not shown"
	case strings.Contains(plain, "%!") || strings.Contains(plain, "NaN") || strings.Contains(plain, "Inf"):
		return "was not filled in"
	case strings.Contains(plain, "  ") || strings.Contains(plain, " ,") || strings.Contains(plain, " ."):
		return "has a hole in it"
	case !unicode.IsUpper(first[0]) && !unicode.IsDigit(first[0]):
		return "begins small"
	case !strings.HasSuffix(plain, "."):
		return "does not end"
	case strings.Contains(plain, "1 strands") || strings.Contains(plain, "1 cords") || strings.Contains(plain, "1 turns") || strings.Contains(plain, "1 knots"):
		if !regexp.MustCompile(`[0-9.]1 (strands|cords|turns|knots)`).MatchString(plain) {
			return "says one in the plural"
		}
	}
	return ""
}

// Whatever a plan says is a whole sentence, for every knot, pattern and hand.
func TestWhatMakersReadAreSentences(t *testing.T) {
	docs := map[string]piece.Document{}
	for _, k := range knot.All() {
		d, _, err := patterns.Sample(k.ID)
		if err != nil {
			t.Fatal(err)
		}
		docs[k.ID] = d
	}
	for _, p := range patterns.All() {
		docs[p.ID] = p.Document
	}
	seen := 0
	for name, d := range docs {
		for _, left := range []bool{false, true} {
			p := make1(t, d, plan.Options{LeftHanded: left})
			check := func(where, s string) {
				seen++
				if why := sentence(s); why != "" {
					t.Errorf("%s, %s: %q %s", name, where, s, why)
				}
			}
			for _, s := range p.Steps {
				for n, a := range s.Actions {
					check(fmt.Sprintf("step %d of %s", n+1, s.Do), a.Text)
					if a.Detail != "" {
						check(fmt.Sprintf("detail %d of %s", n+1, s.Do), a.Detail)
					}
					if a.Gate != "" {
						check(fmt.Sprintf("gate %d of %s", n+1, s.Do), a.Gate)
					}
				}
			}
			for _, c := range p.Checks {
				check("a check", c.Message)
			}
			for _, c := range p.Cautions {
				check("a caution", c.Says)
			}
			for _, w := range p.Warnings {
				check("a warning", w.Message)
			}
			for _, a := range p.Ready {
				check("a move on the table", a.Text)
				check("a move on the table", a.Detail)
			}
			for _, c := range p.Cords {
				if c.Measure != "" {
					check("how it is measured", c.Measure)
				}
			}
		}
	}
	if seen < 500 {
		t.Errorf("only %d texts were read", seen)
	}
}

// Whatever ball answers a question can be hung as a piece, in any stuff and
// mode: it is planned without a refusal, and as many strands leave the ball as
// were asked for.
func TestEveryAnswerCanBeHung(t *testing.T) {
	stuffs := []cord.Stuff{
		piece.Kernmantle(4, "#0f5c63"), piece.Cotton(5, "#e9e4d6"),
		{Make: "leather", Material: "leather", DiameterMM: 3, Colour: "#7a4a2b"},
		{Make: "solid-braid", Material: "polyester", DiameterMM: 3, Colour: "#3e6b8a"},
	}
	hung := 0
	for _, s := range stuffs {
		for _, mode := range ball.Modes() {
			for _, tail := range []bool{false, true} {
				for p := ball.LeastPasses; p <= ball.MostPasses; p += 2 {
					a := ball.Ask{Cord: ball.Of(s, s.Figures()), Passes: p, Mode: mode, Tail: tail}
					b, err := ball.Make(a)
					if err != nil { // no such ball, so none to hang
						continue
					}
					hung++
					a.Core = b.Core
					d := patterns.OfBall(a, []cord.Stuff{s, s})
					if ps := d.Check(); len(ps) > 0 {
						t.Errorf("%s, %s of %d: %v", s.Make, mode, p, ps)
						continue
					}
					pl, err := plan.Make(d, plan.Options{})
					if err != nil {
						t.Errorf("%s, %s of %d: %v", s.Make, mode, p, err)
						continue
					}
					if n := len(pl.Sections[1].OrderAfter); n != a.Strands() {
						t.Errorf("%s, %s of %d: %d strands leave the ball, %d were asked for", s.Make, mode, p, n, a.Strands())
					}
					if pl.WeightG <= b.WeightG || pl.LengthMM <= b.FaceMM {
						t.Errorf("%s, %s of %d: the piece weighs %.1f g and is %.0f mm long, its ball %.1f g and %.0f mm", s.Make, mode, p, pl.WeightG, pl.LengthMM, b.WeightG, b.FaceMM)
					}
				}
			}
		}
	}
	if hung < 40 {
		t.Errorf("only %d balls were hung", hung)
	}
}

// The typed lines of the README work on a new fob.
func TestTheReadmesLinesWorkOnANewFob(t *testing.T) {
	b, err := os.ReadFile("../../README.md")
	if err != nil {
		t.Fatal(err)
	}
	_, rest, _ := strings.Cut(string(b), "## The typed line")
	part, _, _ := strings.Cut(rest, "\n## ")
	lines := 0
	for _, line := range strings.Split(part, "\n") {
		if !strings.HasPrefix(line, "    ") {
			continue
		}
		lines++
		d := patterns.All()[0].Document
		if d.Sequence, err = notation.Respell(d.Sequence, strings.TrimSpace(line)); err != nil {
			t.Errorf("%s: %v", line, err)
			continue
		}
		if _, err := plan.Make(d, plan.Options{}); err != nil {
			t.Errorf("%s: %v", line, err)
		}
	}
	if lines < 4 {
		t.Errorf("only %d lines were found", lines)
	}
}
