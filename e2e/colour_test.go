package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const ways = `document.querySelectorAll('[data-testid="colourings"] button')`

// Every way in which the colours fall is drawn, face and back, with words; choosing one
// rewrites the cords and the sides, never the sequence, as one undo.
func TestColoursAreLaidOut(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/colour")
	v.until("a fob of two falls in three ways", text("ways")+`?.includes("in 3 ways")`)
	v.until("drawn on face and back", `[...`+ways+`].every((b) => b.querySelectorAll("svg path").length > 4)`)
	v.until("in a maker's words", `[...`+ways+`][0].textContent.includes("makes the bars on the face")`)
	v.until("what to tie otherwise is said", `[...`+ways+`].some((b) => b.textContent.includes("cord B laid behind, its legs outside"))`)
	v.do(chromedp.Evaluate[chromedp.Void](`[...` + ways + `][0].focus()`))
	v.key(kb.ArrowRight)
	v.until("arrows go through them", `[...`+ways+`].indexOf(document.activeElement) === 1`)
	v.key(kb.End)
	v.until("to the last", `[...`+ways+`].indexOf(document.activeElement) === [...`+ways+`].length - 1`)
	v.click("Colours: those of the piece")
	v.field("Another colour, that is not in the drawer", "no such colour")
	v.until("what is no colour is refused where it stands", `document.querySelector('[aria-label="Stage"]').textContent.includes("is no colour here. Write a name")`)
	v.field("Another colour, that is not in the drawer", "teal")
	v.until("a colour by its name is chosen", `[...document.querySelectorAll('[aria-label="Stage"] button[aria-pressed="true"]')].some((b) => b.textContent.includes("#008080"))`)
	v.click("#008080")
	v.click("Chalk cotton, soft")
	v.until("one colour alone is said so", `document.querySelector('[aria-label="Stage"]').textContent.includes("one colour falls in one way")`)
	v.click("Signal rust kernmantle")
	v.until("two of the drawer fall on it", `[...`+ways+`].length >= 1 && [...`+ways+`][0].textContent.includes("Chalk cotton")`)
	v.until("what goes with it is told", `document.querySelector('[data-testid="goes-with"]')?.textContent.includes("With Signal rust kernmantle goes")`)
	v.field("Keep these as a palette, by the name", "spring fair")
	v.until("a palette is kept", `[...document.querySelectorAll("button")].some((b) => b.textContent.includes("spring fair"))`)
	v.click("Back to the piece's own")
	v.click("spring fair")
	v.until("and chosen again", text("ways")+`?.includes("way") && document.querySelectorAll('section[aria-label="Colours"] button[aria-pressed="true"]').length === 2`)
	before := eval[string](v, `[...document.querySelectorAll("section[aria-label='The cords laid straight'] rect")].map((r) => r.getAttribute("fill")).join()`)
	v.do(chromedp.Evaluate[chromedp.Void](`[...` + ways + `].at(-1).focus()`))
	v.key(kb.Enter)
	v.until("by Enter it is chosen, and saved", saved+` && [...`+ways+`].some((b) => b.getAttribute("aria-pressed") === "true" && b.textContent.includes("as it is"))`)
	v.until("the cords follow", `[...document.querySelectorAll("section[aria-label='The cords laid straight'] rect")].map((r) => r.getAttribute("fill")).join() !== "`+before+`"`)
	v.click("Undo")
	v.until("one undo takes it back", `[...document.querySelectorAll("section[aria-label='The cords laid straight'] rect")].map((r) => r.getAttribute("fill")).join() === "`+before+`"`)
	paints := `getComputedStyle(document.querySelector('[data-testid="hang"] g[style*="--cord-0"]')).getPropertyValue("--cord-1")`
	usual := eval[string](v, paints)
	v.choose("As seen by", "deutan")
	v.until("other eyes see other colours on the hang", paints+` !== "`+usual+`" && `+text("hang")+`.includes("As seen by eyes that miss green")`)
	v.click("Show it as it is")
	v.until("and it is as before", paints+` === "`+usual+`"`)
	v.click("Sheet to choose from")
	v.until("a sheet tells all ways with their cuts", `document.querySelectorAll('[data-testid="colour-sheet"] li input[type="checkbox"]').length >= 1 && document.querySelector('[data-testid="colour-sheet"]').textContent.includes("cut")`)
	for _, as := range []string{"", "&tones=1"} {
		v.until("it is a drawing too", `fetch(document.querySelector('a[download$=".svg"]').href + "`+as+`").then((r) => r.text()).then((s) => s.startsWith("<svg") && s.includes("Way 1"))`)
	}
	v.click("Save as PNG")
	v.until("and a picture", `document.querySelector("main").textContent.includes("Saved as PNG.")`)
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

// A cord that changes its colour shows where it lands, and a slider shifts that; a row is
// tied half and half at a press; a sheath is described with its repeat, and none of zero.
func TestColoursAlongTheCord(t *testing.T) {
	v := open(t, demoAt(t), "/piece/21/colour")
	along := text("along")
	v.until("it is said where the colours land", along+`?.includes("Cord B comes again after 240 mm") && `+along+`.includes("from above: ")`)
	before := eval[string](v, along)
	strips := `[...document.querySelectorAll('[data-strip="B"] rect')].map((r) => r.getAttribute("x") + r.getAttribute("fill")).join()`
	laid := eval[string](v, strips)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('input[type="range"]').focus()`))
	for range 5 {
		v.key(kb.ArrowRight)
	}
	v.until("the slider shifts it", along+` !== `+quote(before)+` && `+along+`.includes("begins 5 mm into that")`)
	v.until("the cord laid straight follows, and it is saved", strips+` !== `+quote(laid)+` && `+saved)
	v.click("Undo")
	v.until("one undo takes all of it back", strips+` === `+quote(laid))
	v.goTo("/piece/21/stuff")
	v.field("Comes again after", "0")
	v.until("a repeat of zero is refused with the way out", `document.querySelector('[aria-label="Stage"]').textContent.includes("measure how far it is until the pattern comes again")`)
	v.goTo("/piece/3/colour")
	v.until("a row can be tied half and half", along+`?.includes("half and half: ")`)
	v.click("Tie section 3 in halves")
	v.until("the sequence changes", `document.querySelector('[data-testid="hang"]').innerHTML.includes("switch knot") && `+saved)
}

func quote(s string) string { return fmt.Sprintf("%q", s) }
