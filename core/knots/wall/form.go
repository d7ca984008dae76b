package wall

import (
	"fmt"

	"nimblebight/core/knots/ring"
	"nimblebight/core/tighten"
)

// form is what a wall is drawn up as.
type form struct {
	n, passes int
	crown     Crown
	dressed   Dressed // of one on a crown
}

// of is the form that settings choose for n strands; what does not matter is left out.
func of(n int, set Settings) form {
	f := form{n: n, passes: max(1, set.Passes), crown: set.Crown}
	switch f.crown {
	case "":
		f.crown = Alone
	case Below:
		f.dressed = Chunky
		if set.Dressed == Slim {
			f.dressed = Slim
		}
	case Followed:
		f.passes = 2
	}
	return f
}

// forms are all.
func forms() []form {
	var out []form
	for n := least; n <= most; n++ {
		for passes := 1; passes <= 2; passes++ {
			out = append(out, form{n, passes, Alone, ""})
			if n <= mostCrowned {
				out = append(out, form{n, passes, Below, Chunky}, form{n, passes, Below, Slim}, form{n, passes, Over, ""})
			}
		}
		if n <= mostCrowned {
			out = append(out, form{n, 2, Followed, ""})
		}
	}
	return out
}

func (f form) name() string {
	name := fmt.Sprintf("wall of %d, passes %d", f.n, f.passes)
	switch f.crown {
	case Below:
		return fmt.Sprintf("%s on a crown, %s", name, f.dressed)
	case Over:
		return name + ", crowned over"
	case Followed:
		return fmt.Sprintf("wall and crown of %d, followed", f.n)
	}
	return name
}

// route is the way of its strands, loose.
func (f form) route() tighten.Problem {
	switch f.crown {
	case Below:
		return ring.Route(f.n, onCrown(f.n, f.passes, f.dressed))
	case Over:
		return seized(ring.Route(f.n, crownedOver(f.n, f.passes)), f.n)
	case Followed:
		return seized(ring.Route(f.n, followed(f.n)), f.n)
	}
	if f.passes == 2 {
		return ring.Route(f.n, twice(f.n))
	}
	return ring.Route(f.n, once(f.n))
}

// ends tells whether the strands end in it.
func (f form) ends() bool { return f.crown == Over || f.crown == Followed }

// single is the form with its first round alone.
func (f form) single() form {
	f.passes = 1
	if f.crown == Followed {
		f.crown = Over
	}
	return f
}
