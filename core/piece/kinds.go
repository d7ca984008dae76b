package piece

import (
	"slices"

	"nimblebight/core/caution"
)

// PurposeKind is what a piece is made for, with the sizes that fix all others.
type PurposeKind struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Asks are its sizes beside those of what it hangs on, in the order in which they are
	// measured.
	Asks []Ask `json:"asks"`
	// Hangs are the fittings that such pieces hang on, the usual one first.
	Hangs []string `json:"hangs"`
	// EndsOn is set where it ends on hardware too.
	EndsOn bool `json:"ends_on,omitempty"`
	// Calls are the cautions that its use calls for.
	Calls []caution.ID `json:"-"`
}

// Ask is one size that a kind of piece asks for.
type Ask struct {
	Key   string `json:"key"` // of the purpose: length_mm, around_mm and so on
	Label string `json:"label"`
	Hint  string `json:"hint"`
	// Drawing names the drawing of what to measure.
	Drawing string `json:"drawing" jsonschema:"enum=hang,enum=hand,enum=head,enum=handle,enum=roll,enum=stop,enum=blade"`
	// LeastMM and MostMM are what it can be where it is a size of people and things; What
	// names what is measured in a refusal.
	LeastMM float64 `json:"-"`
	MostMM  float64 `json:"-"`
	What    string  `json:"-"`
}

// The keys of a purpose's sizes.
const (
	LengthKey  = "length_mm"
	AroundKey  = "around_mm"
	StopsKey   = "stops_mm"
	BladeKey   = "blade_mm"
	BetweenKey = "between_mm"
)

func hangs(label string) Ask {
	return Ask{Key: LengthKey, Label: label, Drawing: "hang",
		Hint: "From the middle of the wire to the lowest tip. Leave it empty if the count decides."}
}

var kinds = []PurposeKind{
	{ID: "key-fob", Name: "key fob", Hangs: []string{"split-ring", "swivel-clip", "carabiner"}, Asks: []Ask{hangs("Wanted length")}},
	{ID: "charm", Name: "bag charm", Hangs: []string{"swivel-clip", "split-ring", "carabiner"}, Asks: []Ask{hangs("Wanted length")}},
	{ID: "wrist-strap", Name: "wrist strap", Hangs: []string{"split-ring", "swivel-clip", "bail"}, Asks: []Ask{
		{Key: AroundKey, Label: "Round the hand", Drawing: "hand", LeastMM: 120, MostMM: 350, What: "a hand, thumb laid in,",
			Hint: "Round the widest part, over the knuckles, with the thumb laid into the palm: the loop must go over that. The tape lies on, it is not pulled."},
		hangs("Wanted length")}},
	{ID: "fist", Name: "monkey's fist", Hangs: []string{"split-ring", "carabiner", "none"}, Asks: []Ask{hangs("Wanted length")}},
	{ID: "lanyard", Name: "knife or tool lanyard", Hangs: []string{"hole", "bail", "split-ring"}, Calls: []caution.ID{caution.Blade}, Asks: []Ask{
		{Key: BladeKey, Label: "A blade's path, from the hole", Drawing: "blade",
			Hint: "Of a folding knife: how far from the hole the blade passes. Leave it empty where there is no blade. Keep it closed or sheathed while you measure."},
		hangs("Wanted length")}},
	{ID: "zip-pull", Name: "zip pull", Hangs: []string{"hole", "bail", "split-ring"}, Asks: []Ask{hangs("Wanted length")}},
	{ID: "neck-cord", Name: "neck cord", Hangs: []string{"none", "split-ring", "swivel-clip"}, Calls: []caution.ID{caution.Neck}, Asks: []Ask{
		{Key: AroundKey, Label: "Round the head", Drawing: "head", LeastMM: 400, MostMM: 750, What: "a head",
			Hint: "Round the widest part, over the forehead: the longest opening must go over that. The tape lies on, it is not pulled."}}},
	{ID: "stopper", Name: "bell-rope or blind stopper", Hangs: []string{"hole", "rod", "split-ring", "none"}, Asks: []Ask{
		{Key: StopsKey, Label: "It must not pass a hole of", Drawing: "stop",
			Hint: "The width of the hole. The plan says whether a knot stops at it when it is pulled hard. Leave it empty where there is no hole."},
		hangs("Wanted length")}},
	{ID: "handle", Name: "covered handle", Hangs: []string{"none", "hole", "split-ring"}, Asks: []Ask{
		{Key: AroundKey, Label: "Round the handle", Drawing: "handle", LeastMM: 12, MostMM: 600, What: "a handle",
			Hint: "Round it where the knot shall sit; where it tapers, at its thickest."}}},
	{ID: "napkin-ring", Name: "napkin ring", Hangs: []string{"none"}, Asks: []Ask{
		{Key: AroundKey, Label: "Round the rolled napkin", Drawing: "roll", LeastMM: 50, MostMM: 350, What: "a rolled napkin",
			Hint: "Roll the napkin as it shall lie on the table, not tighter, and measure round its middle."}}},
	{ID: "rope-ball", Name: "rope ball", Hangs: []string{"none", "split-ring"}, Asks: []Ask{hangs("Wanted length")}},
	{ID: "tether", Name: "tether between two", EndsOn: true, Hangs: []string{"split-ring", "swivel-clip", "carabiner"}, Asks: []Ask{}},
}

// Kinds lists what pieces are made for; a document may name another.
func Kinds() []PurposeKind { return slices.Clone(kinds) }

// KindOf finds a kind by its id.
func KindOf(id string) (PurposeKind, bool) {
	i := slices.IndexFunc(kinds, func(k PurposeKind) bool { return k.ID == id })
	if i < 0 {
		return PurposeKind{Name: id}, false
	}
	return kinds[i], true
}

// Ask is what the kind asks by a key.
func (k PurposeKind) Ask(key string) (Ask, bool) {
	i := slices.IndexFunc(k.Asks, func(a Ask) bool { return a.Key == key })
	if i < 0 {
		return Ask{}, false
	}
	return k.Asks[i], true
}

// Size is a size of the purpose by its key, 0 where it is not said.
func (p Purpose) Size(key string) float64 {
	return map[string]float64{LengthKey: p.LengthMM, AroundKey: p.AroundMM, StopsKey: p.StopsMM, BladeKey: p.BladeMM, BetweenKey: p.BetweenMM}[key]
}

// aroundRange is what can be gone round where the kind does not say.
var aroundRange = Ask{LeastMM: 5, MostMM: 3000, What: "what a piece goes round"}

// checkAround says where what the piece goes round cannot be.
func (p Purpose) checkAround(path string, say func(path, format string, args ...any)) {
	if p.AroundMM == 0 {
		return
	}
	kind, _ := KindOf(p.Kind)
	ask, ok := kind.Ask(AroundKey)
	if !ok {
		ask = aroundRange
	}
	if v := p.AroundMM; !(v >= ask.LeastMM && v <= ask.MostMM) {
		say(path, "is %v; %s measures between %g and %g mm round, so measure it once more with the tape laid on", v, ask.What, ask.LeastMM, ask.MostMM)
	}
}

// Idle are the sizes that the purpose says and its kind does not ask for, as it would call
// them.
func (p Purpose) Idle() []Ask {
	kind, known := KindOf(p.Kind)
	if !known {
		return nil
	}
	var out []Ask
	for _, key := range []string{AroundKey, StopsKey, BladeKey} {
		if _, asked := kind.Ask(key); asked || p.Size(key) == 0 {
			continue
		}
		for _, k := range kinds {
			if a, ok := k.Ask(key); ok {
				out = append(out, a)
				break
			}
		}
	}
	return out
}

// Unsaid are the sizes that fix a piece of its kind and are not said yet: those that only
// matter where there is such a thing, as a blade, are not among them.
func (p Purpose) Unsaid() []Ask {
	kind, _ := KindOf(p.Kind)
	var out []Ask
	for _, a := range kind.Asks {
		if a.Key == AroundKey && p.Size(a.Key) == 0 {
			out = append(out, a)
		}
	}
	return out
}
