package plan

import (
	"nimblebight/core/caution"
	"nimblebight/core/cord"
	"nimblebight/core/piece"
)

// cautions are what the piece calls for: its purpose, each of its sections, and a flame
// beside any cord of it, whichever it is held to.
func (w *walk) cautions() []caution.Caution {
	calls := append([]caution.Call{{ID: caution.Choking, Section: -1}, {ID: caution.Load, Section: -1}}, w.calls...)
	kind, _ := piece.KindOf(w.d.Purpose.Kind)
	for _, id := range kind.Calls {
		calls = append(calls, caution.Call{ID: id, Section: -1})
	}
	var stuffs []cord.Stuff
	for _, c := range w.d.Cords {
		stuffs = append(stuffs, c.Stuff)
	}
	for _, c := range w.calls {
		if c.ID == caution.Flame {
			calls = append(calls, caution.Beside(c.Section, stuffs)...)
		}
	}
	out := caution.Of(calls)
	for i := range out {
		// What a section calls for stands where the act is, not with the piece.
		for _, c := range calls {
			if c.ID == out[i].ID && c.Section >= 0 {
				out[i].Section = c.Section
				break
			}
		}
	}
	return out
}
