// Package units writes lengths as makers read them: in millimetres, or in inches
// with fractions. The page has its own writer, for it changes units at once; how much
// an inch is and how finely each quantity is told stands here and is generated for it.
package units

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// InchMM is an inch, mm.
const InchMM = 25.4

// Parts are the finest fractions of an inch by which quantities are told.
const (
	LengthParts = 16
	FineParts   = 32 // thicknesses
	CutParts    = 4  // what is cut to; it is rounded up before
)

// Length is a length to the millimetre, or to a sixteenth of an inch.
func Length(mm float64, inch bool) string {
	switch {
	case inch:
		return inches(math.Round(mm/InchMM*LengthParts), LengthParts)
	case mm >= 10_000:
		return fmt.Sprintf("%.2f m", mm/1000)
	}
	return fmt.Sprintf("%.0f mm", mm)
}

// Fine is a short length to a tenth of a millimetre.
func Fine(mm float64, inch bool) string {
	if inch || mm >= 100 {
		return Length(mm, inch)
	}
	return strings.TrimSuffix(strconv.FormatFloat(mm, 'f', 1, 64), ".0") + " mm"
}

// FoldAt is where a cord is folded; it is never rounded down.
func FoldAt(mm float64, inch bool) string {
	if inch {
		return inches(math.Ceil(mm/InchMM*LengthParts-1e-6), LengthParts)
	}
	return strings.TrimSuffix(strconv.FormatFloat(math.Ceil(mm*10-1e-6)/10, 'f', 1, 64), ".0") + " mm"
}

// Cut is what is cut to, rounded up before.
func Cut(mm float64, inch bool) string {
	if inch {
		return inches(math.Round(mm/InchMM*CutParts), CutParts)
	}
	return Length(mm, false)
}

// inches writes so many parts of an inch.
func inches(n float64, parts int) string {
	whole, top, bottom := int(n)/parts, int(n)%parts, parts
	for top > 0 && top%2 == 0 {
		top, bottom = top/2, bottom/2
	}
	switch {
	case top == 0:
		return fmt.Sprintf("%d in", whole)
	case whole == 0:
		return fmt.Sprintf("%d/%d in", top, bottom)
	}
	return fmt.Sprintf("%d %d/%d in", whole, top, bottom)
}

var lengthSaid = regexp.MustCompile(`\{(-?[0-9.]+)mm\}`)

// Said writes the lengths of a message out.
func Said(s string, inch bool) string {
	return lengthSaid.ReplaceAllStringFunc(s, func(m string) string {
		v, err := strconv.ParseFloat(lengthSaid.FindStringSubmatch(m)[1], 64)
		if err != nil {
			return m
		}
		return Fine(v, inch)
	})
}
