package csv_test

import (
	encoding "encoding/csv"
	"errors"
	"fmt"
	"os"
	"strings"
	"testing"

	"nimblebight/core/plan"
	"nimblebight/formats/csv"
)

func cuts() plan.Plan {
	return plan.Plan{Cords: []plan.Cord{
		{ID: "A", NeedsMM: 812.44, CutMM: 905, LeftMM: 92.56, SpreadMM: 31, FoldAtMM: 250, FoldSide: "left"},
		{ID: "=SUM(A1)", NeedsMM: 1, CutMM: 2, LeftMM: 1},
	}}
}

// What is written is read again by any reader of tables, and no cell is a formula.
func TestCutsAreATable(t *testing.T) {
	var b strings.Builder
	if err := csv.Cuts(&b, cuts()); err != nil {
		t.Fatal(err)
	}
	rows, err := encoding.NewReader(strings.NewReader(b.String())).ReadAll()
	if err != nil || len(rows) != 3 {
		t.Fatalf("%d lines, %v", len(rows), err)
	}
	if rows[1][1] != "812.4" || rows[1][6] != "end of the left leg" || rows[2][6] != "" {
		t.Errorf("%v", rows)
	}
	for _, row := range rows[1:] {
		if strings.ContainsAny(row[0][:1], "=+-@") {
			t.Errorf("%q is a formula", row[0])
		}
	}
}

type full struct{}

func (full) Write([]byte) (int, error) { return 0, errors.New("no room") }

func TestATableThatCannotBeWrittenSaysSo(t *testing.T) {
	if err := csv.Cuts(full{}, cuts()); err == nil || !strings.Contains(err.Error(), "writing the cut list") {
		t.Error(err)
	}
}

func ExampleCuts() {
	if err := csv.Cuts(os.Stdout, plan.Plan{Cords: []plan.Cord{{ID: "A", NeedsMM: 400, CutMM: 450, LeftMM: 50}}}); err != nil {
		fmt.Println(err)
	}
	// Output:
	// cord,needs_mm,cut_mm,left_mm,spread_mm,fold_at_mm,fold_from
	// A,400.0,450.0,50.0,0.0,0.0,
}
