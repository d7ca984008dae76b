// Package svg turns pictures into markup: as paths for a browser ([Of]) and as a
// file of its own ([Write]).
package svg

import (
	"fmt"
	"io"
	"strconv"
	"strings"

	"nimblebight/core/scene"
)

// ink is the colour of edges and shades on paper.
const ink = "#17242a"

// opacity is how much of its ink a kind of layer lays on, where it is not all.
var opacity = map[scene.Kind]float64{
	scene.Fall: 0.14, scene.Shade: 0.19, scene.Deep: 0.15, scene.Cast: 0.33, scene.Light: 0.26, scene.Casing: 0.85,
}

// mark is the colour of the marks on a cord of a colour, and their opacity: ink, or on
// a dark cord light.
func mark(cord string) (with string, share float64) {
	if dark(cord) {
		return "#ffffff", 0.16
	}
	return ink, 0.27
}

// inked is the colour that a kind of layer has on paper, but for bodies.
func inked(k scene.Kind) string {
	switch k {
	case scene.Light, scene.Casing:
		return "#ffffff"
	case scene.Moving:
		return "#c2410c"
	}
	return ink
}

// Write writes the picture, its size in millimetres.
func Write(w io.Writer, p scene.Picture) error {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="%d %d %d %d">`,
		float64(p.Width)/100, float64(p.Height)/100, p.Left, p.Top, p.Width, p.Height)
	body(&b, p)
	b.WriteString(`</svg>`)
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("writing the picture: %w", err)
	}
	return nil
}

// body writes what a picture shows.
func body(b *strings.Builder, p scene.Picture) {
	// What lies under the bodies comes first, and does not overlap: a shadow laid twice
	// would be darker, and ink would show where a plate begins.
	for i, at := range p.Places {
		plate := p.Plates[at.Plate]
		if i > 0 {
			plate.Top = max(plate.Top, 0)
		}
		if i+1 < len(p.Places) {
			plate.Bottom = min(plate.Bottom, p.Places[i+1].Y-at.Y)
		}
		write(b, plate, at.Y, p.Colours, scene.Kind.Under)
	}
	for _, at := range p.Places {
		write(b, p.Plates[at.Plate], at.Y, p.Colours, func(k scene.Kind) bool { return !k.Under() })
	}
}

// write writes the layers of some kinds that a plate has.
func write(b *strings.Builder, p scene.Plate, y int, colours []string, kinds func(scene.Kind) bool) {
	begun := false
	for _, l := range p.Layers {
		if !kinds(l.Kind) {
			continue
		}
		if !begun {
			begun = true
			left, wide, tall := p.Left-bleed, p.Right-p.Left+2*bleed, p.Bottom-p.Top
			k := float64(p.Per) / 100
			fmt.Fprintf(b, `<svg x="%d" y="%d" width="%d" height="%d" viewBox="%g %g %g %g" overflow="hidden">`,
				left, y+p.Top, wide, tall, k*float64(left), k*float64(p.Top), k*float64(wide), k*float64(tall))
		}
		layer(b, l, colours)
	}
	if begun {
		b.WriteString(`</svg>`)
	}
}

// bleed is by what a plate is wider than what its cords cover, for their inks and
// shadows, hundredths of a millimetre.
const bleed = 90

func layer(b *strings.Builder, l scene.Layer, colours []string) {
	with, share := inked(l.Kind), opacity[l.Kind]
	switch {
	case l.Kind == scene.Body || l.Kind == scene.Lit:
		with = colour(l.Paint, colours)
	case l.Kind == scene.Mark:
		with, share = mark(colour(l.Paint, colours))
	}
	how := "fill"
	if l.Kind.Stroked() {
		how = "stroke"
		fmt.Fprintf(b, `<path fill="none" stroke-width="%d" stroke-linecap="round" stroke-linejoin="round"`, l.Width)
	} else {
		b.WriteString(`<path`)
	}
	fmt.Fprintf(b, ` %s="%s"`, how, with)
	if share > 0 {
		fmt.Fprintf(b, ` %s-opacity="%g"`, how, share)
	}
	fmt.Fprintf(b, ` d="%s"/>`, data(l))
}

// colour is what a paint looks like.
func colour(p scene.Paint, colours []string) string {
	c := p.Colour
	if p.Cord >= 0 && p.Cord < len(colours) {
		c = colours[p.Cord]
	}
	if p.Dark == 0 {
		return c
	}
	r, g, b := parts(c)
	ir, ig, ib := parts(ink)
	mix := func(a, b int) int { return (a*(100-p.Dark) + b*p.Dark + 50) / 100 }
	return fmt.Sprintf("#%02x%02x%02x", mix(r, ir), mix(g, ig), mix(b, ib))
}

// parts are the red, green and blue of a colour written #rrggbb, 0 to 255.
func parts(c string) (r, g, b int) {
	if len(c) != 7 {
		return 0, 0, 0
	}
	n, err := strconv.ParseInt(c[1:], 16, 32)
	if err != nil {
		return 0, 0, 0
	}
	return int(n >> 16), int(n >> 8 & 255), int(n & 255)
}

// dark tells whether ink would not be seen on a colour.
func dark(c string) bool {
	r, g, b := parts(c)
	return 299*r+587*g+114*b < 90_000
}
