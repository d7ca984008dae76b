package ball

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"
)

// The questions makers ask, each answered from the same curves as [Make]:
// [Cores] which cores suit a cord and passes, [Suits] how many passes suit a
// cord and core, [Drawer] which of the cores at hand suit, [OfSize] how to come
// to a wanted diameter, [FromCord] the largest ball from the cord that is left,
// and [Chart] all of it at a glance.

// Cores are the cores that suit the cord, passes and mode asked for.
func Cores(a Ask) (Range, error) {
	a.Core = Core{}
	if err := a.check(); err != nil {
		return Range{}, err
	}
	t, err := tableOf(a.family(), a.Passes)
	if err != nil {
		return Range{}, err
	}
	return t.cores(a.Cord), nil
}

// passes lists the passes that the mode asked for can have.
func (a Ask) passes() []int {
	var out []int
	for p := LeastPasses; p <= MostPasses; p++ {
		if a.family().takes(p) {
			out = append(out, p)
		}
	}
	return out
}

// Suits is the number of passes whose range holds a core of mm and whose best
// is nearest to it; false where none does.
func Suits(a Ask, mm float64) (passes int, ok bool) {
	best := math.Inf(1)
	for _, p := range a.passes() {
		a.Passes = p
		r, err := Cores(a)
		if err != nil || !r.Holds(mm) {
			continue
		}
		if off := math.Abs(math.Log(mm / r.BestMM)); off < best {
			best, passes, ok = off, p, true
		}
	}
	return passes, ok
}

// Nearest is the number of passes that suits a core of mm or, where none does, whose best
// core is nearest to it; false where that is far from any.
func Nearest(a Ask, mm float64) (passes int, ok bool) {
	if n, ok := Suits(a, mm); ok {
		return n, true
	}
	const far = 1.25
	best := math.Log(far)
	for _, p := range a.passes() {
		a.Passes = p
		if r, err := Cores(a); err == nil {
			if off := math.Abs(math.Log(mm / r.BestMM)); off < best {
				best, passes, ok = off, p, true
			}
		}
	}
	return passes, ok
}

// Judged is a core of the drawer with what is to be said of it.
type Judged struct {
	At     int     `json:"-"` // which of the drawer it is
	Core   Core    `json:"core"`
	Suits  bool    `json:"suits"`
	Passes int     `json:"passes,omitempty"` // with which it suits, if not with those asked for
	OffMM  float64 `json:"off_mm"`           // from the best core
	Why    string  `json:"why"`
	Short  string  `json:"short"` // the same in a few words
}

// Drawer sorts cores by how well each suits the cord and passes asked for.
// {12.3mm} in a reason is a length, shown in the maker's units.
func Drawer(a Ask, drawer []Core) ([]Judged, error) {
	r, err := Cores(a)
	if err != nil {
		return nil, err
	}
	out := make([]Judged, 0, len(drawer))
	for at, c := range drawer {
		if err := c.check(); err != nil {
			return nil, err
		}
		j := Judged{At: at, Core: c, OffMM: c.DiameterMM - r.BestMM, Suits: r.Holds(c.DiameterMM)}
		switch {
		case j.Suits && math.Abs(j.OffMM) < 0.15*(r.MostMM-r.LeastMM):
			j.Why = "Just right: firm under every turn, covered at every corner."
			j.Short = "just right"
		case j.Suits && j.OffMM < 0:
			j.Why = fmt.Sprintf("Suits; the turns close a little before it is tight, {%.1fmm} under the best.", -j.OffMM)
			j.Short = fmt.Sprintf("suits, {%.1fmm} under the best", -j.OffMM)
		case j.Suits:
			j.Why = fmt.Sprintf("Suits; dress the corners with care, it is {%.1fmm} over the best.", j.OffMM)
			j.Short = fmt.Sprintf("suits, {%.1fmm} over the best", j.OffMM)
		case c.DiameterMM < r.LeastMM:
			j.Short = fmt.Sprintf("{%.1fmm} too small", r.LeastMM-c.DiameterMM)
			j.Why = j.Short + ": the turns lock on one another and it rattles."
		default:
			j.Short = fmt.Sprintf("{%.1fmm} too large", c.DiameterMM-r.MostMM)
			j.Why = j.Short + ": it shows at the corners."
		}
		if !j.Suits {
			if n, ok := Suits(a, c.DiameterMM); ok {
				j.Passes = n
				j.Why += fmt.Sprintf(" It suits %d passes.", n)
				j.Short += fmt.Sprintf("; suits %d passes", n)
			}
		}
		out = append(out, j)
	}
	slices.SortStableFunc(out, func(x, y Judged) int {
		if x.Suits != y.Suits {
			if x.Suits {
				return -1
			}
			return 1
		}
		return cmp.Compare(math.Abs(x.OffMM), math.Abs(y.OffMM))
	})
	return out, nil
}

// OfSize are the balls, one for each number of passes that can come to it,
// whose diameter across the faces is mm: the core follows.
func OfSize(a Ask, mm float64) ([]Ball, error) {
	if !(mm >= 1 && mm <= 1000) {
		return nil, &Refused{Field: "outer", Why: fmt.Sprintf("a ball of %g mm is none; it is between 1 and 1000 mm thick", mm)}
	}
	a.Core.DiameterMM = 0
	if a.Core.Kind == Stopper || a.Core.Kind == Wadding {
		a.Core.Kind = ""
	}
	var out []Ball
	var nearest float64
	for _, p := range a.passes() {
		a.Passes = p
		r, err := Cores(a)
		if err != nil {
			return nil, err
		}
		size := func(core float64) (Ball, float64) {
			q := a
			q.Core.DiameterMM = core
			b, err := Make(q)
			if err != nil {
				return Ball{}, math.NaN()
			}
			return b, b.FaceMM
		}
		lo, hi := r.LeastMM, r.MostMM
		_, small := size(lo)
		_, large := size(hi)
		for _, s := range []float64{small, large} {
			if nearest == 0 || math.Abs(s-mm) < math.Abs(nearest-mm) {
				nearest = s
			}
		}
		if mm < small || mm > large {
			continue
		}
		for range 40 {
			mid := (lo + hi) / 2
			if _, s := size(mid); s < mm {
				lo = mid
			} else {
				hi = mid
			}
		}
		b, _ := size(hi)
		out = append(out, b)
	}
	if len(out) == 0 {
		return nil, &Refused{Field: "outer", Why: fmt.Sprintf("no ball of this cord closes at %.1f mm; %.1f mm is the nearest that does", mm, nearest)}
	}
	return out, nil
}

// FromCord is the largest ball, on its best core, for which the cord that is
// left is enough. spare is what goes beside the ball, [SpareMM] or another: tails and what fingers
// hold.
func FromCord(a Ask, left, spare float64) (Ball, error) {
	if !(left > 0 && left <= 1e6) {
		return Ball{}, &Refused{Field: "left", Why: fmt.Sprintf("%g mm of cord is none", left)}
	}
	var best Ball
	least := math.Inf(1)
	for _, p := range a.passes() {
		q := a
		q.Passes, q.Core.DiameterMM = p, 0
		b, err := Make(q)
		var no *Refused
		if errors.As(err, &no) && p < MostPasses {
			continue // no stopper is so small
		}
		if err != nil {
			return Ball{}, err
		}
		least = math.Min(least, b.CordMM+spare)
		if b.CordMM+spare <= left && b.FaceMM > best.FaceMM {
			best = b
		}
	}
	if best.FaceMM == 0 {
		return Ball{}, &Refused{Field: "left", Why: fmt.Sprintf("%.0f mm of cord ties no ball of it; the smallest takes %.0f mm with its tails", left, math.Ceil(least))}
	}
	return best, nil
}

// Column is one number of passes in a chart.
type Column struct {
	Passes int     `json:"passes"`
	Range  Range   `json:"range"`
	CordMM float64 `json:"cord_mm"` // of the ball on its best core
	FaceMM float64 `json:"outer_face_mm"`
	Cells  []Cell  `json:"cells"` // by core
}

// Cell is a core and a number of passes together.
type Cell struct {
	CoreMM float64 `json:"core_mm"`
	Fit    int     `json:"fit"`
	CordMM float64 `json:"cord_mm"` // 0 where it slides off
	FaceMM float64 `json:"outer_face_mm"`
}

// Chart holds every number of passes against cores of the diameters given.
func Chart(a Ask, cores []float64) ([]Column, error) {
	var out []Column
	for _, p := range a.passes() {
		q := a
		q.Passes, q.Core = p, Core{}
		if err := q.check(); err != nil {
			return nil, err
		}
		t, err := tableOf(q.family(), p)
		if err != nil {
			return nil, err
		}
		hard := a.Cord.Hard()
		col := Column{Passes: p, Range: t.cores(a.Cord), Cells: make([]Cell, 0, len(cores))}
		sum := func(core float64) (cord, face float64) {
			m := t.at(math.Max(core/hard, t.steps[0]))
			return hard * (m.bands[0] + m.bands[1] + m.bands[2]), hard * m.face
		}
		col.CordMM, col.FaceMM = sum(col.Range.BestMM)
		for _, mm := range cores {
			c := Cell{CoreMM: mm, Fit: col.Range.Fit(mm)}
			if mm/hard <= t.steps[len(t.steps)-1] {
				c.CordMM, c.FaceMM = sum(mm)
			}
			col.Cells = append(col.Cells, c)
		}
		out = append(out, col)
	}
	return out, nil
}
