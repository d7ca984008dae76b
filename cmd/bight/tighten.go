package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"text/tabwriter"
	"time"

	"nimblebight/core/knot"
)

// tightened is what bight tighten prints.
type tightened struct {
	Name             string  `json:"name"`
	LengthOverRadius float64 `json:"length_over_radius"`
	Published        float64 `json:"published"`
	// Of says what the two are the length of, over the cord's radius.
	Of      string  `json:"of"`
	Gap     float64 `json:"min_gap_over_diameter"`
	Nodes   int     `json:"nodes"`
	Seconds float64 `json:"seconds"`
	// Crossings are the fewest seen of a closed knot, those of the face of an
	// open one, and those of a repeat of a sinnet.
	Crossings int `json:"crossings"`
	// Determinant is that of a closed knot, or of one strand with its ends
	// joined outside; 0 where there is none.
	Determinant int     `json:"determinant"`
	Height      float64 `json:"height_over_diameter,omitempty"`
	TwistDeg    float64 `json:"twist_degrees,omitempty"`
	// Least is the nearest that strands came on the way; above 0.5 nothing
	// can have passed through anything.
	Least float64 `json:"least_on_the_way"`
}

func runTighten(ctx context.Context, args []string, _ io.Reader, out io.Writer) error {
	fs := flags("tighten", out)
	asJSON := fs.Bool("json", false, "print JSON, and no progress")
	list := fs.Bool("list", false, "list the names")
	fine := fs.Bool("fine", false, "draw it up as finely as the published figures deserve")
	words, err := parse(fs, args, 1)
	if err != nil {
		return err
	}
	if *list {
		t := tabwriter.NewWriter(out, 0, 0, 2, ' ', 0)
		for _, r := range knot.Routes() {
			fmt.Fprintf(t, "%s\t%s\t%s\n", r.Name, r.Family, r.About)
		}
		return t.Flush()
	}
	if len(words) == 0 {
		return badInput{errors.New("tighten needs the name of a knot; bight tighten --list names them")}
	}
	var route *knot.Route
	for _, r := range knot.Routes() {
		if r.Name == words[0] {
			route = &r
		}
	}
	if route == nil {
		return badInput{fmt.Errorf("there is no route %q; bight tighten --list names them", words[0])}
	}
	set := route.Settings(*fine)
	if !*asJSON {
		drawn := time.Now()
		set.Progress = func(stage, step int, length, gap float64) {
			if time.Since(drawn) > 150*time.Millisecond {
				drawn = time.Now()
				fmt.Fprintf(os.Stderr, "\rdrawing up: stage %d, step %6d, length %8.3f d, gap %.4f ", stage+1, step, length, gap)
			}
		}
	}
	began := time.Now()
	r, err := route.DrawUp(ctx, set)
	if err != nil {
		return err
	}
	got := tightened{Name: route.Name, LengthOverRadius: 2 * route.Measure(r), Published: 2 * route.Published, Of: route.Of,
		Gap: r.Gap, Nodes: r.Nodes, Seconds: time.Since(began).Seconds(), Least: r.Least}
	if got.Crossings, got.Determinant, err = route.Told(r); err != nil {
		return err
	}
	if route.Sinnet {
		got.Height, got.TwistDeg = r.Cell.Pitch, r.Cell.Twist*180/3.141592653589793
	}
	if *asJSON {
		return json.NewEncoder(out).Encode(got)
	}
	fmt.Fprintf(os.Stderr, "\r%s\r", strings.Repeat(" ", 78))
	fmt.Fprintf(out, "%s: %s over radius %.2f, published %.2f (%+.2f %%)\n", got.Name, got.Of, got.LengthOverRadius, got.Published, 100*(got.LengthOverRadius/got.Published-1))
	fmt.Fprintf(out, "least gap %.4f of a diameter, %d nodes, %.1f s\n", got.Gap, got.Nodes, got.Seconds)
	if !route.Sinnet {
		fmt.Fprintf(out, "%d crossings, determinant %d\n", got.Crossings, got.Determinant)
	}
	if route.Sinnet {
		fmt.Fprintf(out, "a repeat stands %.2f diameters high and turns %.0f degrees\n", got.Height, got.TwistDeg)
	}
	return nil
}
