package reach

import (
	"cmp"
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// mostGuesses is how many counts are guessed before the neighbours of the best are tried.
const mostGuesses = 8

// ToLength is a piece with as many knots in a section as bring it nearest to a length, mm: with
// one more or one fewer it is no nearer, as far as some twice mostGuesses plans tell. A section
// that takes no count is left as it is.
func ToLength(d piece.Document, section int, length float64, o plan.Options) (piece.Document, plan.Plan, error) {
	p, err := plan.Make(d, o)
	row, ok := byIndex(p, section)
	if err != nil || !ok || !grows(d, section) {
		return d, p, err
	}
	each := row.HeightMM / float64(max(1, row.Count)) // what one more adds
	best, bestPlan, off, at := d, p, math.Inf(1), max(1, row.Count)
	tried := map[int]float64{}
	// try plans it with a count and tells by how much it misses the length.
	try := func(count int) (miss float64, err error) {
		if miss, ok := tried[count]; ok {
			return miss, nil
		}
		next := counted(d, section, count)
		made, err := plan.Make(next, o)
		if err != nil {
			tried[count] = math.NaN()
			return math.NaN(), err
		}
		miss = made.LengthMM - length
		if tried[count] = miss; math.Abs(miss) < off {
			best, bestPlan, off, at = next, made, math.Abs(miss), count
		}
		return miss, nil
	}
	// The count is guessed from what one more adds, till the guess is one that was tried.
	for count := at; ; {
		if _, ok := tried[count]; ok {
			break
		}
		miss, err := try(count)
		if err != nil && math.IsInf(off, 1) {
			return d, p, err
		}
		if err != nil || len(tried) >= mostGuesses {
			break
		}
		count = max(1, min(piece.MostKnots, count-int(math.Round(miss/math.Max(each, 0.1)))))
	}
	for was := -1; was != at && len(tried) < 2*mostGuesses; {
		was = at
		for _, by := range [2]int{-1, 1} {
			if n := was + by; n >= 1 && n <= piece.MostKnots {
				_, _ = try(n) // one that cannot be tied is no neighbour
			}
		}
	}
	return best, bestPlan, nil
}

// Grown is one way to bring a piece to its wanted length: another count in one section.
type Grown struct {
	Section  int     `json:"section"`
	Name     string  `json:"name"`
	Count    int     `json:"count"`
	LengthMM float64 `json:"length_mm"` // of the piece then
}

// ToWanted are the counts of each section that may grow which bring a piece nearest to the length
// that is wanted, the nearest first; none where nothing is wanted, or where the piece is as near
// as it comes. A section that fills a length takes the count in its place.
func ToWanted(d piece.Document, o plan.Options) ([]Grown, error) {
	out := []Grown{}
	want := d.Purpose.LengthMM
	p, err := plan.Make(d, o)
	if err != nil || want == 0 {
		return out, err
	}
	for _, s := range p.Sections {
		if !grows(d, s.Index) {
			continue
		}
		next, q, err := ToLength(d, s.Index, want, o)
		if err != nil {
			return out, err
		}
		if n := next.Sequence[s.Index].Count; n != s.Count && math.Abs(q.LengthMM-want) < math.Abs(p.LengthMM-want) {
			k, _ := knot.Get(s.Do)
			out = append(out, Grown{s.Index, k.Name, n, q.LengthMM})
		}
	}
	slices.SortStableFunc(out, func(a, b Grown) int {
		return cmp.Compare(math.Abs(a.LengthMM-want), math.Abs(b.LengthMM-want))
	})
	return out, nil
}
