package e2e

import (
	"context"
	"database/sql"
	"encoding/base64"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"nimblebight/store"

	_ "github.com/glebarez/go-sqlite"
)

func unbase64(t *testing.T, s string) []byte {
	t.Helper()
	b, err := base64.StdEncoding.DecodeString(s)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func (v page) leave() { v.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`)) }

// A typed line by a left-handed maker is refused by its own places; the rack
// stays whole and the piece can be undone there.
func TestALeftHandedSlipTakesNothingWithIt(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.do(chromedp.Evaluate[chromedp.Void](`fetch("/api/settings", {method: "PATCH", body: '{"hand":"left"}'})`, chromedp.EvalAwaitPromise))
	v.goTo("/piece/1/tie")
	v.until("it is open", long+` === "114 mm" && document.querySelectorAll('[data-testid="hang"] path.lay-body').length > 0`)
	v.typeLine("mount A B, square-knot 9 strands=2-5, finish singe-and-press")
	v.until("it is said by its own place", `document.querySelector('[data-testid="refused"]')?.textContent.includes("names place 5, but only 4 strands hang there")`)
	v.until("and marked in its row", `document.querySelector('[data-row="1"] [data-testid="wrong"]')`)
	if !eval[bool](v, `document.querySelectorAll('[data-testid="hang"] path.lay-body').length > 0 && document.querySelectorAll("[data-strip]").length === 2 && `+typed+`.includes("strands=2-5")`) {
		t.Error("the last good picture, the cords or the line are gone")
	}
	v.goTo("/")
	v.until("the rack is whole", `document.querySelectorAll("[data-piece]").length > 8`)
	v.until("with the reason in its place", `document.querySelector('[data-piece="1"] [data-testid="trouble"]')?.textContent.includes("place 5")`)
	v.click("Undo the last change of Slipway locker 14")
	v.until("and undone there", `!document.querySelector('[data-piece="1"] [data-testid="trouble"]') && document.querySelector('[data-piece="1"]')?.textContent.includes("114 mm")`)
}

// While another program holds the database the page keeps every edit, says why,
// goes on by itself, and says "saved" only of what was acknowledged.
func TestALockedDatabaseLosesNothing(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	db, err := sql.Open("sqlite", filepath.Join(p.dir, store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	ctx := context.Background()
	conn, err := db.Conn(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := conn.ExecContext(ctx, "BEGIN IMMEDIATE"); err != nil {
		t.Fatal(err)
	}
	v.leave()
	for range 3 {
		v.key("+")
	}
	v.until("it says why it is not saved", `document.querySelector('[data-testid="save-sign"]').dataset.state === "unsaved" && document.querySelector('[data-testid="save-sign"]').textContent.includes("another program holds")`)
	v.until("the edits show", `document.querySelector('[data-row="1"] input')?.value === "12"`)
	if _, err := conn.ExecContext(ctx, "ROLLBACK"); err != nil {
		t.Fatal(err)
	}
	v.until("it goes on by itself", saved+` && `+typed+`.includes("square-knot 12")`)
	if n := eval[int](v, `fetch("/api/pieces/1/revisions").then((r) => r.json()).then((rs) => rs.length)`); n != 4 {
		t.Errorf("three edits made %d revisions", n)
	}
}

// Fifty fast presses are fifty.
func TestFiftyPressesAreFifty(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	v.leave()
	v.key(strings.Repeat("+", 50))
	v.until("fifty knots more", saved+` && `+typed+`.includes("square-knot 59,")`)
	v.do(chromedp.Evaluate[chromedp.Void](`{const b = document.querySelector('button[aria-label="A knot less in section 2"]'); for (let i = 0; i < 20; i++) b.click();}`))
	v.until("twenty presses of the button", saved+` && `+typed+`.includes("square-knot 39,")`)
}

// Escape decides nothing in a conflict, edits go on in mine, and what loses can
// be gone back to.
func TestAConflictLosesNothing(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	v.do(chromedp.Evaluate[chromedp.Void](`(async () => {
	  const b = await (await fetch("/api/pieces/1")).json();
	  b.document.name = "Changed elsewhere";
	  await fetch("/api/pieces/1", { method: "PUT", body: JSON.stringify({ revision: b.revision, document: b.document }) });
	})()`, chromedp.EvalAwaitPromise))
	v.leave()
	v.key("+")
	v.until("both versions are offered", `document.querySelector("dialog")?.textContent.includes("Changed elsewhere")`)
	v.key(kb.Escape)
	v.until("Escape closes it and decides nothing", `!document.querySelector("dialog") && document.querySelector('[data-testid="save-sign"]').dataset.state === "conflict"`)
	v.leave()
	v.key("+")
	v.until("edits go on in mine", `document.querySelector('[data-row="1"] input')?.value === "11"`)
	v.click("Choose")
	v.until("mine holds all of them", `document.querySelector("dialog")?.textContent.includes("square knot 11")`)
	v.click("Take theirs")
	v.until("theirs stands", `document.querySelector("h1")?.textContent === "Changed elsewhere" && `+saved)
	v.until("and it says where mine is", `document.querySelector('[data-testid="note"]')?.textContent.includes("history")`)
	v.click("History")
	v.until("mine is in the history", `[...document.querySelectorAll('[data-testid="history"] input')].some((i) => i.value.startsWith("mine, set aside"))`)
	v.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('[data-testid="history"] button')].find((b) => b.textContent === "Restore this one").click()`))
	v.until("and comes back", typed+`.includes("square-knot 11") && `+saved)
}

// Undo waits for a save under way and is not swallowed.
func TestUndoIsNotSwallowed(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	v.leave()
	v.key("+++")
	v.key("z", chromedp.ModifierCtrl)
	v.key("z", chromedp.ModifierCtrl)
	v.until("two of three are undone", saved+` && `+typed+`.includes("square-knot 10,")`)
	v.key("z", chromedp.ModifierCtrl|chromedp.ModifierShift)
	v.until("one is redone", saved+` && `+typed+`.includes("square-knot 11,")`)
}

// Undo of what could not be sent yet shows at once, what is made on it counts,
// and all of it outlives the page.
func TestUndoIsThereWithoutTheServer(t *testing.T) {
	p := demoAt(t)
	v := open(t, p, "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	knots := func(n int) string {
		return fmt.Sprintf(`document.querySelector('[data-row="1"] input')?.value === "%d"`, n)
	}
	p.stop()
	v.leave()
	v.key("++")
	v.until("two more show", knots(11))
	v.key("z", chromedp.ModifierCtrl)
	v.until("one is undone", knots(10))
	v.key("z", chromedp.ModifierCtrl|chromedp.ModifierShift)
	v.until("and redone", knots(11))
	v.key("z", chromedp.ModifierCtrl)
	v.key("++")
	v.until("two are made on what is left", knots(12))
	v.p = start(t, "serve", p.dir, p.addr)
	v.goTo("/piece/1/tie")
	v.until("the new page sends it", typed+`?.includes("square-knot 12") && `+saved)
	v.leave()
	v.key("z", chromedp.ModifierCtrl)
	v.until("and undoes it", knots(11)+` && `+saved)
}

// The command writes lengths as the page does: each quantity by one rounding.
func TestTheCommandSaysWhatThePageSays(t *testing.T) {
	v := open(t, demoAt(t), "/")
	// The command knows the document alone, so what was measured is deleted.
	v.do(chromedp.Evaluate[chromedp.Void](`(async () => {
	  for (const s of await (await fetch("/api/swatches")).json()) await fetch("/api/swatches/" + s.id, {method: "DELETE"});
	  for (const e of await (await fetch("/api/pieces/7/log")).json()) await fetch("/api/pieces/7/log/" + e.id, {method: "DELETE"});
	})()`, chromedp.EvalAwaitPromise))
	for _, units := range []string{"mm", "inch"} {
		v.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`fetch("/api/settings", {method: "PATCH", body: '{"units":%q}'})`, units), chromedp.EvalAwaitPromise))
		for _, piece := range []int{1, 4, 5} {
			v.goTo(fmt.Sprintf("/piece/%d/sheet", piece))
			v.until("the sheet is there", `document.querySelector('[data-testid="fold-A"]') && !document.querySelector("[data-wait]")`)
			rows := eval[[][]string](v, `[...document.querySelectorAll("tr:has([data-testid^=fold])")].map((r) => [r.querySelector("th").textContent.trim(), ...[...r.querySelectorAll("td")].slice(1).map((d) => d.textContent.trim())])`)
			cmd := exec.Command(binary, "plan", "--text", "-")
			if units == "inch" {
				cmd.Args = append(cmd.Args, "--inch")
			}
			cmd.Stdin = strings.NewReader(eval[string](v, fmt.Sprintf(`fetch("/api/pieces/%d/file").then((r) => r.text())`, piece)))
			out, err := cmd.Output()
			if err != nil {
				t.Fatal(err)
			}
			text := regexp.MustCompile(` {2,}`).ReplaceAllString(string(out), "|")
			for _, r := range rows {
				cut, fold, left := r[1], r[2], r[3]
				at, side, folded := strings.Cut(fold, ", ")
				fold = "none"
				if folded {
					fold = at + " from the end of the " + side + " leg"
				}
				line := regexp.MustCompile(`(?m)^\|` + r[0] + `\|.*$`).FindString(text)
				if parts := strings.Split(line, "|"); len(parts) < 7 || parts[3] != cut || parts[4] != left || parts[6] != fold {
					t.Errorf("piece %d in %s: the sheet says cut %s, fold %s, left %s; the command %q", piece, units, cut, fold, left, line)
				}
			}
			if len(rows) == 0 {
				t.Errorf("piece %d: the sheet names no cord", piece)
			}
		}
	}
}

// Of two windows at the vise the further one holds, and both say so.
func TestTwoWindowsAtTheVise(t *testing.T) {
	v := open(t, demoAt(t), "/piece/2/vise")
	v.until("it is in the vise", `document.querySelector('[data-testid="vise"]')?.dataset.done === "13"`)
	step := func(from, done int) string {
		return fmt.Sprintf(`fetch("/api/pieces/2").then((r) => r.json()).then((b) => fetch("/api/pieces/2/place", {method: "PUT", body: JSON.stringify({from: %d, done: %d, revision: b.revision, device: "a tablet"})})).then((r) => r.json())`, from, done)
	}
	v.do(chromedp.Evaluate[chromedp.Void](step(13, 17), chromedp.EvalAwaitPromise))
	v.leave()
	v.key(" ")
	v.until("the window that is behind is told", `document.querySelector('[data-testid="vise"]').dataset.done === "17" && document.querySelector('[data-testid="place-note"]')?.textContent.includes("a tablet")`)
	v.key(" ")
	v.until("and goes on from there", `document.querySelector('[data-testid="vise"]').dataset.done === "18" && document.querySelector('[data-testid="place-sign"]').textContent === "place saved"`)
	// Space on a button in focus presses that button.
	v.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll("button")].find((b) => b.textContent === "Back").focus()`))
	v.key(" ")
	v.until("Space on Back goes back", `document.querySelector('[data-testid="vise"]').dataset.done === "17"`)
}

// Numbers that are words are refused where they stand, blank is unknown, and a
// left-over that was not measured is not zero.
func TestWordsAreNoNumbers(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	v.into("Knots in section 2")
	v.key("some")
	v.key(kb.Enter)
	v.until("it is said", `[...document.querySelectorAll('[role="alert"]')].some((e) => e.textContent.includes("“some” is no number"))`)
	if !eval[bool](v, typed+`.includes("square-knot 9,")`) {
		t.Error("the word became a count")
	}
	v.goTo("/piece/1/log")
	v.into("Minutes")
	v.key("a while")
	v.key(kb.Tab)
	v.until("minutes are a number", `[...document.querySelectorAll('[role="alert"]')].some((e) => e.textContent.includes("is no number"))`)
	v.into("Minutes")
	v.key(kb.Backspace)
	v.click("Save entry")
	v.until("an entry with nothing measured", `document.querySelector('ul[aria-label="Entries"]')?.textContent.includes("not measured")`)
	if eval[bool](v, `document.querySelector('ul[aria-label="Entries"]').textContent.includes("min") || document.querySelector('ul[aria-label="Entries"]').textContent.includes("left 0")`) {
		t.Error("what was not measured is shown as measured")
	}
}

// Enter on an empty line asks; a slip names what was meant and offers the cord.
func TestTheTypedLineAsks(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	v.do(chromedp.Evaluate[chromedp.Void](`{const e = document.getElementById("typed-line"); e.focus(); e.select();}`))
	v.key(kb.Backspace)
	v.key(kb.Enter)
	v.until("it asks", `document.querySelector('[data-testid="asking"]')?.textContent.includes("Delete all 3 sections?")`)
	v.click("Cancel")
	v.until("the line is back", typed+`.startsWith("mount A B, square-knot 9")`)
	v.do(chromedp.Evaluate[chromedp.Void](`{const e = document.getElementById("typed-line"); e.focus(); e.select();}`))
	v.key(" , ,")
	v.key(kb.Enter)
	v.until("commas alone are empty too", `document.querySelector('[data-testid="asking"]')`)
	v.click("Cancel")
	// What Escape gives up is not saved by leaving the field.
	v.do(chromedp.Evaluate[chromedp.Void](`{const e = document.getElementById("typed-line"); e.focus(); e.select();}`))
	v.key("mount A B, square-knot 4, finish dome")
	v.key(kb.Escape)
	v.until("the saved line is back", typed+`.startsWith("mount A B, square-knot 9")`)
	v.leave()
	v.key("+")
	v.until("and the next change is made on it", typed+`.startsWith("mount A B, square-knot 10") && `+saved)
	if n := stored[int](v, 1, `b.document.sequence[1].count`); n != 10 {
		t.Errorf("it has %d knots", n)
	}
	v.typeLine("mount A B, square-knot 4 gap 9mm")
	v.until("a comma is missing", `document.getElementById("typed-line-hint").textContent.includes("write a comma before it")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.getElementById("typed-line").focus()`))
	v.typeLine("mount A B, square-knot 4, gather Q turns=5, finish dome")
	v.until("the cord is not there, in words", `document.getElementById("typed-line-hint").textContent.includes("ection 3, gathering knot, cord names cord")`)
	v.click("Add cord Q, like cord B")
	v.until("the way out adds it", saved+` && document.querySelectorAll("[data-strip]").length === 3 && `+typed+`.includes("gather Q turns=5")`)
}

// A section that needs a cord of its own asks which; with the finish chosen what
// is added comes before it.
func TestAddingAsksForTheCord(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("it is open", long+` === "114 mm"`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-row="2"] button').click()`))
	v.click("Add a section")
	v.until("the knots are there", `document.querySelector('[data-knot="gather"]')`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-knot="gather"]').click()`))
	v.until("it asks which cord", `document.querySelectorAll('[data-testid="which-cord"] button').length > 3`)
	v.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('[data-testid="which-cord"] button')].find((b) => b.textContent.includes("Thin marsh")).click()`))
	v.until("it is put in before the finish", saved+` && /square-knot 9, gather C[^,]*, finish/.test(`+typed+`) && document.querySelectorAll("[data-strip]").length === 3`)
}

// hangs tells that a cord of a colour hangs there.
func hangs(colour string) string {
	return fmt.Sprintf(`[...document.querySelectorAll('[data-testid="hang"] path.lay-body')].some((p) => getComputedStyle(p).fill === %q)`, colour)
}

// A colour field follows the cord: what is taken from the drawer shows at once,
// what is picked shows in the picture, and leaving it changes nothing.
func TestColoursAreTheCords(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/stuff")
	v.until("the cords are there", `document.querySelectorAll('input[type="color"]').length === 2`)
	was := eval[string](v, `document.querySelector('input[type="color"]').value`)
	v.do(chromedp.Evaluate[chromedp.Void](`{const e = document.querySelector('input[type="color"]'); e.focus(); e.blur();}`))
	v.click("From the drawer")
	v.click("Take Night kernmantle")
	v.until("it shows at once", `document.querySelector('input[type="color"]').value === "#22313f"`)
	v.until("and in the picture", saved+` && `+hangs("rgb(34, 49, 63)"))
	v.do(chromedp.Evaluate[chromedp.Void](`{const e = document.querySelector('input[type="color"]'); const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set; set.call(e, "#aa3366"); e.dispatchEvent(new Event("input", {bubbles: true}));}`))
	v.until("what is picked shows without leaving", hangs("rgb(170, 51, 102)"))
	if was != "#0f5c63" || eval[string](v, `document.querySelector('input[type="color"]').value`) != "#aa3366" {
		t.Errorf("the field was %s", was)
	}
}

// With either hand leading, Cut, strips, sheet and vise say one fold, from one
// end.
func TestAFoldIsOneFigureEverywhere(t *testing.T) {
	p := demoAt(t)
	for _, hand := range []string{"right", "left"} {
		v := open(t, p, "/piece/1/cut")
		v.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`fetch("/api/settings", {method: "PATCH", body: '{"hand":%q}'})`, hand), chromedp.EvalAwaitPromise))
		v.goTo("/piece/1/cut")
		v.until("the cut is said", `document.querySelector('[data-testid="measure-A"]')?.textContent.includes(" mm: that is")`)
		said := eval[string](v, `document.querySelector('[data-testid="measure-A"]').textContent`)
		var fold float64
		var side string
		if _, err := fmt.Sscanf(said, "Lay the end of the %s leg at 0 of the tape measure and fold at %f mm", &side, &fold); err != nil {
			t.Fatalf("%q: %v", said, err)
		}
		if strip := eval[string](v, `document.querySelector('[data-strip="A"]').getAttribute("aria-label")`); !strings.Contains(strip, fmt.Sprintf("fold %g mm from the end of its %s leg", fold, side)) {
			t.Errorf("%s hand: Cut says %q, the strip %q", hand, said, strip)
		}
		v.goTo("/piece/1/sheet")
		v.until("the sheet is there", `document.querySelector('[data-testid="fold-A"]')`)
		if sheet := eval[string](v, `document.querySelector('[data-testid="fold-A"]').textContent.trim()`); sheet != fmt.Sprintf("%g mm, %s", fold, side) {
			t.Errorf("%s hand: Cut says %q, the sheet %q", hand, said, sheet)
		}
		v.goTo("/piece/1/vise")
		v.until("the vise is there", `document.querySelector('[data-testid="vise"]')`)
		// Both cords are cut, then the first of them is folded.
		at := fmt.Sprintf(`document.querySelector('[data-testid="vise"]')?.textContent.includes("the end of the %s leg at 0 of the tape measure and fold at %g mm")`, side, fold)
		for range 2 {
			if hand == "right" { // the place is kept for the other hand
				v.leave()
				v.key(" ")
			}
		}
		v.until("the vise says it", at)
	}
}

// Everything goes out into a file and comes into another folder, after it was
// said what that does; a piece is opened from a file.
func TestMovingToAnotherFolder(t *testing.T) {
	dir := t.TempDir()
	v := open(t, demoAt(t), "/")
	v.until("the rack is there", `document.querySelectorAll("[data-piece]").length > 8`)
	zip := eval[string](v, `fetch("/api/backup").then((r) => r.blob()).then((b) => new Promise((done) => { const f = new FileReader(); f.onload = () => done(f.result.split(",")[1]); f.readAsDataURL(b); }))`)
	file := filepath.Join(dir, "boathouse.zip")
	if err := os.WriteFile(file, unbase64(t, zip), 0o600); err != nil {
		t.Fatal(err)
	}
	piece := filepath.Join(dir, "fob.json")
	text := eval[string](v, `fetch("/api/pieces/1/file").then((r) => r.text())`)
	if err := os.WriteFile(piece, []byte(text), 0o600); err != nil {
		t.Fatal(err)
	}
	v = open(t, start(t, "serve", t.TempDir(), "127.0.0.1:0"), "/")
	v.until("the rail is empty", `document.body.textContent.includes("The rail is empty")`)
	v.click("Settings")
	v.until("there is a place for the file", `document.querySelector('[data-testid="restore-file"]')`)
	v.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-testid="restore-file"]`), []string{file}))
	v.until("it says what it will do", `document.querySelector('[data-testid="restore-says"]')?.textContent.includes("new pieces: ")`)
	if n := eval[int](v, `fetch("/api/pieces").then((r) => r.json()).then((t) => t.length)`); n != 0 {
		t.Errorf("%d pieces came in before it was agreed", n)
	}
	v.click("Merge it")
	v.until("it is done", `document.querySelector('[data-testid="restore-did"]')`)
	v.click("Close")
	v.until("all hang there", `document.querySelectorAll("[data-piece]").length > 8`)
	v.click("Hang a new piece")
	v.until("a file can be opened", `document.querySelector('main input[type="file"]')`)
	v.do(chromedp.SetUploadFiles(chromedp.CSS(`main input[type="file"]`), []string{piece}))
	v.until("it hangs on the bench", `location.pathname.endsWith("/tie") && document.querySelector("h1")?.textContent === "Slipway locker 14"`)
}

// At large zooms and on a phone nothing is out of reach.
func TestTheViseAtEverySize(t *testing.T) {
	v := open(t, demoAt(t), "/piece/2/vise")
	for _, size := range [][2]int{{1280, 800}, {640, 400}, {320, 200}, {390, 844}, {844, 390}} {
		v.do(chromedp.EmulateViewport(int64(size[0]), int64(size[1])))
		v.until("it is there", `document.querySelector('[data-testid="vise"]')`)
		next := `(() => { const r = [...document.querySelectorAll("button")].find((b) => b.textContent === "Done, next").getBoundingClientRect(); return r.top >= 0 && r.bottom <= innerHeight + 1 && r.left >= 0 && r.right <= innerWidth + 1; })()`
		v.until(fmt.Sprintf("Done, next is in reach at %v", size), next)
		if wide := eval[int](v, `document.documentElement.scrollWidth`); wide > size[0] {
			t.Errorf("at %v the page is %d wide", size, wide)
		}
		// Everything that is said can be scrolled to above the keys.
		v.until("the words can be read", `(() => { const p = [...document.querySelectorAll("p")].find((e) => e.textContent.startsWith("Space or")); p.scrollIntoView({block: "center"}); const r = p.getBoundingClientRect(), k = document.querySelector(".vise-keys").getBoundingClientRect(); return r.bottom <= k.top + 1 || r.top >= k.bottom; })()`)
	}
	v.do(chromedp.EmulateViewport(1280, 800))
}

// Search finds in names, cords, knots and notes, by word, and not in stages.
func TestFindingPieces(t *testing.T) {
	v := open(t, demoAt(t), "/")
	v.until("the rack is there", `document.querySelectorAll("[data-piece]").length > 8`)
	look := func(words string) int {
		v.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`{const e = document.querySelector('input[type="search"]'); const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set; set.call(e, %q); e.dispatchEvent(new Event("input", {bubbles: true}));}`, words)))
		return eval[int](v, `new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(document.querySelectorAll("[data-piece]").length))))`)
	}
	all := look("")
	for words, want := range map[string]bool{"leather": true, "bobble": true, "slipway row": true, "blade path": true, "planned": false, "logged": false, "ipway": false} {
		if n := look(words); (n > 0) != want || n == all {
			t.Errorf("%q finds %d of %d", words, n, all)
		}
	}
}
