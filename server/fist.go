package server

import (
	"errors"
	"fmt"
	"math"

	"github.com/gin-gonic/gin"
	"gonum.org/v1/gonum/spatial/r3"

	"nimblebight/core/cord"
	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// FistRequest is what is asked of a ball.
type FistRequest struct {
	Stuff  cord.Stuff `json:"stuff"`
	Second string     `json:"second,omitempty"` // the colour of a second cord
	Passes int        `json:"passes"`           // 0 for those that suit the core
	Mode   string     `json:"mode" jsonschema:"enum=one-cord,enum=two-cords,enum=doubled"`
	Tail   bool       `json:"tail,omitempty"`
	Core   ball.Core  `json:"core"` // of no diameter: the best
	// OuterMM asks for balls of that diameter, LeftMM for the largest from so
	// much cord; 0 asks nothing.
	OuterMM float64 `json:"outer_mm,omitempty"`
	LeftMM  float64 `json:"left_mm,omitempty"`
	// Face asks the picture for one of the six faces, from 1; 0 for the ball as
	// it hangs.
	Face int `json:"face,omitempty"`
	// Turn and Tilt ask the picture for the ball turned about its ends and then
	// tilted towards the eye, degrees.
	Turn float64 `json:"turn,omitempty"`
	Tilt float64 `json:"tilt,omitempty"`
}

// FistBall are the figures of a ball.
type FistBall struct {
	Passes   int            `json:"passes"`
	Core     ball.Core      `json:"core"`
	CoreName string         `json:"core_name"`
	Stopper  string         `json:"stopper,omitempty"`
	CordMM   float64        `json:"cord_mm"`
	CordsMM  []float64      `json:"cords_mm"`
	BandsMM  []float64      `json:"bands_mm"`
	LoopMM   float64        `json:"loop_mm"`
	FaceMM   float64        `json:"outer_face_mm"`
	CornerMM float64        `json:"outer_corner_mm"`
	BareMM   float64        `json:"bare_mm"`
	WeightG  float64        `json:"weight_g"`
	Strands  int            `json:"strands"`
	Fit      int            `json:"fit"` // of the core: -1 too small, 1 too large
	Range    ball.Range     `json:"range"`
	Faces    []ball.Face    `json:"faces"`
	Warnings []ball.Warning `json:"warnings"`
}

// FistRefusal is why there is no ball, with what works.
type FistRefusal struct {
	Field  string  `json:"field"`
	Why    string  `json:"why"`
	Passes int     `json:"passes,omitempty"`
	CoreMM float64 `json:"core_mm,omitempty"`
}

// FistAnswer is what there is to say about a ball.
type FistAnswer struct {
	// Asked is what was asked, with a core that its mode can have.
	Asked     FistRequest  `json:"asked"`
	DrawnUpMM float64      `json:"drawn_up_mm"`
	Ball      *FistBall    `json:"ball,omitempty"`
	Refusal   *FistRefusal `json:"refusal,omitempty"`
	// Cores are the diameters that the chart's cells stand at.
	Cores  []float64     `json:"cores"`
	Chart  []ball.Column `json:"chart"`
	Drawer []JudgedCore  `json:"drawer"`
	// Suits is the number of passes that suits the core asked for, 0 for none.
	Suits    int            `json:"suits"`
	OfSize   []FistBall     `json:"of_size"`
	SizeWhy  string         `json:"size_why,omitempty"`
	FromCord *FistBall      `json:"from_cord,omitempty"`
	FromWhy  string         `json:"from_why,omitempty"`
	Kinds    []Named        `json:"kinds"`
	Choking  float64        `json:"choking_mm"`
	SpareMM  float64        `json:"spare_mm"` // kept back of the cord that is left
	Piece    piece.Document `json:"piece"`    // to hang
}

// JudgedCore is a core of the drawer with how well it suits.
type JudgedCore struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
	ball.Judged
}

const chartCores = 40

func (s *Server) fists(r *gin.RouterGroup) {
	r.POST("/fist", s.fist)
	r.POST("/fist/picture", s.fistPicture)
}

// firstFist is what is asked of a ball where nothing is said yet.
func firstFist() FistRequest {
	a := ball.First()
	return FistRequest{Stuff: piece.UsualStuff(), Second: piece.SecondColour, Passes: a.Passes, Mode: string(a.Mode), Core: a.Core}
}

func (q FistRequest) ask() ball.Ask {
	a := ball.Ask{Cord: ball.Of(q.Stuff, q.Stuff.Figures()), Passes: q.Passes, Mode: ball.Mode(q.Mode), Tail: q.Tail, Core: q.Core}
	if a.Passes == 0 {
		a.Passes = ball.First().Passes
		if mm := q.Core.DiameterMM; mm > 0 {
			if n, ok := ball.Nearest(a.Settled(), mm); ok {
				a.Passes = n
			}
		}
	}
	return a.Settled().Suited()
}

func (q FistRequest) stuffs() []cord.Stuff {
	second := q.Stuff
	if q.Second != "" {
		second.Colour = q.Second
	}
	return []cord.Stuff{q.Stuff, second}
}

// asked reads a request about a ball.
func asked(c *gin.Context) (FistRequest, error) {
	var q FistRequest
	if err := read(c, &q); err != nil {
		return q, err
	}
	for field, v := range map[string]float64{"outer_mm": q.OuterMM, "left_mm": q.LeftMM, "core.diameter_mm": q.Core.DiameterMM} {
		if !(v >= 0 && v <= piece.MostMM) {
			return q, piece.Problems{{Path: field, Message: fmt.Sprintf("is %v; a length here is from 0 mm to 100 m", v)}}
		}
	}
	if q.Passes < -1000 || q.Passes > 1000 {
		return q, piece.Problems{{Path: "passes", Message: fmt.Sprintf("are %d", q.Passes)}}
	}
	for _, st := range q.stuffs() {
		if field, why := st.Check(); field != "" {
			return q, piece.Problems{{Path: "stuff." + field, Message: why}}
		}
	}
	return q, nil
}

func (s *Server) fist(c *gin.Context) {
	q, err := asked(c)
	if err != nil {
		failed(c, err)
		return
	}
	cores, err := cores().list(c, s.store)
	if err != nil {
		failed(c, err)
		return
	}
	out, err := answerFist(q, cores)
	answer(c, out, err)
}

func answerFist(q FistRequest, drawer []DrawerCore) (FistAnswer, error) {
	a := q.ask()
	q.Core, q.Passes = a.Core, a.Passes
	out := FistAnswer{Asked: q, DrawnUpMM: a.Cord.DiameterMM, OfSize: []FistBall{}, Drawer: []JudgedCore{}, Choking: ball.ChokingMM, SpareMM: ball.SpareMM}
	for _, k := range ball.Kinds() {
		out.Kinds = append(out.Kinds, Named{string(k), k.Name()})
	}
	var no *ball.Refused
	b, err := ball.Make(a)
	switch {
	case err == nil:
		out.Ball = ballOut(b)
		a.Core = b.Core
	case errors.As(err, &no):
		out.Refusal = &FistRefusal{no.Field, no.Why, no.Passes, no.CoreMM}
	default:
		return out, err
	}
	open := a
	open.Core = ball.Core{}
	if open.Passes < ball.LeastPasses || open.Passes > ball.MostPasses {
		open.Passes = ball.LeastPasses + 1
	}
	if a.Core.DiameterMM > 0 {
		out.Suits, _ = ball.Suits(open, a.Core.DiameterMM)
	}
	// From nothing to a little over the largest core that any number of passes
	// takes.
	top := 1.0
	if cols, err := ball.Chart(open, nil); err == nil {
		top = cols[len(cols)-1].Range.MostMM * 1.08
	}
	const far = 3 // a core that much larger than any is not on the chart
	if mm := a.Core.DiameterMM; mm > top && mm < far*top {
		top = mm * 1.05
	}
	for i := range chartCores {
		out.Cores = append(out.Cores, top*float64(i+1)/chartCores)
	}
	if out.Chart, err = ball.Chart(open, out.Cores); err != nil && !errors.As(err, &no) {
		return out, err
	}
	plain := make([]ball.Core, len(drawer))
	for i, d := range drawer {
		plain[i] = d.Core
	}
	if judged, err := ball.Drawer(open, plain); err == nil {
		for _, j := range judged {
			out.Drawer = append(out.Drawer, JudgedCore{drawer[j.At].ID, drawer[j.At].Name, j})
		}
	} else if !errors.As(err, &no) {
		return out, err
	}
	if q.OuterMM > 0 {
		balls, err := ball.OfSize(open, q.OuterMM)
		switch {
		case err == nil:
			for _, b := range balls {
				out.OfSize = append(out.OfSize, *ballOut(b))
			}
		case errors.As(err, &no):
			out.SizeWhy = no.Why
		default:
			return out, err
		}
	}
	if q.LeftMM > 0 {
		b, err := ball.FromCord(open, q.LeftMM, ball.SpareMM)
		switch {
		case err == nil:
			out.FromCord = ballOut(b)
		case errors.As(err, &no):
			out.FromWhy = no.Why
		default:
			return out, err
		}
	}
	out.Piece = patterns.OfBall(a, q.stuffs())
	return out, nil
}

func ballOut(b ball.Ball) *FistBall {
	return &FistBall{Passes: b.Passes, Core: b.Core, CoreName: b.Core.Kind.Name(), Stopper: b.StopperKnot, CordMM: b.CordMM, CordsMM: b.CordsMM, BandsMM: b.BandsMM[:], LoopMM: b.LoopMM,
		FaceMM: b.FaceMM, CornerMM: b.CornerMM, BareMM: b.BareMM, WeightG: b.WeightG, Strands: b.Ask.Strands(), Fit: b.Range.Fit(b.Core.DiameterMM),
		Range: b.Range, Faces: b.Faces(), Warnings: b.Warnings}
}

// made draws the ball of a request up, or answers why not.
func made(c *gin.Context) (FistRequest, ball.Ball, bool) {
	q, err := asked(c)
	if err != nil {
		failed(c, err)
		return q, ball.Ball{}, false
	}
	b, err := ball.Make(q.ask())
	var no *ball.Refused
	if errors.As(err, &no) {
		err = piece.Problems{{Path: no.Field, Message: "cannot be: " + no.Why}}
	}
	if err != nil {
		failed(c, err)
		return q, b, false
	}
	return q, b, true
}

// fistPicture draws the ball by itself, as it hangs or one of its faces.
func (s *Server) fistPicture(c *gin.Context) {
	q, b, ok := made(c)
	if !ok {
		return
	}
	if q.Face < 0 || q.Face > 6 {
		failed(c, &bodyError{"A ball has six faces; face is from 1 to 6, or 0 for the whole ball."})
		return
	}
	key := fmt.Sprintf("fist %+v", q)
	pic, err := s.views.pics.Get(key, func() (scene.Picture, error) {
		strands := b.Strands()
		if q.Face > 0 {
			strands = b.Seen(q.Face - 1)
		} else { // it hangs by its ends
			sinY, cosY := math.Sincos(turnTo(q.Turn) * math.Pi / 180)
			sinX, cosX := math.Sincos(turnTo(q.Tilt) * math.Pi / 180)
			for _, st := range strands {
				for i, v := range st.Points {
					x, y, z := -v.X, -v.Y, v.Z
					x, z = cosY*x+sinY*z, cosY*z-sinY*x
					y, z = cosX*y+sinX*z, cosX*z-sinX*y
					st.Points[i] = r3.Vec{X: x, Y: y, Z: z}
				}
			}
		}
		stuffs := q.stuffs()
		pic := scene.Render(plan.BallLayout(b, strands, stuffs), scene.View{PerMM: math.Min(10, 320/b.FaceMM)})
		if q.Face > 0 { // only the face itself, and a little of what lies beside it
			half := 0.5*float64(b.Passes)*b.Cord.Hard() + 0.6*b.Cord.Hard()
			pic.Left, pic.Top = int(-100*half), int(100*(b.CornerMM/2-half))
			pic.Width, pic.Height = int(200*half), int(200*half)
		}
		return pic, nil
	})
	answer(c, s.views.drawn(pic), err)
}
