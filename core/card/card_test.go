package card_test

import (
	"slices"
	"strings"
	"testing"

	"nimblebight/core/card"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

func cardOf(t *testing.T, id string, hold piece.Tool) (piece.Document, plan.Plan, card.Card) {
	t.Helper()
	for _, p := range patterns.All() {
		if p.ID != id {
			continue
		}
		pl, err := plan.Make(p.Document, plan.Options{Hold: hold})
		if err != nil {
			t.Fatal(err)
		}
		return p.Document, pl, card.Of(p.Document, pl)
	}
	t.Fatalf("no pattern %s", id)
	return piece.Document{}, plan.Plan{}, card.Card{}
}

// of gives what the lines of a group say, those that are not left out.
func of(c card.Card, group string) []string {
	var out []string
	for _, g := range c.Groups {
		for _, l := range g.Lines {
			if g.ID == group && !l.Out {
				out = append(out, strings.TrimSpace(l.What+" "+l.Says))
			}
		}
	}
	return out
}

// Every pattern has a card with all its cords, something to hold it by and something to
// look at, and no check of its plan is left out.
func TestEveryPatternHasItsCard(t *testing.T) {
	for _, p := range patterns.All() {
		d, pl, c := cardOf(t, p.ID, piece.Fingers)
		used := 0
		for _, k := range pl.Cords {
			if k.Role != "unused" {
				used++
			}
		}
		if len(of(c, "cords")) != used || len(of(c, "held")) == 0 || len(of(c, "surface")) != 1 || len(of(c, "tools")) < 2 {
			t.Errorf("%s: %+v", p.ID, c)
		}
		for _, q := range pl.Checks {
			if !slices.ContainsFunc(of(c, "look"), func(l string) bool { return strings.HasSuffix(l, q.Message) }) {
				t.Errorf("%s: the check %q is not on the card", p.ID, q.Message)
			}
		}
		for _, g := range c.Groups {
			for i, l := range of(c, g.ID) {
				if slices.Index(of(c, g.ID), l) != i {
					t.Errorf("%s: %q stands twice", p.ID, l)
				}
			}
		}
		for _, q := range pl.Cautions {
			if !slices.Contains(of(c, "cautions"), q.Title+" "+q.Says) {
				t.Errorf("%s: the caution %s is not on the card", p.ID, q.ID)
			}
		}
		if hangs := d.Purpose.HangsOn.Type; hangs != "none" && hangs != "hole" && len(of(c, "beside")) == 0 {
			t.Errorf("%s: what it hangs on is not on the card", p.ID)
		}
	}
}

func TestTheCardHoldsWhatThePieceAsksFor(t *testing.T) {
	for id, want := range map[string]struct{ thing, tool, surface, held string }{
		"two-colour-fob":  {"split ring, {30mm} inside", "lighter", "heatproof", "split ring clipped"},
		"cotton-charm":    {"split ring", "comb", "cork board", "split ring"},
		"bead-knife-pull": {"barrel bead, hole {7.0mm}", "lighter", "heatproof", "hole"},
		"leather-fist":    {"core, {14.0mm}", "scissors", "cork board", "In the hand"},
		"bead-diamonds":   {"3 of: barrel bead", "comb", "cork board", "split ring"},
		"locker-tether":   {"2 of: split ring", "lighter", "heatproof", "Pinned at both ends"},
	} {
		_, _, c := cardOf(t, id, piece.Needle)
		if !strings.Contains(strings.Join(of(c, "beside"), "; "), want.thing) || !slices.Contains(of(c, "tools"), want.tool) || !slices.Contains(of(c, "tools"), "lacing needle") ||
			!strings.Contains(of(c, "surface")[0], want.surface) || !strings.Contains(strings.Join(of(c, "held"), " "), want.held) {
			t.Errorf("%s: %+v, want %+v", id, c, want)
		}
	}
}

// Lines are left out and added by the maker; a caution stays, whatever the document says.
func TestTheMakerChangesTheCard(t *testing.T) {
	d, pl, c := cardOf(t, "two-colour-fob", piece.Fingers)
	keys := map[string]string{}
	for _, g := range c.Groups {
		for _, l := range g.Lines {
			keys[g.ID+" "+l.Says] = l.Key
			keys[g.ID] = l.Key
		}
	}
	d.Card = &piece.CardEdits{Without: []string{keys["tools lighter"], keys["cautions"]}, Own: []piece.CardLine{{Group: "tools", Says: "a torch instead"}}}
	if ps := d.Check(); len(ps) > 0 {
		t.Fatal(ps)
	}
	after := card.Of(d, pl)
	if tools := of(after, "tools"); slices.Contains(tools, "lighter") || !slices.Contains(tools, "a torch instead") || len(tools) != len(of(c, "tools")) {
		t.Errorf("tools are %v", tools)
	}
	if !slices.Equal(of(after, "cautions"), of(c, "cautions")) {
		t.Error("a caution is left out")
	}
	for _, bad := range []piece.CardEdits{{Own: []piece.CardLine{{Group: "chairs", Says: "two"}}}, {Own: []piece.CardLine{{Group: "tools", Says: " "}}}, {Without: make([]string, 300)}} {
		d.Card = &bad
		if ps := d.Check(); len(ps) != 1 || !strings.HasPrefix(ps[0].Path, "card") {
			t.Errorf("%+v: %v", bad, ps)
		}
	}
}

// What is led through a bead is prepared, and what is cut off again is said.
func TestEndsAreOnTheCardAsTheyArePrepared(t *testing.T) {
	_, pl, c := cardOf(t, "bead-knife-pull", piece.Fingers)
	if len(pl.Prepared) == 0 || len(of(c, "prepare")) == 0 || !strings.Contains(of(c, "prepare")[0], "cut off again") {
		t.Errorf("%+v, %v", pl.Prepared, of(c, "prepare"))
	}
}
