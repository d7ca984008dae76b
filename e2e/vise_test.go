package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const visePlace = `document.querySelector('[data-testid="vise"]')?.dataset.done`

// cutAll goes from the table to the first move that ties.
func (v page) cutAll() {
	v.click("All is cut and ready")
	v.until("all is cut", visePlace+` === "0"`)
}

// The step at the vise is a move, half a knot, a knot or a section, by keys alone; what was
// made a few times is said in short, and what comes next in small.
func TestStridesAtTheVise(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/vise")
	v.until("the work begins on the table", visePlace+` === "-4" && `+text("move")+`.includes("of cord A and cut it.") && document.querySelector('[data-testid="table"] svg')`)
	v.key(" ")
	v.key(" ")
	v.until("then the first cord is folded", visePlace+` === "-2" && `+text("move")+`.includes("fold at ") && document.querySelector('[data-testid="table"] svg').getAttribute("aria-label").includes("folded")`)
	v.until("it is kept", text("place-sign")+` === "place saved"`)
	v.goTo("/piece/1/vise")
	v.until("loaded anew it is where it was", visePlace+` === "-2"`)
	v.key(kb.Backspace)
	v.until("and back", visePlace+` === "-3"`)
	v.cutAll()
	v.until("the first move is there", visePlace+` === "0" && `+text("next")+`?.startsWith("Then: ")`)
	v.key(" ")
	v.key(" ")
	v.until("two cords are mounted", visePlace+` === "2"`)
	v.choose("Step", "knot")
	v.until("a knot is said move by move", `document.querySelectorAll('[data-testid="stride"] li').length === 4`)
	v.key(" ")
	v.until("a knot is done at once", visePlace+` === "6"`)
	v.choose("Step", "half")
	v.key(kb.PageDown)
	v.until("then half a knot, by the pedal", visePlace+` === "8"`)
	v.key(kb.Backspace)
	v.until("and back", visePlace+` === "6"`)
	v.choose("Step", "knot")
	v.key(" ")
	v.key(" ")
	v.until("three knots are tied", visePlace+` === "14"`)
	v.choose("Step", "move")
	v.until("the fourth is said in short", text("move")+`?.startsWith("As before: strand 1, from the left")`)
	v.click("Say it in full")
	v.until("or in full", text("move")+`?.includes("across in front of")`)
	v.key(" ")
	v.choose("Step", "knot")
	v.key(kb.Backspace)
	v.until("from within a knot one goes back to its beginning", visePlace+` === "14"`)
	v.choose("Step", "section")
	v.until("a section says how often", `document.querySelector('[data-testid="stride"]').textContent.includes("6 times in all")`)
	v.until("it is kept", text("place-sign")+` === "place saved"`)
	// One comes back after a pause.
	v.goTo("/piece/1/vise")
	v.until("it is said where one is", `document.querySelector('[aria-label="Where you are"]')?.textContent.includes("3 of 9 are tied")`)
	v.until("and how it goes on", `document.querySelector('[aria-label="Where you are"]').textContent.includes("The next move starts left, with cord A: the lowest bump of the row is at the left.")`)
	v.until("face and back are drawn", `document.querySelectorAll('[aria-label="Where you are"] figure svg path').length > 20`)
	v.click("Does yours look otherwise?")
	v.until("slips are drawn with the way back", `document.querySelector('[aria-label="Where you are"]').textContent.includes("The way back: ")`)
	v.click("It looks like this: go on")
	v.until("then the work goes on", `!document.querySelector('[aria-label="Where you are"]')`)
	v.until("the work so far is drawn, and what is left named", `document.querySelectorAll('[aria-label="So far, and what is left"] figure svg path').length > 20 && document.querySelector('[aria-label="So far, and what is left"]').textContent.includes("Still to be tied")`)
	// The piece is cut short on the bench: at the vise it is said where the place is now.
	v.goTo("/piece/1/tie")
	v.typeLine("mount A B, square-knot 2, half-knot 4, finish dome")
	v.until("it is changed", saved+` && document.querySelectorAll("[data-row]").length === 4`)
	v.goTo("/piece/1/vise")
	v.until("it is said what came of the place", text("place-note")+` === "The piece was changed since. The place is in section 3, half knot, 1 of 4."`)
}

// A knot is led by keys alone: a wrong crossing is told at once with what it makes, and at
// the end the knot is drawn up and due again.
func TestTheTrainer(t *testing.T) {
	v := open(t, demoAt(t), "/")
	v.click("Trainer")
	v.until("all are due", text("due")+`?.endsWith("knots are due.")`)
	v.click("Lead the figure-eight")
	at := `document.querySelector('[data-testid="lead"]')?.dataset.at`
	v.until("the strand comes to itself", text("ask")+`?.startsWith("Strand 1 comes to itself") && `+at+` === "0"`)
	v.key("u")
	v.until("a slip is told at once", text("said")+`?.includes("Not so. It goes over here. Led under it makes no knot at all") && `+at+` === "0"`)
	v.click("See it drawn up")
	v.until("it is drawn up as it was led", text("made")+`.includes("nothing holds")`)
	v.click("Back to this crossing")
	for i, k := range []string{"o", kb.ArrowDown, "o", "u"} {
		v.key(k)
		v.until("on to the next", at+` === "`+string(rune('1'+i))+`" && !document.querySelector("[data-wait]")`)
		v.until("it is drawn", `document.querySelectorAll('[data-testid="lead"] svg path').length > 3`)
		if i < 3 {
			v.until("the next is asked for", text("ask")+` && document.querySelector('[data-testid="lead"] header .figure').textContent === "`+string(rune('1'+i))+` / 4"`)
		}
	}
	v.until("with a slip it is due at once", `document.querySelector('[data-testid="lead"]').textContent.includes("Led, with 1 slip.") && document.querySelector('[data-testid="lead"]').textContent.includes("The figure-eight is due now.")`)
	// Once more, by the pointer at the crossing, with a slip that is left as it is.
	v.click("Lead it again")
	v.until("it begins anew", at+` === "0"`)
	for i, name := range []string{"over", "over", "up", "under"} {
		if name == "up" { // a finger drawn up over the picture
			v.do(chromedp.Evaluate[chromedp.Void](`for (const [type, y] of [["pointerdown", 500], ["pointerup", 400]]) document.querySelector('[data-testid="lead"] .touch-none').dispatchEvent(new PointerEvent(type, {bubbles: true, pointerType: "touch", clientX: 300, clientY: y}))`))
		} else {
			v.click(name)
		}
		if i == 1 {
			v.click("Leave it so, go on")
		}
		v.until("on to the next", at+` === "`+string(rune('1'+i))+`" && !document.querySelector("[data-wait]")`)
	}
	v.until("what came of it is told at the end", text("made")+`.includes("Drawn up as you led it, nothing holds")`)
	v.click("To the next")
	v.until("it is kept", `document.querySelector('[data-testid="lessons"]')?.textContent.includes("led 2 times, 2 slips")`)
	v.goTo("/trainer/mount")
	v.until("a cord is put on a wire", text("ask")+`?.startsWith("Strand 2 comes to strand 1") && document.body.textContent.includes("is the wire that it is put on")`)
	v.key("u")
	v.until("a leg that does not go round it is told", text("said")+`?.includes("leaves this leg beside the wire")`)
	v.click("See it drawn up")
	v.until("and what came of it", text("made")+`?.includes("it is no lark's head")`)
	v.goTo("/trainer/granny")
	v.until("a knot that is not there is said so", `document.body.textContent.includes("cannot be led yet; choose one of the list")`)
}

// Without the server the steps go on, also when the page is loaded anew; the place is sent when
// the server is back, and the time of each step with it.
func TestTheViseWithoutTheNetwork(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/1/vise")
	v.until("all steps are put by while the cords are cut", visePlace+` === "-4" && `+text("put-by"))
	v.cutAll()
	v.until("the place is kept", text("place-sign")+` === "place saved"`)
	p.stop()
	v.goTo("/piece/1/vise")
	v.until("the page comes without the server", visePlace+` === "0" && `+text("move")+` !== ""`)
	for range 3 {
		v.key(" ")
	}
	v.until("the steps go on", visePlace+` === "3"`)
	v.until("they are drawn", `document.querySelector("main [data-still='4'] svg path")`)
	v.until("it is said that the place is not saved", text("place-sign")+`.includes("place not saved yet: the server is out of reach")`)
	v.goTo("/piece/1/vise")
	v.until("loaded anew it is where it was", visePlace+` === "3"`)
	start(t, "serve", p.dir, p.addr)
	v.until("it is sent when the server is back", text("place-sign")+` === "place saved"`)
	type place struct {
		Done  int
		Times struct {
			Worked float64 `json:"worked_s"`
		}
	}
	if at := eval[place](v, `fetch("/api/pieces/1/place").then((r) => r.json())`); at.Done != 3 || at.Times.Worked <= 0 {
		t.Errorf("kept is %+v", at)
	}
}
