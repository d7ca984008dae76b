package colouring

import "math"

// Run is how colours run over what is tied.
type Run string

// Colours run in stripes across the piece, in columns down it, or in spirals about it.
const (
	Stripes Run = "stripes"
	Columns Run = "columns"
	Spirals Run = "spirals"
)

// slants are how far off cells are looked at for spirals, in diameters across and down.
var slants = [][2]float64{{0.75, 0.75}, {0.75, 1}, {0.75, 1.5}, {0.75, 2}, {1, 1.5}, {1, 2}, {1.5, 1.5}, {1.5, 2}}

// clear is by how much colours must run one way to be said to.
const clear = 0.15

// stays is the share of cells of the same colour as the one so far away, of all where both
// show cord; 0 where there are none.
func (g grid) stays(across, down int) float64 {
	same, all := 0, 0
	for k := range g.Tall {
		for i := range g.Wide {
			a, b := g.at(i, k), g.at(i+across, k+down)
			if a == "" || b == "" {
				continue
			}
			all++
			if a == b {
				same++
			}
		}
	}
	if all == 0 {
		return 0
	}
	return float64(same) / float64(all)
}

// pure is how much of a line of cells is of the colour that has most of it, on average over
// lines: the rows of a grid, or its columns.
func (g grid) pure(columns bool) float64 {
	lines, cells := g.Tall, g.Wide
	if columns {
		lines, cells = cells, lines
	}
	most, all := 0, 0
	for line := range lines {
		counts, best := map[string]int{}, 0
		for n := range cells {
			i, k := n, line
			if columns {
				i, k = line, n
			}
			if c := g.at(i, k); c != "" {
				counts[c]++
				best = max(best, counts[c])
				all++
			}
		}
		most += best
	}
	return float64(most) / math.Max(1, float64(all))
}

// running tells how clearly the colours run in each way: in stripes where rows are more of
// one colour than columns are, in columns where it is the other way, in spirals where they
// lean to one side more than to the other. In one colour they run in none.
func (g grid) running() map[Run]float64 {
	if len(g.count(anywhere)) < 2 {
		return map[Run]float64{}
	}
	cells := func(diameters float64) int { return int(math.Round(diameters * toDiameter)) }
	lean := 0.0
	for _, s := range slants {
		lean = max(lean, math.Abs(g.stays(cells(s[0]), cells(s[1]))-g.stays(-cells(s[0]), cells(s[1]))))
	}
	rows, columns := g.pure(false), g.pure(true)
	return map[Run]float64{Stripes: rows - columns, Columns: columns - rows, Spirals: lean}
}

// runs is the way in which the colours run, "" where none is clear.
func (g grid) runs() Run {
	by := g.running()
	for _, r := range []Run{Spirals, Columns, Stripes} {
		if by[r] > clear {
			return r
		}
	}
	return ""
}
