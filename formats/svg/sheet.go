package svg

import (
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"strings"

	"nimblebight/core/scene"
)

// Sheet is a page of pictures to choose from, each with words and a box to tick.
type Sheet struct {
	Title string
	Lead  string
	WideMM,
	TallMM float64 // of a page
	Choices []Choice
}

// Choice is one of them.
type Choice struct {
	Title    string
	Says     string
	Cords    []Named
	Pictures []scene.Picture
}

// Named is a colour and what is written beside it.
type Named struct{ Colour, Text string }

// Lengths of a sheet, mm.
const (
	sheetMargin = 12.0
	sheetGap    = 4.0
	letters     = 3.2  // height of its words
	lineMM      = 4.3  // from line to line
	letterWide  = 0.52 // width of a letter on average, of its height
	tickMM      = 4.5
	mostTallMM  = 92.0 // a picture is no taller
	mostWideMM  = 40.0 // and both no wider together
)

// Pages is a sheet laid out in pages, one under the other in one drawing of its true size. A
// choice is never cut in two.
func (s Sheet) Pages(w io.Writer) error {
	each := (s.WideMM - 2*sheetMargin - sheetGap) / 2
	scale := 1.0 // of all pictures, so that they can be compared
	for _, c := range s.Choices {
		wide := 0.0
		for _, p := range c.Pictures {
			scale = math.Min(scale, mostTallMM*100/math.Max(1, float64(p.Height)))
			wide += float64(p.Width) / 100
		}
		scale = math.Min(scale, mostWideMM/math.Max(1, wide))
	}
	type laid struct {
		choice Choice
		says   []string   // its words, line by line
		cords  [][]string // and those of each cord
		wide   float64    // of its pictures
		tall   float64
	}
	all := make([]laid, len(s.Choices))
	for i, c := range s.Choices {
		l := laid{choice: c}
		tall := 0.0
		for _, p := range c.Pictures {
			l.wide += scale*float64(p.Width)/100 + 1
			tall = math.Max(tall, scale*float64(p.Height)/100)
		}
		most := int((each - l.wide - 8) / (letters * letterWide))
		l.says = wrapped(c.Says, most)
		lines := 1 + len(l.says)
		for _, n := range c.Cords {
			l.cords = append(l.cords, wrapped(n.Text, most-3))
			lines += len(l.cords[len(l.cords)-1])
		}
		l.tall = math.Max(tall, tickMM+2+lineMM*float64(lines)) + 5
		all[i] = l
	}
	var b strings.Builder
	y, page := sheetMargin+16, 0
	var out strings.Builder
	for i := 0; i < len(all); i += 2 {
		row := all[i:min(i+2, len(all))]
		tall := 0.0
		for _, l := range row {
			tall = math.Max(tall, l.tall)
		}
		if end := float64(page+1)*s.TallMM - sheetMargin; y+tall > end && y > float64(page)*s.TallMM+sheetMargin {
			page++
			y = float64(page)*s.TallMM + sheetMargin
		}
		for k, l := range row {
			x := sheetMargin + float64(k)*(each+sheetGap)
			fmt.Fprintf(&out, `<rect x="%.2f" y="%.2f" width="%.2f" height="%.2f" fill="none" stroke="%s" stroke-width="0.25"/>`, x, y, each, tall, ink)
			at := x + 2
			for _, p := range l.choice.Pictures {
				fmt.Fprintf(&out, `<svg x="%.2f" y="%.2f" width="%.3f" height="%.3f" viewBox="%d %d %d %d">`, at, y+2, scale*float64(p.Width)/100, scale*float64(p.Height)/100, p.Left, p.Top, p.Width, p.Height)
				body(&out, p)
				out.WriteString(`</svg>`)
				at += scale*float64(p.Width)/100 + 1
			}
			at += 2
			fmt.Fprintf(&out, `<rect x="%.2f" y="%.2f" width="%g" height="%g" fill="none" stroke="%s" stroke-width="0.4"/>`, at, y+2, tickMM, tickMM, ink)
			line(&out, at+tickMM+2, y+2+tickMM-1, letters, true, l.choice.Title)
			down := y + 2 + tickMM + lineMM
			for _, t := range l.says {
				line(&out, at, down, letters, false, t)
				down += lineMM
			}
			for k, n := range l.choice.Cords {
				fmt.Fprintf(&out, `<circle cx="%.2f" cy="%.2f" r="1.5" fill="%s" stroke="%s" stroke-width="0.25"/>`, at+1.6, down-1.1, n.Colour, ink)
				for _, t := range l.cords[k] {
					line(&out, at+4.5, down, letters, false, t)
					down += lineMM
				}
			}
		}
		y += tall + sheetGap
	}
	tall := float64(page+1) * s.TallMM
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="0 0 %g %g"><rect width="%g" height="%g" fill="#ffffff"/>`, s.WideMM, tall, s.WideMM, tall, s.WideMM, tall)
	line(&b, sheetMargin, sheetMargin+5, 5.5, true, s.Title)
	line(&b, sheetMargin, sheetMargin+11, letters, false, s.Lead)
	b.WriteString(out.String())
	b.WriteString(`</svg>`)
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("writing the sheet: %w", err)
	}
	return nil
}

// line writes a line of words.
func line(b *strings.Builder, x, y, high float64, bold bool, text string) {
	weight := ""
	if bold {
		weight = ` font-weight="bold"`
	}
	fmt.Fprintf(b, `<text x="%.2f" y="%.2f" font-size="%g" font-family="sans-serif"%s fill="%s">`, x, y, high, weight, ink)
	_ = xml.EscapeText(b, []byte(text)) // a builder does not fail
	b.WriteString(`</text>`)
}

// wrapped are the lines of a text of at most so many letters each; a longer word is cut.
func wrapped(text string, most int) []string {
	most = max(most, 8)
	var out []string
	now := ""
	for _, word := range strings.Split(text, " ") { // not at spaces that do not break
		for {
			letters := []rune(word)
			if len(letters) <= most {
				break
			}
			if now != "" {
				out, now = append(out, now), ""
			}
			out, word = append(out, string(letters[:most])), string(letters[most:])
		}
		switch {
		case now == "":
			now = word
		case len([]rune(now))+1+len([]rune(word)) <= most:
			now += " " + word
		default:
			out, now = append(out, now), word
		}
	}
	if now != "" {
		out = append(out, now)
	}
	return out
}
