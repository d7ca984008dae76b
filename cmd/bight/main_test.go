package main

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// bight runs the command with its surroundings made up.
func bight(t *testing.T, in string, args ...string) (out, errs string, code int) {
	t.Helper()
	var o, e bytes.Buffer
	code = run(context.Background(), args, strings.NewReader(in), &o, &e)
	return o.String(), e.String(), code
}

func fobFile(t *testing.T) (file string, d piece.Document) {
	t.Helper()
	d = patterns.All()[0].Document
	b, err := json.Marshal(d)
	if err != nil {
		t.Fatal(err)
	}
	file = filepath.Join(t.TempDir(), "fob.json")
	if err := os.WriteFile(file, b, 0o600); err != nil {
		t.Fatal(err)
	}
	return file, d
}

// The three ways to print a plan say the same of the cut.
func TestPlansSayTheSameInEveryForm(t *testing.T) {
	file, d := fobFile(t)
	want, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	out, errs, code := bight(t, "", "plan", file, "--json")
	var got plan.Plan
	if err := json.Unmarshal([]byte(out), &got); err != nil || code != 0 || errs != "" {
		t.Fatalf("exit %d, %q, %v", code, errs, err)
	}
	if got.LengthMM != want.LengthMM || got.Actions != want.Actions || len(got.Sections) != len(want.Sections) {
		t.Errorf("as JSON %v mm, planned %v", got.LengthMM, want.LengthMM)
	}
	out, _, _ = bight(t, "", "plan", file, "--csv")
	rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
	if err != nil || len(rows) != 1+len(want.Cords) {
		t.Fatalf("%d rows, %v", len(rows), err)
	}
	text, _, _ := bight(t, "", "plan", file, "--text")
	for i, c := range want.Cords {
		cut, err := strconv.ParseFloat(rows[i+1][2], 64)
		if err != nil || rows[i+1][0] != c.ID || cut != c.CutMM || got.Cords[i].CutMM != c.CutMM {
			t.Errorf("cord %s: planned %v, as CSV %v, as JSON %v", c.ID, c.CutMM, rows[i+1], got.Cords[i].CutMM)
		}
		if !strings.Contains(text, fmt.Sprintf("%.0f", c.CutMM)) {
			t.Errorf("the text does not say to cut %v: %s", c.CutMM, text)
		}
	}
	for _, s := range want.Steps {
		for _, a := range s.Actions {
			if !strings.Contains(text, strings.SplitN(a.Text, "{", 2)[0]) {
				t.Errorf("the text lacks the step %q", a.Text)
			}
		}
	}
}

func TestPlanTakesHandAndInches(t *testing.T) {
	file, _ := fobFile(t)
	right, _, _ := bight(t, "", "plan", file)
	left, _, code := bight(t, "", "plan", "--left-handed", file)
	if code != 0 || !strings.Contains(right, "1. Strand 1, from the left") || !strings.Contains(left, "1. Strand 4, from the right") {
		t.Errorf("exit %d; left-handed it begins\n%s", code, left)
	}
	out, _, _ := bight(t, "", "plan", file, "--inch", "--json")
	var p plan.Plan
	if err := json.Unmarshal([]byte(out), &p); err != nil {
		t.Fatal(err)
	}
	for _, c := range p.Cords {
		if n := c.CutMM / plan.QuarterInch; n-float64(int(n+0.5)) > 1e-9 {
			t.Errorf("%s is cut %v quarters of an inch", c.ID, n)
		}
	}
}

func TestWarningsAreReadable(t *testing.T) {
	_, d := fobFile(t)
	d.Cords = append([]piece.Cord{}, d.Cords...)
	d.Cords[1].Legs = piece.Legs{FirstMM: 90}
	b, err := json.Marshal(d)
	if err != nil {
		t.Fatal(err)
	}
	out, _, code := bight(t, string(b), "plan", "-")
	if code != 0 || !strings.Contains(out, " mm before the last knot") || !strings.Contains(out, "(Let the plan find the fold)") || strings.ContainsAny(out, "{}") {
		t.Errorf("exit %d:\n%s", code, out)
	}
}

// A name cannot move the cursor of a terminal nor calculate in a spreadsheet.
func TestNamesStayTexts(t *testing.T) {
	_, d := fobFile(t)
	d.Name = "locker\x1b[2J\a\u202e fob"
	d.Cords = append([]piece.Cord{}, d.Cords...)
	d.Cords[0].ID = "@SUM(A1)"
	d.Sequence = append(d.Sequence[:0:0], d.Sequence...)
	d.Sequence[0] = d.Sequence[0].Put("cords", append([]string{"@SUM(A1)"}, knot.TermsOf(d.Sequence[0]).Cords[1:]...))
	b, err := json.Marshal(d)
	if err != nil {
		t.Fatal(err)
	}
	text, errs, code := bight(t, string(b), "plan", "-", "--text")
	if code != 0 || !strings.Contains(text, `locker\x1b[2J\a\u202e fob`) || strings.ContainsAny(text, "\x1b\a\u202e") {
		t.Errorf("exit %d, %q:\n%q", code, errs, text)
	}
	out, _, _ := bight(t, string(b), "plan", "-", "--csv")
	rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
	if err != nil || len(rows) < 2 || rows[1][0] != "'@SUM(A1)" {
		t.Errorf("as CSV %q, %v", out, err)
	}
}

func TestKnotsListsTheCatalogue(t *testing.T) {
	out, _, code := bight(t, "", "knots", "--json")
	var rows []struct {
		ID, Name, Family string
		OtherNames       []string `json:"other_names"`
	}
	if err := json.Unmarshal([]byte(out), &rows); err != nil || code != 0 {
		t.Fatalf("exit %d, %v", code, err)
	}
	if len(rows) != len(knot.All()) {
		t.Errorf("%d of %d knots are listed", len(rows), len(knot.All()))
	}
	for _, r := range rows {
		if r.OtherNames == nil || r.Family == "" {
			t.Errorf("%s: %+v", r.ID, r)
		}
	}
	plainList, _, _ := bight(t, "", "knots")
	if strings.Count(plainList, "\n") != len(rows) {
		t.Errorf("as a list:\n%s", plainList)
	}
}

func TestTightenPrintsWhatItFound(t *testing.T) {
	list, _, code := bight(t, "", "tighten", "--list")
	for _, name := range []string{"hopf-link", "trefoil", "figure-eight", "cinquefoil", "three-twist", "borromean-rings", "overhand", "square-knot", "snake-knot", "two-strand-diamond", "crown-sinnet"} {
		if !strings.Contains(list, name) {
			t.Errorf("%s is not listed", name)
		}
	}
	if code != 0 {
		t.Errorf("exit %d", code)
	}
	for _, name := range []string{"hopf-link", "snake-knot"} {
		out, errs, code := bight(t, "", "tighten", name, "--json")
		var found map[string]any
		if err := json.Unmarshal([]byte(out), &found); err != nil || code != 0 {
			t.Fatalf("%s: exit %d, %v, %s", name, code, err, errs)
		}
		for _, key := range []string{"name", "length_over_radius", "published", "min_gap_over_diameter", "nodes", "seconds", "crossings", "determinant"} {
			if _, ok := found[key]; !ok {
				t.Errorf("%s: no %s in %s", name, key, out)
			}
		}
		if l, p := found["length_over_radius"].(float64), found["published"].(float64); l < 0.98*p || l > 1.02*p {
			t.Errorf("%s: %v, published %v", name, l, p)
		}
	}
	for _, args := range [][]string{{"tighten"}, {"tighten", "granny"}, {"tighten", "trefoil", "twice"}} {
		if _, errs, code := bight(t, "", args...); code != exitBad || strings.Count(strings.TrimSpace(errs), "\n") != 0 || errs == "" {
			t.Errorf("bight %v: exit %d, %q", args, code, errs)
		}
	}
}

func TestInterruptedWorkIsAFailureOfOurs(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	var o, e bytes.Buffer
	if code := run(ctx, []string{"tighten", "trefoil", "--json"}, nil, &o, &e); code != exitOurs {
		t.Errorf("exit %d: %s", code, e.String())
	}
}

func TestEveryCommandHelps(t *testing.T) {
	for _, c := range commands() {
		out, errs, code := bight(t, "", c.name, "--help")
		if code != 0 || errs != "" || !strings.Contains(out, strings.Split(c.example, "\n")[0]) {
			t.Errorf("bight %s --help: exit %d, %q, %q", c.name, code, out, errs)
		}
	}
	if _, _, code := bight(t, ""); code != exitBad {
		t.Errorf("without a command it ends with %d", code)
	}
}

func TestPlanTakesRiskAndHold(t *testing.T) {
	file, _ := fobFile(t)
	cut := func(args ...string) float64 {
		t.Helper()
		out, said, code := bight(t, "", append([]string{"plan", file, "--json"}, args...)...)
		var p plan.Plan
		if err := json.Unmarshal([]byte(out), &p); err != nil || code != 0 {
			t.Fatalf("%v: exit %d, %v, %s", args, code, err, said)
		}
		return p.Cords[0].CutMM
	}
	if usual, sure := cut(), cut("--one-in", "200"); sure <= usual {
		t.Errorf("once in 200 is cut %v mm, once in 20 %v", sure, usual)
	}
	if fingers, needle := cut("--hold", "fingers"), cut("--hold", "needle"); needle >= fingers {
		t.Errorf("with a needle %v mm are cut, with fingers %v", needle, fingers)
	}
	for _, args := range [][]string{{"--one-in", "30"}, {"--hold", "teeth"}} {
		if _, said, code := bight(t, "", append([]string{"plan", file}, args...)...); code != 2 || !strings.Contains(said, args[0]) {
			t.Errorf("%v: exit %d, %q", args, code, said)
		}
	}
}
