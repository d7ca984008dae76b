// Package colouring tells in which ways the colours of a piece can fall: which cord takes
// which colour, and on which side its rows begin. What is said of a way is read off the
// regions of its pictures.
package colouring

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"nimblebight/core/colour"
	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// Way is one essentially different way in which colours fall.
type Way struct {
	ID string `json:"id"` // of this piece and these colours
	// Changes are what is other than in the piece but for its colours, in words.
	Changes []string `json:"changes"`
	// Look is which of the looks it is drawn by; Paints are the colours of its pictures.
	Look   int      `json:"look"`
	Paints []string `json:"paints"`
	// Is is set for the way in which the piece is now.
	Is bool `json:"is,omitempty"`
	// Colours are those of the piece's cords, in their order.
	Colours []string `json:"colours"`
	Names   []string `json:"names"` // what those are called
	Says    string   `json:"says"`
	// Sections are what is said of each section that is tied, where there are several, and
	// of the sides of what goes round.
	Sections []Said `json:"sections"`
	// Runs is how the colours run: in stripes across, in columns, in spirals, or "" for
	// none of them.
	Runs   Run     `json:"runs,omitempty" jsonschema:"enum=stripes,enum=columns,enum=spirals"`
	Shares []Share `json:"shares"`
	// Contrast is the difference between what is seen most in the middle of the face and
	// at its edges, CIEDE2000; Alike the share of both faces that looks the same.
	Contrast float64 `json:"contrast"`
	Alike    float64 `json:"alike"`

	Document piece.Document `json:"document"`

	look sight
}

// Have is a cord of the drawer, by its name.
type Have struct {
	Name  string
	Stuff cord.Stuff
}

// Chosen is a colour that is chosen for the piece, by the name that its cord goes by.
type Chosen struct {
	Colour string `json:"colour"`
	Name   string `json:"name,omitempty"`
}

// Share is how much of each side shows a colour.
type Share struct {
	Colour string  `json:"colour"`
	Name   string  `json:"name"`
	Face   float64 `json:"face"`
	Back   float64 `json:"back"`
}

// Pair are two colours that meet in a piece, as far apart as the weakest eye sees them.
type Pair struct {
	A          string     `json:"a"`
	B          string     `json:"b"`
	NameA      string     `json:"name_a"`
	NameB      string     `json:"name_b"`
	Difference float64    `json:"difference"`
	Usual      float64    `json:"usual"`
	Eye        colour.Eye `json:"eye" jsonschema:"enum=usual,enum=protan,enum=deutan,enum=tritan"`
	// Instead is a colour of the drawer in the place of A that every eye tells apart.
	Instead string `json:"instead,omitempty"`
}

// Answer is how the colours of a piece can fall.
type Answer struct {
	Ways []Way `json:"ways"`
	// All is in how many ways they can fall before those are left out that look alike
	// mirrored or turned over.
	All int `json:"all"`
	// Close are the pairs that meet in the piece as it is and that some eye hardly tells
	// apart.
	Close []Pair `json:"close"`
	// Looks are the pieces that the ways are drawn by.
	Looks []Look `json:"-"`
}

// Look is a piece whose pictures show ways: its cords are put on in one way, its rows
// begin on one side each, and its sheaths have their patterns.
type Look struct {
	Plan   plan.Plan
	Layout plan.Layout
}

// Sort is by what ways are sorted.
type Sort string

// The sorts: bars that stand out most, a colour hidden inside, stripes across, columns,
// spirals, both faces alike, most and least of the first colour.
const (
	ByContrast Sort = "contrast"
	ByHidden   Sort = "hidden"
	ByStripes  Sort = "stripes"
	ByColumns  Sort = "columns"
	BySpirals  Sort = "spirals"
	ByAlike    Sort = "alike"
	ByMost     Sort = "most"
	ByLeast    Sort = "least"
)

// Sorts lists them, the usual one first.
func Sorts() []Sort {
	return []Sort{ByContrast, ByHidden, ByStripes, ByColumns, BySpirals, ByAlike, ByMost, ByLeast}
}

// most is how many ways are looked at; mostCords how many cords take colours.
const (
	most      = 800
	mostCords = 6
)

// Of tells in which ways colours fall on a piece: its own, each cord's taken by cords of its
// kind, or those that are chosen, each at least once. Its cords are put on and its rows
// begun in every way; what comes between stays. have are the cords of the drawer.
// Colours that cannot fall so are refused with the field's name, colours.
func Of(d piece.Document, o plan.Options, chosen []Chosen, sort Sort, have []Have) (Answer, error) {
	bases, err := bases(d, o)
	if err != nil {
		return Answer{}, err
	}
	falls, err := falls(d, usedCords(bases[0].plan), chosen, have)
	if err != nil {
		return Answer{}, err
	}
	if bases, err = fewEnough(bases, falls); err != nil {
		return Answer{}, err
	}
	out := Answer{Ways: []Way{}, Close: []Pair{}, All: len(falls) * len(bases)}
	eyes := lookout{bases: bases, names: namesOf(d, have, chosen), found: map[string]int{}}
	eyes.all(falls)
	is := eyes.at(0, stuffsOf(d))
	var seen []sight
	for b := range bases {
		for n, stuffs := range falls {
			look := eyes.at(b, stuffs)
			if slices.ContainsFunc(seen, look.alike) {
				continue
			}
			seen = append(seen, look)
			w := way(bases[b], stuffs, look)
			w.ID = fmt.Sprintf("%d-%d", n, b)
			w.Is = look.alike(is)
			out.Ways = append(out.Ways, w)
		}
	}
	out.Looks = eyes.looks
	out.Close = closePairs(d, is, have)
	sorted(out.Ways, sort, chosen)
	return out, nil
}

// usedCords are the indices of the cords that a plan uses.
func usedCords(p plan.Plan) []int {
	var out []int
	for i, c := range p.Cords {
		if c.Role != "unused" {
			out = append(out, i)
		}
	}
	return out
}

func stuffsOf(d piece.Document) []cord.Stuff {
	out := make([]cord.Stuff, len(d.Cords))
	for i, c := range d.Cords {
		out[i] = c.Stuff
	}
	return out
}

// refused is what cannot be of the colours.
func refused(format string, args ...any) error {
	return piece.Problems{{Path: "colours", Message: fmt.Sprintf(format, args...)}}
}

// falls are the stuffs of all cords in each way in which colours can be given to them.
func falls(d piece.Document, used []int, chosen []Chosen, have []Have) ([][]cord.Stuff, error) {
	if len(used) > mostCords {
		return nil, refused("fall on %d cords; up to %d are laid out", len(used), mostCords)
	}
	for i, c := range chosen {
		if err := colour.Check(c.Colour); err != nil {
			return nil, refused("%v", err)
		}
		if slices.Index(chosen, c) < i {
			return nil, refused("name %s twice; choose each once", cmp.Or(c.Name, c.Colour))
		}
	}
	if len(chosen) > len(used) {
		return nil, refused("are %d for %d cord%s; choose as many as there are cords, or add a cord", len(chosen), len(used), knot.Plural(len(used)))
	}
	if len(chosen) == 0 {
		return ownFalls(d, used), nil
	}
	if len(chosen) == 1 && len(used) > 0 {
		return nil, refused("are one, and one colour falls in one way; choose another beside it")
	}
	var out [][]cord.Stuff
	now := stuffsOf(d)
	left := make([]int, len(chosen))
	var give func(k, missing int)
	give = func(k, missing int) {
		if len(used)-k < missing || len(out) > most {
			return
		}
		if k == len(used) {
			out = append(out, slices.Clone(now))
			return
		}
		for i, c := range chosen {
			was := now[used[k]]
			now[used[k]] = as(was, c, have)
			fresh := 0
			if left[i] == 0 {
				fresh = 1
			}
			left[i]++
			give(k+1, missing-fresh)
			left[i]--
			now[used[k]] = was
		}
	}
	give(0, len(chosen))
	if len(out) > most {
		return nil, refused("fall in more than %d ways on %d cords; choose fewer", most, len(used))
	}
	return out, nil
}

// as is a cord in a chosen colour. Another colour, or one of the drawer with another sheath,
// is another cord, with a label of its own.
func as(s cord.Stuff, c Chosen, have []Have) cord.Stuff {
	sheath := s.Sheath
	if s.Colour != c.Colour {
		sheath = nil
	}
	if i := slices.IndexFunc(have, func(h Have) bool { return h.Stuff.Colour == c.Colour && (c.Name == "" || h.Name == c.Name) }); i >= 0 {
		sheath = have[i].Stuff.Sheath
	}
	if s.Colour != c.Colour || sheathKey(s.Sheath) != sheathKey(sheath) {
		s.Colour, s.Label, s.Sheath = c.Colour, c.Name, sheath
	}
	return s
}

// ownFalls are the ways in which cords of one kind change places: the same stuff but for
// colour and label.
func ownFalls(d piece.Document, used []int) [][]cord.Stuff {
	now := stuffsOf(d)
	var out [][]cord.Stuff
	had := map[string]bool{}
	var place func(k int)
	place = func(k int) {
		if k == len(used) {
			name := ""
			for _, i := range used {
				name += now[i].Colour + now[i].Label + sheathKey(now[i].Sheath) + "|"
			}
			if !had[name] && len(out) < most {
				had[name] = true
				out = append(out, slices.Clone(now))
			}
			return
		}
		for j := k; j < len(used); j++ {
			a, b := used[k], used[j]
			if kindOf(now[a]) != kindOf(now[b]) {
				continue
			}
			now[a], now[b] = now[b], now[a]
			place(k + 1)
			now[a], now[b] = now[b], now[a]
		}
	}
	place(0)
	return out
}

func way(b base, stuffs []cord.Stuff, look sight) Way {
	out := Way{Changes: slices.Clone(b.changes), Look: look.number, Paints: scene.Colours(stuffs), look: look}
	if out.Changes == nil {
		out.Changes = []string{}
	}
	out.Document = b.doc
	out.Document.Cords = slices.Clone(b.doc.Cords)
	for i := range out.Document.Cords {
		out.Document.Cords[i].Stuff = stuffs[i]
		out.Colours = append(out.Colours, stuffs[i].Colour)
		out.Names = append(out.Names, look.name(stuffs[i].Colour))
	}
	out.Shares = look.shares()
	out.Says = look.says()
	out.Sections = look.bySection()
	out.Runs = look.face().runs()
	middle, edge := look.face().most(middleOf), look.face().most(edgeOf)
	if middle != edge && middle != "" && edge != "" {
		out.Contrast = colour.Difference(middle, edge)
	}
	out.Alike = look.face().same(look.back())
	return out
}

// sorted puts the ways in the order that is asked for; those that are alike in it stay as
// they are.
func sorted(ways []Way, by Sort, chosen []Chosen) {
	first := ""
	if len(chosen) > 0 {
		first = chosen[0].Colour
	} else if len(ways) > 0 && len(ways[0].Shares) > 0 {
		first = ways[0].Shares[0].Colour
	}
	hidden := func(w Way) float64 {
		least := 2.0
		for _, s := range w.Shares {
			least = min(least, s.Face+s.Back)
		}
		return -least
	}
	runs := func(r Run) func(w Way) float64 {
		return func(w Way) float64 { return w.look.face().running()[r] }
	}
	shown := func(w Way) float64 {
		for _, s := range w.Shares {
			if s.Colour == first {
				return s.Face + s.Back
			}
		}
		return 0
	}
	worth := map[Sort]func(Way) float64{
		ByContrast: func(w Way) float64 { return w.Contrast }, ByHidden: hidden,
		ByStripes: runs(Stripes), ByColumns: runs(Columns), BySpirals: runs(Spirals),
		ByAlike: func(w Way) float64 { return w.Alike }, ByMost: shown, ByLeast: func(w Way) float64 { return -shown(w) },
	}[by]
	if worth == nil {
		worth = func(w Way) float64 { return w.Contrast }
	}
	slices.SortStableFunc(ways, func(a, b Way) int {
		switch x, y := worth(a), worth(b); {
		case x > y+1e-9:
			return -1
		case y > x+1e-9:
			return 1
		}
		return 0
	})
}

// closePairs are the cords that meet in the pictures of a piece and that some eye hardly
// tells apart.
func closePairs(d piece.Document, look sight, have []Have) []Pair {
	paints := scene.Colours(stuffsOf(d))
	out := []Pair{}
	for _, m := range look.meet() {
		a, b := paints[m[0]], paints[m[1]]
		if strings.EqualFold(a, b) {
			continue // one colour is meant to be one
		}
		least, eye := colour.Seen(a, b)
		if least >= colour.Enough || slices.ContainsFunc(out, func(p Pair) bool { return p.A == a && p.B == b || p.A == b && p.B == a }) {
			continue
		}
		var beside []string
		for _, o := range look.meet() {
			switch m[0] {
			case o[0]:
				beside = append(beside, paints[o[1]])
			case o[1]:
				beside = append(beside, paints[o[0]])
			}
		}
		p := Pair{A: a, B: b, NameA: look.name(a), NameB: look.name(b), Difference: least, Usual: colour.Difference(a, b), Eye: eye}
		if m[0] < len(d.Cords) { // a whole cord can be another one; a yarn of a sheath cannot
			p.Instead = colour.Instead(a, beside, likeIt(d.Cords[m[0]].Stuff, have))
		}
		out = append(out, p)
	}
	return out
}

// likeIt are the colours of the drawer's cords of the same make and thickness as one.
func likeIt(s cord.Stuff, have []Have) []string {
	var out []string
	for _, h := range have {
		if o := h.Stuff; o.Make == s.Make && o.Material == s.Material && o.DiameterMM == s.DiameterMM {
			out = append(out, o.Colour)
		}
	}
	return out
}

// namesOf are what colours are called: as they were chosen, as the drawer calls a cord of
// that colour, or by the label of the piece's own cord where no other one has it; a colour
// of no name goes by its hex.
func namesOf(d piece.Document, have []Have, chosen []Chosen) map[string]string {
	out, plain, taken := map[string]string{}, map[string]string{}, map[string]int{}
	call := func(hex string) {
		if plain[hex] == "" {
			plain[hex] = colour.Name(hex)
			taken[plain[hex]]++
		}
	}
	labels := map[string]int{}
	for _, c := range d.Cords {
		labels[c.Stuff.Label]++
		call(c.Stuff.Colour)
		if c.Stuff.Sheath != nil {
			for _, hex := range c.Stuff.Sheath.Colours {
				call(hex)
			}
		}
	}
	for _, c := range chosen {
		call(c.Colour)
	}
	for hex, name := range plain {
		if taken[name] > 1 {
			name = fmt.Sprintf("%s %s", name, hex)
		}
		out[hex] = name
	}
	for _, c := range d.Cords {
		if l := c.Stuff.Label; l != "" && labels[l] == 1 {
			out[c.Stuff.Colour] = l
		}
	}
	for _, h := range slices.Backward(have) {
		own := func(c piece.Cord) bool {
			return c.Stuff.Colour == h.Stuff.Colour && sheathKey(c.Stuff.Sheath) == sheathKey(h.Stuff.Sheath)
		}
		if out[h.Stuff.Colour] == "" || slices.ContainsFunc(d.Cords, own) {
			out[h.Stuff.Colour] = h.Name
		}
	}
	for _, c := range chosen {
		if c.Name != "" {
			out[c.Colour] = c.Name
		}
	}
	return out
}
