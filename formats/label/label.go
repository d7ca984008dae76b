// Package label writes the label of a piece: what hangs on the bag with its cut cords.
package label

import (
	"fmt"
	"strings"
	"time"

	"nimblebight/core/plan"
	"nimblebight/core/units"
)

// Wide is how many letters a line has at most: those of a label 50 mm wide.
const Wide = 32

// Most is how many lines a label has at most.
const Most = 24

// Lines are the lines of the label of a planned piece: its name, what is cut of each cord and
// where it is folded, how long it comes out, and the day.
//
//	(1) there are at most [Most], each of at most [Wide] letters
//	(2) the cut of every cord stands on it, unless there are more cords than lines
func Lines(p plan.Plan, inch bool, day time.Time) []string {
	out := wrap(p.Name)
	for _, c := range p.Cords {
		if c.CutMM <= 0 {
			continue
		}
		out = append(out, wrap(fmt.Sprintf("%s  cut %s", c.ID, units.Cut(c.CutMM, inch)))...)
		if c.FoldAtMM > 0 {
			out = append(out, wrap(fmt.Sprintf("   fold %s, %s leg", units.FoldAt(c.FoldAtMM, inch), c.FoldSide))...)
		}
	}
	if len(out) > Most-2 {
		out = out[:Most-2]
	}
	return append(out, fmt.Sprintf("%s long", units.Length(p.LengthMM, inch)), day.Format("2006-01-02"))
}

// wrap breaks a text into lines between its words, a longer word within.
func wrap(s string) []string {
	indent := s[:len(s)-len(strings.TrimLeft(s, " "))]
	var out []string
	line := []rune(indent)
	for i, w := range strings.Fields(s) {
		word := []rune(w)
		if i > 0 {
			if len(line)+1+len(word) <= Wide {
				line = append(line, ' ')
			} else {
				out = append(out, string(line))
				line = []rune(indent)
			}
		}
		for len(line)+len(word) > Wide {
			room := Wide - len(line)
			out = append(out, string(append(line, word[:room]...)))
			line, word = []rune(indent), word[room:]
		}
		line = append(line, word...)
	}
	if len(line) > len([]rune(indent)) {
		out = append(out, string(line))
	}
	return out
}
