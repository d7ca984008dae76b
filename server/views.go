package server

import (
	"crypto/sha256"
	"fmt"

	"nimblebight/core/gauge"
	"nimblebight/core/inspect"
	"nimblebight/core/knot"
	"nimblebight/core/memo"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
	"nimblebight/formats/svg"
)

// views keeps plans and pictures of documents seen before, by what was asked.
// A document never changes, so neither do they, but for plans of which a part is
// still to be drawn up.
type views struct {
	plans memo.Cache[plan.Plan]
	pics  memo.Cache[scene.Picture]
	looks memo.Cache[[]inspect.Item]
	// plates are what was written of plates, by their names.
	plates memo.Cache[svg.Plate]
	// known is what is known of the maker's cords and hand now.
	known func() *gauge.Estimate
}

func newViews(known func() *gauge.Estimate) *views {
	return &views{known: known, plans: memo.Cache[plan.Plan]{Most: 32 << 20}, pics: memo.Cache[scene.Picture]{Most: 32 << 20}, looks: memo.Cache[[]inspect.Item]{Most: 24 << 20}, plates: memo.Cache[svg.Plate]{Most: 16 << 20}}
}

// hand is a place at the vise: so many actions, and how far the last has come.
// The zero value is the whole piece.
type hand struct {
	until int
	along float64
}

func (v *views) plan(raw []byte, d piece.Document, set Settings, at hand) (plan.Plan, error) {
	known := v.known()
	o := options(set)
	o.Until, o.Along = at.until, at.along
	key := fmt.Sprintf("%x %v %s", sha256.Sum256(raw), o, known.ID())
	o.Gauge = known
	return v.plans.GetIf(key, func() (plan.Plan, bool, error) {
		p, err := plan.Make(d, o)
		return p, len(p.Rough) == 0, err
	})
}

// inspect is what to inspect on a piece that is planned.
func (v *views) inspect(raw []byte, d piece.Document, set Settings, p plan.Plan) ([]inspect.Item, error) {
	known := v.known()
	o := options(set)
	key := fmt.Sprintf("%x %v %s", sha256.Sum256(raw), o, known.ID())
	o.Gauge = known
	return v.looks.GetIf(key, func() ([]inspect.Item, bool, error) {
		return inspect.Of(d, p, o), len(p.Rough) == 0, nil
	})
}

// options are those of the settings, without what was measured.
func options(set Settings) plan.Options {
	o := plan.Options{LeftHanded: set.Hand == "left", OneIn: set.OneIn, Hold: set.Hold}
	if set.Units == "inch" {
		o.RoundUpMM, o.FoldToMM = plan.QuarterInch, plan.EighthInch
	}
	return o
}

// optionsOf are those of the settings, with what was measured.
func (s *Server) optionsOf(set Settings) plan.Options {
	o := options(set)
	o.Gauge = s.known()
	return o
}

func (v *views) picture(raw []byte, d piece.Document, set Settings, at hand, view scene.View) (scene.Picture, error) {
	key := fmt.Sprintf("%x %s %v %v %s", sha256.Sum256(raw), set.Hand, at, view, v.known().ID())
	return v.pics.GetIf(key, func() (scene.Picture, bool, error) {
		p, err := v.plan(raw, d, set, at)
		if err != nil {
			return scene.Picture{}, false, err
		}
		pic := scene.Render(p.Look(), view)
		if at.until > 0 {
			if err := v.lead(&pic, raw, d, set, at, p, view); err != nil {
				return pic, false, err
			}
		}
		return pic, len(p.Rough) == 0, nil
	})
}

// look is a picture of one section as it is looked at from the end or unrolled.
func (v *views) look(raw []byte, d piece.Document, set Settings, at hand, view scene.View, as scene.Look, section int) (scene.Picture, error) {
	key := fmt.Sprintf("%x %s %v %v %s %d %s", sha256.Sum256(raw), set.Hand, at, view, as, section, v.known().ID())
	return v.pics.GetIf(key, func() (scene.Picture, bool, error) {
		p, err := v.plan(raw, d, set, at)
		if err != nil {
			return scene.Picture{}, false, err
		}
		if at.until == 0 || as != scene.FromEnd {
			return scene.Render(as.Of(p.Look(), section), view), len(p.Rough) == 0, nil
		}
		led := p
		if at.along > 0 && at.along <= knot.Led { // not led all the way
			if led, err = v.plan(raw, d, set, hand{until: at.until}); err != nil {
				return scene.Picture{}, false, err
			}
		}
		return scene.RenderHand(p.Look(), led.Look(), section, view), len(p.Rough) == 0, nil
	})
}

// lead shows on a picture at the vise where the strand in hand is to go, and the
// numbers of the places as they were when the action began.
func (v *views) lead(pic *scene.Picture, raw []byte, d piece.Document, set Settings, at hand, now plan.Plan, view scene.View) error {
	l := now.Look()
	pic.Number(l, view, view.To-2.6*l.Thick)
	if at.along == 1 { // as it hangs before the next action
		whole, err := v.plan(raw, d, set, hand{})
		if err != nil {
			return err
		}
		if bump, ok := l.LowestBump(whole.GoesOn(at.until)); ok {
			pic.MarkBump(view, bump)
		}
	}
	if at.along == 0 || at.along > knot.Led { // led all the way
		return nil
	}
	led, err := v.plan(raw, d, set, hand{until: at.until})
	if err != nil {
		return err
	}
	pic.Lead(l, led.Look(), view)
	return nil
}

// drawn is a picture as the page paints it.
func (v *views) drawn(p scene.Picture) svg.Picture {
	return svg.Of(p, func(name string, write func() svg.Plate) svg.Plate {
		out, _ := v.plates.Get(name, func() (svg.Plate, error) { return write(), nil })
		return out
	})
}
