package evidence_test

import (
	"testing"

	"nimblebight/core/evidence"
	"nimblebight/core/gauge"
	"nimblebight/core/plan"
)

// A plan again after the two hundredth log was kept: everything is learnt anew, then
// planned with it.
func BenchmarkReplanWith200Logs(b *testing.B) {
	d, p := tied(b)
	var all []gauge.Evidence
	for i := range 200 {
		var l evidence.Logged
		for _, c := range p.Cords {
			left := c.LeftMM - 0.01*float64(i%7-3)*c.NeedsMM
			l.Cords = append(l.Cords, evidence.Cut{ID: c.ID, CutMM: mm(c.CutMM), LeftMM: &left})
		}
		e, err := l.Evidence(d)
		if err != nil {
			b.Fatal(err)
		}
		all = append(all, e)
	}
	for b.Loop() {
		if _, err := plan.Make(d, plan.Options{Gauge: gauge.Learn(all)}); err != nil {
			b.Fatal(err)
		}
	}
}
