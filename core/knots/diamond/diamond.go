// Package diamond lays diamonds of hitches.
package diamond

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/hitch"
	"nimblebight/core/knots/row"
	"nimblebight/core/memo"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// What stands inside a diamond, in which order its side strands come, and how its
// last tip is closed.
type (
	Inside string
	Order  string
	Close  string
)

// Choices are what can stand inside.
func (Inside) Choices() []string { return []string{"empty", "square-knot", "bead"} }

// Choices are the orders.
func (Order) Choices() []string { return []string{"in-turn", "outermost-first"} }

// Choices are the tips.
func (Close) Choices() []string { return []string{"join", "end", "end-doubled"} }

// Settings of diamonds.
type Settings struct {
	Inside Inside     `json:"inside,omitempty" typed:"inside" label:"inside" default:"empty"`
	Order  Order      `json:"order,omitempty" typed:"order" label:"side strands" default:"in-turn"`
	Close  Close      `json:"close,omitempty" typed:"close" label:"last tip" default:"join"`
	Bead   *knot.Bead `json:"bead,omitempty" for:"inside=bead"`
}

// Diamond in hitches: two diagonals of double half hitches lead apart from the
// middle and two lead back to it, joined there by one more hitch. The two
// middle strands are the fillers.
//
// Right: four straight sides of ribs, the same number of hitches in each, the
// waist closed. Wrong: a side with a hitch too few; the diamond leans.
//
// Makers differ in what stands inside (nothing, a square knot over the four
// middle strands, a bead on the middle two), in which side strand comes first
// (outermost first tucks them in at the waist of two diamonds), and in the last
// tip: joined by a hitch, left open, or with the first strand of each side laid
// in with the filler for a fuller edge.
func init() {
	knot.Add(knot.Knot{
		ID: "diamond", Name: "diamond", Family: "hitches",
		OtherNames: []string{"lozenge", "diamond of hitches"},
		For:        "a frame of ribs on six strands or more, for a bead or a knot inside",
		Repeats:    true,
		Schools: []knot.School{
			{Field: "inside", Default: "empty", Why: "an empty diamond shows whether its sides are even"},
			{Field: "order", Default: "in-turn", Why: "in turn the strands hang free at the waist; outermost first tucks them in under the next diamond"},
			{Field: "close", Default: "join", Why: "one more hitch holds the tip; leave it open only where a knot follows that holds it"},
		},
		Glyph:    "M12 2l9 10-9 10-9-10zM12 7l4.500 5-4.500 5-4.500-5z",
		Places:   true,
		Settings: Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 4, Even: true}, Parts: func(n int) int { return n }}
		},
		Tie:    tieDiamonds,
		Sample: knot.Sample{Line: "mount A B C, diamond", Cords: 3, Section: 1},
	})
}

// tieDiamonds ties as many diamonds as the section counts, one under the other;
// only the last of them has its tip as the section says.
func tieDiamonds(w knot.Work) (knot.Tied, error) {
	count := max(1, w.Section.Count)
	return knot.Each(w, count, func(w knot.Work, k int) (knot.Tied, error) {
		if k < count-1 {
			set := knot.Of[Settings](w.Section)
			set.Close = "join"
			w.Section.Settings = set
		}
		return tieDiamond(w)
	})
}

var diamonds memo.Cache[knot.Tied] // in the greatest diameter

// tieDiamond ties one diamond: laid out by its hitches, then parted where the
// lines laid between them press into one another. It is worked out once for
// cords of a proportion, whatever their size.
func tieDiamond(w knot.Work) (knot.Tied, error) {
	d := 0.0
	for _, l := range w.Strands {
		d = math.Max(d, l.Diameter)
	}
	unit := w
	unit.Strands = append([]knot.Strand{}, w.Strands...)
	set := knot.Of[Settings](w.Section)
	key := fmt.Sprintf("%s %s %s", set.Inside, set.Order, set.Close)
	for i := range unit.Strands {
		unit.Strands[i].Diameter /= d
		key += fmt.Sprintf(" %.4f %.3f", unit.Strands[i].Diameter, unit.Strands[i].Figures.Squeeze)
	}
	if set.Inside == "bead" {
		b := set.Bead
		if b == nil {
			b = &knot.Bead{}
		}
		if len(w.Strands) >= 4 && len(w.Strands)%2 == 0 { // told of the real sizes
			h := len(w.Strands) / 2
			if err := knot.Threads(b, []knot.Strand{w.Strands[h-2], w.Strands[h+1]}, "the middle two strands"); err != nil {
				return knot.Tied{}, err
			}
		}
		of := set
		of.Bead = &knot.Bead{HoleMM: b.HoleMM / d, LengthMM: b.LengthMM / d, WidthMM: b.WidthMM / d, Colour: b.Colour}
		unit.Section.Settings = of
		key += fmt.Sprintf(" bead %.4f %.4f", b.LengthMM/d, b.WidthMM/d)
	}
	t, err := diamonds.Get(key, func() (knot.Tied, error) {
		t, err := layDiamond(unit)
		if err != nil {
			return t, err
		}
		t.Part(unit.Strands)
		t.Measure(unit.Strands)
		return t, nil
	})
	if err != nil {
		return t, err
	}
	out := t
	out.Height *= d
	out.Paths = make([]knot.Path, len(t.Paths))
	for i, p := range t.Paths {
		out.Paths[i] = knot.Path{Points: knot.Curve(p.Points).Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: d * v.X, Y: d * v.Y, Z: d * v.Z} }).Points}
	}
	if len(t.Beads) > 0 {
		at := t.Beads[0].At
		out.Beads = []knot.BeadAt{{At: r3.Vec{X: d * at.X, Y: d * at.Y, Z: d * at.Z}, Bead: *set.Bead}}
	}
	return out, nil
}

func layDiamond(w knot.Work) (knot.Tied, error) {
	n := len(w.Strands)
	s := knot.Of[Settings](w.Section)
	switch {
	case n%2 != 0:
		return knot.Tied{}, &knot.Refused{Field: "strands", Why: fmt.Sprintf("a diamond needs an even number of strands, as many on each side; it has %d", n), Set: evenPlaces(w.Section.Strands, n), Label: "Leave the last strand out"}
	case n < 4:
		return knot.Tied{}, fmt.Errorf("a diamond needs four strands or more; it has %d", n)
	case s.Inside == "square-knot" && n < 6:
		return knot.Tied{}, &knot.Refused{Field: "inside", Why: fmt.Sprintf("a square knot inside needs the four middle strands of six or more; the diamond has %d", n), Set: "empty", Label: "Leave it empty inside"}
	}
	h := n / 2
	left, right := w.Strands[:h-1], w.Strands[h+1:]
	fl, fr := w.Strands[h-1], w.Strands[h]
	sides := append(append([]knot.Strand{}, left...), right...)
	filler := math.Max(fl.Diameter, fr.Diameter)
	ribs, err := hitch.NewRow(sides, filler)
	if err != nil {
		return knot.Tied{}, err
	}
	lower := ribs
	m := h - 1 // hitches a side
	doubled := s.Close == "end-doubled" && m > 1
	if doubled { // the first strand of each side lies in with the filler
		if lower, err = hitch.NewRow(sides, filler+ribs.D*1.2); err != nil {
			return knot.Tied{}, err
		}
		lower.Step = ribs.Step
	}
	sin, cos := math.Sincos(hitch.Incline)
	d, tall := ribs.D, ribs.Unit.Tall*ribs.D
	run := float64(m)*ribs.Step + 0.35*d
	top := tall * cos
	if s.Order == "outermost-first" { // room to cross one another
		top += 0.9 * d * float64(m-1)
	}
	// What stands inside decides how far the sides are led down at the corners.
	room := run * sin // between apex and corner
	extra, inside, err := standsInside(w, d, top, room)
	if err != nil {
		return knot.Tied{}, err
	}
	corner := top + room
	tip := 0.35 * ribs.Step // room at the lower tip
	if s.Close == "join" {
		tip = 0.55 * ribs.Step // for the hitch that joins
	}
	bottom := corner + extra + (run+tip)*sin
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: ribs.Unit.Gap, Paths: make([]knot.Path, n)}
	t.Height = bottom + tall*cos + 1.0*d // under the lowest turn of the joining hitch
	if s.Close != "join" {
		t.Height = bottom + 1.5*d
	}
	way := func(k int) float64 { return (float64(k)+0.5)*ribs.Step + 0.2*d } // from the apex
	at := func(side, way float64) r3.Vec { return r3.Vec{X: side * way * cos, Y: top + way*sin} }
	back := func(side, way float64) r3.Vec { return r3.Vec{X: side * (way + tip) * cos, Y: bottom - (way+tip)*sin} }

	// The fillers: from the apex down the side, round the corner and back.
	frame := func(side float64, strand int) {
		far := run + 0.2*d
		a, b := at(side, far), back(side, far)
		pts := []r3.Vec{{X: side * 0.5 * d}, {X: side * 0.5 * d, Y: top * 0.5}, at(side, 0.45*d), at(side, run/2), at(side, run-0.3*d),
			{X: a.X, Y: a.Y}, {X: a.X + side*0.25*d, Y: (a.Y + b.Y) / 2}, {X: b.X, Y: b.Y}, back(side, run-0.3*d), back(side, run/2), back(side, 0.35*d)}
		if doubled {
			for i := 7; i < len(pts); i++ {
				pts[i].Z = 0.5 * d
			}
		}
		switch {
		case s.Close == "join" && side < 0: // on through the hitch that joins
			pts = append(pts, back(side, -tip), r3.Vec{X: 0.55 * ribs.Step * cos, Y: bottom + 0.55*ribs.Step*sin}, r3.Vec{X: 0.55 * d, Y: t.Height})
		case s.Close == "join":
			// its hitch is laid below
		default:
			pts = append(pts, r3.Vec{X: side * 0.58 * d, Y: bottom + 0.5*d}, r3.Vec{X: side * 0.55 * d, Y: t.Height})
		}
		t.Paths[strand] = knot.Path{Points: curve.Spline(pts, false).Points}
	}
	frame(-1, h-1)
	frame(1, h)
	if s.Close == "join" {
		join, err := hitch.NewRow([]knot.Strand{fr}, fl.Diameter)
		if err != nil {
			return knot.Tied{}, err
		}
		// The right filler is hitched over the left one where they meet.
		hitched := join.Over(r3.Vec{Y: bottom}, hitch.Incline, false)
		body := t.Paths[h].Points
		dir := r3.Vec{X: -cos, Y: sin}
		strand := append(body, knot.JoinClose(body[len(body)-1], hitched[0], dir, r3.Vec{X: -sin, Y: cos})...)
		strand = append(strand[:len(strand)-1], hitched...)
		last := strand[len(strand)-1]
		t.Paths[h] = knot.Path{Points: append(strand, knot.JoinClose(last, r3.Vec{X: -0.6 * d, Y: t.Height}, r3.Vec{X: -sin, Y: cos}, r3.Vec{Y: 1})...)}
	}
	// The side strands, by the hitch of the upper diagonal that they make.
	outermost := s.Order == "outermost-first"
	tie := func(side float64, strands []knot.Strand, first int) {
		for i := range strands {
			// near counts from the middle.
			near := len(strands) - 1 - i
			if side > 0 {
				near = i
			}
			up := near
			if outermost {
				up = m - 1 - near
			}
			leftward := side < 0
			h1 := ribs.Over(at(side, way(up)), hitch.Incline, leftward)
			low := m - 1 - up // on the lower diagonal, from the corner
			start := r3.Vec{X: h1[0].X, Z: h1[0].Z}
			pts := knot.Through(start, h1, h1[len(h1)-1].Y)
			if outermost { // they cross one another before the first hitch, each in a layer of its own
				start = r3.Vec{X: at(side, way(near)).X, Z: h1[0].Z}
				layer := h1[0].Z - 1.05*d*float64(near)
				mid := r3.Vec{X: (start.X + h1[0].X) / 2, Y: h1[0].Y * 0.45, Z: layer}
				strand := curve.Spline([]r3.Vec{start, {X: start.X, Y: h1[0].Y * 0.12, Z: (start.Z + layer) / 2}, mid, {X: h1[0].X, Y: h1[0].Y * 0.85, Z: (layer + h1[0].Z) / 2}, h1[0]}, false).Points
				pts = append(strand, knot.Through(h1[0], h1, h1[len(h1)-1].Y)[1:]...)
			}
			if inside != nil {
				if via := inside(int(side), up); via != nil {
					last := pts[len(pts)-1]
					dir := r3.Vec{Y: 1}
					pts = append(pts, knot.JoinClose(last, via[0], dir, dir)...)
					pts = append(pts, via[1:]...)
				}
			}
			if doubled && low == 0 {
				// Round the corner and down the lower side with the filler.
				far := run + 0.1*d
				b := back(side, far)
				in := []r3.Vec{{X: b.X - side*0.5*d, Y: b.Y, Z: -0.7 * d}, back(side, run-0.3*d), back(side, run/2), back(side, 0.35*d), {X: side * 1.6 * d, Y: t.Height}}
				for q := 1; q < len(in); q++ {
					in[q].Z = -0.56 * d
				}
				last := pts[len(pts)-1]
				pts = append(pts, curve.Spline(append([]r3.Vec{last, {X: last.X, Y: last.Y + 0.4*d, Z: last.Z}}, in...), false).Points[1:]...)
			} else {
				h2 := lower.Over(back(side, way(up)), hitch.Incline, !leftward)
				last := pts[len(pts)-1]
				pts = append(pts, knot.JoinClose(last, h2[0], r3.Vec{Y: 1}, r3.Vec{X: side * sin, Y: cos})...)
				pts = append(pts, h2[1:]...)
				end := pts[len(pts)-1]
				// It leaves where the next diamond takes it up, so that it need not step
				// aside there; under doubled ends, by which none follows, as it comes.
				off := r3.Vec{X: start.X, Y: t.Height, Z: start.Z}
				switch {
				case doubled:
					off.X, off.Z = end.X, 0
				case outermost:
					off.X = at(side, way(up)).X
				}
				pts = append(pts, knot.JoinClose(end, off, r3.Vec{X: side * sin, Y: cos}, r3.Vec{Y: 1})...)
			}
			t.Paths[first+i] = knot.Path{Points: pts}
		}
	}
	tie(-1, left, 0)
	tie(1, right, h+1)
	if s.Inside == "bead" {
		t.Beads = []knot.BeadAt{{At: r3.Vec{Y: corner + extra/2}, Bead: *s.Bead}}
	}
	t.Order = knot.Identity(n)
	if s.Close == "join" {
		t.Order[h-1], t.Order[h] = h, h-1
	}
	if outermost { // each side has changed its order
		flip := func(a, b int) {
			for i, j := a, b; i < j; i, j = i+1, j-1 {
				t.Order[i], t.Order[j] = t.Order[j], t.Order[i]
			}
		}
		flip(0, h-2)
		flip(h+1, n-1)
	}
	if doubled { // the strand laid in with the filler comes out beside it
		first := 0
		if outermost {
			first = h - 2
		}
		move := func(strand, to int) {
			t.Order = slices.Insert(slices.DeleteFunc(t.Order, func(i int) bool { return i == strand }), to, strand)
		}
		move(first, h-2)
		move(n-1-first, h+1)
	}
	if t.Moves, err = moves(w, s); err != nil {
		return knot.Tied{}, err
	}
	return t, nil
}

// standsInside gives how far the corners are led down for what stands inside a
// diamond, and the way of each inner strand through it.
func standsInside(w knot.Work, d, top, room float64) (extra float64, via func(side, near int) []r3.Vec, err error) {
	s, n := knot.Of[Settings](w.Section), len(w.Strands)
	switch s.Inside {
	case "square-knot":
		in := knot.Work{Section: row.Square(1, knot.Left),
			Strands: strandsOf(w, inner(sidesOf(n, s), 2))}
		t, err := row.Tie(in, 2, knot.Left)
		if err != nil {
			return 0, nil, err
		}
		free := 2*room - 3.2*d // between the tips, less the ribs
		extra = math.Max(0.5*d, t.Height+4.2*d-free)
		// The knot stands in the middle between apex and lower tip.
		return extra, func(side, near int) []r3.Vec {
			if near > 1 {
				return nil
			}
			k := map[[2]int]int{{-1, 1}: 0, {-1, 0}: 1, {1, 0}: 2, {1, 1}: 3}[[2]int{side, near}]
			y := top + room + extra/2 - t.Height/2
			var out []r3.Vec
			for _, v := range t.Paths[k].Points {
				out = append(out, r3.Vec{X: v.X, Y: v.Y + y, Z: v.Z})
			}
			return out
		}, nil
	case "bead":
		b := *s.Bead
		free := 2*room - 3.2*d
		extra = math.Max(0, b.LengthMM+1.6*d-free)
		sit := knot.Seats(strandsOf(w, inner(sidesOf(n, s), 1)))
		return extra, func(side, near int) []r3.Vec {
			if near > 0 {
				return nil
			}
			at := sit[(side+1)/2]
			y := top + room + extra/2
			return []r3.Vec{{X: at.X, Y: y - b.LengthMM/2, Z: at.Z}, {X: at.X, Y: y, Z: at.Z}, {X: at.X, Y: y + b.LengthMM/2, Z: at.Z}}
		}, nil
	}
	return 0.5 * d, nil, nil
}

// sidesOf are the strands of each side from the left, once the sides have crossed:
// taken outermost first, they have changed their order.
func sidesOf(n int, s Settings) [2][]int {
	h := n / 2
	sides := [2][]int{knot.Numbered(0, h-1), knot.Numbered(h+1, h-1)}
	if s.Order == "outermost-first" {
		slices.Reverse(sides[0])
		slices.Reverse(sides[1])
	}
	return sides
}

// inner are the innermost strands of each side, from the left.
func inner(sides [2][]int, each int) []int {
	l, r := sides[0], sides[1]
	return slices.Concat(l[len(l)-each:], r[:each])
}

func strandsOf(w knot.Work, strands []int) []knot.Strand {
	var out []knot.Strand
	for _, i := range strands {
		out = append(out, w.Strands[i])
	}
	return out
}

// moves are those of one diamond, in the order in which they are made: two sides
// down from the middle, what stands inside, two sides back to it.
func moves(w knot.Work, s Settings) ([]move.Move, error) {
	n := len(w.Strands)
	h := n / 2
	sides := sidesOf(n, s)
	fillers := [2]int{h - 1, h}
	order := knot.Identity(n)
	var out []move.Move
	// side lays a filler over the strands of a side and hitches each: to the left or
	// to the right of where the filler stands. Of those the first may be laid in with
	// the filler instead.
	side := func(filler int, others []int, left, layIn bool) {
		if left { // the strands that it meets, in turn
			slices.Reverse(others)
		}
		as := append([]int{filler}, others...)
		ms := hitch.Moves(len(as), 1, 1, false, true)
		if layIn {
			in := move.Move{Strand: 1, From: move.Right, To: move.Right, Naming: [][]int{{0}},
				Text: "Lay {me} in with the filler, {strands 0}, and hitch the others over both.", Gate: "Both lie side by side, none on top."}
			both := []int{0, 1}
			ms = []move.Move{ms[0], in}
			for k := 2; k < len(as); k++ {
				ms = append(ms, hitch.Hitch(k, both))
			}
		}
		for k, m := range ms {
			if left { // the same to the other side, of the same strands
				m = m.Mirror(0)
			}
			if k > 0 && k < len(ms)-1 {
				m.Gate = ""
			}
			m = m.Renumber(as)
			m.Order = order
			out = append(out, m)
		}
	}
	side(fillers[0], slices.Clone(sides[0]), true, false)
	side(fillers[1], slices.Clone(sides[1]), false, false)
	out[len(out)-1].Gate = "Both sides have the same number of hitches and lie in straight lines."
	order = slices.Concat(fillers[:1], sides[0], sides[1], fillers[1:]) // the fillers are at the corners
	switch s.Inside {
	case "square-knot":
		four := inner(sides, 2)
		tied, err := row.Tie(knot.Work{Section: row.Square(1, knot.Left), Strands: strandsOf(w, four)}, 2, knot.Left)
		if err != nil {
			return nil, err
		}
		for k, m := range tied.Moves {
			m = m.Renumber(four)
			at, whole := 0, slices.Clone(order)
			for p, i := range whole {
				if slices.Contains(four, i) {
					whole[p] = m.Order[at]
					at++
				}
			}
			m.Order = whole
			if k == len(tied.Moves)-1 {
				m.Gate = "The square knot stands in the middle of the diamond."
			}
			out = append(out, m)
		}
	case "bead":
		out = append(out, move.Move{Strand: move.All, Naming: [][]int{inner(sides, 1)}, Order: order,
			Text: "Put the bead on {strands 0}.", Detail: "Push it up to the apex and hold it there.", Gate: "The bead looks the way it should."})
	}
	layIn := s.Close == "end-doubled" && h > 2
	side(fillers[0], slices.Clone(sides[0]), false, layIn)
	side(fillers[1], slices.Clone(sides[1]), true, layIn)
	out[len(out)-1].Gate = "The four sides are alike."
	if layIn {
		out[len(out)-1].Gate = "The lower edges are fuller than the upper ones and even."
	}
	if s.Close == "join" {
		m := hitch.Hitch(h, []int{h - 1})
		m.Order = slices.Concat(sides[0], fillers[:], sides[1])
		m.Detail, m.Gate = "It joins the two fillers where they meet; draw the waist shut.", "The tip is closed and the four sides are alike."
		out = append(out, m)
	}
	return out, nil
}

// evenPlaces are the places of a section less its last, so that they are even.
func evenPlaces(strands []int, n int) []int {
	if len(strands) == n {
		return append([]int{}, strands[:n-1]...)
	}
	return knot.Numbered(1, n-1)
}
