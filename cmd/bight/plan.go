package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"
	"strconv"
	"strings"
	"text/tabwriter"
	"unicode"
	"unicode/utf8"

	"nimblebight/core/gauge"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/shapes"
	"nimblebight/core/units"
	"nimblebight/formats/csv"
	"nimblebight/formats/document"
)

func runPlan(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
	fs := flags("plan", out)
	asJSON := fs.Bool("json", false, "print the whole plan as JSON")
	asCSV := fs.Bool("csv", false, "print the cut list as CSV")
	asText := fs.Bool("text", false, "print the cut list and the steps to read (the default)")
	left := fs.Bool("left-handed", false, "tie it mirrored")
	inch := fs.Bool("inch", false, "work in inches: round cuts up to a quarter, folds to an eighth")
	oneIn := fs.Int("one-in", int(gauge.DefaultRisk), "cut so that one piece in so many runs short: 10, 20, 40 or 200")
	hold := fs.String("hold", string(piece.Fingers), "what ends are held with for the last knot: fingers, needle or haemostat")
	exact := fs.Bool("exact", false, "wait till every knot is drawn up for just these cords, where a near shape would stand for it")
	words, err := parse(fs, args, 1)
	if err != nil {
		return err
	}
	if len(words) == 0 {
		return badInput{errors.New("plan needs a piece file, or - for standard input")}
	}
	if n := b2i(*asJSON) + b2i(*asCSV) + b2i(*asText); n > 1 {
		return badInput{errors.New("choose one of --json, --csv and --text")}
	}
	if !gauge.Risk(*oneIn).Valid() {
		return badInput{fmt.Errorf("--one-in is %d; a piece runs short once in one of %v", *oneIn, gauge.Risks)}
	}
	if !slices.Contains(piece.Tools(), piece.Tool(*hold)) {
		return badInput{fmt.Errorf("--hold is %q; an end is held with one of %v", *hold, piece.Tools())}
	}
	b, err := readFile(words[0], in)
	if err != nil {
		return badInput{err}
	}
	d, err := document.Read(b)
	if err != nil {
		return badInput{fmt.Errorf("%s: %w", words[0], err)}
	}
	o := plan.Options{LeftHanded: *left, OneIn: gauge.Risk(*oneIn), Hold: piece.Tool(*hold)}
	if *inch {
		o.RoundUpMM, o.FoldToMM = plan.QuarterInch, plan.EighthInch
	}
	p, err := plan.Make(d, o)
	if err == nil && *exact && len(p.Rough) > 0 { // drawn up now, and planned anew
		if err = shapes.DrawLive(ctx, p.ToDraw(), func(shapes.State) {}); err == nil {
			p, err = plan.Make(d, o)
		}
	}
	if err != nil {
		return badInput{fmt.Errorf("%s: %w", words[0], err)}
	}
	switch {
	case *asJSON:
		e := json.NewEncoder(out)
		e.SetIndent("", "  ")
		return e.Encode(p)
	case *asCSV:
		return csv.Cuts(out, p)
	}
	return planText(out, p, *inch)
}

func b2i(b bool) int {
	if b {
		return 1
	}
	return 0
}

func readFile(name string, in io.Reader) ([]byte, error) {
	const most = 8 << 20
	r := in
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return nil, err
		}
		defer f.Close()
		r = f
	}
	b, err := io.ReadAll(io.LimitReader(r, most+1))
	if err == nil && len(b) > most {
		err = fmt.Errorf("%s is larger than 8 MB; that is not a piece", name)
	}
	return b, err
}

// printable is a text with its control characters written out, so that a name
// cannot move the cursor or colour the terminal.
func printable(s string) string {
	var b strings.Builder
	for _, r := range s {
		if r == '\n' || (unicode.IsPrint(r) && r != utf8.RuneError) {
			b.WriteRune(r)
			continue
		}
		b.WriteString(strings.Trim(strconv.QuoteRuneToASCII(r), "'"))
	}
	return b.String()
}

func planText(to io.Writer, p plan.Plan, inch bool) error {
	var b strings.Builder
	out := &b
	fmt.Fprintf(out, "%s: %s long, %s wide, %.1f g\n%s\n\n", p.Name, units.Length(p.LengthMM, inch), units.Length(p.WidthMM, inch), p.WeightG, p.Notation)
	t := tabwriter.NewWriter(out, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(t, "cord\tneeds\tcut\tleft\tspread\tfold\t")
	for _, c := range p.Cords {
		fold := "none"
		if c.FoldAtMM > 0 {
			fold = fmt.Sprintf("%s from the end of the %s leg", units.FoldAt(c.FoldAtMM, inch), c.FoldSide)
		}
		fmt.Fprintf(t, "%s\t%s\t%s\t%s\t%s\t%s\t\n", c.ID, units.Length(c.NeedsMM, inch), units.Length(c.CutMM, inch), units.Length(c.LeftMM, inch), units.Length(c.SpreadMM, inch), fold)
	}
	if err := t.Flush(); err != nil {
		return err
	}
	for _, w := range p.Warnings {
		fmt.Fprintf(out, "\n! %s", units.Said(w.Message, inch))
		if w.Fix != nil {
			fmt.Fprintf(out, " (%s)", w.Fix.Label)
		}
	}
	if len(p.Warnings) > 0 {
		fmt.Fprintln(out)
	}
	folds := map[string]float64{}
	for _, c := range p.Cords {
		folds[c.ID] = c.FoldAtMM
	}
	said := func(a plan.Action, t string) string {
		return units.Said(strings.ReplaceAll(t, "{fold}", units.FoldAt(folds[a.Cord], inch)), inch)
	}
	if len(p.Ready) > 0 {
		fmt.Fprintln(out, "\non the table")
	}
	for i, a := range p.Ready {
		fmt.Fprintf(out, "  %d. %s\n     %s\n", i+1, said(a, a.Text), said(a, a.Detail))
	}
	for _, s := range p.Steps {
		fmt.Fprintf(out, "\n%s", strings.ReplaceAll(s.Do, "-", " "))
		if s.Repeats > 1 {
			fmt.Fprintf(out, ", %d times", s.Repeats)
		}
		fmt.Fprintln(out)
		words := strings.NewReplacer("{length}", units.Fine(s.MM, inch))
		for i, a := range s.Actions {
			full := func(t string) string { return said(a, words.Replace(t)) }
			fmt.Fprintf(out, "  %d. %s\n", i+1, full(a.Text))
			if a.Detail != "" {
				fmt.Fprintf(out, "     %s\n", full(a.Detail))
			}
			if a.Gate != "" {
				fmt.Fprintf(out, "     Look: %s\n", full(a.Gate))
			}
		}
		for _, g := range s.Gates {
			fmt.Fprintf(out, "  Look %s: %s\n", g.When(), units.Said(g.Says, inch))
		}
	}
	if len(p.Checks) > 0 {
		fmt.Fprintln(out, "\ncheck the tied piece")
		for _, c := range p.Checks {
			fmt.Fprintf(out, "  - %s\n", units.Said(c.Message, inch))
		}
	}
	fmt.Fprintln(out)
	for _, c := range p.Cautions {
		fmt.Fprintf(out, "* %s: %s\n", c.Title, units.Said(c.Says, inch))
	}
	_, err := io.WriteString(to, printable(b.String()))
	return err
}

func runKnots(_ context.Context, args []string, _ io.Reader, out io.Writer) error {
	fs := flags("knots", out)
	asJSON := fs.Bool("json", false, "print JSON")
	if _, err := parse(fs, args, 0); err != nil {
		return err
	}
	type row struct {
		ID         string   `json:"id"`
		Name       string   `json:"name"`
		Family     string   `json:"family"`
		OtherNames []string `json:"other_names"`
	}
	var rows []row
	for _, k := range knot.All() {
		rows = append(rows, row{k.ID, k.Name, k.Family, k.OtherNames})
	}
	if *asJSON {
		e := json.NewEncoder(out)
		e.SetIndent("", "  ")
		return e.Encode(rows)
	}
	t := tabwriter.NewWriter(out, 0, 0, 2, ' ', 0)
	for _, r := range rows {
		fmt.Fprintf(t, "%s\t%s\t%s\n", r.ID, r.Family, strings.Join(r.OtherNames, ", "))
	}
	return t.Flush()
}
