// Package svg turns pictures into markup: as paths for a browser ([Of]) and as a
// file of its own ([Write]).
package svg

import (
	"fmt"
	"io"
	"strings"

	"nimblebight/core/scene"
)

// style is how each kind of layer is inked on paper.
var style = map[scene.Kind]string{
	scene.Shade:  `stroke="#17242a" stroke-opacity=".15"`,
	scene.Shadow: `stroke="#17242a" stroke-opacity=".3"`,
	scene.Mark:   `stroke="#17242a" stroke-opacity=".27"`,
	scene.Light:  `stroke="#ffffff" stroke-opacity=".4"`,
	scene.Ink:    `stroke="#17242a"`,
	scene.Casing: `stroke="#ffffff"`,
	scene.Moving: `stroke="#c2410c"`,
}

// Write writes the picture, its size in millimetres.
func Write(w io.Writer, p scene.Picture) error {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="%d %d %d %d">`,
		float64(p.Width)/100, float64(p.Height)/100, p.Left, p.Top, p.Width, p.Height)
	for _, at := range p.Places {
		plate := p.Plates[at.Plate]
		wide, tall := plate.Right-plate.Left+2*bleed, plate.Bottom-plate.Top
		fmt.Fprintf(&b, `<svg x="%d" y="%d" width="%d" height="%d" viewBox="%d %d %d %d" overflow="hidden">`,
			plate.Left-bleed, at.Y+plate.Top, wide, tall, plate.Left-bleed, plate.Top, wide, tall)
		for _, l := range plate.Layers {
			layer(&b, l)
		}
		b.WriteString(`</svg>`)
	}
	b.WriteString(`</svg>`)
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("writing the picture: %w", err)
	}
	return nil
}

// bleed is by what a plate is wider than what its cords cover, for their inks.
const bleed = 40

func layer(b *strings.Builder, l scene.Layer) {
	if l.Kind == scene.Body {
		fmt.Fprintf(b, `<path fill="%s" d="%s"/>`, l.Colour, data(l))
		return
	}
	ends := "round"
	if l.Kind == scene.Shade || l.Kind == scene.Shadow {
		ends = "butt"
	}
	fmt.Fprintf(b, `<path fill="none" stroke-width="%d" stroke-linecap="%s" stroke-linejoin="round" %s d="%s"/>`, l.Width, ends, style[l.Kind], data(l))
}
