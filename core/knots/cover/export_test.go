package cover

import (
	"context"

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

// Fine is the cover drawn up as finely as the catalogue is.
func (w Weave) Fine(mandrel float64) (Cover, error) {
	s, err := shapes.DrawUp(context.Background(), w.Route(mandrel), tighten.Settings{PerDiameter: []float64{4}})
	if err != nil {
		return Cover{}, err
	}
	return w.of(s, mandrel)
}
