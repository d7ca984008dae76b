// Package cord knows the stuff that is tied: what it is made of, how thick it
// is once it is drawn up hard, how it gives, what it weighs and how its ends
// may be treated. Lengths are in millimetres, weights in grams.
package cord

import (
	"encoding/json"
	"fmt"
	"math"
	"regexp"
	"sort"
	"strings"

	"nimblebight/core/unknown"
)

// Make is how a cord is built; Material what it is built of.
type (
	Make     string
	Material string
)

// Stuff is one kind of cord as it stands in a piece.
type Stuff struct {
	Make     Make     `json:"make" jsonschema:"enum=kernmantle,enum=solid-braid,enum=single-strand,enum=three-ply,enum=tshirt-yarn,enum=leather,enum=laid,enum=waxed-thread,enum=soft-braid,enum=flat-leather,enum=square-leather,enum=elastic"`
	Material Material `json:"material" jsonschema:"enum=nylon,enum=polyester,enum=cotton,enum=polypropylene,enum=leather,enum=jute,enum=sisal,enum=hemp,enum=rubber"`
	// DiameterMM is the label's diameter; of a flat or square lace its width.
	DiameterMM float64 `json:"diameter_mm"`
	// ThicknessMM is how thick a flat or square lace is, 0 for as thick as it is wide.
	ThicknessMM float64 `json:"thickness_mm,omitempty"`
	Colour      string  `json:"colour"`
	// Sheath is what it shows beside its own colour, nil for a cord of one colour.
	Sheath *Sheath `json:"sheath,omitempty"`
	// GramsPerMetre is the maker's own weighing; without it the usual weight
	// of the make counts.
	GramsPerMetre float64 `json:"grams_per_metre,omitempty"`
	Label         string  `json:"label,omitempty"`

	// Unknown keeps fields of a newer make through a round trip.
	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the stuff with the fields it did not know.
func (s Stuff) MarshalJSON() ([]byte, error) {
	type plain Stuff
	return unknown.Marshal(plain(s), s.Unknown)
}

// makeFacts are what is known of a make. Weights are typical label weights and
// are there to be replaced by the maker's own.
type makeFacts struct {
	name    string
	packing float64      // share of the section that is fibre when drawn up hard
	squeeze float64      // how far a row is pressed along its length (ky)
	give    float64      // share of the diameter that it flattens where it is pressed
	weights [][2]float64 // label diameter mm, g per metre, for weightOf material
	// fill is the share of the label's section that is fibre as it lies free: the
	// weight of a make without typical weights follows from it.
	fill    float64
	weighed Material
	known   bool    // whether its weight per metre is well known
	lace    bool    // one solid strip with a good side: it does not pack
	flat    bool    // it has a thickness beside its width
	rest    float64 // length at rest of what is drawn out to 1 when it is tied; 0 for 1
}

var makes = map[Make]makeFacts{
	"kernmantle":     {name: "kernmantle", packing: 0.80, squeeze: 0.88, give: 0.22, weights: [][2]float64{{0.75, 0.28}, {1.2, 0.65}, {2.2, 2.0}, {4, 6.8}}, weighed: "nylon", known: true},
	"solid-braid":    {name: "solid braid", packing: 0.80, squeeze: 0.90, give: 0.16, weights: [][2]float64{{3, 6.5}}, weighed: "polyester", known: true},
	"single-strand":  {name: "single strand", packing: 0.80, squeeze: 0.88, give: 0.25, weights: [][2]float64{{3, 3.9}, {5, 9.5}}, weighed: "cotton", known: true},
	"three-ply":      {name: "three-ply", packing: 0.80, squeeze: 0.90, give: 0.20, weights: [][2]float64{{3, 5.0}}, weighed: "cotton", known: true},
	"tshirt-yarn":    {name: "t-shirt yarn", packing: 0.80, squeeze: 0.85, give: 0.30, weights: [][2]float64{{8, 20}}, weighed: "cotton"},
	"leather":        {name: "round leather lace", packing: 1, squeeze: 1, give: 0.05, fill: 1, weighed: "leather", known: true, lace: true},
	"flat-leather":   {name: "flat leather lace", packing: 1, squeeze: 1, give: 0.05, fill: 1, weighed: "leather", known: true, lace: true, flat: true},
	"square-leather": {name: "square leather lace", packing: 1, squeeze: 1, give: 0.05, fill: 1, weighed: "leather", known: true, lace: true, flat: true},
	"laid":           {name: "laid rope", packing: 0.80, squeeze: 0.95, give: 0.12, weights: [][2]float64{{6, 25}}, weighed: "sisal"},
	"waxed-thread":   {name: "waxed thread", packing: 0.80, squeeze: 1, give: 0.10, weights: [][2]float64{{1, 0.8}}, weighed: "polyester"},
	// A sheath of plaited yarns over a loose filling: a good third of its section is
	// fibre.
	"soft-braid": {name: "soft braid", packing: 0.80, squeeze: 0.86, give: 0.28, fill: 0.36, weighed: "cotton"},
	// Rubber threads under a thin sheath. It is tied drawn out to five quarters and
	// measured without pull.
	"elastic": {name: "elastic", packing: 0.85, squeeze: 0.85, give: 0.30, fill: 0.60, weighed: "rubber", rest: 0.8},
}

// densities of the fibres in g/cm3.
var densities = map[Material]float64{
	"nylon": 1.14, "polyester": 1.38, "cotton": 1.54, "polypropylene": 0.91,
	"leather": 0.9, "jute": 1.45, "sisal": 1.45, "hemp": 1.48, "rubber": 1.05,
}

// Makes lists the makes by id, in alphabetical order.
func Makes() []Make {
	var out []Make
	for m := range makes {
		out = append(out, m)
	}
	sort.Slice(out, func(i, j int) bool { return out[i] < out[j] })
	return out
}

// Materials lists the materials in alphabetical order.
func Materials() []Material {
	var out []Material
	for m := range densities {
		out = append(out, m)
	}
	sort.Slice(out, func(i, j int) bool { return out[i] < out[j] })
	return out
}

// Melts reports whether an end of this material may be melted.
func (m Material) Melts() bool {
	return m == "nylon" || m == "polyester" || m == "polypropylene"
}

// Name is the make as it is said.
func (m Make) Name() string { return makes[m].name }

// Usual is the material that a make is usually of, "" for an unknown make.
func (m Make) Usual() Material { return makes[m].weighed }

// Lace tells whether it is one solid strip, which does not pack and has a good side.
func (m Make) Lace() bool { return makes[m].lace }

// Stretches tells whether it gives when it is pulled: it is measured without pull.
func (m Make) Stretches() bool { return makes[m].rest > 0 || m == "tshirt-yarn" }

// Opens tells whether it is one twist, which opens while it is tied.
func (m Make) Opens() bool { return m == "single-strand" }

// Flat tells whether it has a thickness beside its width.
func (m Make) Flat() bool { return makes[m].flat }

// Weight is the weight in grams per metre: the maker's own if there is one,
// else what a cord of this make, material and label diameter usually weighs.
// Between two known diameters it runs as a power of the diameter, beyond them
// as its square.
func (s Stuff) Weight() float64 {
	if s.GramsPerMetre > 0 {
		return s.GramsPerMetre
	}
	f := makes[s.Make]
	if len(f.weights) == 0 {
		return s.section() * f.fill * densities[s.Material]
	}
	w := f.weights
	known := func(i int) float64 { return w[i][1] * math.Pow(s.DiameterMM/w[i][0], 2) }
	g := known(0)
	for i := 1; i < len(w); i++ {
		if s.DiameterMM >= w[i][0] {
			g = known(i)
		} else if s.DiameterMM > w[i-1][0] {
			power := math.Log(w[i][1]/w[i-1][1]) / math.Log(w[i][0]/w[i-1][0])
			g = w[i-1][1] * math.Pow(s.DiameterMM/w[i-1][0], power)
		}
	}
	return g * densities[s.Material] / densities[f.weighed]
}

// section is that of its label, mm2.
func (s Stuff) section() float64 {
	if !s.Make.Flat() {
		return math.Pi / 4 * s.DiameterMM * s.DiameterMM
	}
	return s.DiameterMM * s.thickness()
}

func (s Stuff) thickness() float64 {
	if s.ThicknessMM > 0 {
		return s.ThicknessMM
	}
	return s.DiameterMM
}

// DrawnUp is the diameter in millimetres that counts in a hard-drawn knot:
// that of a rod of the cord's fibres packed as far as they will go,
// sqrt(4 m / (pi rho phi)), and never more than the label's. A lace does not pack:
// it is 0.95 of its width, or of a round one of as much section where it is flat or
// square. What is tied drawn out is thinner by that, its volume staying.
func (s Stuff) DrawnUp() float64 {
	switch f := makes[s.Make]; {
	case f.flat:
		return math.Min(0.95*math.Sqrt(4*s.section()/math.Pi), s.DiameterMM)
	case f.lace:
		return 0.95 * s.DiameterMM
	case f.rest > 0:
		d := math.Sqrt(4 * s.Weight() * f.rest / (math.Pi * densities[s.Material] * f.packing))
		return math.Min(d, s.DiameterMM)
	}
	d := math.Sqrt(4 * s.Weight() / (math.Pi * densities[s.Material] * makes[s.Make].packing))
	return math.Min(d, s.DiameterMM)
}

// Squeeze is the share of its ideal height to which a row of this cord is
// pressed (ky).
func (s Stuff) Squeeze() float64 { return makes[s.Make].squeeze }

// Give is the share of its diameter by which the cord flattens where pressed.
func (s Stuff) Give() float64 { return makes[s.Make].give }

// Figures are what counts of a stuff once it is drawn up, as the stuff itself tells
// it. A figure that was measured takes its place here and nowhere else: whoever
// plans, ties or draws is handed these.
type Figures struct {
	DrawnUpMM float64 // diameter in a hard-drawn knot, mm
	LabelMM   float64 // diameter where it runs free, mm
	Squeeze   float64 // share of its ideal height to which a row is pressed
	Give      float64 // share of its diameter by which it flattens where pressed
	Weight    float64 // g per metre
	// Rest is the length, measured without pull, of what is drawn out to 1 when it is
	// tied: 1 for all that does not stretch.
	Rest float64
}

// Figures are what the stuff tells of itself.
func (s Stuff) Figures() Figures {
	return Figures{DrawnUpMM: s.DrawnUp(), LabelMM: s.DiameterMM, Squeeze: s.Squeeze(), Give: s.Give(), Weight: s.Weight(), Rest: s.rest()}
}

func (s Stuff) rest() float64 {
	if r := makes[s.Make].rest; r > 0 {
		return r
	}
	return 1
}

// The doubts of a drawn-up diameter before anything is measured, standard deviations
// of its logarithm: how hard a cord packs, which is what is left where it was
// weighed, and all of it by the label alone, for makes whose weight per metre is well
// known and for others.
const (
	PackingDoubt = 0.04
	KnownDoubt   = 0.06
	OtherDoubt   = 0.12
)

// Doubt is the standard deviation of the logarithm of [Stuff.DrawnUp].
func (s Stuff) Doubt() float64 {
	switch f := makes[s.Make]; {
	case s.Weighed() && !f.lace:
		return PackingDoubt
	case f.known && s.Material == f.weighed:
		return KnownDoubt
	}
	return OtherDoubt
}

// Kind names what is one cord to whoever measures it: the same make, material, label
// diameter and label, of whatever colour.
func (s Stuff) Kind() string {
	kind := fmt.Sprintf("%s/%s/%.4g", s.Make, s.Material, s.DiameterMM)
	if s.Make.Flat() {
		kind += fmt.Sprintf("x%.4g", s.thickness())
	}
	if l := strings.ToLower(strings.Join(strings.Fields(s.Label), " ")); l != "" {
		kind += "/" + l
	}
	return kind
}

// Weighed reports whether the weight is the maker's own and not the usual one.
func (s Stuff) Weighed() bool { return s.GramsPerMetre > 0 }

var colour = regexp.MustCompile(`^#[0-9a-fA-F]{6}$`)

// MostLabel is how many letters a label may have.
const MostLabel = 80

// IsColour tells whether s is a colour as documents write it: #rrggbb.
func IsColour(s string) bool { return colour.MatchString(s) }

// Check says what is wrong with the stuff: a field name and a sentence, both
// empty if nothing is.
func (s Stuff) Check() (field, problem string) {
	if _, ok := makes[s.Make]; !ok {
		return "make", fmt.Sprintf("is %q; known makes are %s", s.Make, join(Makes()))
	}
	if _, ok := densities[s.Material]; !ok {
		return "material", fmt.Sprintf("is %q; known materials are nylon, polyester, cotton, polypropylene, leather, jute, sisal, hemp and rubber", s.Material)
	}
	if !(s.DiameterMM >= 0.3 && s.DiameterMM <= 50) {
		return "diameter_mm", fmt.Sprintf("is %v; a cord is between 0.3 and 50 mm thick", s.DiameterMM)
	}
	if s.ThicknessMM != 0 && !(s.ThicknessMM >= 0.3 && s.ThicknessMM <= s.DiameterMM) {
		return "thickness_mm", fmt.Sprintf("is %v; a lace of %g mm is between 0.3 mm and its width thick", s.ThicknessMM, s.DiameterMM)
	}
	if s.GramsPerMetre != 0 && !(s.GramsPerMetre > 0.01 && s.GramsPerMetre < 5000) {
		return "grams_per_metre", fmt.Sprintf("is %v; leave it out or weigh a metre of the cord", s.GramsPerMetre)
	}
	if !IsColour(s.Colour) {
		return "colour", fmt.Sprintf("is %.20q; write it as #rrggbb", s.Colour)
	}
	if len([]rune(s.Label)) > MostLabel {
		return "label", fmt.Sprintf("is longer than %d letters", MostLabel)
	}
	if s.Sheath != nil {
		if f, problem := s.Sheath.Check(); f != "" {
			return "sheath." + f, problem
		}
	}
	return "", ""
}

func join(ms []Make) string {
	var names []string
	for _, m := range ms {
		names = append(names, string(m))
	}
	return strings.Join(names, ", ")
}
