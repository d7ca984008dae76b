package reach

import (
	"math"

	"nimblebight/core/cord"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Swapped is a piece with another cord in the place of some of its own.
type Swapped struct {
	// Keeps is what stays: counts or length.
	Keeps    string         `json:"keeps" jsonschema:"enum=counts,enum=length"`
	Counts   []int          `json:"counts"` // of each section, 0 where it has none
	LengthMM float64        `json:"length_mm"`
	WidthMM  float64        `json:"width_mm"`
	WeightG  float64        `json:"weight_g"`
	Cords    []Used         `json:"cords"`
	Document piece.Document `json:"document"`
}

// Used is what of a cord is used.
type Used struct {
	ID      string  `json:"id"`
	NeedsMM float64 `json:"needs_mm"`
	CutMM   float64 `json:"cut_mm"`
}

// Swap puts a stuff in the place of that of some cords, once with the counts that the
// piece has and once with as many knots as come nearest to its length.
func Swap(d piece.Document, o plan.Options, ids []string, to cord.Stuff) ([]Swapped, error) {
	if f, why := to.Check(); f != "" {
		return nil, refused("stuff."+f, "%s", why)
	}
	if len(ids) == 0 {
		return nil, refused("cords", "is empty; name the cords to swap")
	}
	was, err := plan.Make(d, o)
	if err != nil {
		return nil, err
	}
	next := d
	next.Cords = append(d.Cords[:0:0], d.Cords...)
	for _, id := range ids {
		i := d.CordByID(id)
		if i < 0 {
			return nil, refused("cords", "names cord %.20q, which the piece does not have", id)
		}
		next.Cords[i].Stuff = to
	}
	next.Sequence = append(d.Sequence[:0:0], d.Sequence...)
	for i, s := range was.Sections { // a row that fills a length keeps its count
		if s.Index < len(next.Sequence) && next.Sequence[s.Index].FitMM != 0 {
			next = counted(next, s.Index, was.Sections[i].Count)
		}
	}
	same, err := swapped(next, o, "counts")
	if err != nil {
		return nil, err
	}
	out := []Swapped{same}
	section := Growing(d, was)
	if section < 0 {
		return out, nil
	}
	p, err := plan.Make(next, o)
	if err != nil {
		return nil, err
	}
	// All rows shrink or grow alike; the one that may grow takes what is left over.
	rows := 0.0
	for _, s := range p.Sections {
		if grows(next, s.Index) && s.KnotMM > 0 {
			rows += s.HeightMM
		}
	}
	by := math.Max(0, rows+was.LengthMM-p.LengthMM) / math.Max(rows, 1e-9)
	for _, s := range p.Sections {
		if grows(next, s.Index) && s.KnotMM > 0 {
			next = counted(next, s.Index, min(piece.MostKnots, max(1, int(math.Round(by*float64(s.Count))))))
		}
	}
	if row, ok := byIndex(p, section); !ok || row.KnotMM <= 0 {
		return out, nil
	}
	best, _, err := ToLength(next, section, was.LengthMM, o)
	if err != nil {
		return nil, err
	}
	long, err := swapped(best, o, "length")
	if err != nil {
		return nil, err
	}
	return append(out, long), nil
}

func swapped(d piece.Document, o plan.Options, keeps string) (Swapped, error) {
	p, err := plan.Make(d, o)
	if err != nil {
		return Swapped{}, err
	}
	out := Swapped{Keeps: keeps, LengthMM: p.LengthMM, WidthMM: p.WidthMM, WeightG: p.WeightG, Document: d, Counts: []int{}, Cords: []Used{}}
	for _, s := range p.Sections {
		out.Counts = append(out.Counts, s.Count)
	}
	for _, c := range p.Cords {
		if c.Role != "unused" {
			out.Cords = append(out.Cords, Used{c.ID, c.NeedsMM, c.CutMM})
		}
	}
	return out, nil
}
