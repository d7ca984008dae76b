package knot

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/kept"
)

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
	add(Knot{
		ID: "diamond", Name: "diamond", Family: "hitches",
		OtherNames: []string{"lozenge", "diamond of hitches"},
		For:        "a frame of ribs on six strands or more, for a bead or a knot inside",
		Repeats:    true,
		Schools: []School{
			{Field: "inside", Default: "empty", Why: "an empty diamond shows whether its sides are even"},
			{Field: "order", Default: "in-turn", Why: "in turn the strands hang free at the waist; outermost first tucks them in under the next diamond"},
			{Field: "close", Default: "join", Why: "one more hitch holds the tip; leave it open only where a knot follows that holds it"},
		},
		Fields: append([]Field{
			{Key: "strands", Short: "strands", Label: "strands", Kind: "places"},
			{Key: "inside", Short: "inside", Label: "inside", Kind: "choice", Choices: []string{"empty", "square-knot", "bead"}, Default: "empty"},
			{Key: "order", Short: "order", Label: "side strands", Kind: "choice", Choices: []string{"in-turn", "outermost-first"}, Default: "in-turn"},
			{Key: "close", Short: "close", Label: "last tip", Kind: "choice", Choices: []string{"join", "end", "end-doubled"}, Default: "join"},
		}, beadFields("inside")...),
		fill:  func(s *Section) { s.Inside, s.Order, s.Close = "empty", "in-turn", "join" },
		parts: func(_ Section, n int) int { return n },
		tie:   tieDiamonds,
	})
}

// tieDiamonds ties as many diamonds as the section counts, one under the other;
// only the last of them has its tip as the section says.
func tieDiamonds(w Work) (Tied, error) {
	count := max(1, w.Section.Count)
	return tieEach(w, count, func(w Work, k int) (Tied, error) {
		if k < count-1 {
			w.Section.Close = "join"
		}
		return tieDiamond(w)
	})
}

var diamonds kept.By[Tied] // in the greatest diameter

// tieDiamond ties one diamond: laid out by its hitches, then parted where the
// lines laid between them press into one another. It is worked out once for
// cords of a proportion, whatever their size.
func tieDiamond(w Work) (Tied, error) {
	d := 0.0
	for _, l := range w.Leads {
		d = math.Max(d, l.Diameter)
	}
	unit := w
	unit.Leads = append([]Lead{}, w.Leads...)
	key := fmt.Sprintf("%s %s %s", w.Section.Inside, w.Section.Order, w.Section.Close)
	for i := range unit.Leads {
		unit.Leads[i].Diameter /= d
		key += fmt.Sprintf(" %.4f %.3f", unit.Leads[i].Diameter, unit.Leads[i].Stuff.Squeeze())
	}
	if w.Section.Inside == "bead" {
		b := w.Section.Bead
		if b == nil {
			b = &Bead{}
		}
		if len(w.Leads) >= 4 && len(w.Leads)%2 == 0 { // told of the real sizes
			h := len(w.Leads) / 2
			if err := threads(b, []Lead{w.Leads[h-2], w.Leads[h+1]}, "the middle two strands"); err != nil {
				return Tied{}, err
			}
		}
		unit.Section.Bead = &Bead{HoleMM: b.HoleMM / d, LengthMM: b.LengthMM / d, WidthMM: b.WidthMM / d, Colour: b.Colour}
		key += fmt.Sprintf(" bead %.4f %.4f", b.LengthMM/d, b.WidthMM/d)
	}
	t, err := diamonds.Get(key, func() (Tied, error) {
		t, err := layDiamond(unit)
		if err != nil {
			return t, err
		}
		t.part(unit.Leads)
		return t, nil
	})
	if err != nil {
		return t, err
	}
	out := t
	out.Height *= d
	out.Paths = make([]Path, len(t.Paths))
	for i, p := range t.Paths {
		out.Paths[i] = Path{Points: asCurve(p.Points).Map(func(v Vec) Vec { return Vec{X: d * v.X, Y: d * v.Y, Z: d * v.Z} }).Points}
	}
	if len(t.Beads) > 0 {
		at := t.Beads[0].At
		out.Beads = []BeadAt{{At: Vec{X: d * at.X, Y: d * at.Y, Z: d * at.Z}, Bead: *w.Section.Bead}}
	}
	return out, nil
}

func layDiamond(w Work) (Tied, error) {
	n := len(w.Leads)
	s := w.Section
	switch {
	case n%2 != 0:
		return Tied{}, &Refused{Field: "strands", Why: fmt.Sprintf("a diamond needs an even number of strands, as many on each side; it has %d", n), Set: evenPlaces(s, n), Label: "Leave the last strand out"}
	case n < 4:
		return Tied{}, fmt.Errorf("a diamond needs four strands or more; it has %d", n)
	case s.Inside == "square-knot" && n < 6:
		return Tied{}, &Refused{Field: "inside", Why: fmt.Sprintf("a square knot inside needs the four middle strands of six or more; the diamond has %d", n), Set: "empty", Label: "Leave it empty inside"}
	}
	h := n / 2
	left, right := w.Leads[:h-1], w.Leads[h+1:]
	fl, fr := w.Leads[h-1], w.Leads[h]
	sides := append(append([]Lead{}, left...), right...)
	filler := math.Max(fl.Diameter, fr.Diameter)
	row, err := newHitchRow(sides, filler)
	if err != nil {
		return Tied{}, err
	}
	lower := row
	m := h - 1 // hitches a side
	doubled := s.Close == "end-doubled" && m > 1
	if doubled { // the first strand of each side lies in with the filler
		if lower, err = newHitchRow(sides, filler+row.d*1.2); err != nil {
			return Tied{}, err
		}
		lower.step = row.step
	}
	sin, cos := math.Sincos(hitchSlope)
	d, tall := row.d, row.unit.tall*row.d
	run := float64(m)*row.step + 0.35*d
	top := tall * cos
	if s.Order == "outermost-first" { // room to cross one another
		top += 0.9 * d * float64(m-1)
	}
	// What stands inside decides how far the sides are led down at the corners.
	room := run * sin // between apex and corner
	extra, inside, err := standsInside(w, d, top, room)
	if err != nil {
		return Tied{}, err
	}
	corner := top + room
	tip := 0.35 * row.step // room at the lower tip
	if s.Close == "join" {
		tip = 0.55 * row.step // for the hitch that joins
	}
	bottom := corner + extra + (run+tip)*sin
	t := Tied{Loose: true, Snug: true, Repeats: 1, Gap: row.unit.gap, Paths: make([]Path, n)}
	t.Height = bottom + tall*cos + 0.7*d // under the lowest turn of the joining hitch
	if s.Close != "join" {
		t.Height = bottom + 1.5*d
	}
	way := func(k int) float64 { return (float64(k)+0.5)*row.step + 0.2*d } // from the apex
	at := func(side, way float64) Vec { return Vec{X: side * way * cos, Y: top + way*sin} }
	back := func(side, way float64) Vec { return Vec{X: side * (way + tip) * cos, Y: bottom - (way+tip)*sin} }

	// The fillers: from the apex down the side, round the corner and back.
	frame := func(side float64, lead int) {
		far := run + 0.2*d
		a, b := at(side, far), back(side, far)
		pts := []Vec{{X: side * 0.5 * d}, {X: side * 0.5 * d, Y: top * 0.5}, at(side, 0.45*d), at(side, run/2), at(side, run-0.3*d),
			{X: a.X, Y: a.Y}, {X: a.X + side*0.25*d, Y: (a.Y + b.Y) / 2}, {X: b.X, Y: b.Y}, back(side, run-0.3*d), back(side, run/2), back(side, 0.35*d)}
		if doubled {
			for i := 7; i < len(pts); i++ {
				pts[i].Z = 0.5 * d
			}
		}
		switch {
		case s.Close == "join" && side < 0: // on through the hitch that joins
			pts = append(pts, back(side, -tip), Vec{X: 0.55 * row.step * cos, Y: bottom + 0.55*row.step*sin}, Vec{X: 0.8*row.step*cos + 0.3*d, Y: t.Height})
		case s.Close == "join":
			// its hitch is laid below
		default:
			pts = append(pts, Vec{X: side * 0.58 * d, Y: bottom + 0.5*d}, Vec{X: side * 0.55 * d, Y: t.Height})
		}
		t.Paths[lead] = Path{Points: curve.Spline(pts, false).Points}
	}
	frame(-1, h-1)
	frame(1, h)
	if s.Close == "join" {
		join, err := newHitchRow([]Lead{fr}, fl.Diameter)
		if err != nil {
			return Tied{}, err
		}
		// The right filler is hitched over the left one where they meet.
		hitched := join.over(Vec{Y: bottom}, hitchSlope, false)
		body := t.Paths[h].Points
		dir := Vec{X: -cos, Y: sin}
		lead := append(body, Join(body[len(body)-1], hitched[0], dir, Vec{X: -sin, Y: cos})...)
		lead = append(lead[:len(lead)-1], hitched...)
		last := lead[len(lead)-1]
		t.Paths[h] = Path{Points: append(lead, Join(last, Vec{X: -0.6 * d, Y: t.Height}, Vec{X: -sin, Y: cos}, Vec{Y: 1})...)}
	}
	// The side strands, by the hitch of the upper diagonal that they make.
	outermost := s.Order == "outermost-first"
	tie := func(side float64, leads []Lead, first int) {
		for i := range leads {
			// near counts from the middle.
			near := len(leads) - 1 - i
			if side > 0 {
				near = i
			}
			up := near
			if outermost {
				up = m - 1 - near
			}
			leftward := side < 0
			h1 := row.over(at(side, way(up)), hitchSlope, leftward)
			low := m - 1 - up // on the lower diagonal, from the corner
			start := Vec{X: h1[0].X, Z: h1[0].Z}
			pts := led(start, h1, h1[len(h1)-1].Y)
			if outermost { // they cross one another before the first hitch, each in a layer of its own
				start = Vec{X: at(side, way(near)).X, Z: h1[0].Z}
				layer := h1[0].Z - 1.05*d*float64(near)
				mid := Vec{X: (start.X + h1[0].X) / 2, Y: h1[0].Y * 0.45, Z: layer}
				lead := curve.Spline([]Vec{start, {X: start.X, Y: h1[0].Y * 0.12, Z: (start.Z + layer) / 2}, mid, {X: h1[0].X, Y: h1[0].Y * 0.85, Z: (layer + h1[0].Z) / 2}, h1[0]}, false).Points
				pts = append(lead, led(h1[0], h1, h1[len(h1)-1].Y)[1:]...)
			}
			if inside != nil {
				if via := inside(int(side), near); via != nil {
					last := pts[len(pts)-1]
					dir := Vec{Y: 1}
					pts = append(pts, Join(last, via[0], dir, dir)...)
					pts = append(pts, via[1:]...)
				}
			}
			if doubled && low == 0 {
				// Round the corner and down the lower side with the filler.
				far := run + 0.1*d
				b := back(side, far)
				in := []Vec{{X: b.X - side*0.5*d, Y: b.Y, Z: -0.7 * d}, back(side, run-0.3*d), back(side, run/2), back(side, 0.35*d), {X: side * 1.6 * d, Y: t.Height}}
				for q := 1; q < len(in); q++ {
					in[q].Z = -0.56 * d
				}
				last := pts[len(pts)-1]
				pts = append(pts, curve.Spline(append([]Vec{last, {X: last.X, Y: last.Y + 0.4*d, Z: last.Z}}, in...), false).Points[1:]...)
			} else {
				h2 := lower.over(back(side, way(up)), hitchSlope, !leftward)
				last := pts[len(pts)-1]
				pts = append(pts, Join(last, h2[0], Vec{Y: 1}, Vec{X: side * sin, Y: cos})...)
				pts = append(pts, h2[1:]...)
				end := pts[len(pts)-1]
				pts = append(pts, Join(end, Vec{X: end.X, Y: t.Height}, Vec{X: side * sin, Y: cos}, Vec{Y: 1})...)
			}
			t.Paths[first+i] = Path{Points: pts}
		}
	}
	tie(-1, left, 0)
	tie(1, right, h+1)
	if s.Inside == "bead" {
		t.Beads = []BeadAt{{At: Vec{Y: corner + extra/2}, Bead: *s.Bead}}
	}
	t.Order = identity(n)
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
		move := func(lead, to int) {
			t.Order = slices.Insert(slices.DeleteFunc(t.Order, func(i int) bool { return i == lead }), to, lead)
		}
		move(first, h-2)
		move(n-1-first, h+1)
	}
	t.Actions = diamondActions(s, n)
	return t, nil
}

// standsInside gives how far the corners are led down for what stands inside a
// diamond, and the way of each inner strand through it.
func standsInside(w Work, d, top, room float64) (extra float64, via func(side, near int) []Vec, err error) {
	s, n := w.Section, len(w.Leads)
	h := n / 2
	switch s.Inside {
	case "square-knot":
		in := Work{Section: Section{Do: "square-knot", Count: 1, Start: "left"},
			Leads: []Lead{w.Leads[h-3], w.Leads[h-2], w.Leads[h+1], w.Leads[h+2]}}
		t, err := tieRow(in, 2, "left")
		if err != nil {
			return 0, nil, err
		}
		free := 2*room - 3.2*d // between the tips, less the ribs
		extra = math.Max(0.5*d, t.Height+4.2*d-free)
		// The knot stands in the middle between apex and lower tip.
		return extra, func(side, near int) []Vec {
			if near > 1 {
				return nil
			}
			k := map[[2]int]int{{-1, 1}: 0, {-1, 0}: 1, {1, 0}: 2, {1, 1}: 3}[[2]int{side, near}]
			y := top + room + extra/2 - t.Height/2
			var out []Vec
			for _, v := range t.Paths[k].Points {
				out = append(out, Vec{X: v.X, Y: v.Y + y, Z: v.Z})
			}
			return out
		}, nil
	case "bead":
		b := *s.Bead
		free := 2*room - 3.2*d
		extra = math.Max(0, b.LengthMM+1.6*d-free)
		sit := seats([]Lead{w.Leads[h-2], w.Leads[h+1]})
		return extra, func(side, near int) []Vec {
			if near > 0 {
				return nil
			}
			at := sit[(side+1)/2]
			y := top + room + extra/2
			return []Vec{{X: at.X, Y: y - b.LengthMM/2, Z: at.Z}, {X: at.X, Y: y, Z: at.Z}, {X: at.X, Y: y + b.LengthMM/2, Z: at.Z}}
		}, nil
	}
	return 0.5 * d, nil, nil
}

func diamondActions(s Section, n int) []Action {
	h := n / 2
	var out []Action
	side := func(place int, leftwards bool) {
		as := hitchActions(n, place, 1, leftwards, true)[:h] // the filler laid, and a hitch for each strand of the side
		for i, a := range as {
			if i > 0 {
				a.Gate = ""
			}
			out = append(out, a)
		}
	}
	side(h, true)
	side(h+1, false)
	out[len(out)-1].Gate = "Both sides have the same number of hitches and lie in straight lines."
	switch s.Inside {
	case "square-knot":
		out = append(out, Action{Moves: -1, Text: "Tie one square knot with the four middle strands, two fillers and two workers.", Detail: "Dress it to the middle of the diamond."})
	case "bead":
		out = append(out, Action{Moves: -1, Text: "Put the bead on the two middle strands.", Detail: "Push it up to the apex and hold it there.", Gate: "The bead looks the right way."})
	}
	side(1, false)
	side(n, true)
	switch s.Close {
	case "join":
		out = append(out, Action{Moves: h, From: "right", Text: "Hitch the right filler twice over the left one where they meet.", Detail: "Draw the waist shut.", Gate: "The tip is closed and the four sides are alike."})
	case "end-doubled":
		out = append(out, Action{Moves: -1, Text: "The first strand of each lower side was laid in with its filler; draw both up together.", Gate: "The lower edges are fuller than the upper ones and even."})
	}
	return out
}

// evenPlaces are the places of a section less its last, so that they are even.
func evenPlaces(s Section, n int) []int {
	if len(s.Strands) == n {
		return append([]int{}, s.Strands[:n-1]...)
	}
	return numbered(1, n-1)
}
