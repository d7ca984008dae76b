package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// Each starting pattern hangs, is drawn, warns of nothing and can be put into
// the vise, cut and finished.
func TestEveryPatternFromRackToLog(t *testing.T) {
	v := open(t, demoAt(t), "/")
	ids := eval[[]string](v, `fetch("/api/catalogue").then((r) => r.json()).then((c) => c.patterns.map((p) => p.id))`)
	if len(ids) < 12 {
		t.Fatalf("%d patterns", len(ids))
	}
	for i, id := range ids {
		n := eval[int](v, fmt.Sprintf(`fetch("/api/pieces", {method: "POST", body: JSON.stringify({pattern: %q})}).then((r) => r.json()).then((b) => b.id)`, id))
		stages := []string{"purpose", "stuff", "colour", "cut", "tie", "finish", "check", "log"}
		if i > 1 { // what is said of a piece is said in every stage
			stages = stages[4:6]
		}
		for k, stage := range stages {
			if k == 0 {
				v.goTo(fmt.Sprintf("/piece/%d/%s", n, stage))
			} else { // as a maker goes on
				v.key("]")
				v.until("] goes on to "+stage, fmt.Sprintf(`location.pathname === "/piece/%d/%s"`, n, stage))
			}
			v.until(id+" is planned in "+stage, long)
			v.until(id+" is drawn in "+stage, `document.querySelectorAll('[data-testid="hang"] path.lay-body').length > 0`)
			if eval[bool](v, `!!document.querySelector('[data-testid="warnings"], [data-testid="refused"]')`) {
				t.Errorf("%s in %s: %s", id, stage, eval[string](v, `document.querySelector('[data-testid="warnings"], [data-testid="refused"]').textContent`))
			}
		}
		v.goTo(fmt.Sprintf("/piece/%d/vise", n))
		v.until(id+" is in the vise", `document.querySelector('[data-testid="counter"]')`)
		v.cutAll()
		v.key(" ")
		v.until(id+" goes on", `document.querySelector('[data-testid="vise"]').dataset.done === "1"`)
	}
}

// Sections are put into a repeat and taken apart, copied, and rows are edited
// side by side; the typed line always says the same.
func TestGroupsAndRows(t *testing.T) {
	v := open(t, demoAt(t), "/piece/6/tie")
	v.until("the piece is planned", long)
	v.typeLine("mount A B, square-knot 2, gap 9mm, finish dome")
	v.until("it is typed", typed+`.startsWith("mount A B, square-knot 2, gap")`)
	v.until("section 2 is chosen", `document.querySelector('[data-row="1"]').className.includes("border-l-secondary")`)
	v.click("Repeat")
	v.until("it stands in brackets", typed+`.includes("2x(square-knot 2), gap")`)
	v.click("Add the next to it")
	v.until("with the next one", typed+`.includes("2x(square-knot 2, gap 9mm), finish")`)
	v.click("A knot more in section 2")
	v.until("three times", typed+`.includes("3x(square-knot 2, gap 9mm)")`)
	v.into("Knots in what is repeated, section 1")
	v.key("4")
	v.key(kb.Enter)
	v.until("four knots each time", typed+`.includes("3x(square-knot 4, gap 9mm)")`)
	v.click("Ungroup")
	v.until("taken apart", typed+`.startsWith("mount A B, square-knot")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("c")
	v.until("C copies", `document.querySelectorAll("[data-row]").length === 5`)

	v.goTo("/piece/10/tie")
	v.until("rows are there", `document.querySelectorAll("fieldset legend").length >= 2 && `+typed+`.includes("rows 1-4:(square-knot 8)")`)
	v.into("Knots in row 1, section 1")
	v.key("6")
	v.key(kb.Enter)
	v.until("the line follows", typed+`.includes("1-4:(square-knot 6) 5-8:(square-knot 8")`)
	v.until("unequal rows are warned of", `document.querySelector('[data-testid="warnings"]')?.textContent.includes("longer than row 1")`)
	v.click("Tie 8 in row 1")
	v.until("and evened out", typed+`.includes("1-4:(square-knot 8) 5-8:(square-knot 8")`)
}

// What cannot be tied is said with its section, and one key mends it.
func TestARefusalIsMendedByAKey(t *testing.T) {
	v := open(t, demoAt(t), "/piece/9/tie")
	v.until("the piece is planned", long)
	v.typeLine("mount A B C, diamond 1 inside=bead hole=2mm long=7mm wide=9mm, finish fringe")
	v.until("it is said where and by how much", `document.querySelector('[data-testid="refused"]')?.textContent.includes("its hole is 2.0 mm")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("x")
	v.until("X takes the way out", `!document.querySelector('[data-testid="refused"]') && `+typed+`.includes("diamond 1 inside=bead hole=") && !`+typed+`.includes("hole=2mm")`)
	v.typeLine("mount A B C, diamond 1 strands=1-5, finish fringe")
	v.until("an odd number is refused", `document.querySelector('[data-testid="refused"]')?.textContent.includes("it has 5")`)
	v.click("Leave the last strand out")
	v.until("and mended by a button", typed+`.includes("strands=1-4")`)
}

// At the vise the strand is led by a slider, forwards and backwards.
func TestTheMoveIsLedBySlider(t *testing.T) {
	v := open(t, demoAt(t), "/piece/2/vise")
	v.until("the slider is there", `document.querySelector('input[type="range"]') && document.querySelector("path.lay-moving")`)
	picture := `[...document.querySelectorAll('main [data-along] svg path.lay-moving, main [data-along] path.lay-moving')].map((p) => p.getAttribute("d")).join()`
	set := v.slide
	shown := func(along int) string {
		return fmt.Sprintf(`document.querySelector("main [data-along]")?.dataset.along === "%d"`, along)
	}
	set(8)
	v.until("hardly begun", shown(8))
	begun := eval[string](v, picture)
	set(28)
	v.until("led all the way", shown(28))
	led := eval[string](v, picture)
	set(48)
	v.until("drawn up", shown(48))
	drawn := eval[string](v, picture)
	if begun == led || led == drawn {
		t.Error("the strand does not move with the slider")
	}
	set(8)
	v.until("and back", shown(8))
	if again := eval[string](v, picture); again != begun {
		t.Error("led back it is another picture")
	}
}

// An edit a frame while the edge of a long piece is pulled; each takes two frames.
func BenchmarkPullingAtTwoHundredSections(b *testing.B) {
	p := demoAt(b)
	v := open(b, p, "/piece/6/tie")
	line := "mount A B"
	for i := range 198 {
		line += []string{", square-knot 3", ", gap 8mm", ", half-knot 4", ", switch-knot 2", ", gap 9mm", ", square-knot 2"}[i%6]
	}
	eval[int](v, fmt.Sprintf(`fetch("/api/pieces/6").then((r) => r.json()).then((b) => fetch("/api/pieces/6/notation", {method: "POST", body: JSON.stringify({revision: b.revision, line: %q})})).then((r) => r.status)`, line+", finish dome"))
	v.goTo("/piece/6/tie")
	v.until("it is drawn", `document.querySelectorAll("[data-pull]").length > 50`)
	// An edit a frame: a knot more, a knot less, and on to the next frame.
	v.do(chromedp.Evaluate[chromedp.Void](`window.step = (n) => new Promise((done) => {
	  const e = document.querySelector('[data-pull="1"]');
	  e.focus();
	  e.dispatchEvent(new KeyboardEvent("keydown", {key: n % 2 ? "ArrowDown" : "ArrowUp", bubbles: true}));
	  requestAnimationFrame(() => requestAnimationFrame(() => done(true)));
	})`))
	n := 0
	for b.Loop() {
		n++
		eval[bool](v, fmt.Sprintf("window.step(%d)", n))
	}
	b.ReportMetric(float64(n)/b.Elapsed().Seconds(), "edits/s")
	// A maker pulls some knots a second: how many frames are drawn meanwhile?
	frames := eval[float64](v, `new Promise((done) => {
	  const from = performance.now();
	  let frames = 0, edits = 0;
	  const tick = (now) => {
	    frames++;
	    if (now - from > 4000) return done(frames / 4);
	    if ((now - from) / 200 > edits) {
	      edits++;
	      const e = document.querySelector('[data-pull="1"]');
	      e.dispatchEvent(new KeyboardEvent("keydown", {key: edits % 8 < 4 ? "ArrowDown" : "ArrowUp", bubbles: true}));
	    }
	    requestAnimationFrame(tick);
	  };
	  requestAnimationFrame(tick);
	})`)
	b.ReportMetric(frames, "frames/s-pulling")
}

// A piece of many sections is pointed at as a short one is: its strip, its row
// and its hang light up together.
func TestALongPieceIsPointedAt(t *testing.T) {
	v := open(t, demoAt(t), "/piece/6/tie")
	line := "mount A B"
	for i := range 70 {
		line += []string{", square-knot 2", ", gap 8mm"}[i%2]
	}
	eval[int](v, fmt.Sprintf(`fetch("/api/pieces/6").then((r) => r.json()).then((b) => fetch("/api/pieces/6/notation", {method: "POST", body: JSON.stringify({revision: b.revision, line: %q})})).then((r) => r.status)`, line+", finish dome"))
	v.goTo("/piece/6/tie")
	v.until("seventy-two rows are there", `document.querySelectorAll("[data-row]").length === 72`)
	v.until("its strips are drawn together", `document.querySelectorAll('[data-strip="A"] path').length >= 2 && document.querySelectorAll('[data-strip="A"] [data-section]').length === 0`)
	at := eval[[]float64](v, `(() => { const r = document.querySelector('[data-strip="A"] rect[fill="transparent"]').getBoundingClientRect(); return [r.left + r.width * 0.4, r.top + 5] })()`)
	v.do(chromedp.MouseEvent("mouseMoved", at[0], at[1]))
	v.until("a row is lit", `document.querySelector('[data-row][data-lit="true"]')`)
	v.until("and its stretch of the strip", `document.querySelector('[data-strip="A"] path[stroke="var(--moving)"]')`)
}
