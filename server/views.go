package server

import (
	"crypto/sha256"
	"fmt"

	"nimblebight/core/cord"
	"nimblebight/core/kept"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// views keeps plans and pictures of documents seen before, by what was asked.
// A document never changes, so neither do they, but for plans of which a part is
// still to be drawn up.
type views struct {
	plans kept.By[plan.Plan]
	pics  kept.By[scene.Picture]
}

func newViews() *views {
	return &views{kept.By[plan.Plan]{Most: 32 << 20}, kept.By[scene.Picture]{Most: 32 << 20}}
}

// hand is a place at the vise: so many actions, and how far the last has come.
// The zero value is the whole piece.
type hand struct {
	until int
	along float64
}

func (v *views) plan(raw []byte, d piece.Document, set Settings, at hand) (plan.Plan, error) {
	o := plan.Options{LeftHanded: set.Hand == "left", Until: at.until, Along: at.along}
	if set.Units == "inch" {
		o.RoundUpMM, o.FoldToMM = plan.QuarterInch, plan.EighthInch
	}
	key := fmt.Sprintf("%x %v", sha256.Sum256(raw), o)
	return v.plans.GetIf(key, func() (plan.Plan, bool, error) {
		p, err := plan.Make(d, o)
		return p, len(p.Rough) == 0, err
	})
}

func (v *views) picture(raw []byte, d piece.Document, set Settings, at hand, view scene.View) (scene.Picture, error) {
	key := fmt.Sprintf("%x %s %v %v", sha256.Sum256(raw), set.Hand, at, view)
	return v.pics.GetIf(key, func() (scene.Picture, bool, error) {
		p, err := v.plan(raw, d, set, at)
		if err != nil {
			return scene.Picture{}, false, err
		}
		return scene.Draw(p.Look(), stuffs(d), view), len(p.Rough) == 0, nil
	})
}

func stuffs(d piece.Document) []cord.Stuff {
	out := make([]cord.Stuff, len(d.Cords))
	for i, c := range d.Cords {
		out[i] = c.Stuff
	}
	return out
}
