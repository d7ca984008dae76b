package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// maker does what is to be done by a real pointer or by keys alone, and counts the acts: a
// press, a choice, a field that is filled.
type maker struct {
	page
	keys bool
	acts int
}

// named finds what a maker sees under a name or, where nothing has just that name, under one
// that begins so: a button, a link, a field or a tile.
func named(kinds, name string) string {
	return fmt.Sprintf(`(() => {
		const called = (e) => (e.getAttribute("aria-label") || e.labels?.[0]?.textContent || [...e.childNodes].filter((n) => n.ariaHidden !== "true").map((n) => n.textContent).join("")).trim();
		const all = [...(document.querySelector("dialog[open]") ?? document.body).querySelectorAll(%q)].filter((e) => e.checkVisibility() && !e.disabled);
		return all.find((e) => called(e) === %[2]q) ?? all.find((e) => called(e).startsWith(%[2]q));
	})()`, kinds, name)
}

// to brings the pointer to something and presses it, or goes to it by Tab.
func (m *maker) to(what, js string) {
	m.t.Helper()
	m.until("there is "+what, js)
	if m.keys {
		for range 200 {
			if eval[bool](m.page, `document.activeElement === `+js) {
				return
			}
			m.key(kb.Tab)
		}
		m.t.Fatalf("%s is not come to by Tab", what)
	}
	at := eval[[2]float64](m.page, `(async () => {
		const where = () => { const e = `+js+`; e.scrollIntoView({block: "center", behavior: "instant"}); const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]; };
		// A hand presses what has come to rest.
		let at = where();
		for (let still = 0, n = 0; still < 12 && n < 300; n++) {
			await new Promise(requestAnimationFrame);
			const now = where();
			still = now.join() === at.join() ? still + 1 : 0;
			at = now;
		}
		const e = `+js+`, hit = document.elementFromPoint(...at);
		if (!hit || !(e.contains(hit) || hit.contains(e))) throw new Error("covered by " + hit?.outerHTML.slice(0, 80));
		return at;
	})()`)
	m.do(chromedp.MouseClickXY(at[0], at[1]))
}

// press presses a button or follows a link.
func (m *maker) press(name string) {
	m.t.Helper()
	m.pressed(name, named("button, a[href]", name))
}

func (m *maker) pressed(what, js string) {
	m.t.Helper()
	m.to(what, js)
	if m.keys {
		m.key(kb.Enter)
	}
	m.acts++
}

// fill fills a field and leaves it.
func (m *maker) fill(label, value string) {
	m.t.Helper()
	m.to(label, named("input", label))
	m.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.select?.()`))
	m.key(value)
	m.key(kb.Tab)
	m.acts++
}

// pick takes the choice that begins so: the list is opened by the pointer, and typed into.
func (m *maker) pick(label, choice string) {
	m.t.Helper()
	list := named("select", label)
	option := fmt.Sprintf(`[...%s?.options ?? []].find((o) => o.textContent.startsWith(%q))`, list, choice)
	m.until("there is "+choice, option)
	m.to(label, list)
	if m.keys {
		m.key(choice)
	} else {
		m.to(choice, option)
	}
	m.until(choice+" is chosen", list+`.selectedOptions[0].textContent.startsWith("`+choice+`")`)
	m.acts++
}

// Whoever begins with an empty folder does all of the first hour, by the pointer and by keys
// alone: a first fob to its sheet in no more than 12 acts, recoloured, longer, with another
// knot, a bead and a wrap, undone; a marble becomes a piece; the vise and back; a log entry;
// and a piece is found again.
func TestTheFirstHour(t *testing.T) {
	for _, keys := range []bool{false, true} {
		t.Run(map[bool]string{false: "by pointer", true: "by keys alone"}[keys], func(t *testing.T) {
			theFirstHour(&maker{page: open(t, start(t, "serve", t.TempDir(), "127.0.0.1:0"), "/"), keys: keys})
		})
	}
}

func theFirstHour(m *maker) {
	until, line := m.until, func(has string) string { return typed + `?.includes("` + has + `")` }
	until("an empty folder asks for a first piece", `document.body.textContent.includes("begin a first piece")`)
	m.pick("What is it for?", "key fob")
	m.fill("How long?", "90")
	m.pressed("the two-colour fob", `document.querySelector('[data-pattern="two-colour-fob"]')`)
	until("it hangs on the bench", long)
	walk := text("walk")
	until("a first piece is walked through", walk+`?.startsWith("A first piece, 1 of 8")`)
	m.press("Next: Stuff")
	until("stage by stage", walk+`?.startsWith("A first piece, 2 of 8") && location.pathname.endsWith("/stuff")`)
	m.press("Leave this")
	until("and left at any time", `!document.querySelector('[data-testid="walk"]')`)
	m.press("Cut")
	m.press("Cut sheet to print")
	until("it has a sheet", text("sequence")+`?.includes("square knot")`)
	if m.acts > 12 {
		m.t.Errorf("a first fob took %d acts", m.acts)
	}
	m.press("Bench")
	until("back on the bench", long)
	// Recolour.
	m.press("Stuff")
	m.fill("Colour", "#b4532a")
	until("cord A is another colour", `document.querySelector('[data-strip="A"] rect').getAttribute("fill") === "#b4532a"`)
	// Longer.
	m.press("Tie")
	until("the line is there", line("square-knot"))
	was := eval[string](m.page, long)
	if m.keys {
		m.leave()
		m.key("+")
	} else {
		m.press("Section 2")
		m.press("A knot more in section 2")
	}
	until("it is longer", long+` !== "`+was+`"`)
	// Another knot on the same strands.
	m.listed("i", "Change into", "half knot")
	until("it is a spiral", line("half-knot"))
	// A bead, then a wrap over a cord of its own.
	m.listed("a", "Add a section", "bead")
	until("a bead is on", line(", bead"))
	m.listed("a", "Add a section", "gathering knot")
	which := `document.querySelector('[data-testid="which-cord"] button')`
	m.pressed("a cord for it", which)
	until("a wrap is on", line("gather"))
	at := eval[string](m.page, typed)
	if m.keys {
		m.leave()
		m.key("z", chromedp.ModifierCtrl)
	} else {
		m.press("Undo")
	}
	until("the last of it is undone", typed+` !== `+fmt.Sprintf("%q", at))
	// A marble to a piece.
	m.press("Rack")
	until("the rack is there", `document.querySelector("[data-piece]")`)
	m.press("Balls and cores")
	until("the ball is there", text("fist-said"))
	m.fill("Core size", "16")
	until("passes that suit are chosen", ballSaid+`.startsWith("5 passes")`)
	m.press("Tie this ball")
	until("it is a piece", `location.pathname.endsWith("/tie") && `+line("monkeys-fist"))
	// To the vise and back.
	m.press("To the vise")
	until("the vise is there", visePlace+` < "0"`)
	m.press("All is cut and ready")
	m.press("Done, next")
	until("a move is made", visePlace+` === "1"`)
	m.press("Bench")
	until("back on the bench again", long)
	// Log it, and find the fob again.
	m.press("Log")
	m.fill("Minutes", "42")
	m.press("Save entry")
	until("it is logged", `document.querySelector('[aria-label="Entries"]')?.textContent.includes("42 min")`)
	if m.keys {
		m.leave()
		m.key("k", chromedp.ModifierCtrl)
	} else {
		m.press("Find")
	}
	until("the box is open", `document.activeElement.getAttribute("aria-label") === "What to find"`)
	m.key("two-colour")
	until("the fob is found", `document.querySelector('[aria-label="Found"] li')?.textContent.includes("wo-colour")`)
	m.key(kb.Enter)
	until("and is on the bench", `document.title.startsWith("Two-colour fob: ")`)
	m.tiedByEar()
}

// tiedByEar ties the piece on the bench from its cut to its last end: every step is told to a
// screen reader, none twice the same.
func (m *maker) tiedByEar() {
	m.t.Helper()
	m.press("To the vise")
	m.until("the vise is there", visePlace+` < "0"`)
	m.pick("Step", "by sections")
	m.leave()
	const heard = `document.querySelector('main [aria-live="polite"]').innerText`
	for n := 0; !eval[bool](m.page, heard+`.startsWith("Tied.")`); n++ {
		was := eval[string](m.page, heard)
		if n > 12 || was == "" {
			m.t.Fatalf("after %d steps is heard: %s", n, was)
		}
		if m.keys {
			m.key(" ")
		} else {
			m.press("Done, next")
		}
		m.until("the next step is told", heard+` !== `+fmt.Sprintf("%q", was))
	}
}

// listed opens the list of knots, by its key or its button, and takes one.
func (m *maker) listed(key, button, knot string) {
	m.t.Helper()
	if m.keys {
		m.leave()
		m.key(key)
	} else {
		m.press(button)
	}
	m.taken(knot)
}

// taken takes a knot of the list of knots.
func (m *maker) taken(knot string) {
	m.t.Helper()
	m.until("the knots are there", `document.querySelector("dialog[open] [data-knot]") && document.activeElement.matches('[role="combobox"]')`)
	m.anew(knot)
	first := `document.getElementById(document.activeElement.getAttribute("aria-activedescendant"))`
	m.until("it is the first", first+`?.textContent.includes("`+knot+`")`)
	if m.keys {
		m.key(kb.Enter)
	} else {
		m.pressed(knot, first)
	}
	m.until("it is taken", `!document.querySelector("dialog[open] [data-knot]")`)
}
