// Package knots is the catalogue: one folder a family, and nothing about it
// anywhere else. To add a knot, add a folder and its line here.
package knots

import (
	_ "nimblebight/core/knots/bead"
	_ "nimblebight/core/knots/berry"
	_ "nimblebight/core/knots/braid"
	_ "nimblebight/core/knots/chain"
	_ "nimblebight/core/knots/coil"
	_ "nimblebight/core/knots/crown"
	_ "nimblebight/core/knots/crowndiamond"
	_ "nimblebight/core/knots/diamond"
	_ "nimblebight/core/knots/ends"
	_ "nimblebight/core/knots/fist"
	_ "nimblebight/core/knots/fold"
	_ "nimblebight/core/knots/gap"
	_ "nimblebight/core/knots/gather"
	_ "nimblebight/core/knots/hitch"
	_ "nimblebight/core/knots/ideal"
	_ "nimblebight/core/knots/mount"
	_ "nimblebight/core/knots/overhand"
	_ "nimblebight/core/knots/pretzel"
	_ "nimblebight/core/knots/ringin"
	_ "nimblebight/core/knots/ropeball"
	_ "nimblebight/core/knots/row"
	_ "nimblebight/core/knots/runback"
	_ "nimblebight/core/knots/sliding"
	_ "nimblebight/core/knots/snake"
	_ "nimblebight/core/knots/switching"
	_ "nimblebight/core/knots/twostrand"
	_ "nimblebight/core/knots/wall"
	_ "nimblebight/core/knots/whole"
)
