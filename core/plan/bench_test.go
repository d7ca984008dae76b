package plan_test

import (
	"testing"

	"nimblebight/core/knots/patterns"
	"nimblebight/core/plan"
)

// BenchmarkPatterns plans each pattern again, its knots known.
func BenchmarkPatterns(b *testing.B) {
	for _, p := range patterns.All() {
		b.Run(p.ID, func(b *testing.B) {
			make := func() {
				if _, err := plan.Make(p.Document, plan.Options{}); err != nil {
					b.Fatal(err)
				}
			}
			make()
			for b.Loop() {
				make()
			}
		})
	}
}
