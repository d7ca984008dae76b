package scene_test

import (
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knots/ball"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// Nobody sees through a ball: where no cord covers it, its core is seen. On the
// best core a face shows cord all over, and no more of the core than at its
// corners.
func TestNobodySeesThroughABall(t *testing.T) {
	stuff, second := piece.Kernmantle(4, "#0f5c63"), piece.Kernmantle(4, "#e3c88f")
	lace := cord.Stuff{Make: "leather", Material: "leather", DiameterMM: 3, Colour: stuff.Colour}
	for _, a := range []ball.Ask{{Passes: 3, Mode: ball.OneCord}, {Passes: 4, Mode: ball.TwoCords}, {Passes: 5, Mode: ball.OneCord, Tail: true}, {Passes: 8, Mode: ball.Doubled}, {Passes: 4, Mode: ball.OneCord, Cord: ball.Of(lace, lace.Figures())}} {
		if a.Cord.DiameterMM == 0 {
			a.Cord = ball.Of(stuff, stuff.Figures())
		}
		r, err := ball.Cores(a)
		if err != nil {
			t.Fatal(err)
		}
		for _, mm := range []float64{r.BestMM, r.MostMM} {
			a.Core = ball.Core{Kind: ball.Marble, DiameterMM: mm}
			b, err := ball.Make(a)
			if err != nil {
				t.Fatal(err)
			}
			for n := range 7 { // its faces, and as it hangs, a corner to the eye
				strands := b.Strands()
				if n < 6 {
					strands = b.Seen(n)
				}
				pic := scene.Render(plan.BallLayout(b, strands, []cord.Stuff{stuff, second}), scene.View{PerMM: 200 / b.FaceMM})
				seen := bodies(t, pic)
				through, bare, all := 0, 0, 0
				for y := -0.48 * mm; y <= 0.48*mm; y += 0.03 * mm {
					for x := -0.48 * mm; x <= 0.48*mm; x += 0.03 * mm {
						if math.Hypot(x, y) > 0.48*mm {
							continue
						}
						all++
						switch colour := seen.at(100*x, 100*(y+b.CornerMM/2)); {
						case colour == "":
							through++
						case !kin(colour, stuff.Colour) && !kin(colour, second.Colour):
							bare++
						}
					}
				}
				if through > 0 {
					t.Errorf("%s of %d on %.1f mm: face %d lets %d of %d looks through", a.Mode, a.Passes, mm, n+1, through, all)
				}
				if bare > all/12 {
					t.Errorf("%s of %d on %.1f mm: face %d shows its core at %d of %d looks", a.Mode, a.Passes, mm, n+1, bare, all)
				}
			}
		}
	}
}
