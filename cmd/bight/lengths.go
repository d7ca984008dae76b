package main

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Lengths as the page shows them, each quantity by one rounding.

const inchMM = 25.4

// length is a length to the millimetre, or to a sixteenth of an inch.
func length(mm float64, inch bool) string {
	switch {
	case inch:
		return inches(math.Round(mm/inchMM*16), 16)
	case mm >= 10_000:
		return fmt.Sprintf("%.2f m", mm/1000)
	}
	return fmt.Sprintf("%.0f mm", mm)
}

// fine is a short length to a tenth of a millimetre.
func fine(mm float64, inch bool) string {
	if inch || mm >= 100 {
		return length(mm, inch)
	}
	return strings.TrimSuffix(strconv.FormatFloat(mm, 'f', 1, 64), ".0") + " mm"
}

// foldAt is where a cord is folded; it is never rounded down.
func foldAt(mm float64, inch bool) string {
	if inch {
		return inches(math.Ceil(mm/inchMM*16-1e-6), 16)
	}
	return strings.TrimSuffix(strconv.FormatFloat(math.Ceil(mm*10-1e-6)/10, 'f', 1, 64), ".0") + " mm"
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

// said writes the lengths of a message out.
func said(s string, inch bool) string {
	return lengthSaid.ReplaceAllStringFunc(s, func(m string) string {
		v, err := strconv.ParseFloat(lengthSaid.FindStringSubmatch(m)[1], 64)
		if err != nil {
			return m
		}
		return fine(v, inch)
	})
}
