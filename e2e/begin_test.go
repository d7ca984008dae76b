package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const offers = `(document.querySelector('[data-testid="offers"]')?.textContent ?? "")`

// How a piece is begun, changed and brought to its length, on one demo.
func TestBeginnings(t *testing.T) {
	together(t, []part{
		{"APieceIsBegunWithTheCordsInHand", theAPieceIsBegunWithTheCordsInHand},
		{"APieceIsBegunPlain", theAPieceIsBegunPlain},
		{"ASectionIsChangedIntoAnother", theASectionIsChangedIntoAnother},
		{"AWantedLengthOffersCounts", theAWantedLengthOffersCounts},
	})
}

// part is a part of a test.
type part struct {
	name string
	run  func(t *testing.T, p *program)
}

// together runs parts one after the other on one demo, which takes less time than one for each.
func together(t *testing.T, parts []part) {
	p := demoAt(t)
	for _, part := range parts {
		t.Run(part.name, func(t *testing.T) { part.run(t, p) })
	}
}

// A piece is begun with what a maker knows: what it is for, how long, and the cords that there are,
// one from the drawer and one that is described and put into it. What is offered is of these
// cords, that long, and hangs on the bench as it was offered.
func theAPieceIsBegunWithTheCordsInHand(t *testing.T, p *program) {
	v := open(t, p, "/")
	v.click("Hang a new piece")
	v.until("all is planned", offers+`.includes("pieces to begin with.")`)
	v.choose("What is it for?", "key-fob")
	v.field("How long?", "5")
	v.until("a length that is none is refused at its field", `[...document.querySelectorAll("main [role=alert]")].some((e) => e.textContent.includes("a piece is from 20 mm to 5 m long"))`)
	v.field("How long?", "90")
	const drawer = `[...document.querySelectorAll("label")].find((l) => l.textContent === "Add one from the drawer").control`
	v.choose("Add one from the drawer", eval[string](v, drawer+`.options[1].value`))
	v.click("Describe a cord")
	v.field("Diameter on the label, pulled tight", "4")
	v.field("Colour", "#5b6b33")
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('main input[type="checkbox"]').click()`))
	v.field("Name on the spool", "Moss from the fair")
	v.click("Add this cord")
	v.until("both are named", `document.querySelectorAll('[aria-label="Your cords"] li').length === 2`)
	v.until("the pieces are planned in them", offers+`.includes("in your cords.")`)
	if !eval[bool](v, `fetch("/api/drawer").then((r) => r.json()).then((d) => d.some((s) => s.name === "Moss from the fair"))`) {
		t.Error("the cord that was described is not in the drawer")
	}
	const fob = `document.querySelector('[data-pattern="two-colour-fob"]')`
	said := eval[string](v, fob+`.textContent`)
	for _, f := range v.axe() {
		t.Error(f)
	}
	v.do(chromedp.Evaluate[chromedp.Void](fob + `.focus()`))
	v.key(kb.Enter)
	v.until("it is on the bench", `location.pathname.endsWith("/purpose") && `+long)
	if got := strings.TrimSpace(eval[string](v, long)); len(got) < 2 || !strings.Contains(said, got) {
		t.Errorf("it hangs %s long, offered was: %s", got, said)
	}
	v.goTo("/new")
	v.until("what was known is still there", `document.querySelectorAll('[aria-label="Your cords"] li').length === 2`)
	v.click("Leave out Moss from the fair")
	v.until("a cord is left out", `document.querySelectorAll('[aria-label="Your cords"] li').length === 1`)
}

// Begun plain, a piece is its cords on the mount and nothing else.
func theAPieceIsBegunPlain(t *testing.T, p *program) {
	v := open(t, p, "/new")
	v.until("the plain one is there", `document.querySelector('[data-pattern="plain"]')`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-pattern="plain"]').click()`))
	v.until("it is on the bench", `location.pathname.endsWith("/purpose")`)
	if n := eval[int](v, `fetch("/api/pieces/" + location.pathname.split("/")[2]).then((r) => r.json()).then((b) => b.document.sequence.length)`); n != 1 {
		t.Errorf("it has %d sections", n)
	}
}

// A section is changed into another knot on the same strands, by a key; the piece stays as long as
// it was, a knot that cannot be tied there is refused where one is, and it can be undone.
func theASectionIsChangedIntoAnother(t *testing.T, p *program) {
	const marked = `(document.getElementById(document.activeElement.getAttribute("aria-activedescendant"))?.textContent ?? "")`
	v := open(t, p, "/piece/1/tie")
	v.until("the bench is there", long+` === "114 mm"`)
	v.key("i")
	v.until("the knots are there", `document.querySelector('dialog[aria-label="Change section 2 into"] [data-knot="half-knot"]')`)
	v.anew("half knot")
	v.until("it is the first", marked+`.includes("half knot")`)
	v.key(kb.Enter)
	v.until("it is a spiral, about as long", `document.querySelector('[data-testid="typed-line"]').value.includes("half-knot") && Math.abs(parseFloat(`+long+`) - 114) <= 2 && !document.querySelector("dialog")`)
	v.key("i")
	v.until("the knots are there again, those for other numbers apart", `document.querySelector("dialog h3") && document.querySelector('dialog [data-knot="snake-knot"]')`)
	v.anew("snake knot")
	v.until("it is the first again", marked+`.includes("snake knot")`)
	v.key(kb.Enter)
	v.until("what cannot be tied on four strands is refused there", `document.querySelector("dialog [role=alert]")?.textContent.includes("a snake knot takes two")`)
	v.key(kb.Escape)
	v.click("Undo")
	v.until("it is as it was", `document.querySelector('[data-testid="typed-line"]').value.includes("square-knot") && `+long+` === "114 mm"`)
}

// A wanted length offers the counts that come nearest to it; one is taken by a press.
func theAWantedLengthOffersCounts(t *testing.T, p *program) {
	v := open(t, p, "/piece/1/purpose")
	v.until("the bench is there", long)
	v.field("Wanted length", "140")
	const ways = `[...document.querySelectorAll('[aria-label="To come to the wanted length"] li')]`
	v.until("a count is offered", ways+`.some((l) => l.textContent.includes("of the square knot in section 2: it comes to"))`)
	says := eval[string](v, ways+`[0].textContent`)
	v.do(chromedp.Evaluate[chromedp.Void](ways + `[0].querySelector("button").click()`))
	v.until("the piece is that long", `(`+long+` ?? "x") !== "114 mm" && `+ways+`.length === 0`)
	if got := eval[string](v, long); !strings.Contains(says, got) {
		t.Errorf("it comes to %s; it said %s", got, says)
	}
}
