package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"

	"github.com/gin-gonic/gin"

	"nimblebight/core/cord"
	"nimblebight/core/knots/ball"
	"nimblebight/core/piece"
	"nimblebight/store"
)

// Spool is a cord of the drawer.
type Spool struct {
	ID    int64      `json:"id"`
	Name  string     `json:"name"`
	Stuff cord.Stuff `json:"stuff"`
}

// DrawerCore is a core of the drawer. It may have no name.
type DrawerCore struct {
	ID   int64     `json:"id"`
	Name string    `json:"name"`
	Core ball.Core `json:"core"`
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
			if n := len([]rune(sp.Name)); n == 0 || n > 80 {
				ps = append(ps, piece.Problem{Path: "name", Message: "is empty or longer than 80 letters"})
			}
			if f, why := sp.Stuff.Check(); f != "" {
				ps = append(ps, piece.Problem{Path: "stuff." + f, Message: why})
			}
			return ps
		},
		in: func(sp Spool) (store.Stuff, error) {
			b, err := json.Marshal(sp.Stuff)
			return store.Stuff{ID: sp.ID, Name: sp.Name, What: b}, err
		},
		out: func(st store.Stuff) (Spool, error) {
			sp := Spool{ID: st.ID, Name: st.Name}
			return sp, json.Unmarshal(st.What, &sp.Stuff)
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
	have, err := s.Drawer(ctx, sh.name)
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
		have, err := s.Drawer(ctx, sh.name)
		if err != nil {
			return t, err
		}
		if len(have) >= sh.most {
			return t, piece.Problems{{Path: "name", Message: fmt.Sprintf("finds no room: the drawer holds %d already; take one out first", len(have))}}
		}
	}
	if st, err = s.PutIn(ctx, sh.name, st); err != nil {
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
			err = s.TakeOut(c, sh.name, n)
		}
		answer(c, nil, err)
	})
}
