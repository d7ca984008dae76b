package plan

import (
	"fmt"
	"sync"

	"nimblebight/core/knots/ball"
	"nimblebight/core/shapes"
)

// figures is told apart from rules that give other figures for the same piece.
// It changes whenever what Make gives does, beside the shapes.
const figures = 5

// Version names what plans are made by: the rules and the shapes. Figures that
// were kept under another name are worked out anew.
var Version = sync.OnceValue(func() string {
	return fmt.Sprintf("%d %s %s", figures, shapes.Digest(shapes.All()...), ball.ShapesDigest())
})
