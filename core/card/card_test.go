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
		if len(c.Cords) != used || len(c.Held) == 0 || c.Surface == "" || len(c.Tools) < 2 {
			t.Errorf("%s: %+v", p.ID, c)
		}
		for _, q := range pl.Checks {
			if !slices.ContainsFunc(c.Looks, func(l card.Line) bool { return l.Says == q.Message }) {
				t.Errorf("%s: the check %q is not on the card", p.ID, q.Message)
			}
		}
		for i, l := range c.Looks {
			if slices.Index(c.Looks, l) != i {
				t.Errorf("%s: %q stands twice", p.ID, l.Says)
			}
		}
		if hangs := d.Purpose.HangsOn.Type; hangs != "none" && hangs != "hole" && len(c.Things) == 0 {
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
		held := ""
		for _, l := range c.Held {
			held += l.Says + " "
		}
		if !strings.Contains(strings.Join(c.Things, "; "), want.thing) || !slices.Contains(c.Tools, want.tool) || !slices.Contains(c.Tools, "lacing needle") ||
			!strings.Contains(c.Surface, want.surface) || !strings.Contains(held, want.held) {
			t.Errorf("%s: %+v, want %+v", id, c, want)
		}
	}
}
