package e2e

import (
	"strings"
	"syscall"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const focusedText = `(document.activeElement?.textContent ?? "").trim()`

// What is done by keys and told by ear, on one demo; that which changes the settings comes last.
func TestByKeysAndByEar(t *testing.T) {
	together(t, []part{
		{"WhereTheFocusGoes", theWhereTheFocusGoes},
		{"ThePieceIsToldByEar", theThePieceIsToldByEar},
		{"TheGuideIsReachedFromEachStage", theTheGuideIsReachedFromEachStage},
		{"OneBoxFindsAll", theOneBoxFindsAll},
		{"AWaitIsShown", theAWaitIsShown},
		{"SingleKeysCanBeSwitchedOff", theSingleKeysCanBeSwitchedOff},
	})
}

// The focus goes into a dialog's first field and back to where it was opened from; another page or
// stage moves it to its heading; the first Tab is past what stands on every page; titles name the
// piece and the view.
func theWhereTheFocusGoes(t *testing.T, p *program) {
	v := open(t, p, "/piece/1/tie")
	v.until("the bench is there", long)
	v.until("the title names piece and stage", `document.title === "Slipway locker 14: tie · Nimble Bight"`)
	v.click("Settings")
	v.until("the focus is in the first field", `document.activeElement.closest("dialog") && document.activeElement.matches("select, input")`)
	v.key(kb.Escape)
	v.until("and back at the button", focusedText+` === "Settings"`)
	v.key("]")
	v.until("the next stage has the focus at its heading", focusedText+` === "Finish" && document.activeElement.tagName === "H2"`)
	v.goTo("/")
	v.until("the rack is there", `document.querySelectorAll("[data-piece]").length > 5`)
	v.key(kb.Tab)
	v.until("the first stop is past the header", focusedText+` === "Skip to the work"`)
	v.key(kb.Enter)
	v.until("it goes to the work", `document.activeElement.tagName === "MAIN"`)
	v.click("Hang a new piece")
	v.until("a new page has the focus at its heading", focusedText+` === "A new piece" && document.title.startsWith("A new piece")`)
}

// Keys of one character can be switched off; those with Ctrl stay.
func theSingleKeysCanBeSwitchedOff(t *testing.T, p *program) {
	v := open(t, p, "/piece/1/tie")
	v.until("the bench is there", long)
	v.click("Settings")
	v.choose("Keys of one character, as F or +", "off")
	v.until("it is kept", `fetch("/api/settings").then((r) => r.json()).then((s) => { window.kept = s.single_keys; }) && window.kept === "off"`)
	// The page has heard of it too: opened anew, the settings say so.
	v.key(kb.Escape)
	v.click("Settings")
	v.until("the page knows it", `[...document.querySelectorAll("dialog label")].find((l) => l.textContent === "Keys of one character, as F or +")?.control.value === "off"`)
	v.key(kb.Escape)
	v.until("the settings have gone", `!document.querySelector("dialog[open]")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("]")
	v.key("?")
	v.key("k", chromedp.ModifierCtrl)
	v.until("only Ctrl and K is heard", `document.querySelector('dialog[aria-label="Find anything"]')`)
	if at := eval[string](v, `location.pathname`); !strings.HasSuffix(at, "/tie") {
		t.Errorf("a single key led to %s", at)
	}
}

// A screen reader is told what hangs, in order and with its colours, and what a change has done.
func theThePieceIsToldByEar(t *testing.T, p *program) {
	v := open(t, p, "/piece/1/tie")
	v.until("the hang is described", `document.getElementById(document.querySelector('[role="group"][aria-describedby]')?.getAttribute("aria-describedby"))?.textContent.includes("Cord A is dark teal.")`)
	said := eval[string](v, `document.getElementById("described").textContent`)
	for _, want := range []string{"on a split ring", "1. mount: A and B", "2. square knot, 9 times: A and B"} {
		if !strings.Contains(said, want) {
			t.Errorf("%q is not in: %s", want, said)
		}
	}
	const told = `document.querySelector('[data-testid="told"]').textContent`
	v.until("what is chosen is told", told+`.includes("is chosen")`)
	was := eval[string](v, told)
	v.key("+")
	v.until("the new length is told", told+` !== "`+was+`"`)
}

// Each stage leads to its place in the guide, and the guide back to it.
func theTheGuideIsReachedFromEachStage(t *testing.T, p *program) {
	v := open(t, p, "/piece/1/purpose")
	v.until("the bench is there", long)
	for _, stage := range []string{"Purpose", "Stuff", "Colour", "Cut", "Tie", "Finish", "Check", "Log"} {
		v.until("it is open", `location.pathname === "/piece/1/`+strings.ToLower(stage)+`"`)
		v.click("Help with " + stage)
		v.until("its place has the focus", focusedText+` === "`+stage+`" && location.pathname === "/guide"`)
		v.until("and is in sight", `(() => { const r = document.activeElement.getBoundingClientRect(); return r.top >= 0 && r.bottom <= innerHeight; })()`)
		v.click("Back")
		v.until("and back", `location.pathname === "/piece/1/`+strings.ToLower(stage)+`" && `+long)
		v.key("]")
	}
}

// What takes longer than a moment shows it, and says from the first second on how long it takes.
func theAWaitIsShown(t *testing.T, p *program) {
	v := open(t, p, "/piece/1/tie")
	v.until("the bench is there", long)
	const busy = `document.querySelector('[data-testid="busy"]')`
	v.until("nothing is waited for", `!`+busy)
	if err := p.cmd.Process.Signal(syscall.SIGSTOP); err != nil {
		t.Fatal(err)
	}
	defer func() { _ = p.cmd.Process.Signal(syscall.SIGCONT) }()
	v.click("History")
	v.until("a wait is shown", busy)
	v.until("and told", busy+`?.querySelector('[role="status"]')?.textContent.startsWith("Working…")`)
	if err := p.cmd.Process.Signal(syscall.SIGCONT); err != nil {
		t.Fatal(err)
	}
	v.until("till it is over", `!`+busy+` && document.querySelector("dialog[open] li")`)
}

// One box finds pieces, knots, cords, hardware and settings, by a button too.
func theOneBoxFindsAll(t *testing.T, p *program) {
	v := open(t, p, "/piece/1/tie")
	v.until("the bench is there", long)
	const found = `[...document.querySelectorAll('[aria-label="Found"] li')]`
	find := func(text, kind string) {
		t.Helper()
		v.click("Find")
		v.until("the box is open", `document.activeElement.getAttribute("aria-label") === "What to find"`)
		v.key(text)
		v.until(text+" is found", found+`[0]?.textContent.endsWith("`+kind+`")`)
		v.key(kb.Enter)
		v.until("it has gone", `!document.querySelector('dialog[aria-label="Find anything"]')`)
	}
	find("clip", "hardware")
	v.until("hardware is chosen in Purpose", `location.pathname === "/piece/1/purpose"`)
	find("inches", "settings")
	v.until("the settings are open", `document.querySelector('dialog[aria-label="Settings"]')`)
	v.key(kb.Escape)
	find("square knot", "knot")
	v.until("the knot stands in the guide", `location.pathname === "/guide" && document.activeElement.id === "knot-square-knot"`)
}
