package main

import (
	"context"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"text/tabwriter"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

func runPlan(_ context.Context, args []string, in io.Reader, out io.Writer) error {
	fs := flags("plan", out)
	asJSON := fs.Bool("json", false, "print the whole plan as JSON")
	asCSV := fs.Bool("csv", false, "print the cut list as CSV")
	asText := fs.Bool("text", false, "print the cut list and the steps to read (the default)")
	left := fs.Bool("left-handed", false, "tie it mirrored")
	inch := fs.Bool("inch", false, "round cuts up to a quarter of an inch")
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
	b, err := readFile(words[0], in)
	if err != nil {
		return badInput{err}
	}
	d, err := piece.Read(b)
	if err != nil {
		return badInput{fmt.Errorf("%s: %w", words[0], err)}
	}
	o := plan.Options{LeftHanded: *left}
	if *inch {
		o.RoundUpMM = plan.QuarterInch
	}
	p, err := plan.Make(d, o)
	if err != nil {
		return badInput{fmt.Errorf("%s: %w", words[0], err)}
	}
	switch {
	case *asJSON:
		e := json.NewEncoder(out)
		e.SetIndent("", "  ")
		return e.Encode(p)
	case *asCSV:
		return planCSV(out, p)
	}
	return planText(out, p)
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

func planCSV(out io.Writer, p plan.Plan) error {
	w := csv.NewWriter(out)
	_ = w.Write([]string{"cord", "needs_mm", "cut_mm", "left_mm", "spread_mm", "fold_at_mm"})
	for _, c := range p.Cords {
		row := []string{c.ID}
		for _, v := range []float64{c.NeedsMM, c.CutMM, c.LeftMM, c.SpreadMM, c.FoldAtMM} {
			row = append(row, fmt.Sprintf("%.1f", v))
		}
		_ = w.Write(row)
	}
	w.Flush()
	return w.Error()
}

func planText(out io.Writer, p plan.Plan) error {
	fmt.Fprintf(out, "%s: %.0f mm long, %.0f mm wide, %.1f g\n%s\n\n", p.Name, p.LengthMM, p.WidthMM, p.WeightG, p.Notation)
	t := tabwriter.NewWriter(out, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(t, "cord\tneeds\tcut\tleft\tspread\tfold at\t")
	for _, c := range p.Cords {
		fmt.Fprintf(t, "%s\t%.0f\t%.0f\t%.0f\t%.0f\t%.0f\t\n", c.ID, c.NeedsMM, c.CutMM, c.LeftMM, c.SpreadMM, c.FoldAtMM)
	}
	if err := t.Flush(); err != nil {
		return err
	}
	for _, w := range p.Warnings {
		fmt.Fprintf(out, "\n! %s", plain(w.Message))
		if w.Fix != nil {
			fmt.Fprintf(out, " (%s)", w.Fix.Label)
		}
	}
	if len(p.Warnings) > 0 {
		fmt.Fprintln(out)
	}
	for _, s := range p.Steps {
		fmt.Fprintf(out, "\n%s", s.Do)
		if s.Repeats > 1 {
			fmt.Fprintf(out, ", %d times", s.Repeats)
		}
		fmt.Fprintln(out)
		for i, a := range s.Actions {
			fmt.Fprintf(out, "  %d. %s\n", i+1, strings.ReplaceAll(a.Text, "{length}", fmt.Sprintf("%g mm", s.MM)))
		}
	}
	fmt.Fprintln(out)
	for _, c := range p.Cautions {
		c = plain(c)
		fmt.Fprintln(out, "*", c)
	}
	return nil
}

// plain writes the lengths of a message out.
func plain(s string) string {
	s = strings.ReplaceAll(s, "{", "")
	return strings.ReplaceAll(s, "mm}", " mm")
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
