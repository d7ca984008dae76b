package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const panel = `(document.querySelector('[aria-label="Stage"]')?.textContent ?? "")`

// Each purpose asks only for the sizes that fix the rest, with a drawing of what to
// measure; another one says what no longer holds; what nobody has is refused.
func TestPurposeAsksForWhatFixesTheRest(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/purpose")
	v.until("a fob asks for its length", panel+`.includes("Wanted length")`)
	v.choose("It is a", "wrist-strap")
	v.until("a wrist strap asks for the hand, and shows it", panel+`.includes("Round the hand") && document.querySelector('svg[aria-label^="What to measure: A tape round a hand"]')`)
	v.until("and what is missing is said", text("no-longer")+`?.includes("asks for one more size")`)
	v.field("Round the hand", "3000 mm")
	v.until("a hand of three metres is refused", panel+`.includes("between 120 and 350 mm")`)
	v.until("what was typed stays where it is refused", saved+` && [...document.querySelectorAll("label")].find((l) => l.textContent.trim() === "Round the hand").control.value === "3000 mm"`)
	v.field("Round the hand", "210 mm")
	v.until("nothing goes round it yet", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("goes round a hand yet")`)
	v.choose("It is a", "key-fob")
	v.until("as a fob the hand means nothing", text("no-longer")+`.includes("means nothing to a key fob")`)
	v.click("Leave it out")
	v.until("it is left out, and all holds", `!document.querySelector('[data-testid="no-longer"]')`)
	v.until("the sequence is as it was", saved)
	v.click("Hardware from the drawer")
	v.click("Take small ring")
	v.until("the ring from the drawer is taken", `[...document.querySelectorAll("label")].find((l) => l.textContent === "Inner width")?.control.value.startsWith("20")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-testid="through"] summary').click()`))
	v.field("A hole of", "3 mm")
	v.until("two cords do not go through 3 mm", text("through")+`.includes("They do not go through")`)
	v.field("A hole of", "9 mm")
	v.until("through 9 mm they go taped", text("through")+`.includes("They go through with taped ends")`)
}

// A caution stands open till it is read; then it is folded, for good.
func TestCautionsAreReadOnce(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/1/finish")
	v.until("the flame is cautioned of in full", `document.querySelector('[data-caution="flame"][data-open]')?.textContent.includes("burn and stick")`)
	v.click("I have read it: Flame")
	v.until("read, it is folded", `document.querySelector('details[data-caution="flame"]')`)
	v.goTo("/piece/1/finish")
	v.until("and stays so", `document.querySelector('details[data-caution="flame"]')`)
	v.goTo("/piece/1/sheet")
	v.until("on paper it stands in full", `document.querySelector("main").textContent.includes("burn and stick")`)
}

// Ends are made one by choosing one of them; an end is buried under what lies over it and
// under no more; each says where the scissors cut.
func TestEndsAreMadeOneAndBuried(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/finish")
	how := func(end int) string {
		return fmt.Sprintf(`[...document.querySelectorAll("label")].find((l) => l.textContent === "Finish of end %d").control.value`, end)
	}
	v.until("the ends are there", `document.querySelector('[data-testid="measures-1"]')?.textContent.includes("cut from the knot")`)
	v.choose("Finish of end 1", "melt-two")
	v.until("its neighbour is melted with it", how(2)+` === "melt-two" && `+how(3)+` !== "melt-two"`)
	v.until("and it says so", panel+`.includes("made one with end 2")`)
	v.choose("Finish of end 3", "bury")
	v.until("it is hidden under the knots", text("measures-3")+`?.includes("hidden under the knots")`)
	was := eval[string](v, text("measures-3"))
	v.field("Under so many crossings", "6")
	v.until("under more it hides more", text("measures-3")+fmt.Sprintf(` !== %q`, was))
	v.choose("Finish of end 3", "bead-and-melt")
	v.until("a bead that they pass hangs on the pair", panel+`.includes("Bead hole") && document.querySelector('[data-testid="prepared"]')`)
	v.goTo("/piece/1/tie")
	v.until("the piece is planned", long)
	v.typeLine("mount A B, square-knot 2, finish bury under=9")
	v.until("under more crossings than there are it is refused", `document.querySelector('[data-testid="refused"]')?.textContent.includes("passes under")`)
	v.click("Bury them under 4")
	v.until("and what there is will do", typed+`.includes("under=4")`)
}

// The table card is changed by the maker, and printed as it was changed.
func TestTheTableCardIsChanged(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/cut")
	v.until("it is planned", long)
	v.click("Table card")
	v.until("the card is there", text("card")+`?.includes("lighter")`)
	v.click("Leave out: lighter")
	v.until("it is left out", `[...document.querySelectorAll('[data-testid="card"] label')].some((l) => l.className.includes("line-through") && l.textContent === "lighter")`)
	v.field("A line of your own", "the boathouse torch")
	v.until("a line is added", text("card")+`.includes("the boathouse torch")`)
	v.key(kb.Escape)
	v.until("it is saved", saved)
	v.goTo("/piece/1/sheet")
	v.until("and printed so", text("card")+`?.includes("the boathouse torch") && ![...document.querySelectorAll('[data-testid="card"] label')].some((l) => l.textContent === "lighter")`)
}

// At Check each thing to look at has what is right beside what is wrong; sizes are judged
// and go on to the log; ticks stay.
func TestAPieceIsChecked(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/check")
	v.until("right and wrong are drawn", `document.querySelectorAll('[data-testid="inspect"] figure svg[role="img"]').length >= 6`)
	v.until("the spiral stands beside the flat row", `document.querySelector('[data-testid="inspect"] svg[aria-label*="turns round itself into a spiral"]')`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-testid="inspect"] input[type="checkbox"]').click()`))
	v.until("a tick counts", text("checked")+`.startsWith("1 of ")`)
	label := eval[string](v, `[...document.querySelectorAll("label")].find((l) => l.textContent.startsWith("Length, planned")).textContent`)
	v.field(label, "150 mm")
	v.until("far off is said so", `document.querySelector('[data-testid="verdict-length"]')?.dataset.level === "off"`)
	v.field(label, "114 mm")
	v.until("as planned is right", `document.querySelector('[data-testid="verdict-length"]')?.dataset.level === "right"`)
	v.goTo("/piece/1/log")
	v.until("the log begins with what was measured", `[...document.querySelectorAll("label")].find((l) => l.textContent === "Measured length")?.control.value.startsWith("114")`)
	v.goTo("/piece/1/check")
	v.until("ticks stay", text("checked")+`?.startsWith("1 of ")`)
}

// At the vise gates stand where they still help: after the first knot the legs, then every
// few knots the push-up; the card lies there before the first move.
func TestGatesStandWhereTheyHelp(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/vise")
	v.until("the card is at hand before the first move", `document.querySelector("summary")?.textContent.includes("what lies on the table")`)
	v.cutAll()
	v.until("a gate says how the legs hang", `(() => { const g = [...document.querySelectorAll("[data-gate]")].map((e) => e.textContent).join(" "); if (g.includes("left and")) return true; [...document.querySelectorAll("button")].find((b) => b.textContent === "Done, next").click(); return false; })()`)
}

// axe-core finds nothing to complain of at the stages of purpose, finish, cut and check, by
// day and by night, on a desk, a tablet and a phone.
func TestStagesAreAccessibleAtEveryWidth(t *testing.T) {
	v := open(t, demoAt(t), "/")
	for _, theme := range []string{"day", "night"} {
		v.do(chromedp.Evaluate[chromedp.Void](`fetch("/api/settings", {method: "PATCH", body: JSON.stringify({theme: "`+theme+`"})}).then(() => {})`, chromedp.EvalAwaitPromise))
		for _, wide := range []int64{1280, 820, 390} {
			v.do(chromedp.EmulateViewport(wide, 900))
			for _, path := range []string{"/piece/1/purpose", "/piece/21/colour", "/piece/1/finish", "/piece/1/check"} {
				v.goTo(path)
				v.until(path+" is there", fmt.Sprintf(`document.documentElement.dataset.theme === %q && document.querySelector("[data-caution], [data-testid=ways]") && !document.querySelector("[data-wait]") && document.getAnimations().length === 0`, theme))
				for _, f := range v.axe(byNight(theme)...) {
					t.Errorf("%s %s at %d: %s", theme, path, wide, f)
				}
				if over := eval[int](v, `document.documentElement.scrollWidth - document.documentElement.clientWidth`); over > 0 {
					t.Errorf("%s at %d is %d px wider than the window", path, wide, over)
				}
			}
		}
	}
}
