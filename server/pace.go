package server

import (
	"fmt"
	"math"

	"github.com/gin-gonic/gin"

	"nimblebight/core/pace"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/formats/document"
	"nimblebight/store"
)

// Times are how long a piece has taken at the vise and will still take.
type Times struct {
	WorkedS float64 `json:"worked_s"`
	Pauses  int     `json:"pauses"`
	PausedS float64 `json:"paused_s"`
	// SectionS is what of it went into the section in hand.
	SectionS float64 `json:"section_s"`
	// LeftS is not there where too little was tied to tell.
	LeftS *float64 `json:"left_s,omitempty"`
	// Rest is set where hands have worked as long as the settings allow without a pause.
	Rest bool `json:"rest"`
	// PauseS is from how long without a step on it is a pause, in which hands rest.
	PauseS float64 `json:"pause_s"`
}

// most steps that are sent at once: those of a long day without the network.
const mostSteps = 20_000

// longest is the longest time between two steps that is taken, s: ten years.
const longest = 10 * 366 * 86400.0

func checkSteps(steps []pace.Taken) error {
	if len(steps) > mostSteps {
		return piece.Problems{{Path: "steps", Message: fmt.Sprintf("are %d; %d are the most at once", len(steps), mostSteps)}}
	}
	for i, s := range steps {
		if !(s.AfterS >= 0 && s.AfterS <= longest) || s.N <= 0 {
			return piece.Problems{{Path: fmt.Sprintf("steps[%d]", i), Message: fmt.Sprintf("is step %d after %v s; steps are numbered from 1, and come after 0 s or more", s.N, s.AfterS)}}
		}
	}
	return nil
}

// took is what steps took, of those that are not counted yet.
func took(p plan.Plan, steps []pace.Taken) store.Times {
	if len(steps) == 0 {
		return nil
	}
	return func(after int64, worked float64) ([]store.Spell, int64, float64) {
		fresh := make([]pace.Taken, 0, len(steps))
		for _, s := range steps {
			if s.N > after {
				after = s.N
				if s.From >= 0 { // cutting and folding is no knot's time
					fresh = append(fresh, s)
				}
			}
		}
		spells := pace.Spells(p, fresh)
		out := make([]store.Spell, len(spells))
		for i, s := range spells {
			out[i] = store.Spell(s)
		}
		return out, after, pace.Since(worked, fresh)
	}
}

// spells are the times of a piece, or of all pieces where uid is "".
func (s *Server) spells(c ctx, uid string) ([]pace.Spell, error) {
	all, err := s.store.Spells(on(c), uid)
	out := make([]pace.Spell, len(all))
	for i, sp := range all {
		out[i] = pace.Spell(sp)
	}
	return out, err
}

// timesAt are those of a piece at a place; nil for one that cannot be planned.
func (s *Server) timesAt(c ctx, p store.Piece, at store.Place) (*Times, error) {
	set, err := s.settings(c)
	if err != nil {
		return nil, err
	}
	d, err := document.Read(p.Document)
	if err != nil {
		return nil, nil //nolint:nilerr // it has no steps, and so no times
	}
	pl, err := s.views.plan(p.Document, d, set, hand{})
	if err != nil {
		return nil, nil //nolint:nilerr // likewise
	}
	own, err := s.spells(c, p.UID)
	if err != nil {
		return nil, err
	}
	all, err := s.spells(c, "")
	if err != nil {
		return nil, err
	}
	out := Times{PauseS: pace.LongestMove, Rest: set.RestMin > 0 && at.WorkedS >= 60*float64(set.RestMin)}
	section, _ := pl.At(at.Done)
	for _, sp := range own {
		out.WorkedS += sp.WorkedS
		out.Pauses += sp.Pauses
		out.PausedS += sp.PausedS
		if sp.Section == section {
			out.SectionS += sp.WorkedS
		}
	}
	if left, ok := pace.Left(pl, max(0, at.Done), pace.Paces(all)); ok {
		left = math.Round(left)
		out.LeftS = &left
	}
	return &out, nil
}

// paces answers how long the maker takes for each knot.
func (s *Server) paces(c *gin.Context) {
	all, err := s.spells(c, "")
	answer(c, pace.Paces(all), err)
}
