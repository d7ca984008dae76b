package trainer

import (
	"math"
	"time"
)

// Card is how well a knot is known and when it is due again.
type Card struct {
	Knot string `json:"knot"`
	// Box is how many times in a row it was led without a slip; Due is when it is led again.
	Box   int       `json:"box"`
	Due   time.Time `json:"due"`
	Last  time.Time `json:"last"`
	Led   int       `json:"led"`   // times in all
	Slips int       `json:"slips"` // in all
}

// waits are after how many days a knot is due again, by how often in a row it was led
// without a slip: each about twice the one before.
var waits = []float64{0, 1, 3, 7, 16, 35, 80}

const day = 24 * time.Hour

// Next is the card after the knot was led with so many slips.
//
// Laws: without a slip it is due later than it would have been; with one it is due at once;
// never is it due before now.
func (c Card) Next(slips int, now time.Time) Card {
	c.Led++
	c.Slips += max(0, slips)
	c.Last = now
	if slips > 0 {
		c.Box = 0
	} else if c.Box < len(waits)-1 {
		c.Box++
	}
	c.Due = now.Add(time.Duration(waits[c.Box] * float64(day)))
	return c
}

// Sure is how surely a knot is known now, from 0 to 1: it halves in the time after which it
// is due.
func (c Card) Sure(now time.Time) float64 {
	if c.Box == 0 {
		return 0
	}
	gone := now.Sub(c.Last).Hours() / 24
	return math.Pow(0.5, math.Max(0, gone)/waits[min(c.Box, len(waits)-1)])
}

// IsDue tells whether it is to be led again.
func (c Card) IsDue(now time.Time) bool { return !now.Before(c.Due) }
