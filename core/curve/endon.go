package curve

import "gonum.org/v1/gonum/spatial/r3"

// EndOn is a place of the work as one sees it who looks at the working end: strands come in far
// behind the picture and hang towards the viewer. It is a motion, and no mirror image.
func EndOn(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: -v.Z, Z: v.Y} }

// Hung is a place that is seen end on, as it hangs: it undoes [EndOn].
func Hung(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: v.Z, Z: -v.Y} }
