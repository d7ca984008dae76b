package knot

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Places writes strand places as a maker reads them: "2", "2 and 3", "2 to 4".
func Places(ps []int) string {
	run := len(ps) > 2
	for i := 1; i < len(ps); i++ {
		run = run && ps[i] == ps[i-1]+1
	}
	switch {
	case len(ps) == 0:
		return "none"
	case len(ps) == 1:
		return fmt.Sprint(ps[0])
	case run:
		return fmt.Sprintf("%d to %d", ps[0], ps[len(ps)-1])
	}
	var s []string
	for _, p := range ps[:len(ps)-1] {
		s = append(s, fmt.Sprint(p))
	}
	return strings.Join(s, ", ") + " and " + fmt.Sprint(ps[len(ps)-1])
}

// SwapSides turns left and right in a sentence.
func SwapSides(s string) string {
	return strings.NewReplacer("left", "right", "right", "left", "Left", "Right", "Right", "Left").Replace(s)
}

var (
	placesSaid = regexp.MustCompile(`strands? \d+(?:(?:, | and | to )\d+)*`)
	placeSaid  = regexp.MustCompile(`\d+`)
)

// MirrorText turns sides and places in a sentence about n strands.
func MirrorText(s string, n int) string {
	return placesSaid.ReplaceAllStringFunc(SwapSides(s), func(said string) string {
		var ps []int
		for _, d := range placeSaid.FindAllString(said, -1) {
			p, _ := strconv.Atoi(d) // digits it is
			ps = append(ps, n+1-p)
		}
		slices.Sort(ps)
		if strings.Contains(said, " to ") {
			return fmt.Sprintf("strands %d to %d", ps[0], ps[len(ps)-1])
		}
		return fmt.Sprintf("strand%s %s", Plural(len(ps)), Places(ps))
	})
}

// Plural is the s of a word that counts n.
func Plural(n int) string {
	if n == 1 {
		return ""
	}
	return "s"
}

// Numbered are n places from one on.
func Numbered(from, n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = from + i
	}
	return out
}

// Identity is the order of n strands that stay where they are.
func Identity(n int) []int { return Numbered(0, n) }
