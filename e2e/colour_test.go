package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const ways = `document.querySelectorAll('[data-testid="colourings"] button')`

// Every way in which the colours fall is drawn, face and back, with words; choosing one
// rewrites the cords and the sides, never the sequence, as one undo.
func TestColoursAreLaidOut(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/colour")
	v.until("a fob of two falls in one way", text("ways")+`?.includes("in one way")`)
	v.until("drawn on face and back", `[...`+ways+`].every((b) => b.querySelectorAll("svg path").length > 4)`)
	v.until("in a maker's words", `[...`+ways+`][0].textContent.includes("makes the bars on the face")`)
	v.click("Chalk cotton, soft")
	v.until("one colour alone is said so", `document.querySelector('[aria-label="Stage"]').textContent.includes("one colour falls in one way")`)
	v.click("Signal rust kernmantle")
	v.until("two of the drawer fall on it", `[...`+ways+`].length >= 1 && [...`+ways+`][0].textContent.includes("Chalk cotton")`)
	v.until("what goes with it is told", `document.querySelector('[data-testid="goes-with"]')?.textContent.includes("With Signal rust kernmantle goes")`)
	v.field("Keep these as a palette, by the name", "spring fair")
	v.until("a palette is kept", `[...document.querySelectorAll("button")].some((b) => b.textContent.includes("spring fair"))`)
	v.click("Back to the piece's own")
	v.click("spring fair")
	v.until("and chosen again", text("ways")+`?.includes("way") && document.querySelectorAll('[aria-label="Stage"] fieldset button[aria-pressed="true"]').length === 2`)
	before := eval[string](v, `[...document.querySelectorAll("section[aria-label='The cords laid straight'] rect")].map((r) => r.getAttribute("fill")).join()`)
	v.do(chromedp.Evaluate[chromedp.Void](`[...` + ways + `].at(-1).focus()`))
	v.key(kb.Enter)
	v.until("by Enter it is chosen, and saved", saved+` && [...`+ways+`].some((b) => b.getAttribute("aria-pressed") === "true" && b.textContent.includes("As it is"))`)
	v.until("the cords follow", `[...document.querySelectorAll("section[aria-label='The cords laid straight'] rect")].map((r) => r.getAttribute("fill")).join() !== "`+before+`"`)
	v.click("Undo")
	v.until("one undo takes it back", `[...document.querySelectorAll("section[aria-label='The cords laid straight'] rect")].map((r) => r.getAttribute("fill")).join() === "`+before+`"`)
	v.choose("As seen by", "deutan")
	v.until("other eyes see other colours", `[...`+ways+`].length > 0`)
	v.click("Sheet to choose from")
	v.until("a sheet tells all ways with their cuts", `document.querySelectorAll('[data-testid="colour-sheet"] li input[type="checkbox"]').length >= 1 && document.querySelector('[data-testid="colour-sheet"]').textContent.includes("cut")`)
	for _, paper := range []chromedp.PaperSize{chromedp.PaperA4, chromedp.PaperLetter} {
		pdf, err := chromedp.Run(v.ctx, chromedp.PrintToPDF(chromedp.PDFPaper(paper), chromedp.PDFPrintBackground()))
		if err != nil || len(pdf) < 8_000 {
			t.Errorf("%d bytes, %v", len(pdf), err)
		}
		v.do(chromedp.EmulateViewport(int64((paper.Width-2*14/25.4)*96), 1000))
		if over := eval[[]string](v, `[...document.querySelectorAll("main *")].filter((e) => e.getBoundingClientRect().right > innerWidth + 1).map((e) => e.tagName + " " + e.textContent.slice(0, 40))`); len(over) > 0 {
			t.Errorf("cut off: %v", over)
		}
	}
	v.do(chromedp.EmulateViewport(1280, 800))
	v.goTo("/piece/8/colour")
	v.until("cords that meet and look alike are told, with one that does not", `document.querySelector('[data-testid="close"]')?.textContent.includes("hardly tell them apart")`)
}
