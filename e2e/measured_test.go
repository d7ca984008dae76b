package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// number reads the number that an element begins or goes on with.
func (v page) number(js string) float64 {
	v.t.Helper()
	return eval[float64](v, `Number((`+js+`).match(/[\d.]+/)?.[0] ?? NaN)`)
}

func text(testID string) string {
	return fmt.Sprintf(`(document.querySelector('[data-testid="%s"]')?.textContent ?? "")`, testID)
}

const cutOfA = `(document.querySelector('section[aria-label="Cut"] tbody tr td:nth-child(3)')?.textContent ?? "")`

// The maker chooses how seldom a piece runs short, for all pieces and for this one; the
// bar and its lines say what the cut is made of.
func TestTheMakerChoosesHowSeldomItRunsShort(t *testing.T) {
	v := open(t, demoAt(t), "/piece/4/cut")
	v.until("it is planned", text("why-A"))
	usual := v.number(cutOfA)
	v.until("the lines add up to the cut", fmt.Sprintf(`Math.abs([...document.querySelectorAll('[data-testid="why-A"] li > .figure')].reduce((n, e) => n + parseFloat(e.textContent), 0) - %v) < 4`, usual))
	v.until("the bar stands beside the figure", `document.querySelectorAll('[data-testid="bar-A"] rect').length >= 4`)
	v.choose("This piece may run short", "200")
	v.until("surer, it is cut longer", fmt.Sprintf(`parseFloat(%s) > %v`, cutOfA, usual))
	v.until("and says so", `document.querySelector('section[aria-label="Cut"]').textContent.includes("enough for 199 pieces in 200")`)
	v.until("it is saved", saved)
	if got := stored[int](v, 4, "b.document.cutting.one_in"); got != 200 {
		t.Errorf("stored is once in %d", got)
	}
	v.click("Undo")
	v.until("undone it is as before", fmt.Sprintf(`parseFloat(%s) === %v`, cutOfA, usual))
	v.click("Settings")
	v.choose("A piece may run short", "10")
	v.choose("I hold the ends of the last knot with", "needle")
	v.key(kb.Escape)
	v.until("less sure, it is cut shorter", fmt.Sprintf(`parseFloat(%s) < %v`, cutOfA, usual))
	v.choose("Legs", "equal")
	v.until("equal legs say what they waste", `document.querySelector('section[aria-label="Cut"]').textContent.includes("That wastes")`)
	v.until("the words say the short leg where one is", text("measure-B")+`.includes("is the short ")`)
	v.until("a thumb rule stands beside it", text("thumb-A")+`.includes("times the row")`)
	v.goTo("/piece/4/sheet")
	v.until("and the sheet says it too", `document.body.textContent.includes("is the short ") && document.body.textContent.includes("enough for 9 pieces in 10")`)
}

// Two swatches narrow what is allowed, an outlier is asked about, and one press takes a
// piece back to geometry alone.
func TestSwatchesNarrowWhatIsAllowed(t *testing.T) {
	v := open(t, demoAt(t), "/piece/7/stuff")
	v.until("it is planned", long)
	v.click("Swatches of A: 0")
	v.until("what is known is told", text("known")+`.includes("Allowed over the needs")`)
	const allowed = `Number(document.querySelector('[data-testid="known"]').textContent.match(/Allowed over the needs: ([\d.]+)/)[1])`
	before := eval[float64](v, allowed)
	v.until("the row is planned", `document.querySelector("dialog").textContent.includes("Planned of it: ")`)
	tall := eval[float64](v, `Number(document.querySelector("dialog").textContent.match(/Planned of it: ([\d.]+) mm/)[1])`)
	took := eval[float64](v, `Number(document.querySelector("dialog").textContent.match(/tall, ([\d.]+) mm/)[1])`)
	add := func(by float64) {
		v.field("The row is tall", fmt.Sprintf("%.1f", tall))
		v.field("A working strand took", fmt.Sprintf("%.0f", by*took))
		v.click("Keep the swatch")
	}
	add(0.2)
	v.until("what cannot be is refused", `document.querySelector("dialog [role=alert]")?.textContent.includes("measure it again")`)
	add(1.4)
	v.until("what surprises is asked about", `document.querySelector("dialog [role=alert]")?.textContent.includes("than planned")`)
	count := `document.querySelectorAll('dialog [aria-label="Swatches"] button').length`
	if n := eval[int](v, count); n != 0 {
		t.Errorf("%d swatches are kept of what was refused or asked about", n)
	}
	for n := 1; n <= 2; n++ {
		add(1.02)
		v.until("it is kept", fmt.Sprintf("%s === %d", count, n))
	}
	v.until("less is allowed", fmt.Sprintf("%s < 12 && %s < %v", allowed, allowed, before))
	v.key(kb.Escape)
	v.goTo("/piece/7/cut")
	v.until("the page shows it narrowing", text("rests-A")+`.includes("swatches")`)
	v.click("Take it back to geometry alone")
	v.until("nothing that was measured counts", text("rests-A")+`.includes("Nothing was measured") && `+saved)
	v.click("By geometry alone: let swatches and logs count")
	v.until("and it counts again", text("rests-A")+`.includes("swatches")`)
}

// A log of what was left feeds the same estimate; more left than was cut is refused and
// nothing of what was typed is lost.
func TestALogFeedsTheNextPlan(t *testing.T) {
	v := open(t, demoAt(t), "/piece/9/cut")
	v.until("it is planned", text("rests-A")+`.includes("Nothing was measured")`)
	v.goTo("/piece/9/log")
	v.until("its ends are asked for", `[...document.querySelectorAll("label")].some((l) => l.textContent === "Left of A, left")`)
	v.field("Left of A, left", "9000")
	v.field("Left of A, right", "0")
	v.click("Save entry")
	v.until("more left than was cut is refused", `document.querySelector("[role=alert]")?.textContent.includes("more than the")`)
	v.field("Left of A, left", "170")
	v.click("Save entry")
	v.until("it stands in the log", `document.querySelector('[aria-label="Entries"]')?.textContent.includes("170 mm and 0 mm")`)
	v.goTo("/piece/9/cut")
	v.until("the plan rests on it", text("rests-A")+`.includes("logs")`)
}

// Cord in hand, at the bench: the longest piece, and a cord that is too short for the
// mount; then another cord in its place.
func TestTheLongestPieceFromCordInHand(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/cut")
	v.until("it is planned", text("why-A"))
	v.click("From cord in hand")
	v.field("Cord A in hand", "20")
	v.click("Find the longest piece")
	v.until("shorter than the mount is refused", `document.querySelector("dialog [role=alert]")?.textContent.includes("shorter than the")`)
	v.field("Cord A in hand", "1.2 m")
	v.field("Cord B in hand", "1 m")
	v.click("Find the longest piece")
	v.until("it is found, with its picture", `document.querySelector('[data-testid="reached"] svg path.lay-ink') && `+text("reached")+`.includes("One knot more")`)
	n := v.number(text("reached"))
	if n < 10 || n > 20 {
		t.Errorf("a metre ties %v knots", n)
	}
	v.click(fmt.Sprintf("Tie %.0f", n))
	v.until("it is tied so", saved)
	if got := stored[float64](v, 1, "b.document.sequence[1].count"); got != n {
		t.Errorf("stored are %v knots, found were %v", got, n)
	}
	v.goTo("/piece/1/stuff")
	v.until("it is planned", long)
	was := v.number(long)
	v.click("Another cord for A")
	thin := `[...document.querySelectorAll("dialog option")].find((o) => o.textContent.includes("Wharf"))`
	v.until("the drawer is offered", thin)
	v.choose("Cord of the drawer", eval[string](v, thin+".value"))
	v.choose("In the place of", "all")
	v.until("both ways stand side by side", `document.querySelectorAll('[data-testid="swapped"] article').length === 2 && document.querySelectorAll('[data-testid="swapped"] svg path.lay-ink').length > 2`)
	v.click("Swap, keep the length")
	v.until("the length is kept", fmt.Sprintf(`Math.abs(parseFloat(%s) - %v) < 8 && %s`, long, was, saved))
	if got := stored[string](v, 1, "b.document.cords[1].stuff.make"); got != "solid-braid" {
		t.Errorf("cord B is of %s", got)
	}
}

// At the vise what is left is typed, a way on is taken, and the log says why.
func TestRunningShortAtTheVise(t *testing.T) {
	v := open(t, demoAt(t), "/piece/2/vise")
	v.until("it is in the vise", `document.querySelector('[data-testid="vise"]')?.dataset.done === "13"`)
	v.click("Running short")
	for _, leg := range []string{"A.1", "A.2", "B.1", "B.2"} {
		v.field("Left of "+leg, "110")
	}
	v.key(" ")
	v.until("a key in the dialog does not move the vise", `document.querySelector('[data-testid="vise"]').dataset.done === "13"`)
	v.click("What does that still tie?")
	v.until("ways on are offered with their pictures", `document.querySelectorAll('[data-testid="rest"] article svg path.lay-ink').length > 2`)
	label := eval[string](v, `document.querySelector('[data-testid="rest"] article h3').textContent`)
	v.click(label)
	v.until("the dialog closes", `!document.querySelector("dialog[open]")`)
	v.goTo("/piece/2/log")
	v.until("the log says why", fmt.Sprintf(`document.querySelector('[aria-label="Entries"]')?.textContent.includes(%q)`, label))
}
