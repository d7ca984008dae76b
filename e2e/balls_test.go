package e2e

import (
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const ballSaid = `document.querySelector('[data-testid="fist-said"]').textContent`

// The quick question: walked through by keys, answered the other way round, and
// turned into a piece by one key.
func TestABallIsAskedForAndTied(t *testing.T) {
	v := open(t, demoAt(t), "/")
	v.until("the rack is there", `document.querySelector('[data-piece]')`)
	v.click("Balls and cores")
	v.until("the chart is there", `document.querySelector('[data-testid="fist-chart"] rect')`)
	v.until("three passes", ballSaid+`.startsWith("3 passes")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-testid="fist-chart"]').focus()`))
	v.key(kb.ArrowRight)
	v.until("four passes", ballSaid+`.startsWith("4 passes") && `+ballSaid+`.includes("it closes")`)
	for range 6 {
		v.key(kb.PageUp)
	}
	v.until("the core is told to be too large", ballSaid+`.includes("too large") || `+ballSaid+`.includes("no ball")`)
	v.key(kb.Home)
	v.until("the best core closes", ballSaid+`.includes("it closes")`)
	v.until("six faces are drawn", `document.querySelectorAll('[data-testid="fist-faces"] svg[role="img"]').length === 6`)
	label := eval[string](v, `document.querySelector('[data-testid="fist-faces"] svg[role="img"]').getAttribute("aria-label")`)
	if !strings.Contains(label, "4 turns of band") {
		t.Errorf("a face reads %q", label)
	}
	// A core that is typed takes the passes that suit it, and so does another cord.
	v.field("Core size", "20 mm")
	v.until("the passes that suit are chosen", ballSaid+`.startsWith("6 passes, core 20.0 mm: it closes")`)
	v.field("On the label, tight", "3 mm")
	v.until("and follow the cord", ballSaid+`.startsWith("8 passes, core 20.0 mm: it closes")`)
	v.until("the answer stands at the field", `[...document.querySelectorAll('section[aria-label="What is asked"] *')].some((e) => e.textContent.startsWith("8 passes, core 20.0 mm"))`)
	v.field("On the label, tight", "4 mm")
	v.until("back with the cord", ballSaid+`.startsWith("6 passes")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-testid="fist-chart"]').focus()`))
	v.key(kb.Home)
	v.until("the best core of these passes", ballSaid+`.startsWith("6 passes, core 19.5 mm: it closes")`)
	v.key(kb.ArrowLeft)
	v.key(kb.ArrowLeft)
	v.until("four passes again", ballSaid+`.startsWith("4 passes")`)
	v.field("Come to a ball this wide", "26 mm")
	v.until("balls of that size are offered", `document.querySelector('[aria-label="Balls that answer it"] button')`)
	v.field("Use the cord that is left", "40 mm")
	v.until("too little cord is told with what is enough", `document.body.textContent.includes("the smallest takes")`)
	v.choose("Tied with", "two-cords")
	v.until("two cords are told apart", `document.querySelector('[data-testid="fist-figures"]').textContent.includes("knotted as")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("t")
	v.until("it is a piece on the bench", `/^\/piece\/\d+\/tie$/.test(location.pathname)`)
	v.until("which is planned", typed+`.startsWith("mount A B hitch=from-knot, monkeys-fist 4 mode=two-cords")`)
	v.until("and drawn", `document.querySelectorAll('[data-testid="hang"] path.lay-body').length > 3`)
}

// A core is put into the drawer and judged there.
func TestTheDrawerOfCores(t *testing.T) {
	v := open(t, demoAt(t), "/balls")
	v.until("the drawer is judged", `document.querySelectorAll('section[aria-label="Drawer of cores"] li').length === 6`)
	v.field("A marble core of", "16.5 mm")
	v.click("Add")
	v.until("it lies there", `[...document.querySelectorAll('section[aria-label="Drawer of cores"] li')].some((e) => e.textContent.includes("16.5 mm"))`)
	v.goTo("/balls")
	v.until("and is kept", `document.querySelectorAll('section[aria-label="Drawer of cores"] li').length === 7`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('button[aria-label^="Delete marble of 16.5"]').click()`))
	v.until("and is taken out alone", `document.querySelectorAll('section[aria-label="Drawer of cores"] li').length === 6 && !document.body.textContent.includes("16.5 mm marble")`)
	v.choose("Make", "leather")
	v.until("leather is answered as well", `document.querySelector('[data-testid="fist-figures"]')`)
}

// At the vise a ball goes band by band, to the six-face gate.
func TestABallAtTheVise(t *testing.T) {
	v := open(t, demoAt(t), "/")
	n := eval[int](v, `fetch("/api/pieces", {method: "POST", body: JSON.stringify({pattern: "leather-fist"})}).then((r) => r.json()).then((b) => b.id)`)
	steps := eval[[]string](v, `fetch("/api/pieces/`+strconv.Itoa(n)+`/plan").then((r) => r.json()).then((p) => p.steps.flatMap((s) => s.actions.map((a) => a.text + " | " + (a.gate ?? ""))))`)
	var bands, rounds, gates int
	for _, s := range steps {
		switch {
		case strings.HasPrefix(s, "Band "):
			bands++
		case strings.HasPrefix(s, "Round "):
			rounds++
		}
		if strings.Contains(s, "on each of six faces, none crossed") {
			gates++
		}
	}
	if bands != 12 || rounds != 24 || gates < 2 {
		t.Errorf("%d turns in bands, %d of drawing up, %d gates of six faces", bands, rounds, gates)
	}
	v.goTo("/piece/" + strconv.Itoa(n) + "/vise")
	v.cutAll()
	v.until("the ball is in hand", `document.querySelectorAll('[data-testid="vise"] path:is(.lay-body, .lay-lit)').length > 0`)
	v.key(" ")
	v.key(" ")
	v.until("and its turns are drawn", `document.querySelector('[data-testid="vise"]').dataset.done === "2" && document.querySelectorAll('[data-testid="vise"] path:is(.lay-body, .lay-lit)').length > 0`)
}

// A napkin ring hangs on nothing; cords that would are refused there, and the
// button mends it.
func TestANapkinRing(t *testing.T) {
	v := open(t, demoAt(t), "/")
	n := eval[int](v, `fetch("/api/pieces", {method: "POST", body: JSON.stringify({pattern: "napkin-ring"})}).then((r) => r.json()).then((b) => b.id)`)
	v.goTo("/piece/" + strconv.Itoa(n) + "/purpose")
	v.until("it hangs on nothing", `[...document.querySelectorAll("select")].some((s) => s.value === "none")`)
	if eval[bool](v, `[...document.querySelectorAll("label")].some((l) => l.textContent.includes("Inner width"))`) {
		t.Error("the width of a ring is asked for where there is none")
	}
	v.goTo("/piece/" + strconv.Itoa(n) + "/tie")
	v.until("it is drawn", `document.querySelectorAll('[data-testid="hang"] path.lay-body').length > 0`)
	v.typeLine("mount A B, square-knot 5, finish dome")
	v.until("cords that hang are refused", `document.querySelector('[data-testid="refused"]')?.textContent.includes("hangs on nothing")`)
	v.click("Hang it on a split ring")
	v.until("and hang then", `!document.querySelector('[data-testid="refused"]') && `+typed+`.startsWith("mount A B, square-knot 5")`)
}
