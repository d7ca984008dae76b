package svg

import (
	"fmt"
	"strconv"

	"nimblebight/core/scene"
)

// Picture is a picture as a browser paints it: like [scene.Picture], its lines
// written as path data.
type Picture struct {
	View string `json:"view"` // face or back
	// Left, Top, Width and Height frame everything drawn.
	Left   int           `json:"left"`
	Top    int           `json:"top"`
	Width  int           `json:"width"`
	Height int           `json:"height"`
	Places []scene.Place `json:"places"`
	// Plates are those that the places name.
	Plates map[string]Plate `json:"plates"`
	Bands  []scene.Band     `json:"bands"`
	// Colours are the cords'; Marks are those of the sheath's marks on each.
	Colours []string `json:"colours"`
	Marks   []string `json:"marks"`
	// Faults are stretches that could not be drawn, each with its reason; Coarse says
	// that some of it is too large to be drawn as closely as it is seen.
	Faults []scene.Fault `json:"faults,omitempty"`
	Coarse bool          `json:"coarse,omitempty"`
	// Ways are where the strands in hand are still to go, paths in hundredths of a
	// millimetre; Discs are the numbers of the places.
	Ways  []string     `json:"ways,omitempty"`
	Discs []scene.Disc `json:"discs,omitempty"`
	// Bump is what shows on which side a row goes on.
	Bump  *scene.Spot `json:"bump,omitempty"`
	Thick int         `json:"thick,omitempty"` // a cord, by which they are drawn
}

// Empty tells whether there is nothing to see.
func (p Picture) Empty() bool { return len(p.Places) == 0 }

// Plate is a stretch of a picture, as wide as its inks and shadows; what its layers
// hold is in units, Per of them to a millimetre.
type Plate struct {
	Left   int     `json:"left"`
	Right  int     `json:"right"`
	Top    int     `json:"top"`
	Bottom int     `json:"bottom"`
	Per    int     `json:"per"`
	Layers []Layer `json:"layers"`
}

// Layer is one path. Those with a width are strokes, all others are filled: bodies
// with the colour of a cord, or with one of their own, so many hundredths darker.
// Those under bodies are painted before all others of the picture. Opacity is that of
// its ink, 0 for all of it.
type Layer struct {
	Kind    scene.Kind `json:"kind"`
	Under   bool       `json:"under,omitempty"`
	Opacity float64    `json:"opacity,omitempty"`
	D       string     `json:"d"`
	Cord    *int       `json:"cord,omitempty"`
	Colour  string     `json:"colour,omitempty"`
	Dark    int        `json:"dark,omitempty"`
	Width   int        `json:"width,omitempty"`
}

// Of is a picture for a browser. Plates of one name are one plate, so known, where
// it is not nil, may keep what was written of each.
func Of(p scene.Picture, known func(name string, write func() Plate) Plate) Picture {
	if known == nil {
		known = func(_ string, write func() Plate) Plate { return write() }
	}
	out := Picture{View: p.View, Left: p.Left, Top: p.Top, Width: p.Width, Height: p.Height, Colours: p.Colours,
		Places: p.Places, Plates: make(map[string]Plate, len(p.Plates)), Bands: p.Bands, Discs: p.Discs, Bump: p.Bump, Thick: p.Thick, Faults: p.Faults, Coarse: p.Coarse}
	for _, way := range p.Ways {
		out.Ways = append(out.Ways, data(scene.Layer{Kind: scene.Ink, Paths: []scene.Path{way}}))
	}
	out.Marks = Marks(p.Colours)
	for name, plate := range p.Plates {
		out.Plates[name] = known(name, func() Plate { return plateOf(plate) })
	}
	return out
}

// Marks are the colours of the sheath's marks on cords of these colours.
func Marks(colours []string) []string {
	var out []string
	for _, c := range colours {
		with, share := mark(c)
		out = append(out, fmt.Sprintf("%s%02x", with, int(255*share+0.5)))
	}
	return out
}

func plateOf(p scene.Plate) Plate {
	out := Plate{Left: p.Left - bleed, Right: p.Right + bleed, Top: p.Top, Bottom: p.Bottom, Per: p.Per, Layers: make([]Layer, 0, len(p.Layers))}
	for _, l := range p.Layers {
		q := Layer{Kind: l.Kind, Under: l.Kind.Under(), Opacity: opacity[l.Kind], D: data(l), Width: l.Width}
		if l.Kind == scene.Body || l.Kind == scene.Lit || l.Kind == scene.Mark {
			if l.Paint.Cord >= 0 {
				q.Cord = &l.Paint.Cord
			} else {
				q.Colour = l.Paint.Colour
			}
			q.Dark = l.Paint.Dark
		}
		out.Layers = append(out.Layers, q)
	}
	return out
}

// data writes the paths of a layer as path data: a place, then steps.
func data(l scene.Layer) string {
	n := 0
	for _, p := range l.Paths {
		n += 8 + 20*len(p.Curve)
	}
	b := make([]byte, 0, n)
	first := true
	put := func(v int32) {
		if !first && v >= 0 {
			b = append(b, ' ')
		}
		b = strconv.AppendInt(b, int64(v), 10)
		first = false
	}
	for _, p := range l.Paths {
		b = append(b, 'M')
		first = true
		put(p.Start.X)
		put(p.Start.Y)
		at := p.Start
		last := byte('M')
		for _, c := range p.Curve {
			how := byte('c')
			if straight(at, c) {
				how = 'l'
			}
			if how != last {
				b = append(b, how)
				last, first = how, true
			}
			if how == 'c' {
				put(c.A.X - at.X)
				put(c.A.Y - at.Y)
				put(c.B.X - at.X)
				put(c.B.Y - at.Y)
			}
			put(c.End.X - at.X)
			put(c.End.Y - at.Y)
			at = c.End
		}
		if !l.Kind.Stroked() {
			b = append(b, 'z')
		}
	}
	return string(b)
}

// straight tells whether the handles of a curve lie on the line to its end, as near
// as whole units tell.
func straight(at scene.Point, c scene.Cubic) bool {
	dx, dy := int64(c.End.X-at.X), int64(c.End.Y-at.Y)
	long := max(dx, -dx) + max(dy, -dy)
	for _, h := range [2]scene.Point{c.A, c.B} {
		x, y := int64(h.X-at.X), int64(h.Y-at.Y)
		off := x*dy - y*dx
		along := x*dx + y*dy
		if max(off, -off) > long || along < 0 || along > dx*dx+dy*dy {
			return false
		}
	}
	return true
}
