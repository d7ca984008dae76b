package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"strings"

	"github.com/gin-gonic/gin"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/piece"
	"nimblebight/core/unknown"
	"nimblebight/store"
)

// Spool is a cord of the drawer.
type Spool struct {
	ID    int64      `json:"id"`
	Name  string     `json:"name"`
	Stuff cord.Stuff `json:"stuff"`
	// MeasuredMM is what it measures across, laid free: it is taken in place of the
	// label's diameter. PricePerM is what a metre costs, in the maker's money, LeftM how
	// much is left; 0 where that is not known.
	MeasuredMM float64 `json:"measured_mm,omitempty"`
	PricePerM  float64 `json:"price_per_m,omitempty"`
	LeftM      float64 `json:"left_m,omitempty"`
}

// Thing is a bead, hardware or a tool of the drawer: one of the three.
type Thing struct {
	ID       int64           `json:"id"`
	Name     string          `json:"name"`
	Bead     *knot.Bead      `json:"bead,omitempty"`
	Hardware *piece.Hardware `json:"hardware,omitempty"`
	// Left is how many there are, 0 where that is not known; Price is what one costs.
	Left  int     `json:"left,omitempty"`
	Price float64 `json:"price,omitempty"`
}

// DrawerCore is a core of the drawer. It may have no name.
type DrawerCore struct {
	ID   int64     `json:"id"`
	Name string    `json:"name"`
	Core ball.Core `json:"core"`
}

// named says what is wrong with the name of a thing that must have one.
func named(name string) (ps piece.Problems) {
	if n := len([]rune(strings.TrimSpace(name))); n == 0 || n > 80 {
		ps = append(ps, piece.Problem{Path: "name", Message: "is empty or longer than 80 letters"})
	}
	return ps
}

// A shelf of the drawer as the web sees it: how what lies on it is checked and
// carried to the store and back.
type shelf[T any] struct {
	name  store.Shelf
	most  int
	check func(T) piece.Problems
	in    func(T) (store.Stuff, error)
	out   func(store.Stuff) (T, error)
}

const (
	mostCords = 500
	mostCores = 200
)

func cords() shelf[Spool] {
	return shelf[Spool]{
		name: store.Cords,
		most: mostCords,
		check: func(sp Spool) (ps piece.Problems) {
			ps = named(sp.Name)
			if f, why := sp.Stuff.Check(); f != "" {
				ps = append(ps, piece.Problem{Path: "stuff." + f, Message: why})
			}
			for path, v := range map[string]float64{"price_per_m": sp.PricePerM, "left_m": sp.LeftM} {
				if !(v >= 0 && v <= 1e6) {
					ps = append(ps, piece.Problem{Path: path, Message: fmt.Sprintf("is %v; write a number from 0 to a million", v)})
				}
			}
			if v := sp.MeasuredMM; v != 0 && !(v >= 0.2 && v <= 100) {
				ps = append(ps, piece.Problem{Path: "measured_mm", Message: fmt.Sprintf("is %v; a cord measures between 0.2 and 100 mm across", v)})
			}
			return ps
		},
		in: func(sp Spool) (store.Stuff, error) {
			// Beside the stuff, under names that no stuff has.
			b, err := unknown.Join(nil, sp.Stuff, onSpool{sp.MeasuredMM, sp.PricePerM, sp.LeftM})
			return store.Stuff{ID: sp.ID, Name: sp.Name, What: b}, err
		},
		out: func(st store.Stuff) (Spool, error) {
			sp := Spool{ID: st.ID, Name: st.Name}
			var on onSpool
			err := errors.Join(json.Unmarshal(st.What, &sp.Stuff), json.Unmarshal(st.What, &on))
			sp.MeasuredMM, sp.PricePerM, sp.LeftM = on.MeasuredMM, on.PricePerM, on.LeftM
			return sp, err
		},
	}
}

// onSpool is what is kept of a spool beside its stuff.
type onSpool struct {
	MeasuredMM float64 `json:"spool_measured_mm,omitempty"`
	PricePerM  float64 `json:"spool_price_per_m,omitempty"`
	LeftM      float64 `json:"spool_left_m,omitempty"`
}

// mostThings is how many beads, pieces of hardware or tools a shelf holds.
const mostThings = 200

// things is a shelf of beads, of hardware or of tools.
func things(name store.Shelf) shelf[Thing] {
	return shelf[Thing]{
		name: name,
		most: mostThings,
		check: func(t Thing) (ps piece.Problems) {
			ps = named(t.Name)
			if t.Left < 0 || t.Left > 1e6 {
				ps = append(ps, piece.Problem{Path: "left", Message: fmt.Sprintf("is %d; write a number from 0 to a million", t.Left)})
			}
			if !(t.Price >= 0 && t.Price <= 1e6) {
				ps = append(ps, piece.Problem{Path: "price", Message: fmt.Sprintf("is %v; write a number from 0 to a million", t.Price)})
			}
			switch {
			case (name == store.Beads) != (t.Bead != nil) || (name == store.Hardware) != (t.Hardware != nil):
				ps = append(ps, piece.Problem{Path: "name", Message: "is of something that lies on another shelf"})
			case t.Bead != nil:
				if b := *t.Bead; !(b.HoleMM > 0 && b.LengthMM > 0 && b.WidthMM > b.HoleMM && b.WidthMM <= 300 && b.LengthMM <= 500) {
					ps = append(ps, piece.Problem{Path: "bead", Message: fmt.Sprintf("has a hole of %v, a length of %v and a width of %v mm; it is wider than its hole, and all are above 0", b.HoleMM, b.LengthMM, b.WidthMM)})
				}
			case t.Hardware != nil:
				for _, p := range t.Hardware.Check() {
					p.Path = "hardware." + p.Path
					ps = append(ps, p)
				}
			}
			return ps
		},
		in: func(t Thing) (store.Stuff, error) {
			st := store.Stuff{ID: t.ID, Name: t.Name}
			var err error
			st.What, err = json.Marshal(t)
			return st, err
		},
		out: func(st store.Stuff) (Thing, error) {
			var t Thing
			err := json.Unmarshal(st.What, &t)
			t.ID, t.Name = st.ID, st.Name
			return t, err
		},
	}
}

func cores() shelf[DrawerCore] {
	return shelf[DrawerCore]{
		name: store.Cores,
		most: mostCores,
		check: func(d DrawerCore) (ps piece.Problems) {
			if len([]rune(d.Name)) > 80 {
				ps = append(ps, piece.Problem{Path: "name", Message: "is longer than 80 letters"})
			}
			var no *ball.Refused
			if errors.As(d.Core.CheckKept(), &no) {
				ps = append(ps, piece.Problem{Path: "core", Message: "cannot be: " + no.Why})
			}
			return ps
		},
		in: func(d DrawerCore) (store.Stuff, error) {
			b, err := json.Marshal(d.Core)
			return store.Stuff{ID: d.ID, Name: d.Name, What: b}, err
		},
		out: func(st store.Stuff) (DrawerCore, error) {
			d := DrawerCore{ID: st.ID, Name: st.Name}
			return d, json.Unmarshal(st.What, &d.Core)
		},
	}
}

// list reads all that lies on a shelf.
func (sh shelf[T]) list(ctx context.Context, s *store.Store) ([]T, error) {
	have, err := s.Drawer(on(ctx), sh.name)
	out := make([]T, 0, len(have))
	for _, st := range have {
		t, slip := sh.out(st)
		if slip != nil {
			slog.Warn("a thing in the drawer is spoilt and left out", "shelf", sh.name, "id", st.ID, "error", slip)
			continue
		}
		out = append(out, t)
	}
	return out, err
}

// put keeps one thing: a new one for a number of 0.
func (sh shelf[T]) put(ctx context.Context, s *store.Store, number int64, t T) (T, error) {
	if ps := sh.check(t); len(ps) > 0 {
		return t, ps
	}
	st, err := sh.in(t)
	if err != nil {
		return t, err
	}
	if st.ID = number; number == 0 {
		have, err := s.Drawer(on(ctx), sh.name)
		if err != nil {
			return t, err
		}
		if len(have) >= sh.most {
			return t, piece.Problems{{Path: "name", Message: fmt.Sprintf("finds no room: the drawer holds %d already; take one out first", len(have))}}
		}
	}
	if st, err = s.PutIn(on(ctx), sh.name, st); err != nil {
		return t, err
	}
	return sh.out(st)
}

// serve answers for a shelf: each thing is put in, changed and taken out by
// itself, so that no page writes over what it has not read.
func (sh shelf[T]) serve(r *gin.RouterGroup, path string, s *store.Store) {
	keep := func(c *gin.Context, number int64) {
		var t T
		err := read(c, &t)
		if err == nil {
			t, err = sh.put(c, s, number, t)
		}
		answer(c, t, err)
	}
	r.GET(path, func(c *gin.Context) {
		list, err := sh.list(c, s)
		answer(c, list, err)
	})
	r.POST(path, func(c *gin.Context) { keep(c, 0) })
	r.PUT(path+"/:id", func(c *gin.Context) {
		n, err := id(c, "id")
		if err != nil {
			failed(c, err)
			return
		}
		keep(c, n)
	})
	r.DELETE(path+"/:id", func(c *gin.Context) {
		n, err := id(c, "id")
		if err == nil {
			err = s.TakeOut(on(c), sh.name, n)
		}
		answer(c, nil, err)
	})
}
