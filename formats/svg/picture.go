package svg

import (
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
}

// Empty tells whether there is nothing to see.
func (p Picture) Empty() bool { return len(p.Places) == 0 }

// Plate is a stretch of a picture.
type Plate struct {
	Left   int     `json:"left"`
	Right  int     `json:"right"`
	Top    int     `json:"top"`
	Bottom int     `json:"bottom"`
	Layers []Layer `json:"layers"`
}

// Layer is one path. Bodies are filled, all others are strokes of the width.
type Layer struct {
	Kind   scene.Kind `json:"kind"`
	D      string     `json:"d"`
	Colour string     `json:"colour,omitempty"`
	Width  int        `json:"width,omitempty"`
}

// Of is a picture for a browser. Plates of one name are one plate, so known, where
// it is not nil, may keep what was written of each.
func Of(p scene.Picture, known func(name string, write func() Plate) Plate) Picture {
	if known == nil {
		known = func(_ string, write func() Plate) Plate { return write() }
	}
	out := Picture{View: p.View, Left: p.Left, Top: p.Top, Width: p.Width, Height: p.Height,
		Places: p.Places, Plates: make(map[string]Plate, len(p.Plates)), Bands: p.Bands}
	for name, plate := range p.Plates {
		out.Plates[name] = known(name, func() Plate { return plateOf(plate) })
	}
	return out
}

func plateOf(p scene.Plate) Plate {
	out := Plate{Left: p.Left, Right: p.Right, Top: p.Top, Bottom: p.Bottom, Layers: make([]Layer, 0, len(p.Layers))}
	for _, l := range p.Layers {
		out.Layers = append(out.Layers, Layer{Kind: l.Kind, D: data(l), Colour: l.Colour, Width: l.Width})
	}
	return out
}

// data writes the lines of a layer as path data: a place, then steps.
func data(l scene.Layer) string {
	n := 0
	for _, line := range l.Lines {
		n += len(line)
	}
	b := make([]byte, 0, 7*n)
	for _, line := range l.Lines {
		for i, p := range line {
			x, y := p.X, p.Y
			switch i {
			case 0:
				b = append(b, 'M')
			case 1:
				b = append(b, 'l')
			}
			if i > 0 {
				x, y = x-line[i-1].X, y-line[i-1].Y
			}
			if i > 1 && x >= 0 {
				b = append(b, ' ')
			}
			b = strconv.AppendInt(b, int64(x), 10)
			if i == 0 || y >= 0 {
				b = append(b, ' ')
			}
			b = strconv.AppendInt(b, int64(y), 10)
		}
		if l.Kind == scene.Body && len(line) > 0 {
			b = append(b, 'z')
		}
	}
	return string(b)
}
