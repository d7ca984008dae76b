package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// field fills the field with a label and leaves it.
func (v page) field(label, value string) {
	v.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll("label")].find((l) => l.textContent.trim().startsWith(%q))`, label)
	v.until("there is a field "+label, find+"?.control")
	v.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`{const l = %s; const e = l.control; e.focus(); if (e.select) e.select();}`, find)))
	v.key(value)
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
}

// choose picks an option of the select with a label.
func (v page) choose(label, value string) {
	v.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll("label")].find((l) => l.textContent.trim() === %q)?.control`, label)
	v.until("there is a choice "+label, fmt.Sprintf(`[...%s?.options ?? []].some((o) => o.value === %q)`, find, value))
	v.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`{const e = %s;
	  Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(e, %q);
	  e.dispatchEvent(new Event("change", {bubbles: true}));}`, find, value)))
}

// stored reads a value of a stored piece.
func stored[T any](v page, id int, js string) T {
	v.t.Helper()
	return eval[T](v, fmt.Sprintf(`fetch("/api/pieces/%d").then((r) => r.json()).then((b) => %s)`, id, js))
}

func TestPurposeSetsWhatItHangsOn(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/purpose")
	v.until("it is planned", long)
	v.choose("It hangs on", "swivel-clip")
	v.until("it is saved", saved)
	v.field("Wanted length", "15 cm")
	v.until("the figures follow", `document.querySelector('[data-testid="figures"]').textContent.includes("150 mm")`)
	v.until("the warning offers a count", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("shorter than the 150 mm")`)
	v.field("Inner width", "rather wide")
	v.until("what is no length is said at the field", `document.querySelector('input[aria-invalid="true"]')`)
	if got := stored[string](v, 1, `b.document.purpose.hangs_on.type + " " + b.document.purpose.hangs_on.inner_mm + " " + b.document.purpose.length_mm`); got != "swivel-clip 30 150" {
		t.Errorf("stored is %s", got)
	}
	v.click(eval[string](v, `[...document.querySelectorAll('[data-testid="warnings"] button')][0].textContent`))
	v.until("the way out is taken", `!document.querySelector('[data-testid="warnings"]') && `+saved)
	if n := stored[int](v, 1, `b.document.sequence[1].count`); n != 12 && n != 13 {
		t.Errorf("the count that comes nearest to 150 mm is said to be %d", n)
	}
}

func TestStuffComesFromTheDrawer(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/stuff")
	v.until("it is planned", long)
	v.click("From the drawer")
	v.click("Take Signal rust kernmantle")
	v.until("the cord is taken", hangs("rgb(180, 83, 42)"))
	v.until("it is saved", saved)
	v.field("Diameter on the label, pulled tight", "3.5")
	v.until("thinner cord is cut shorter", saved+` && !document.querySelector('[data-strip="A"]').getAttribute("aria-label").includes("cut 890 mm")`)
	v.click("Put A into the drawer")
	v.until("a cord is put in from where it is used", `![...document.querySelectorAll("button")].some((b) => /^Put A into|^Putting/.test(b.textContent))`)
	if n := eval[int](v, `fetch("/api/drawer").then((r) => r.json()).then((d) => d.filter((s) => s.name.startsWith("Rust ") && s.stuff.diameter_mm === 3.5).length)`); n != 1 {
		t.Errorf("%d such cords lie in the drawer", n)
	}
	// The drawer itself is kept and can be changed.
	v.click("From the drawer")
	v.click("Add a cord")
	v.field("Name on the spool", "Tarred line")
	v.click("Save")
	v.until("the new cord lies in the drawer", `document.querySelector("dialog").textContent.includes("Tarred line")`)
	v.click("Delete Tarred line")
	v.until("and can be thrown out", `!document.querySelector("dialog").textContent.includes("Tarred line")`)
	v.key(kb.Escape)
	v.click("Describe another")
	v.until("a cord that nothing uses is warned of", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("Cord C is not in the sequence")`)
	v.click("Delete cord C")
	v.until("and put back", `!document.querySelector('[data-testid="warnings"]')?.textContent.includes("Cord C")`)
}

func TestFoldsAreChosenInCut(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/cut")
	v.until("it is planned", long)
	before := eval[string](v, `document.querySelector('[data-strip="A"]').getAttribute("aria-label")`)
	v.choose("Legs", "equal")
	v.until("equal legs are cut longer", saved+fmt.Sprintf(` && document.querySelector('[data-strip="A"]').getAttribute("aria-label") !== %q`, before))
	label := eval[string](v, `document.querySelector('[data-strip="A"]').getAttribute("aria-label")`)
	var cut int
	var fold float64
	if _, err := fmt.Sscanf(label, "Cord A: cut %d mm, fold %f mm", &cut, &fold); err != nil || fold*2 != float64(cut) {
		t.Errorf("with equal legs the strip says %q", label)
	}
	v.choose("Legs", "given")
	v.field("The left leg", "100")
	v.until("too short a leg is warned of", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("runs out")`)
	v.until("and shown at the leg", `document.body.textContent.includes("short by")`)
}

func TestEachEndHasItsFinish(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/finish")
	v.until("four ends hang there", `document.querySelectorAll('select[id]').length >= 5 && document.querySelector("select[id] option[value=dome]")`)
	v.choose("Finish of end 2", "cut-straight")
	v.until("it is saved as sections", saved)
	got := stored[string](v, 1, `JSON.stringify(b.document.sequence.slice(2))`)
	if !strings.Contains(got, `"how":"singe-and-press"`) || !strings.Contains(got, `"how":"cut-straight"`) {
		t.Errorf("the finishes are %s", got)
	}
	v.choose("All ends alike", "dome")
	v.until("all are alike again", `[...document.querySelectorAll("select")].filter((s) => s.value === "dome").length === 5 && `+saved)
	if n := stored[int](v, 1, `b.document.sequence.length`); n != 3 {
		t.Errorf("alike they are %d sections", n)
	}
	v.goTo("/piece/4/finish")
	v.choose("All ends alike", "dome")
	v.until("cotton and flame are warned of", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("it burns, it does not melt")`)
	v.click("Use fringe and comb instead")
	v.until("with a way out", `!document.querySelector('[data-testid="warnings"]')?.textContent.includes("burns")`)
}

// An end keeps its name whatever is finished before it, also where the work
// goes on past an end that is finished early.
func TestEndsKeepTheirNames(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is planned", long)
	v.typeLine("mount A B, square-knot 9, finish cut-straight ends=2, snake-knot 3 strands=1-2, finish dome")
	v.until("it is saved", saved)
	v.goTo("/piece/1/finish")
	four := func(ways string) string {
		return `[1, 2, 3, 4].map((k) => [...document.querySelectorAll("label")].find((l) => l.textContent.trim() === "Finish of end " + k)?.control?.value ?? "none").join(" ") === "` + ways + `"`
	}
	v.until("the early one stands in its place", four("dome cut-straight dome dome"))
	legs := `[...document.querySelectorAll("main li")].filter((e) => /^end \d/.test(e.textContent)).map((e) => e.textContent.slice(0, 9)).join(" ")`
	before := eval[string](v, legs)
	v.choose("Finish of end 4", "singe-and-press")
	v.until("only the fourth changes", four("dome cut-straight dome singe-and-press")+" && "+saved)
	v.choose("Finish of end 1", "fuse")
	v.until("and only the first", four("fuse cut-straight dome singe-and-press")+" && "+saved)
	v.choose("Finish of end 2", "dome")
	v.until("and the early one by itself", four("fuse dome dome singe-and-press")+" && "+saved)
	if after := eval[string](v, legs); after != before || before == "" {
		t.Errorf("the ends were %q, now %q", before, after)
	}
	if got := stored[string](v, 1, `b.document.sequence.map((s) => s.do).join(" ")`); !strings.HasPrefix(got, "mount square-knot finish snake-knot finish") {
		t.Errorf("it is tied as %s", got)
	}
}

func TestALogEntryIsWrittenDown(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/log")
	v.until("it is planned", long)
	v.field("Left of A", "120")
	v.field("Minutes", "34")
	v.field("Measured length", "112")
	v.field("Note for next time", "a little tighter")
	v.click("Save entry")
	v.until("it stands in the log", `document.querySelector('[aria-label="Entries"]').textContent.includes("34 min") && document.querySelector('[aria-label="Entries"]').textContent.includes("a little tighter")`)
	v.until("and the stage is done", `document.querySelector('a[href="/piece/1/log"]').getAttribute("aria-label").includes("open now")`)
	v.goTo("/")
	v.until("the tag says so", `document.querySelector('[data-piece="1"]')?.textContent.includes("logged")`)
}

// A left-handed maker gets steps and pictures mirrored, and inches where chosen;
// both are kept for the installation.
func TestSettings(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is drawn", `document.querySelector('[data-testid="hang"] path.lay-body')`)
	right := eval[string](v, `[...document.querySelectorAll('[data-testid="hang"] path.lay-ink')].map((e) => e.getAttribute("d")).join()`)
	v.click("Settings")
	v.choose("I tie with my leading hand", "left")
	v.choose("Lengths in", "inch")
	v.key(kb.Escape)
	v.until("it is said beside the hang", `document.body.textContent.includes("mirrored for the left hand")`)
	v.until("lengths are in inches", long+`.endsWith(" in")`)
	v.until("the picture is another", fmt.Sprintf(`[...document.querySelectorAll('[data-testid="hang"] path.lay-ink')].map((e) => e.getAttribute("d")).join() !== %q`, right))
	v.goTo("/balls")
	v.until("widths of cores are said to a 32nd", `/\d\/32 in/.test(document.querySelector("main").textContent) && !/\d mm/.test(document.querySelector("main").textContent)`)
	v.goTo("/piece/1/vise")
	v.until("the vise says so", `document.body.textContent.includes("mirrored")`)
	v.cutAll()
	for range 2 {
		v.key(" ")
	}
	v.until("and begins on the right", `document.querySelector('[data-testid="vise"]').textContent.includes("Strand 4, from the right, across in front")`)
}

// A change that could not be sent outlives the page.
func TestAnUnsentChangeOutlivesThePage(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	p.stop()
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("+")
	v.until("it is not saved", `document.querySelector('[data-testid="save-sign"]').dataset.state === "unsaved"`)
	v.until("it lies on the shelf", `Object.keys(localStorage).some((k) => /^nimble-bight\.unsent\.[0-9a-f]{32}\.1$/.test(k))`)
	v.p = start(t, "serve", p.dir, p.addr)
	v.goTo("/piece/1/tie")
	v.until("the new page sends it", typed+`?.includes("square-knot 10") && `+saved)
	v.until("and clears the shelf", `!Object.keys(localStorage).some((k) => k.startsWith("nimble-bight.unsent."))`)
}

// What the plan cannot tie is said in a sentence; the bench stays whole.
func TestWhatCannotBeTiedIsSaid(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is open", long)
	v.typeLine("mount A, square-knot 5")
	v.until("the sentence stands over the hang", `document.querySelector('[role="alert"]')?.textContent.includes("a filler between them")`)
	if !eval[bool](v, `document.querySelectorAll("[data-row]").length === 2 && !!document.querySelector('[data-testid="typed-line"]')`) {
		t.Error("the bench is not whole")
	}
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("z", chromedp.ModifierCtrl)
	v.until("undo brings the piece back", long+` === "114 mm"`)
	v.goTo("/piece/999/tie")
	v.until("a piece that is not there is said to be gone", `document.body.textContent.includes("not on the rack")`)
	v.goTo("/no/such/page")
	v.until("so is a page", `document.body.textContent.includes("Nothing hangs here")`)
}

// The lower edge is a slider by keyboard too, and rows change in place.
func TestRowsAndEdgesByKeyboard(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("the edge is there", `document.querySelector('[data-pull="1"]')`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-pull="1"]').focus()`))
	v.key(kb.ArrowUp)
	v.until("up takes a knot in, as sliders go", `document.querySelector('[data-pull="1"]')?.getAttribute("aria-valuenow") === "10"`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-pull="1"]').focus()`))
	v.key(kb.PageDown)
	v.until("page down lets five go", typed+`.includes("square-knot 5,")`)
	v.choose("starts", "right")
	v.until("the start is changed in place", typed+`.includes("start=right")`)
	v.field("or fill a length", "80 mm")
	v.until("a length is filled", typed+`.includes("fit=80mm")`)
	v.click("Delete")
	v.until("the row is taken out", `document.querySelectorAll("[data-row]").length === 2`)
	v.click("Add a section")
	v.until("the knots are there", `document.querySelector('[data-knot="square-knot"]')`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-knot="square-knot"]').click()`))
	v.until("and another put in", `document.querySelectorAll("[data-row]").length === 3`)
}

// Each end has its finishes in the order in which they suit its cord, with the reason of
// each; what is ruled out says why, and glue brings its caution.
func TestFinishesSayWhyTheyStandWhereTheyDo(t *testing.T) {
	v := open(t, demoAt(t), "/piece/4/finish")
	v.until("the ends are there", `document.querySelector('select[id]')`)
	options := `[...[...document.querySelectorAll("label")].find((l) => l.textContent === "Finish of end 1").control.options].map((o) => o.textContent)`
	v.until("the best stands first", options+`[0].endsWith("best for this cord")`)
	v.until("and what burns is ruled out, with the reason", options+`.some((o) => o.includes("ruled out: cotton burns"))`)
	v.choose("Finish of end 1", "glue")
	v.until("glue is cautioned of", `document.querySelector('[aria-label="Safety"]')?.textContent.includes("glue bonds skin")`)
	v.until("its reason is said", `document.querySelector('section[aria-label="Finish"]').textContent.includes("Because: for small ends")`)
	v.until("and what it asks for", `[...document.querySelectorAll("details")].some((d) => d.textContent.includes("Have ready: glue"))`)
	v.until("it is saved", saved)
	v.choose("Finish of end 2", "dome")
	v.until("a flame on cotton is warned of", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("it burns")`)
}

// What lies on the table is told on the sheet to print and at the vise, with boxes.
func TestTheTableCard(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/sheet")
	v.until("it stands on the sheet", text("card")+`.includes("split ring, 30")`)
	v.until("with a box to tick for each", `document.querySelectorAll('[data-testid="card"] input[type="checkbox"]').length > 8`)
	v.until("the tools of its finish, and where to work", text("card")+`.includes("lighter") && `+text("card")+`.includes("heatproof")`)
	v.goTo("/piece/1/vise")
	v.click("Table card")
	v.until("and at the vise, with the cords", text("card")+`.includes("A: kernmantle nylon, cut")`)
	v.key(" ")
	v.until("a key there does not move the vise", `document.querySelector('[data-testid="vise"]').dataset.done === "-4"`)
	v.key(kb.Escape)
	v.until("it closes", `!document.querySelector("dialog[open]")`)
}
