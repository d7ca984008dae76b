// Package csv writes tables of a plan for a spreadsheet.
package csv

import (
	"encoding/csv"
	"fmt"
	"io"
	"strings"

	"nimblebight/core/plan"
)

// Cuts writes the cut list: a line a cord, lengths in mm.
func Cuts(out io.Writer, p plan.Plan) error {
	w := csv.NewWriter(out)
	_ = w.Write([]string{"cord", "needs_mm", "cut_mm", "left_mm", "spread_mm", "fold_at_mm", "fold_from"}) // Flush tells
	for _, c := range p.Cords {
		row := []string{Text(c.ID)}
		for _, v := range []float64{c.NeedsMM, c.CutMM, c.LeftMM, c.SpreadMM, c.FoldAtMM} {
			row = append(row, fmt.Sprintf("%.1f", v))
		}
		from := ""
		if c.FoldAtMM > 0 {
			from = "end of the " + c.FoldSide + " leg"
		}
		_ = w.Write(append(row, from))
	}
	w.Flush()
	if err := w.Error(); err != nil {
		return fmt.Errorf("writing the cut list: %w", err)
	}
	return nil
}

// Text is a text as a cell of a table: a spreadsheet would take one that begins
// like a formula for one.
func Text(s string) string {
	if s != "" && strings.ContainsRune("=+-@\t\r", rune(s[0])) {
		return "'" + s
	}
	return s
}
