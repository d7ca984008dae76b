package knot_test

import (
	"math"
	"reflect"
	"regexp"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// met is what a strand meets along it: another, or itself, over or under it.
type met struct {
	other int
	over  bool
	at    float64
}

// meetings are the crossings of curves as each strand meets them along its way,
// seen from the face, or from the working end.
func meetings(t *testing.T, paths []knot.Path, end bool) [][]met {
	t.Helper()
	var cs []curve.Curve
	for i, p := range paths {
		c := curve.Curve{Points: p.Points}
		if i > 0 && len(p.Points) > 2 && len(paths[i-1].Points) > 2 && p.Points[0] == paths[i-1].Points[0] {
			c.Points = p.Points[1:] // two legs meet at their fold
		}
		if end { // the eye is below, looking up the work
			c = c.Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X + 0.0007*v.Y, Y: v.Z + 0.0013*v.Y, Z: v.Y} })
		}
		cs = append(cs, c)
	}
	found, err := curve.Crossings(cs)
	if err != nil {
		t.Fatal(err)
	}
	out := make([][]met, len(paths))
	for _, x := range found {
		out[x.Over] = append(out[x.Over], met{x.Under, true, x.OverAt})
		out[x.Under] = append(out[x.Under], met{x.Over, false, x.UnderAt})
	}
	for i := range out {
		ms := out[i]
		for a := range ms {
			for b := a; b > 0 && ms[b].at < ms[b-1].at; b-- {
				ms[b], ms[b-1] = ms[b-1], ms[b]
			}
		}
	}
	return out
}

// Each over, under, behind and in front that a move says is the curve's own
// crossing at that place: along each strand the passes of its moves are met in
// the order in which they are said, and passed as they are said. For every knot,
// with every choice, by both hands.
func TestMovesPassAsTheCurvePasses(t *testing.T) {
	passes := 0
	for _, left := range []bool{false, true} {
		sections(t, rope, 1, func(name string, w knot.Work) {
			w.LeftHanded = left
			x := tie(t, w)
			paths := x.Paths
			if x.Flat != nil {
				paths = x.Flat
			}
			own := x.Own
			if x.OwnFlat != nil {
				own = x.OwnFlat
			}
			paths = append(append([]knot.Path{}, paths...), own...)
			seen := map[bool][][]met{}
			at := make([]float64, len(paths)) // how far along each strand its moves have come
			for i := range at {
				at[i] = math.Inf(-1)
			}
			for n, m := range x.Moves {
				if m.Strand < 0 {
					continue
				}
				if seen[m.End] == nil && len(m.Passes) > 0 {
					seen[m.End] = meetings(t, paths, m.End)
				}
				if m.Slack { // it goes along the strand from its beginning
					at[m.Strand] = math.Inf(-1)
				}
				for k, p := range m.Passes {
					last := at[m.Strand]
					for _, o := range p.Of {
						passes++
						found := false
						for _, q := range seen[m.End][m.Strand] {
							if q.at > at[m.Strand] && q.other == o && q.over == bool(p.How) {
								found = true
								last = math.Max(last, q.at)
								break
							}
						}
						if !found {
							t.Errorf("%s, left hand %v: move %d, %q: passing %d of strand %d by strand %d is not met so: %+v", name, left, n+1, m.Say(move.Names{}).Text, k+1, o+1, m.Strand+1, seen[m.End][m.Strand])
							return
						}
					}
					at[m.Strand] = last
				}
			}
		})
	}
	if passes < 1000 {
		t.Errorf("only %d passings were compared", passes)
	}
}

// The moves of a knot by the left hand are the mirror of the moves by the right
// one, and mirrored twice they are themselves.
func TestMovesHaveTheirMirror(t *testing.T) {
	sections(t, rope, 1, func(name string, w knot.Work) {
		x := tie(t, w)
		for n, m := range x.Moves {
			if again := m.Mirror(len(w.Strands)).Mirror(len(w.Strands)); !reflect.DeepEqual(again.Say(move.Names{}), m.Say(move.Names{})) {
				t.Errorf("%s: move %d, %q, mirrored twice says %q", name, n+1, m.Say(move.Names{}).Text, again.Say(move.Names{}).Text)
			}
		}
	})
}

// sided finds what the words of a move may only say from its data.
var sided = regexp.MustCompile(`\b(?i:left|right|clockwise|anticlockwise|strands? \d)`)

var slots = regexp.MustCompile(`\{[a-z]+(?: \d+)?\}`)

// No template of a move names a side or a strand: these are slots, filled from the
// data, so that a mirror has nothing to search for.
func TestTheWordsOfMovesHaveTheirSidesFromTheData(t *testing.T) {
	sections(t, rope, 1, func(name string, w knot.Work) {
		for n, m := range tie(t, w).Moves {
			for _, template := range []string{m.Text, m.Detail, m.Gate} {
				if sided.MatchString(slots.ReplaceAllString(template, "")) {
					t.Errorf("%s: move %d says %q by itself", name, n+1, template)
				}
			}
		}
	})
}

// A strand is led as far as its move goes: when a move is done, what it and those before it say
// is passed, on the picture of the knot in hand. For every knot whose strands are led one after
// the other where they are seen, by both hands.
func TestAStrandIsLedAsFarAsItsMoveGoes(t *testing.T) {
	checked := map[string]bool{}
	for _, left := range []bool{false, true} {
		sections(t, rope, 1, func(name string, w knot.Work) {
			w.LeftHanded = left
			x := tie(t, w)
			if k, _ := knot.Get(w.Section.Do); k.Hold != nil || x.Flat != nil || x.OwnFlat != nil || w.Section.Count > 1 {
				return
			}
			led := map[int]bool{}
			for n, m := range x.Moves {
				if !m.Slack {
					led[m.Strand] = true
				}
				if n == len(x.Moves)-1 || m.Slack || m.Strand < 0 || len(m.Passes) == 0 {
					continue
				}
				held, ok, err := knot.Hold(w, n, 1)
				if err != nil {
					t.Fatal(err)
				}
				if !ok {
					continue
				}
				met := meetings(t, append(append([]knot.Path{}, held.Paths...), held.Own...), m.End)[m.Strand]
				at := math.Inf(-1)
				for k, of := range x.Moves[:n+1] {
					if of.Strand != m.Strand {
						continue
					}
					for _, p := range of.Passes {
						last := at
						for _, o := range p.Of {
							if !led[o] { // it hangs yet, elsewhere
								continue
							}
							found := false
							for _, q := range met {
								if q.at > at && q.other == o && q.over == bool(p.How) {
									found, last = true, math.Max(last, q.at)
									break
								}
							}
							if !found {
								t.Errorf("%s, left hand %v: after move %d, %q, strand %d has not passed strand %d as move %d says", name, left, n+1, m.Say(move.Names{}).Text, m.Strand+1, o+1, k+1)
								return
							}
							checked[name] = true
						}
						at = last
					}
				}
			}
		})
	}
	if len(checked) < 20 {
		t.Errorf("only %d knots are led: %v", len(checked), checked)
	}
}

// What a knot ties some move leads: a strand that no move leads, nor goes along with one, runs
// straight through. Otherwise the picture of the work in hand would show it tied from the start.
func TestWhatIsTiedSomeMoveLeads(t *testing.T) {
	sections(t, rope, 1, func(name string, w knot.Work) {
		if k, _ := knot.Get(w.Section.Do); k.Hold != nil {
			return // it says itself what is there
		}
		x := tie(t, w)
		led, all := map[int]bool{}, false
		for _, m := range x.Moves {
			led[m.Strand] = true
			for _, s := range m.With {
				led[s] = true
			}
			all = all || m.Strand == move.All && !m.Slack && !m.Core
		}
		for s, p := range append(append([]knot.Path{}, x.Paths...), x.Own...) {
			if led[s] || len(p.Points) < 2 || all && len(led) == 1 {
				continue
			}
			d := rope.DrawnUp()
			if b := knot.BeyondStraight(p.Points); b > 1.5*d {
				t.Errorf("%s: no move leads strand %d, which takes %.1f mm beyond the straight", name, s+1, b)
			}
		}
	})
}

// What a knot holds in hand by itself the left hand holds as the mirror of it: where the right
// hand comes to the tied knot with the last move, so does the left.
func TestTheLeftHandComesToItsOwnKnot(t *testing.T) {
	compared := 0
	sections(t, rope, 1, func(name string, w knot.Work) {
		if k, _ := knot.Get(w.Section.Do); k.Hold == nil {
			return
		}
		off := func(left bool) float64 {
			w.LeftHanded = left
			x := tie(t, w)
			held, ok, err := knot.Hold(w, len(x.Moves)-1, 1)
			if err != nil {
				t.Fatal(err)
			}
			if !ok {
				return math.Inf(1)
			}
			most := 0.0
			a, b := append(append([]knot.Path{}, x.Paths...), x.Own...), append(append([]knot.Path{}, held.Paths...), held.Own...)
			for i := range a {
				for _, v := range a[i].Points {
					near := math.Inf(1)
					for _, u := range b[i].Points {
						near = math.Min(near, r3.Norm(r3.Sub(u, v)))
					}
					most = math.Max(most, near)
				}
			}
			return most
		}
		if right := off(false); right < 0.01 {
			compared++
			if left := off(true); left > 0.01 {
				t.Errorf("%s: the left hand comes to %.2f mm off its knot, the right hand to it", name, left)
			}
		}
	})
	if compared < 10 {
		t.Errorf("only %d knots were compared", compared)
	}
}
