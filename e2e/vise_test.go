package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
)

const visePlace = `document.querySelector('[data-testid="vise"]')?.dataset.done`

// The step at the vise is a move, half a knot, a knot or a section, by keys alone; what was
// made a few times is said in short, and what comes next in small.
func TestStridesAtTheVise(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/vise")
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
}
