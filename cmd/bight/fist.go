package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"text/tabwriter"

	"nimblebight/core/cord"
	"nimblebight/core/knots/ball"
	"nimblebight/core/units"
)

// fistOut is a ball as it is printed.
type fistOut struct {
	CordMM   float64    `json:"cord_mm"` // for the ball alone
	BandsMM  [3]float64 `json:"bands_mm"`
	LoopMM   float64    `json:"loop_mm"`
	FaceMM   float64    `json:"outer_face_mm"`
	CornerMM float64    `json:"outer_corner_mm"`
	LeastMM  float64    `json:"core_min_mm"`
	MostMM   float64    `json:"core_max_mm"`
	BestMM   float64    `json:"core_best_mm"`
	WeightG  float64    `json:"weight_g"`
	Passes   int        `json:"passes"`
	Mode     ball.Mode  `json:"mode"`
	CoreMM   float64    `json:"core_mm"`
	Kind     ball.Kind  `json:"core_kind"`
	Stopper  string     `json:"stopper,omitempty"`
	Cord     float64    `json:"cord_diameter_mm"`
	Give     float64    `json:"give"`
	Warnings []fistWarn `json:"warnings"`
}

type fistWarn struct {
	Code    string `json:"code"`
	Message string `json:"message"`
}

func runFist(_ context.Context, args []string, _ io.Reader, out io.Writer) error {
	fs := flags("fist", out)
	thick := fs.Float64("cord", 4, "the cord's diameter drawn up hard, mm; with --make that on its label")
	of := fs.String("make", "", "what the cord is: kernmantle, solid-braid, single-strand, three-ply, leather and so on")
	material := fs.String("material", "", "its material, where it is not the usual one of its make")
	passes := fs.Int("passes", 0, "turns in a band, 2 to 8; left out, as many as suit the core")
	core := fs.Float64("core", 0, "the core's diameter, mm; left out, the best one")
	kind := fs.String("kind", "marble", "the core: marble, steel, wood, knot, wadding; two cords have their stopper")
	mode := fs.String("mode", string(ball.OneCord), "one-cord, two-cords or doubled")
	tail := fs.Bool("tail", false, "the start of one cord leaves with its end instead of lying hidden inside")
	give := fs.Float64("give", math.NaN(), "the share of its diameter by which the cord flattens (default 0, a hard rope; with --make what that has)")
	outer := fs.Float64("outer", 0, "a wanted diameter across the faces, mm: which passes and core come to it")
	left := fs.Float64("left", 0, fmt.Sprintf("cord that is left, mm: the largest ball it ties with %g mm to hold", ball.SpareMM))
	drawer := fs.String("drawer", "", "cores at hand, as 12,16,20: sorted by how well each suits")
	asJSON := fs.Bool("json", false, "print as JSON")
	if _, err := parse(fs, args, 0); err != nil {
		return err
	}
	c, err := fistCord(*thick, *of, *material, *give)
	if err != nil {
		return badInput{err}
	}
	ask := ball.Ask{Cord: c, Passes: *passes, Mode: ball.Mode(*mode), Tail: *tail, Core: ball.Core{Kind: ball.Kind(*kind), DiameterMM: *core}}
	if ask.Mode == ball.TwoCords && *core == 0 {
		ask.Core.Kind = ball.Stopper
	}
	switch {
	case *drawer != "":
		return fistDrawer(out, ask, *drawer, *asJSON)
	case *outer > 0:
		balls, err := ball.OfSize(ask, *outer)
		if err != nil {
			return badInput{err}
		}
		return fistPrint(out, balls, *asJSON, true)
	case *left > 0:
		b, err := ball.FromCord(ask, *left, ball.SpareMM)
		if err != nil {
			return badInput{err}
		}
		return fistPrint(out, []ball.Ball{b}, *asJSON, false)
	case *passes == 0 && *core == 0:
		return badInput{errors.New("fist needs --passes, --core, --outer or --left; for example: bight fist --cord 4 --passes 3")}
	case *passes == 0:
		n, ok := ball.Suits(ask, *core)
		if !ok {
			return badInput{fmt.Errorf("no number of passes from %d to %d of this cord closes on a core of %g mm; ask with --passes for the cores that suit", ball.LeastPasses, ball.MostPasses, *core)}
		}
		ask.Passes = n
	}
	b, err := ball.Make(ask)
	if err != nil {
		var no *ball.Refused
		if errors.As(err, &no) {
			return badInput{err}
		}
		return err
	}
	return fistPrint(out, []ball.Ball{b}, *asJSON, false)
}

// fistCord is the cord of a plain diameter, taken as it measures drawn up hard
// and not pressed any flatter, or of a make by its label.
func fistCord(mm float64, of, material string, give float64) (ball.Cord, error) {
	stuff := cord.Stuff{Make: cord.Make(of), Material: cord.Material(material), DiameterMM: mm, Colour: "#000000"}
	plain := of == ""
	if plain {
		stuff.Make = "kernmantle"
	}
	if material == "" {
		stuff.Material = stuff.Make.Usual()
	}
	if field, why := stuff.Check(); field != "" {
		return ball.Cord{}, fmt.Errorf("%s %s", strings.TrimSuffix(field, "_mm"), why)
	}
	c := ball.Of(stuff, stuff.Figures())
	if plain {
		// Drawn up it weighs what its fibres weigh packed as far as they go.
		c.GramsPerMetre *= math.Pow(mm/c.DiameterMM, 2)
		c.DiameterMM, c.CoverMM, c.Give = mm, mm, 0
	}
	if !math.IsNaN(give) {
		c.Give = give
	}
	return c, nil
}

func fistPrint(out io.Writer, balls []ball.Ball, asJSON, list bool) error {
	var rows []fistOut
	for _, b := range balls {
		o := fistOut{b.CordMM, b.BandsMM, b.LoopMM, b.FaceMM, b.CornerMM, b.Range.LeastMM, b.Range.MostMM, b.Range.BestMM, b.WeightG,
			b.Passes, b.Mode, b.Core.DiameterMM, b.Core.Kind, b.StopperKnot, b.Cord.DiameterMM, b.Cord.Give, []fistWarn{}}
		for _, w := range b.Warnings {
			o.Warnings = append(o.Warnings, fistWarn{w.Code, units.Said(w.Message, false)})
		}
		rows = append(rows, o)
	}
	if asJSON {
		e := json.NewEncoder(out)
		e.SetIndent("", "  ")
		if !list {
			return e.Encode(rows[0])
		}
		return e.Encode(rows)
	}
	for i, o := range rows {
		if i > 0 {
			fmt.Fprintln(out)
		}
		fmt.Fprintf(out, "%d passes, %s, on a %s of %.1f mm\n", o.Passes, o.Mode, o.Kind.Name(), o.CoreMM)
		t := tabwriter.NewWriter(out, 0, 0, 2, ' ', 0)
		fmt.Fprintf(t, "cord in the ball\t%.0f mm\n", o.CordMM)
		fmt.Fprintf(t, "by band\t%.0f, %.0f and %.0f mm\n", o.BandsMM[0], o.BandsMM[1], o.BandsMM[2])
		fmt.Fprintf(t, "one turn\t%.1f mm\n", o.LoopMM)
		fmt.Fprintf(t, "across faces, corners\t%.1f, %.1f mm\n", o.FaceMM, o.CornerMM)
		fmt.Fprintf(t, "cores that close\t%.1f to %.1f mm, best %.1f mm\n", o.LeastMM, o.MostMM, o.BestMM)
		fmt.Fprintf(t, "weight\t%.1f g\n", o.WeightG)
		if o.Stopper != "" {
			fmt.Fprintf(t, "stopper\t%s\n", o.Stopper)
		}
		if err := t.Flush(); err != nil {
			return err
		}
		for _, w := range o.Warnings {
			fmt.Fprintln(out, "!", w.Message)
		}
	}
	return nil
}

func fistDrawer(out io.Writer, ask ball.Ask, list string, asJSON bool) error {
	var cores []ball.Core
	for _, s := range strings.FieldsFunc(list, func(r rune) bool { return r == ',' || r == ' ' }) {
		mm, err := strconv.ParseFloat(s, 64)
		if err != nil {
			return badInput{fmt.Errorf("--drawer: %q is no diameter; write 12,16,20", s)}
		}
		cores = append(cores, ball.Core{Kind: ask.Core.Kind, DiameterMM: mm})
	}
	found, err := ball.Drawer(ask, cores)
	if err != nil {
		return badInput{err}
	}
	for i := range found {
		found[i].Why = units.Said(found[i].Why, false)
	}
	if asJSON {
		e := json.NewEncoder(out)
		e.SetIndent("", "  ")
		return e.Encode(found)
	}
	for _, j := range found {
		fmt.Fprintf(out, "%g mm: %s\n", j.Core.DiameterMM, j.Why)
	}
	return nil
}
