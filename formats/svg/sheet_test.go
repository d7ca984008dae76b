package svg_test

import (
	"encoding/xml"
	"errors"
	"io"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"nimblebight/formats/svg"
)

func sheet(n int) svg.Sheet {
	s := svg.Sheet{Title: "Locker <14> & more", Lead: "Tick one.", WideMM: 210, TallMM: 297}
	for i := range n {
		s.Choices = append(s.Choices, svg.Choice{Title: "Way " + strconv.Itoa(i+1), Says: "Sand makes the bars on the face, lagoon the bumps at its edges; the other way round on the back.",
			Cords: []svg.Named{{"#0f5c63", "A: lagoon, cut 860 mm"}}, Pictures: nil})
	}
	return s
}

// A sheet is well-formed, holds every choice once with a box to tick, and nothing of it lies
// beyond a page or over the edge between two.
func TestASheetKeepsToItsPages(t *testing.T) {
	for _, n := range []int{0, 1, 7, 60} {
		var b strings.Builder
		if err := sheet(n).Pages(&b); err != nil {
			t.Fatal(err)
		}
		out := b.String()
		for d := xml.NewDecoder(strings.NewReader(out)); ; {
			if _, err := d.Token(); err == io.EOF {
				break
			} else if err != nil {
				t.Fatalf("%d choices: %v", n, err)
			}
		}
		if got := strings.Count(out, ">Way "); got != n || !strings.Contains(out, "Locker &lt;14&gt; &amp; more") {
			t.Errorf("%d choices make %d", n, got)
		}
		tall, _ := strconv.ParseFloat(regexp.MustCompile(`height="([0-9.]+)mm"`).FindStringSubmatch(out)[1], 64)
		boxes := regexp.MustCompile(`<rect x="([0-9.]+)" y="([0-9.]+)" width="([0-9.]+)" height="([0-9.]+)" fill="none"`).FindAllStringSubmatch(out, -1)
		if len(boxes) != 2*n {
			t.Fatalf("%d choices have %d boxes", n, len(boxes))
		}
		for _, m := range boxes {
			var v [4]float64
			for i := range v {
				v[i], _ = strconv.ParseFloat(m[i+1], 64)
			}
			if v[0]+v[2] > 210-11 || v[1]+v[3] > tall || int(v[1]/297) != int((v[1]+v[3])/297) {
				t.Errorf("a box of %v lies over an edge", v)
			}
		}
	}
}

func TestASheetThatCannotBeWrittenSaysSo(t *testing.T) {
	if err := sheet(1).Pages(full{}); !errors.Is(err, errFull) || !strings.Contains(err.Error(), "writing the sheet") {
		t.Errorf("said %v", err)
	}
}
