package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
)

// A piece is made one between two rings by hand: what it ends on, how far that is, in
// feet and inches, and the count that fits by one key.
func TestAPieceBetweenTwoRings(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("the piece is planned", long)
	v.typeLine("mount A, run-back, square-knot 9, finish singe-and-press")
	v.until("a run needs a far end", `document.querySelector('[data-testid="refused"]')?.textContent.includes("ends on nothing")`)
	v.leave()
	v.key("x")
	v.until("X gives it one", `!document.querySelector('[data-testid="refused"]') && `+long)
	v.goTo("/piece/1/purpose")
	v.field("From wire to wire", `1/2 ft 2 in`)
	v.until("it is said in millimetres", `[...document.querySelectorAll("input")].some((i) => i.value === "203.2 mm")`)
	v.until("it is exactly as long", long+`?.includes("203 mm")`)
	v.goTo("/piece/1/tie")
	v.until("more would fit", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("more would fit")`)
	v.leave()
	v.key("x")
	v.until("X ties as many as fit", `!document.querySelector('[data-testid="warnings"]')?.textContent.includes("more would fit") && !`+typed+`.includes("square-knot 9,")`)
	v.goTo("/piece/1/purpose")
	v.choose("It ends on", "none")
	v.until("ending on nothing it is refused again", `document.querySelector('[data-testid="refused"]')?.textContent.includes("ends on nothing")`)
}

// A blade that a lanyard could reach is warned of where its path is said, and mended
// by one key.
func TestABladeIsAskedFor(t *testing.T) {
	v := open(t, demoAt(t), "/piece/17/purpose")
	v.until("the piece is planned", long)
	v.field("A blade's path, from the hole", "18 mm")
	v.until("it can be reached", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("blade's path")`)
	v.field("A blade's path, from the hole", "60")
	v.until("far away it cannot", `!document.querySelector('[data-testid="warnings"]')?.textContent.includes("blade's path")`)
}

// Two cords are fused to one by hand, and the mount then names one of them; each is
// one leg of the whole and is cut by itself.
func TestTwoCordsAreFused(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/stuff")
	v.until("the piece is planned", long)
	v.choose("Fused end to end", "B")
	v.until("both are named", `document.querySelector('[data-testid="refused"]')?.textContent.includes("fused to one")`)
	v.leave()
	v.key("x")
	v.goTo("/piece/1/tie")
	v.until("X names one", typed+`.startsWith("mount A, ")`)
	v.typeLine("mount A, two-strand-diamond 2, finish dome")
	v.until("it is tied", `!document.querySelector('[data-testid="refused"]') && `+long)
	v.goTo("/piece/1/cut")
	v.until("each is cut and fused", `document.body.textContent.includes("fuse it end to end with cord A") && document.body.textContent.includes("fuse it end to end with cord B")`)
}

// The joint of two cords is hidden under the knots by one key, and the cut says where
// the whole is folded then.
func TestAJointIsHidden(t *testing.T) {
	v := open(t, demoAt(t), "/piece/16/stuff")
	v.until("the joint lies at the fold", `document.body.textContent.includes("It lies at the fold.")`)
	v.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll("button")].find((b) => b.textContent.startsWith("Hide it in section 3")).click()`))
	v.until("it hides", `document.body.textContent.includes("It hides in section 3")`)
	v.goTo("/piece/16/cut")
	v.until("the cut says so", `document.body.textContent.includes("Fold them on cord A") && document.body.textContent.includes("hides in section 3")`)
	v.goTo("/piece/16/stuff")
	v.field("Joint from the fold", "9 m")
	v.until("a joint beyond the end is refused", `document.querySelector('[data-testid="refused"]')?.textContent.includes("from the fold to its end")`)
	v.leave()
	v.key("x")
	v.until("X puts it where it hides", `document.body.textContent.includes("It hides in section 3")`)
}

// A stopper is asked for the hole that it must not pass; where its knot would, one key
// ties one that stops.
func TestAStopperStops(t *testing.T) {
	v := open(t, demoAt(t), "/piece/18/purpose")
	v.until("the piece is planned", long)
	v.field("It must not pass a hole of", "40 mm")
	v.until("nothing stops at so wide a hole", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("pulled hard it may pass")`)
	v.field("It must not pass a hole of", "14 mm")
	v.goTo("/piece/18/tie")
	v.typeLine("mount A, gap 25mm, pretzel-knot, finish dome")
	v.until("a pretzel passes it", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("pulled hard it may pass")`)
	v.leave()
	v.key("x")
	v.until("X ties what stops", `!document.querySelector('[data-testid="warnings"]')?.textContent.includes("pulled hard it may pass")`)
}
