package e2e

import (
	"strings"
	"testing"
)

// What goes round is looked at from its working end and unrolled, by key and by button, on
// the bench and at the vise; what does not go round offers neither.
func TestWorkThatGoesRoundIsUnrolled(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/19/tie")
	drawn := `document.querySelectorAll('[data-testid="hang"] path:is(.lay-body, .lay-lit)').length`
	v.until("the piece hangs", drawn+" > 4")
	v.key("r")
	v.until("R rolls the cover off", `document.querySelector('[data-testid="hang"]').textContent.includes("section 3, rolled off") && `+drawn+" > 0")
	v.key("e")
	v.until("E looks from its end", `document.querySelector('[data-testid="hang"]').textContent.includes("section 3, from its working end")`)
	v.key("e")
	v.until("once more it hangs", `!document.querySelector('[data-testid="hang"]').textContent.includes("working end")`)
	steps := eval[[]string](v, `fetch("/api/pieces/19/plan").then((r) => r.json()).then((p) => p.steps.flatMap((s) => s.actions.map((a) => a.text)))`)
	at := 0
	for i, s := range steps {
		if strings.HasPrefix(s, "With a needle") {
			at = i
			break
		}
	}
	if at < 5 {
		t.Fatalf("no second round among %q", steps)
	}
	v.goTo("/piece/19/vise")
	v.until("the work is in the vise", `document.querySelector('[data-testid="vise"]')`)
	v.cutAll()
	for range at {
		v.key(" ")
	}
	v.until("the needle follows", `document.body.textContent.includes("With a needle, follow B")`)
	v.click("unrolled")
	v.until("unrolled, the needle's way is lit", `document.querySelector('[data-testid="vise"] svg[aria-label*="rolled off"]') && document.querySelectorAll('[data-testid="vise"] path.lay-lit').length > 0`)
	v.goTo("/piece/1/tie")
	v.until("a flat piece hangs", drawn+" > 4")
	if eval[bool](v, `[...document.querySelectorAll("button")].some((b) => b.textContent === "unrolled")`) {
		t.Error("a flat piece can be unrolled")
	}
}

// Leads and bights that share a divisor are refused on one cord, and X takes the nearest
// that do not.
func TestACommonDivisorHasAWayOut(t *testing.T) {
	v := open(t, demoAt(t), "/piece/19/tie")
	v.typeLine("mount A, gap 45mm, turks-head B leads=3 bights=6, finish dome")
	v.until("it is refused with its reason", `document.body.textContent.includes("share the divisor 3")`)
	v.leave()
	v.key("x")
	v.until("X ties it of one cord", `!document.body.textContent.includes("share the divisor 3") && /bights=[57]/.test(document.querySelector("#typed-line").value)`)
}

// A wall that is crowned over ends its strands: what follows is refused, X leaves it out,
// and how far its ends are buried is asked only then.
func TestAWallThatEndsItsStrands(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	asks := `[...document.querySelectorAll("label, legend, span")].some((l) => l.textContent === "ends buried under crossings")`
	v.typeLine("mount A B, wall passes=2, finish dome")
	v.until("a wall is tied", `[...document.querySelectorAll("button, h3, li")].some((b) => b.textContent.includes("wall knot")) && `+saved)
	v.typeLine("mount A B, wall crown=over, finish dome")
	v.until("what follows is refused", `document.body.textContent.includes("end in the knot above it")`)
	v.leave()
	v.key("x")
	v.until("X leaves it out", `!document.body.textContent.includes("end in the knot above it") && !document.querySelector("#typed-line").value.includes("finish")`)
	v.key("j")
	v.key("j")
	v.until("how far ends are buried is asked", asks)
}
