package knot

// Begin is how strands come to hang by a section.
type Begin uint8

// A section is tied on strands that hang; it puts cords of its own on what the
// piece hangs on; it lays them behind strands that hang; it names the cords that
// the next section is tied of; or it is tied of cords that were named before it.
const (
	OnStrands Begin = iota
	OnHardware
	BehindStrands
	ForTheNext
	OfTheLast
)

// Terms are what a section takes, needs and gives, as it is set.
type Terms struct {
	// Takes are the strands that it is tied on.
	Takes Takes
	// Begins tells how strands come to hang by it.
	Begins Begin
	// Cords are those of its own, by name, CordsAt the field that names them, and
	// Legs how many strands of each hang from it afterwards: none where the cord
	// ends in it.
	Cords   []string
	CordsAt string
	Legs    int
	// Wants is how many cords one that is tied of those named before it takes, As
	// what it is then said to be, and WantsAt the field that decides it.
	Wants       int
	As, WantsAt string
	// Suits, where it is not nil, is the value of that field with which so many cords
	// tie it, and what that is called; nil where there is none.
	Suits func(cords int) (any, string)
	// Hardware is set where it goes round what the piece hangs on, HangsFree where its
	// cords may hang on nothing.
	Hardware, HangsFree bool
	// FromFar is set where what follows is tied from the far end of the piece.
	FromFar bool
	// Bundles is set where it draws its strands into a bundle.
	Bundles bool
	// BareMM is how much strand one of it leaves bare.
	BareMM float64
	// Bends is set where it bends what is tied straight.
	Bends bool
	// Parts is for how many knots one of it counts, with so many strands; nil for
	// one.
	Parts func(strands int) int
}

// Takes is on how many strands a knot can be tied.
type Takes struct {
	Least int  `json:"least"`
	Most  int  `json:"most,omitempty"` // 0 for as many as there are
	Even  bool `json:"even,omitempty"`
}

// Has tells whether so many strands will do.
func (t Takes) Has(n int) bool {
	return n >= t.Least && (t.Most == 0 || n <= t.Most) && (!t.Even || n%2 == 0)
}

// TermsOf are the terms of a section; those of one that is not in the catalogue
// are none.
func TermsOf(s Section) Terms {
	k, ok := Get(s.Do)
	if !ok || k.Terms == nil {
		return Terms{Takes: Takes{Least: 1}}
	}
	return k.Terms(s)
}

// Parts is how many knots one knot of a section counts for, where so many strands
// hang: a row of hitches is one of each strand, a berry is of square knots. What
// holds others counts for none itself.
func Parts(s Section, hang int) int {
	k, ok := Get(s.Do)
	if !ok || k.Outside || k.Holds != Nothing {
		return 0
	}
	t := TermsOf(s)
	if t.Parts == nil {
		return 1
	}
	if n := len(s.Strands); n > 0 {
		hang = n
	}
	return max(1, t.Parts(hang))
}

// Stays are the places that a section is tied on, with the key of the field that
// says so; none for all.
func (s Section) Stays() (places []int, key string) {
	k, _ := Get(s.Do)
	for _, f := range k.Fields {
		if f.Kind == "places" && f.at != nil {
			v, _ := s.Value(f)
			places, _ = v.([]int)
			return places, f.Key
		}
	}
	return s.Strands, "strands"
}

// Offer is a knot as something to add to a piece: what is put in, and whether it
// suits the strands that hang there.
type Offer struct {
	ID       string    `json:"id"`
	Suits    bool      `json:"suits"`
	Sections []Section `json:"sections"`
}

// Offers are all knots as something to add where so many strands hang and cords of
// these names are not used yet.
func Offers(hanging int, free []string) []Offer {
	out := []Offer{}
	for _, k := range All() {
		o := Offer{ID: k.ID}
		if k.Anew != nil {
			o.Sections = k.Anew(hanging, free)
		} else if s, err := New(k.ID); err == nil {
			o.Sections = []Section{s}
		}
		last := o.Sections[len(o.Sections)-1]
		switch t := TermsOf(last); {
		case k.Mounts:
			o.Suits = true
		case t.Begins == OfTheLast:
			o.Suits = hanging == 0
		default:
			o.Suits = hanging > 0 && t.Takes.Has(hanging)
		}
		out = append(out, o)
	}
	return out
}
