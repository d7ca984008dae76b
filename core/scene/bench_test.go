package scene

import (
	"fmt"
	"testing"
)

// A cell is one square knot within a row, drawn at so many pixels a diameter.
func BenchmarkCell(b *testing.B) {
	l := sampled(b, "square-knot")
	for _, px := range []float64{12, 40, 120} {
		b.Run(fmt.Sprintf("%gpx", px), func(b *testing.B) {
			v := View{PerMM: px / l.Thick}
			tiles := cut(l, v)
			fill(tiles, l)
			b.ReportAllocs()
			for b.Loop() {
				tiles[2].draw(l, v)
			}
		})
	}
}
