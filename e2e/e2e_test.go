// Package e2e drives the real interface: the built program, a browser, a maker.
package e2e

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"nimblebight/demo"
	"nimblebight/e2e/chrome"
)

// patience is how long a page may take; a busy machine takes its time.
var patience = func() time.Duration {
	if d, err := time.ParseDuration(os.Getenv("BIGHT_PATIENCE")); err == nil {
		return d
	}
	return 25 * time.Second
}()

var (
	binary  string          // the program under test
	browser context.Context // a tab that all tests share
)

func TestMain(m *testing.M) { os.Exit(run(m)) }

func run(m *testing.M) int {
	dir, err := os.MkdirTemp("", "bight-e2e")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer os.RemoveAll(dir)
	binary = filepath.Join(dir, "bight")
	build := exec.Command("go", "build", "-o", binary, "../cmd/bight")
	build.Env = append(os.Environ(), "CGO_ENABLED=0")
	if out, err := build.CombinedOutput(); err != nil {
		fmt.Fprintf(os.Stderr, "building the program: %v\n%s", err, out)
		return 1
	}
	ctx, cancel := context.WithTimeout(context.Background(), 17*time.Minute)
	defer cancel()
	tab, end, err := chrome.Start(ctx, filepath.Join(dir, "profile"))
	if err != nil {
		fmt.Fprintln(os.Stderr, "starting the browser:", err)
		return 1
	}
	defer end()
	if err := chromedp.Do(tab); err != nil { // the tab is the browser's, not the first test's
		fmt.Fprintln(os.Stderr, "starting the browser:", err)
		return 1
	}
	browser = tab
	return m.Run()
}

// program is the program running over a data folder.
type program struct {
	t    testing.TB
	cmd  *exec.Cmd
	dir  string
	addr string
}

// start runs a command of the program and waits till it says where it is.
func start(t testing.TB, command, dir, addr string) *program {
	t.Helper()
	return starting(t, exec.Command(binary, command, "--addr", addr, "--data", dir), dir)
}

// starting starts the program by a command and waits till it says where it is.
func starting(t testing.TB, cmd *exec.Cmd, dir string) *program {
	t.Helper()
	p := &program{t: t, dir: dir, cmd: cmd}
	p.cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
	p.cmd.Stderr = os.Stderr
	out, err := p.cmd.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := p.cmd.Start(); err != nil {
		t.Fatal(err)
	}
	line := make([]byte, 400)
	n, err := out.Read(line)
	if err != nil {
		t.Fatalf("the program said nothing: %v", err)
	}
	_, rest, found := strings.Cut(string(line[:n]), "http://")
	if !found {
		t.Fatalf("the program said %q", line[:n])
	}
	p.addr, _, _ = strings.Cut(rest, "/")
	go func() { _, _ = io.Copy(io.Discard, out) }()
	t.Cleanup(func() { _ = p.cmd.Process.Kill(); _ = p.cmd.Wait() })
	return p
}

// stop ends the program as Ctrl+C does.
func (p *program) stop() {
	p.t.Helper()
	if err := p.cmd.Process.Signal(os.Interrupt); err != nil {
		p.t.Fatal(err)
	}
	if err := p.cmd.Wait(); err != nil {
		p.t.Errorf("the program ended with %v", err)
	}
}

func demoAt(t testing.TB) *program { return start(t, "demo", t.TempDir(), "127.0.0.1:0") }

// page is a maker before the shared tab.
type page struct {
	t   testing.TB
	ctx context.Context
	p   *program
}

func open(t testing.TB, p *program, path string) page {
	t.Helper()
	ctx, cancel := context.WithTimeout(browser, 4*time.Minute)
	t.Cleanup(cancel)
	v := page{t, ctx, p}
	v.do(chromedp.EmulateViewport(1280, 800), focused)
	v.goTo(path)
	return v
}

// focused has the tab take the focus as one that a maker looks at: what gets it says so.
var focused = chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
	_, err := cdp.Call(ctx, t, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true})
	return err
})

func (v page) goTo(path string) {
	v.t.Helper()
	v.do(chromedp.Navigate("http://" + v.p.addr + path))
}

func (v page) do(steps ...chromedp.Action[chromedp.Void]) {
	v.t.Helper()
	for _, s := range steps {
		if _, err := patiently(v, func() (chromedp.Void, error) { return chromedp.Run(v.ctx, s) }); err != nil {
			v.t.Fatal(err)
		}
	}
}

// eval reads a value of the page.
func eval[T any](v page, js string) T {
	v.t.Helper()
	out, err := patiently(v, func() (T, error) {
		return chromedp.Run(v.ctx, chromedp.Evaluate[T](js, chromedp.EvalAwaitPromise))
	})
	if err != nil {
		v.t.Fatalf("%s: %v", js, err)
	}
	return out
}

// until waits for a condition of the page.
func (v page) until(what, js string) {
	v.t.Helper()
	// What asks about a part that is not drawn yet does not hold yet.
	js = "(() => { try { return !!(" + js + "); } catch (e) { if (e instanceof TypeError) return false; throw e; } })()"
	_, err := patiently(v, func() (bool, error) {
		return chromedp.Run(v.ctx, chromedp.Poll[bool](js, chromedp.WithPollingTimeout(patience)))
	})
	if err != nil {
		text, _ := chromedp.Run(v.ctx, chromedp.Evaluate[string](`document.body.innerText.slice(0, 1500)`))
		v.t.Fatalf("waiting till %s: %v\nthe page says: %s", what, err, text)
	}
}

// patiently asks the page again while it is on its way: while it is still the
// page before, or has not drawn yet the part that is asked about. It lets the
// page draw a frame in between.
func patiently[T any](v page, ask func() (T, error)) (T, error) {
	begun := time.Now()
	for {
		out, err := ask()
		if err == nil || !onItsWay(err) || time.Since(begun) > patience {
			return out, err
		}
		_, _ = chromedp.Run(v.ctx, chromedp.Evaluate[bool](`new Promise((go) => requestAnimationFrame(() => go(true)))`, chromedp.EvalAwaitPromise))
	}
}

// onItsWay tells whether the driver asked a page that is no longer there, or a
// part of it that is not there yet.
func onItsWay(err error) bool {
	said := err.Error()
	return strings.Contains(said, "Cannot find context with specified id") || strings.Contains(said, "Cannot read properties of null") || strings.Contains(said, "Cannot read properties of undefined")
}

// click clicks the button or link with a name, as a screen reader would say it.
func (v page) click(name string) {
	v.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll("button, a")].find((e) => (e.getAttribute("aria-label") ?? [...e.childNodes].filter((n) => n.ariaHidden !== "true").map((n) => n.textContent).join("").trim()) === %q && !e.disabled)`, name)
	v.until("there is "+name, find)
	v.do(chromedp.Evaluate[chromedp.Void](find + ".click()"))
}

// into puts the cursor into the field with a label and chooses what stands there.
func (v page) into(label string) {
	v.t.Helper()
	find := fmt.Sprintf(`document.getElementById([...document.querySelectorAll("label")].find((e) => e.textContent.trim() === %q)?.htmlFor)`, label)
	v.until("there is a field "+label, find)
	v.do(chromedp.Evaluate[chromedp.Void](`{const e = ` + find + `; e.focus(); e.select();}`))
}

func (v page) key(keys string, mods ...chromedp.Modifier) {
	v.t.Helper()
	v.do(chromedp.KeyEvent(keys, chromedp.KeyModifiers(mods...)))
}

// anew types into the box in focus, over what is in it. The key that opened it may have come twice:
// the browser's driver sends it as a press and as a letter, and the press alone is answered.
func (v page) anew(text string) {
	v.t.Helper()
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.select?.()`))
	v.key(text)
}

const (
	saved = `document.querySelector('[data-testid="save-sign"]')?.dataset.state === "saved"`
	long  = `document.querySelector('[data-testid="figures"] dd')?.textContent`
	typed = `document.querySelector('[data-testid="typed-line"]')?.value`
)

// type_ types into the typed line.
func (v page) typeLine(line string) {
	v.t.Helper()
	v.until("the typed line is there", typed+" !== undefined")
	v.do(chromedp.Evaluate[chromedp.Void](`{const e = document.getElementById("typed-line"); e.focus(); e.select();}`))
	v.key(line)
	v.key(kb.Enter)
}

func TestARackOpensAndAPieceIsMadeFromAPattern(t *testing.T) {
	v := open(t, demoAt(t), "/")
	v.until("the pieces in sight hang and are drawn", `document.querySelectorAll('[data-piece="1"] path.lay-ink').length > 0`)
	// The others come as they scroll into sight.
	v.until("all come into sight", `[...document.querySelectorAll("[data-piece]")].every((p) => { const drawn = p.querySelector("path.lay-ink"); if (!drawn) p.scrollIntoView(); return drawn; })`)
	if n := eval[int](v, `document.querySelectorAll("[data-piece]").length`); n != len(demo.Pieces()) {
		t.Errorf("%d pieces hang", n)
	}
	v.click("Hang a new piece")
	v.until("the patterns are there", `document.querySelectorAll("[data-pattern]").length >= 5`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-pattern="two-colour-fob"]').click()`))
	v.until("the bench is open on purpose", `location.pathname.endsWith("/purpose") && `+long)
	v.until("it is drawn", `document.querySelectorAll('[data-testid="hang"] path.lay-body').length > 0`)
	v.click("Rack")
	v.until("one more piece hangs", fmt.Sprintf(`document.querySelectorAll("[data-piece]").length === %d`, len(demo.Pieces())+1))
	v.click("Put Two-colour fob into the bin")
	v.until("it is in the bin", fmt.Sprintf(`document.querySelectorAll("[data-piece]").length === %d && document.body.innerText.includes("Bin (1)")`, len(demo.Pieces())))
	v.goTo("/bin")
	v.click("Restore Two-colour fob")
	v.until("the bin is empty", `document.body.innerText.includes("The bin is empty")`)
}

// Knots come by key, by typing and by pulling; every figure follows; a reload
// keeps it and undo brings it back.
func TestKnotsByKeyByTypingAndByPulling(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("the piece is planned", long+` === "114 mm"`)
	longer := fmt.Sprintf(`parseInt(%s) >= 123 && parseInt(%s) <= 126`, long, long) // one square knot of four-millimetre cord
	before := eval[string](v, `document.querySelector('[data-strip="A"]').getAttribute("aria-label")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("+")
	v.until("a knot more by key", typed+`.includes("square-knot 10")`)
	v.until("the length follows", longer)
	v.until("the cut follows", `document.querySelector('[data-strip="A"]').getAttribute("aria-label") !== `+fmt.Sprintf("%q", before))
	v.until("the row follows", `document.querySelector('[data-row="1"] input')?.value === "10"`)

	v.typeLine("mount A B, sk 5, gap 12mm, finish dome")
	v.until("typed, the rows follow", `document.querySelectorAll("[data-row]").length === 4`)
	v.until("long names are printed", typed+` === "mount A B, square-knot 5, gap 12mm, finish dome"`)

	v.until("the edge can be pulled", `document.querySelector('[data-pull="1"]')`)
	v.until("the picture shows five knots", saved+` && document.querySelector('[data-pull="1"]').getAttribute("aria-valuenow") === "5"`)
	// Where it lies once it has lain still for half a second of frames.
	at := eval[[]float64](v, `new Promise((done) => {
	  let last = "", still = 0;
	  const look = () => {
	    const r = document.querySelector('[data-pull="1"] rect')?.getBoundingClientRect();
	    const now = r ? [r.left + r.width / 2, r.top + r.height / 2] : [];
	    still = r && now.join() === last ? still + 1 : 0;
	    last = now.join();
	    if (still > 30) done(now); else requestAnimationFrame(look);
	  };
	  look();
	})`)
	v.do(chromedp.DragAndDropXY(at[0], at[1], at[0], at[1]+130, 12))
	v.until("pulling took knots in", `Number(document.querySelector('[data-pull="1"]').getAttribute("aria-valuenow")) > 6`)
	// What was pulled last is saved once nothing has changed for half a second
	// of frames.
	pulled := eval[string](v, `new Promise((done) => {
	  let last = "", still = 0;
	  const look = () => {
	    const now = `+typed+`;
	    still = now === last && `+saved+` ? still + 1 : 0;
	    last = now;
	    if (still > 30) done(now); else requestAnimationFrame(look);
	  };
	  look();
	})`)
	v.goTo("/piece/1/tie")
	v.until("a reload keeps it", typed+fmt.Sprintf(" === %q", pulled))
	for range 40 {
		if eval[bool](v, typed+`.startsWith("mount A B, square-knot 9, finish")`) {
			break
		}
		now := eval[string](v, typed)
		v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
		v.key("z", chromedp.ModifierCtrl)
		v.until("undo goes back a step", typed+fmt.Sprintf(" !== %q", now))
	}
	v.until("undo brings the first one back", long+` === "114 mm"`)
}

func TestOtherKeysOfTheBench(t *testing.T) {
	v := open(t, demoAt(t), "/piece/6/tie")
	v.until("the piece is planned", long)
	sel := `[...document.querySelectorAll("[data-row]")].findIndex((r) => r.className.includes("border-l-secondary"))`
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.until("section 2 is chosen", sel+" === 1")
	v.key("j")
	v.until("J goes on", sel+" === 2")
	v.key("k")
	v.until("K goes back", sel+" === 1")
	v.key(kb.ArrowDown, chromedp.ModifierAlt)
	v.until("Alt+down moves the section", typed+`.startsWith("mount A B, gap 9mm, square-knot 3") && `+sel+" === 2")
	v.key(kb.Delete)
	v.until("Delete takes it out", typed+`.startsWith("mount A B, gap 9mm, square-knot 3, gap 9mm, square-knot 3, finish")`)
	v.key("a")
	v.until("A opens the knots", `document.querySelectorAll("dialog [data-knot]").length > 5 && document.activeElement.matches("dialog input")`)
	v.anew("cobra")
	v.until("found by another name", `document.querySelector("dialog [data-knot]")?.dataset.knot === "square-knot"`)
	v.key(kb.Enter)
	v.until("A adds one", `document.querySelectorAll("[data-row]").length === 7`)
	v.key("u")
	v.until("U shows inches", long+`.endsWith(" in")`)
	v.key("f")
	v.until("F turns it over", `document.querySelector('fieldset button[aria-pressed="true"]').textContent === "back"`)
	v.key("]")
	v.until("] goes to the next stage", `location.pathname.endsWith("/finish")`)
	v.key("/")
	v.until("/ goes to the typed line", `document.activeElement.id === "typed-line"`)
	v.key("gap 3parsecs")
	v.key(kb.Enter)
	v.until("a slip is said at its place", `document.getElementById("typed-line-hint").textContent.includes("At “")`)
	v.key(kb.Escape)
	v.key("?")
	v.until("? shows the keys", `document.querySelector("dialog")?.textContent.includes("turn the piece over")`)
	v.key(kb.Escape)
	v.until("Escape closes them", `!document.querySelector("dialog")`)
	v.key("k", chromedp.ModifierCtrl)
	v.until("Ctrl+K finds", `document.querySelector("dialog input")`)
	v.key("loft")
	v.until("it is found", `document.querySelector("dialog").textContent.includes("Loft blind stopper")`)
	v.key(kb.Enter)
	v.until("the found piece opens", `location.pathname === "/piece/7/tie"`)
}

func TestHoverLightsASectionEverywhere(t *testing.T) {
	v := open(t, demoAt(t), "/piece/4/tie")
	v.until("it is drawn from both sides", `document.querySelectorAll('[data-testid="hang"] rect[data-section]').length === 4 && [...document.querySelectorAll('[data-testid="hang"] text')].some((e) => e.textContent === "back")`)
	at := eval[[]float64](v, `(() => { const r = document.querySelector('[data-testid="hang"] rect[data-section="2"]').getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2] })()`)
	v.do(chromedp.MouseEvent("mouseMoved", at[0], at[1]))
	v.until("the row is lit", `document.querySelector('[data-row="2"]').dataset.lit === "true"`)
	v.until("the strips are lit", `document.querySelector('[data-strip="C"] [data-section="2"] rect[stroke="var(--moving)"]')`)
	v.until("the rest of the hang is dimmed", `document.querySelector('[data-testid="hang"] g[opacity="0.62"]')`)
}

func TestTheWarningHasAWayOut(t *testing.T) {
	v := open(t, demoAt(t), "/piece/5/cut")
	v.until("the warning names place and amount", `/filler leg of cord B .* runs out .* mm before the last knot, at knot \d+ of 21/.test(document.querySelector('[data-testid="warnings"]')?.textContent)`)
	v.click("Let the plan find the fold")
	v.until("the warning is gone", `!document.querySelector('[data-testid="warnings"]') && `+saved)
}

// The vise keeps its place across a restart of the server.
func TestTheViseKeepsItsPlace(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/2/vise")
	done := func(n int) string {
		return fmt.Sprintf(`document.querySelector('[data-testid="vise"]')?.dataset.done === "%d" && document.body.innerText.includes("place saved")`, n)
	}
	v.until("it opens where it was left", done(13))
	v.until("the strand that moves is outlined", `document.querySelector("path.lay-moving")`)
	v.key(" ")
	v.until("space goes on", done(14))
	v.key(kb.PageDown)
	v.until("a pedal goes on", done(15))
	v.key(kb.Backspace)
	v.until("backspace goes back", done(14))
	v.click("Done, next")
	v.until("the button goes on", done(15))
	if n := eval[int](v, `fetch("/api/pieces/2").then((r) => r.json()).then((b) => b.done)`); n != 15 {
		t.Errorf("the server keeps place %d", n)
	}
	host, port, err := net.SplitHostPort(p.addr)
	if err != nil {
		t.Fatal(err)
	}
	p.stop()
	again := start(t, "serve", p.dir, net.JoinHostPort(host, port))
	v.p = again
	v.goTo("/piece/2/vise")
	v.until("after a restart it is where it was", done(15))
	v.until("the counter says which knot", `document.querySelector('[data-testid="counter"]').textContent.includes("of 7")`)
}

func TestAConflictShowsBothVersions(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	// Another window saves first.
	v.do(chromedp.Evaluate[chromedp.Void](`(async () => {
	  const b = await (await fetch("/api/pieces/1")).json();
	  b.document.name = "Changed elsewhere";
	  await fetch("/api/pieces/1", { method: "PUT", body: JSON.stringify({ revision: b.revision, document: b.document }) });
	})()`, chromedp.EvalAwaitPromise))
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("+")
	v.until("both versions are offered", `document.querySelector("dialog")?.textContent.includes("Changed elsewhere") && document.querySelector("dialog").textContent.includes("Slipway locker 14")`)
	v.click("Take mine")
	v.until("mine stands", typed+`.includes("square-knot 10") && `+saved)
	if name := eval[string](v, `fetch("/api/pieces/1").then((r) => r.json()).then((b) => b.document.name)`); name != "Slipway locker 14" {
		t.Errorf("the piece is now %q", name)
	}
}

// With the server away a change is shown, kept and sent when it is back.
func TestWhatCannotBeSentIsKept(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	p.stop()
	v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
	v.key("+")
	v.until("it says that it is not saved", `document.querySelector('[data-testid="save-sign"]').dataset.state === "unsaved"`)
	v.until("it says why", `document.querySelector('[data-testid="save-sign"]').textContent.includes("out of reach")`)
	v.until("the change shows", `document.querySelector('[data-row="1"] input')?.value === "10"`)
	v.p = start(t, "serve", p.dir, p.addr)
	v.until("it is sent when the server is back", saved+` && `+typed+`.includes("square-knot 10")`)
}

// The cut sheet is one page, and the table card one of its own behind it, of a plain piece
// as of one with balls, beads and rows. For several of the same there is one page more.
func TestTheCutSheetPrintsWhole(t *testing.T) {
	p := demoAt(t)
	for _, n := range []int{4, 10, 19} {
		sheetPrints(t, p, n, 2)
	}
	v := open(t, p, "/piece/1/sheet")
	v.until("every cord is named by make and colour", text("what-A")+`?.includes("dark teal") && `+text("what-A")+`.includes("kernmantle nylon 4 mm")`)
	v.until("every section with what matters", text("sequence")+`.includes("hitch: larks head") && `+text("sequence")+`.includes("how: singe and press")`)
	v.until("its cut and fold are drawn", `document.querySelectorAll('[aria-label="How each cord is cut"] svg').length === 2`)
	v.until("and the day", `Math.abs(Date.now() - Date.parse(`+text("date")+`)) < 2 * 86400e3`)
	v.field("How many alike", "24")
	v.until("all that is cut is added up", text("batch")+`?.includes("24 of Slipway locker 14")`)
	sheetPrints(t, p, 1, 3)
}

func sheetPrints(t *testing.T, p *program, n, want int) {
	v := open(t, p, fmt.Sprintf("/piece/%d/sheet", n))
	v.until("the sheet is there", `document.querySelector("table") && document.querySelector("svg[role=img] path") && document.querySelector('[data-testid="card"]')`)
	for name, paper := range map[string]chromedp.PaperSize{"A4": chromedp.PaperA4, "Letter": chromedp.PaperLetter} {
		pdf, err := chromedp.Run(v.ctx, chromedp.PrintToPDF(chromedp.PDFPaper(paper), chromedp.PDFPrintBackground()))
		if err != nil {
			t.Fatal(err)
		}
		if pages := strings.Count(string(pdf), "/Type /Page\n") + strings.Count(string(pdf), "/Type /Page "); len(pdf) < 10_000 || pages != want {
			t.Errorf("piece %d, %s: %d bytes, %d pages", n, name, len(pdf), pages)
		}
		// At the paper's printable width nothing runs over its edge.
		width := int64((paper.Width - 2*14/25.4) * 96)
		v.do(chromedp.EmulateViewport(width, 1000), chromedp.Evaluate[chromedp.Void](`void 0`))
		if over := eval[[]string](v, `[...document.querySelectorAll("main *")].filter((e) => e.scrollWidth > e.clientWidth + 1 && e.clientWidth > 0 || e.getBoundingClientRect().right > innerWidth + 1).map((e) => e.tagName + " " + e.textContent.slice(0, 40))`); len(over) > 0 {
			t.Errorf("piece %d, %s: cut off: %v", n, name, over)
		}
	}
}

// No view scrolls sideways, and what is touched is large enough to touch.
func TestNarrowScreens(t *testing.T) {
	p := demoAt(t)
	for _, w := range []int64{390, 820} {
		v := open(t, p, "/bin")
		theme := map[int64]string{390: "night", 820: "day"}[w]
		v.do(chromedp.EmulateViewport(w, 844), chromedp.Evaluate[chromedp.Void](`fetch("/api/settings", {method: "PATCH", body: JSON.stringify({theme: "`+theme+`"})}).then(() => {})`, chromedp.EvalAwaitPromise))
		for _, path := range []string{"/", "/piece/1/tie", "/piece/4/stuff", "/piece/5/cut", "/piece/1/finish", "/piece/1/check", "/piece/7/log", "/piece/6/purpose", "/piece/2/vise", "/piece/12/tie", "/balls", "/bin", "/new"} {
			v.goTo(path)
			v.until(path+" is drawn", `document.querySelector("h1") && !document.querySelector("[data-wait]") && (location.pathname === "/bin" || document.querySelector("path.lay-ink"))`)
			if over := eval[int](v, `document.documentElement.scrollWidth - innerWidth`); over > 0 {
				t.Errorf("%s at %d px runs %d px over the side", path, w, over)
			}
			small := eval[[]string](v, `[...document.querySelectorAll("button, a, input, select, [role=slider]")].filter((e) => { const r = (e.matches(".sr-only[type=file]") ? e.closest("label") : e).getBoundingClientRect(); return r.width > 0 && (r.width < 23.5 || r.height < 23.5) }).map((e) => e.outerHTML.slice(0, 90))`)
			if len(small) > 0 {
				t.Errorf("%s at %d px: too small to touch: %v", path, w, small)
			}
			for _, f := range v.spills() {
				t.Errorf("%s at %d px: cut off: %s", path, w, f)
			}
			// What follows the scrolling of the page is no movement.
			v.until("it has come to rest", `document.getAnimations().every((a) => a.timeline !== document.timeline || a.playState !== "running")`)
			for _, f := range v.axe() {
				t.Errorf("%s at %d px, %s: %s", path, w, theme, f)
			}
		}
	}
}

// Zoomed to 200 and to 400 percent, which makes 1280 by 800 a window of 640 by
// 400 and of 320 by 200, whatever can be pressed or filled in is still reached.
func TestZoomedFar(t *testing.T) {
	p := demoAt(t)
	for _, size := range [][2]int64{{640, 400}, {320, 200}} {
		v := open(t, p, "/bin")
		v.do(chromedp.EmulateViewport(size[0], size[1]))
		for _, path := range []string{"/", "/piece/1/tie", "/piece/4/stuff", "/piece/5/cut", "/piece/1/finish", "/piece/1/check", "/piece/7/log", "/piece/6/purpose", "/piece/2/vise", "/balls", "/bin", "/new"} {
			v.goTo(path)
			v.until(path+" is drawn", `document.querySelector("h1") && !document.querySelector("[data-wait]") && (location.pathname === "/bin" || document.querySelector("path.lay-ink"))`)
			if over := eval[int](v, `document.documentElement.scrollWidth - innerWidth`); over > 0 {
				t.Errorf("%s at %d px runs %d px over the side", path, size[0], over)
			}
			lost := eval[[]string](v, `[...document.querySelectorAll("button, a, input, select")].filter((e) => {
				if (!e.checkVisibility({visibilityProperty: true}) || e.closest(".sr-only") || e.classList.contains("sr-only") || e.disabled) return false;
				e.scrollIntoView({block: "center", inline: "center", behavior: "instant"});
				const r = e.getBoundingClientRect();
				const hit = document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2);
				return !hit || !(e.contains(hit) || hit.contains(e) && hit.closest("label"));
			}).map((e) => e.outerHTML.slice(0, 110))`)
			if len(lost) > 0 {
				t.Errorf("%s at %d by %d: out of reach: %v", path, size[0], size[1], lost)
			}
			for _, f := range v.spills() {
				t.Errorf("%s at %d by %d: cut off: %s", path, size[0], size[1], f)
			}
			if size[0] == 640 {
				for _, f := range v.axe() {
					t.Errorf("%s at 200 percent: %s", path, f)
				}
			}
		}
	}
}

// The figures that matter need no scrolling at 1280 by 800.
func TestMainFiguresNeedNoScrolling(t *testing.T) {
	v := open(t, demoAt(t), "/piece/5/tie")
	v.until("it is planned", long)
	for _, what := range []string{`[data-testid="figures"]`, `[data-testid="warnings"]`, `[data-testid="hang"]`, `[data-strip="A"]`, `[data-strip="B"]`, `[data-testid="typed-line"]`} {
		if !eval[bool](v, fmt.Sprintf(`(() => { const r = document.querySelector(%q).getBoundingClientRect(); return r.top >= 0 && r.bottom <= innerHeight && r.left >= 0 && r.right <= innerWidth })()`, what)) {
			t.Errorf("%s is not wholly in sight", what)
		}
	}
}

// axe is what axe-core complains of on the page as it is, by all of its rules or by those named.
func (v page) axe(rules ...string) []string {
	v.t.Helper()
	script, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	if err != nil {
		v.t.Fatal(err)
	}
	v.do(chromedp.Evaluate[chromedp.Void](string(script) + "\n;void 0"))
	only := ""
	if len(rules) > 0 {
		only = fmt.Sprintf(`, runOnly: {type: "rule", values: "%s".split(" ")}`, strings.Join(rules, " "))
	}
	return eval[[]string](v, `axe.run({resultTypes: ["violations"]`+only+`}).then((r) => r.violations.map((x) => x.id + ": " + x.nodes.slice(0, 3).map((n) => n.html.slice(0, 140) + " " + (n.any[0]?.message ?? "")).join(" | ")))`)
}

// spills are the texts that run over the box they stand in or are cut off by one: a button,
// a field, a drawing, or anything that hides what runs over.
func (v page) spills() []string {
	v.t.Helper()
	return eval[[]string](v, `(() => {
		const out = [], walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
		const range = document.createRange();
		for (const e of document.querySelectorAll("input:not([type]), input[type=text]"))
			if (e.checkVisibility() && e.clientWidth > 1 && e.scrollWidth > e.clientWidth + 1) out.push("field: " + e.value + " by " + (e.scrollWidth - e.clientWidth));
		for (let n; (n = walk.nextNode()); ) {
			const e = n.parentElement;
			if (!n.data.trim() || e.closest(".sr-only, script, style, title, option, defs, [aria-hidden=true] .kbd") || !e.checkVisibility({visibilityProperty: true})) continue;
			range.selectNodeContents(n);
			const r = range.getBoundingClientRect();
			// What is for the ear alone stands in a box of one pixel.
			if (r.width === 0 || e.clientWidth === 1) continue;
			for (let b = e; b && b !== document.body; b = b.parentElement) {
				const s = getComputedStyle(b), q = b.getBoundingClientRect();
				const scrolls = /auto|scroll/.test(s.overflowX + s.overflowY);
				const framed = b.matches("button, .btn, .badge, .alert, select, td, th");
				const clips = /hidden|clip/.test(s.overflowX) || b.tagName === "svg";
				// What ends in dots is told whole by its title.
				if (s.textOverflow === "ellipsis" && (b.title || b.closest("a, button, [title]"))) break;
				if ((framed || clips) && (r.left < q.left - 1.5 || r.right > q.right + 1.5)) {
					out.push(b.tagName.toLowerCase() + "." + String(b.className.baseVal ?? b.className).slice(0, 30) + ": " + n.data.trim().slice(0, 50) + " by " + Math.round(Math.max(q.left - r.left, r.right - q.right)));
					break;
				}
				if (scrolls || s.position === "fixed") break;
			}
		}
		return out;
	})()`)
}

// byNight are the rules that a page is looked at by: all by day, and those of its colours by
// night, where nothing else is another.
func byNight(theme string) []string {
	if theme == "night" {
		return []string{"color-contrast", "link-in-text-block"}
	}
	return nil
}

// axe-core finds nothing to complain of in any view, by day and by night.
func TestAccessibility(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/")
	for _, theme := range []string{"day", "night"} {
		for _, view := range []struct{ path, click string }{
			{"/", ""}, {"/new", ""}, {"/guide", ""}, {"/", "Settings"}, {"/bin", ""}, {"/balls", ""},
			{"/piece/6/purpose", ""}, {"/piece/4/stuff", ""}, {"/piece/4/stuff", "Take a cord from the drawer"}, {"/piece/21/colour", "Colours: those of the piece"}, {"/piece/21/colours", ""}, {"/trainer", ""}, {"/trainer/overhand", ""}, {"/piece/1/check", ""}, {"/piece/1/cut", "Table card"}, {"/piece/1/purpose", "Hardware from the drawer"}, {"/piece/5/cut", ""},
			{"/piece/1/stuff", "Swatches of A: 2"}, {"/piece/1/stuff", "Another cord for A"}, {"/piece/1/cut", "From cord in hand"}, {"/piece/1/cut", "Running short"},
			{"/piece/1/tie", ""}, {"/piece/1/tie", "both"}, {"/piece/1/tie", "Keys"}, {"/piece/1/tie", "Add a section"}, {"/piece/1/tie", "turned"}, {"/piece/1/tie", "lens"}, {"/piece/10/tie", ""}, {"/piece/9/tie", ""}, {"/piece/3/finish", ""}, {"/piece/7/log", ""},
			{"/piece/2/vise", ""}, {"/piece/4/sheet", ""}, {"/piece/999/tie", ""},
		} {
			v.do(chromedp.Evaluate[chromedp.Void](`fetch("/api/settings", {method: "PATCH", body: JSON.stringify({theme: "`+theme+`"})}).then(() => {})`, chromedp.EvalAwaitPromise))
			v.goTo(view.path)
			v.until(view.path+" is there", fmt.Sprintf(`document.documentElement.dataset.theme === %q && document.querySelector("h1") && !document.querySelector("[data-wait]") && document.getAnimations().length === 0`, theme))
			if view.click != "" {
				v.click(view.click)
				v.until("it has come to rest", `document.getAnimations().length === 0`)
			}
			for _, f := range v.axe(byNight(theme)...) {
				t.Errorf("%s %s %s: %s", theme, view.path, view.click, f)
			}
			if theme == "day" { // the words are the same by night
				for _, f := range v.spills() {
					t.Errorf("%s %s: cut off: %s", view.path, view.click, f)
				}
			}
		}
	}
}

// The page loads nothing from elsewhere and the policy is broken nowhere.
func TestNothingComesFromElsewhere(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is drawn", `document.querySelector("path.lay-ink")`)
	for _, from := range eval[[]string](v, `performance.getEntriesByType("resource").map((e) => e.name)`) {
		if !strings.HasPrefix(from, "http://"+v.p.addr+"/") {
			t.Errorf("loaded from elsewhere: %s", from)
		}
	}
	if n := eval[int](v, `document.querySelectorAll("script:not([src]), style").length`); n != 0 {
		t.Errorf("%d scripts or styles stand in the page itself", n)
	}
	if !eval[bool](v, `document.fonts.check("16px 'Atkinson Hyperlegible Next Variable'")`) {
		t.Error("the shipped typeface is not in use")
	}
}

func TestCommandLine(t *testing.T) {
	bight := func(in string, args ...string) (out, errs string, code int) {
		cmd := exec.Command(binary, args...)
		cmd.Stdin = strings.NewReader(in)
		var o, e strings.Builder
		cmd.Stdout, cmd.Stderr = &o, &e
		err := cmd.Run()
		var exit *exec.ExitError
		if errors.As(err, &exit) {
			code = exit.ExitCode()
		} else if err != nil {
			t.Fatal(err)
		}
		return o.String(), e.String(), code
	}
	fob := `{"format":"nimble-bight.piece","version":1,"name":"Fob",
 "purpose":{"kind":"key-fob","hangs_on":{"type":"split-ring","inner_mm":30,"wire_mm":2}},
 "cords":[{"id":"A","stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#0f5c63"}},
          {"id":"B","stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#e3c88f"}}],
 "sequence":[{"do":"mount","cords":["A","B"]},{"do":"square-knot","count":5},{"do":"finish","how":"dome"}]}`
	for _, c := range []struct {
		in   string
		args []string
		code int
		out  string // in standard output
		errs string // in standard error
	}{
		{"", []string{"--help"}, 0, "bight plan fob.json", ""},
		{"", []string{"plan", "--help"}, 0, "for example", ""},
		{"", []string{"knots", "--help"}, 0, "for example", ""},
		{"", []string{"serve", "--help"}, 0, "for example", ""},
		{"", []string{"demo", "--help"}, 0, "for example", ""},
		{"", []string{"knots", "--json"}, 0, `"other_names"`, ""},
		{fob, []string{"plan", "-", "--json"}, 0, `"cut_mm"`, ""},
		{fob, []string{"plan", "--csv", "-"}, 0, "cord,needs_mm,cut_mm", ""},
		{fob, []string{"plan", "-"}, 0, "Strand 1, from the left", ""},
		{fob, []string{"plan", "-"}, 0, "on the table\n  1. Measure ", ""},
		{strings.Replace(fob, "square-knot", "sqare-knot", 1), []string{"plan", "-"}, 2, "", "line 5, column"},
		{strings.Replace(fob, "square-knot", "sqare-knot", 1), []string{"plan", "-"}, 2, "", "did you mean square-knot?"},
		{`{"format": `, []string{"plan", "-"}, 2, "", "line 1, column"},
		{"", []string{"plan"}, 2, "", "needs a piece file"},
		{"", []string{"plan", "/no/such/file.json"}, 2, "", "no such file"},
		{fob, []string{"plan", "-", "--json", "--csv"}, 2, "", "choose one"},
		{"", []string{"plan", "--yaml", "-"}, 2, "", "--help"},
		{"", []string{"braid"}, 2, "", "no command"},
		{"", []string{"serve", "--addr", "0.0.0.0:7420"}, 2, "", "passcode"},
	} {
		out, errs, code := bight(c.in, c.args...)
		if code != c.code || !strings.Contains(out, c.out) || !strings.Contains(errs, c.errs) {
			t.Errorf("bight %v: exit %d, said %.200q and %.200q", c.args, code, out, errs)
		}
		if c.errs != "" && strings.Count(strings.TrimSpace(errs), "\n") > 0 {
			t.Errorf("bight %v: more than one line of error: %q", c.args, errs)
		}
	}
}
