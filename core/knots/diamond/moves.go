package diamond

import (
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/knots/hitch"
	"nimblebight/core/knots/row"
	"nimblebight/core/move"
)

// hand makes the moves of diamonds, in the order in which they are made. order are the
// strands from the left.
type hand struct {
	moves []move.Move
	order []int
}

// row lays a filler over others, named from the left, and hitches each in turn: to the
// left, or to the right. Where joins is set the first of them joins the filler, and the
// others are hitched over both.
func (h *hand) row(filler int, others []int, left, joins bool) {
	others = slices.Clone(others)
	if left { // the strands that it meets, in turn
		slices.Reverse(others)
	}
	as := append([]int{filler}, others...)
	ms := hitch.Moves(len(as), 1, 1, false, true)
	if joins && len(as) > 2 {
		in := move.Move{Strand: 1, From: move.Right, To: move.Right, Naming: [][]int{{0}},
			Text: "Lay {me} in with the filler, {strands 0}; the others are hitched over both.", Gate: "Both lie side by side, none on top."}
		ms = []move.Move{ms[0], ms[1], in}
		for k := 2; k < len(as); k++ {
			ms = append(ms, hitch.Hitch(k, []int{0, 1}))
		}
	}
	for k, m := range ms {
		if left { // the same to the other side, of the same strands
			m = m.Mirror(0)
		}
		if k > 0 && k < len(ms)-1 && m.Strand != 1 {
			m.Gate = ""
		}
		m = m.Renumber(as)
		m.Order = h.order
		h.moves = append(h.moves, m)
	}
}

// gate is what to look at after the last move.
func (h *hand) gate(says string) { h.moves[len(h.moves)-1].Gate = says }

// moves are those of so many diamonds, one under the other: two lines down from the apex,
// what stands inside, two lines back to the tip. At the first apex the left of the middle
// strands is hitched over the right one; at each tip the left filler over the right one,
// which goes on as the left line of the next.
func moves(w knot.Work, s Settings, count int) ([]move.Move, error) {
	n := len(w.Strands)
	half := n / 2
	h := hand{order: knot.Identity(n)}
	for k := range count {
		hang := h.order
		sides := sidesOf(hang, s)
		left, right := hang[half-1], hang[half]
		if k == 0 {
			left, right = right, left
			h.row(left, append(slices.Clone(sides[0]), right), true, false)
		} else {
			h.row(left, sides[0], true, false)
			h.moves[len(h.moves)-len(sides[0])-1].Detail = "It goes on from the join as one rib."
		}
		h.row(right, sides[1], false, false)
		h.gate("Both sides lie in straight lines; the upper ones have as many hitches, less the one that joins them.")
		h.order = slices.Concat([]int{left}, sides[0], sides[1], []int{right}) // the fillers are at the corners
		if err := h.inside(w, s, sides); err != nil {
			return nil, err
		}
		h.row(left, sides[0], false, false)
		if k == count-1 && s.Close == "end" {
			h.row(right, sides[1], true, false)
			h.gate("Both halves end at one height; no strand crosses the middle.")
			h.order = slices.Concat(sides[0], []int{left, right}, sides[1])
			continue
		}
		h.row(right, append([]int{left}, sides[1]...), true, false)
		h.moves[len(h.moves)-1].Detail = "It joins the two fillers where they meet; draw the waist shut."
		h.gate("The tip is closed and the four sides are alike.")
		h.order = slices.Concat(sides[0], []int{right, left}, sides[1])
	}
	if s.Close == "end-doubled" {
		h.again(half)
	}
	return h.moves, nil
}

// again is a second row right under the last tip.
func (h *hand) again(half int) {
	left, right := h.order[:half], h.order[half:]
	l, r := left[0], right[half-1]
	h.row(l, left[1:], false, true)
	h.row(r, right[:half-1], true, true)
	h.gate("The lower edges are fuller than the upper ones and even.")
	m := hitch.Hitch(1, []int{0}).Renumber([]int{l, r})
	m.Order = h.order
	m.Detail, m.Gate = "It joins the two fillers.", "The doubled edge is closed below the tip."
	h.moves = append(h.moves, m)
}

// inside makes what stands inside a diamond.
func (h *hand) inside(w knot.Work, s Settings, sides [2][]int) error {
	switch s.Inside {
	case "square-knot":
		four := inner(sides, 2)
		tied, err := row.Tie(knot.Work{Section: row.Square(1, knot.Left), Strands: strandsOf(w, four)}, 2, knot.Left)
		if err != nil {
			return err
		}
		for k, m := range tied.Moves {
			m = m.Renumber(four)
			at, whole := 0, slices.Clone(h.order)
			for p, i := range whole {
				if slices.Contains(four, i) {
					whole[p] = m.Order[at]
					at++
				}
			}
			m.Order = whole
			if k == len(tied.Moves)-1 {
				m.Gate = "The square knot stands in the middle of the diamond, clear of its sides."
			}
			h.moves = append(h.moves, m)
		}
	case "bead":
		h.moves = append(h.moves, move.Move{Strand: move.All, Naming: [][]int{inner(sides, 1)}, Order: h.order,
			Text: "Put the bead on {strands 0}.", Detail: "Push it up to the apex and hold it there.", Gate: "The bead looks the way it should."})
	}
	return nil
}
