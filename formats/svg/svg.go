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

// filled is how each kind of area is filled on paper, but for bodies.
var filled = map[scene.Kind]string{
	scene.Fall:   `fill="` + ink + `" fill-opacity=".14"`,
	scene.Ground: `fill="` + ink + `"`,
	scene.Shade:  `fill="` + ink + `" fill-opacity=".19"`,
	scene.Deep:   `fill="` + ink + `" fill-opacity=".15"`,
	scene.Cast:   `fill="` + ink + `" fill-opacity=".33"`,
	scene.Light:  `fill="#ffffff" fill-opacity=".26"`,
}

// stroked is how each kind of line is inked on paper, but for marks.
var stroked = map[scene.Kind]string{
	scene.Ink:    `stroke="` + ink + `"`,
	scene.Casing: `stroke="#ffffff" stroke-opacity=".85"`,
	scene.Moving: `stroke="#c2410c"`,
}

// Write writes the picture, its size in millimetres.
func Write(w io.Writer, p scene.Picture) error {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="%d %d %d %d">`,
		float64(p.Width)/100, float64(p.Height)/100, p.Left, p.Top, p.Width, p.Height)
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
		write(&b, plate, at.Y, p.Colours, scene.Kind.Under)
	}
	for _, at := range p.Places {
		write(&b, p.Plates[at.Plate], at.Y, p.Colours, func(k scene.Kind) bool { return !k.Under() })
	}
	b.WriteString(`</svg>`)
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("writing the picture: %w", err)
	}
	return nil
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
	switch {
	case l.Kind == scene.Body || l.Kind == scene.Lit:
		fmt.Fprintf(b, `<path fill="%s" d="%s"/>`, colour(l.Paint, colours), data(l))
	case l.Kind == scene.Mark:
		style := `stroke="` + ink + `" stroke-opacity=".27"`
		if dark(colour(l.Paint, colours)) {
			style = `stroke="#ffffff" stroke-opacity=".16"`
		}
		line(b, l, style)
	case l.Kind.Stroked():
		line(b, l, stroked[l.Kind])
	default:
		fmt.Fprintf(b, `<path %s d="%s"/>`, filled[l.Kind], data(l))
	}
}

func line(b *strings.Builder, l scene.Layer, style string) {
	fmt.Fprintf(b, `<path fill="none" stroke-width="%d" stroke-linecap="round" stroke-linejoin="round" %s d="%s"/>`, l.Width, style, data(l))
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
