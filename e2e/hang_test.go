package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const mat = `document.querySelector('[data-testid="hang"] [data-zoom]')`

// center is the middle of what a script finds.
func (v page) center(js string) [2]float64 {
	return eval[[2]float64](v, `(() => {const r = `+js+`.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]})()`)
}

// wheel turns the wheel over a place.
func (v page) wheel(at [2]float64, by int) {
	v.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`document.elementFromPoint(%f, %f).dispatchEvent(new WheelEvent("wheel", {deltaY: %d, clientX: %f, clientY: %f, bubbles: true, cancelable: true}))`, at[0], at[1], by, at[0], at[1])))
}

// slide moves the slider of the move. It plays by itself: what it shows already is no
// change, so another place comes first.
func (v page) slide(n int) {
	v.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`for (const n of [%d, %d]) {
	  const e = document.querySelector('input[type="range"]');
	  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(e, String(n));
	  e.dispatchEvent(new Event("input", {bubbles: true}));
	}`, 25-n, n)))
}

// The whole piece is turned by keys and by dragging, and its face is the picture
// of before.
func TestAPieceTurnsByHand(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("the piece is drawn", `document.querySelectorAll('[data-testid="hang"] path.lay-body').length > 0`)
	v.leave()
	v.key("t")
	settled := mat + `?.dataset.settled === "true"`
	v.until("it is turned", settled)
	ink := `[...document.querySelectorAll('[data-testid="hang"] path.lay-ink')].map((p) => p.getAttribute("d")).join()`
	was, angle := eval[string](v, ink), eval[string](v, mat+`.dataset.turn`)
	v.do(chromedp.Evaluate[chromedp.Void](mat + `.focus()`))
	v.key(kb.ArrowRight)
	v.until("an arrow turns it", settled+fmt.Sprintf(` && %s.dataset.turn !== %q && %s !== %q`, mat, angle, ink, was))
	v.key(kb.ArrowLeft)
	v.until("and back", settled+fmt.Sprintf(` && %s.dataset.turn === %q && %s === %q`, mat, angle, ink, was))
	at := v.center(mat)
	v.do(chromedp.DragAndDropXY(at[0], at[1], at[0]+120, at[1], 6))
	v.until("a drag turns it", settled+fmt.Sprintf(` && %s.dataset.turn !== %q`, mat, angle))
	v.leave()
	v.key("t")
	v.until("T shows the face again", `document.querySelector('fieldset button[aria-pressed="true"]').textContent === "face"`)
}

// Looked at closely what is under the pointer stays there, and one key goes back to
// the whole.
func TestTheHangIsLookedAtClosely(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("both sides hang there", `document.querySelectorAll('[data-testid="hang"] svg text').length > 0 && [...document.querySelectorAll('[data-testid="hang"] text')].filter((e) => ["face", "back"].includes(e.textContent)).length === 2`)
	v.leave()
	zoom := mat + `.dataset.zoom`
	under := func(at [2]float64) string {
		return eval[string](v, fmt.Sprintf(`document.elementFromPoint(%f, %f).closest("[data-section]")?.dataset.section ?? "none"`, at[0], at[1]))
	}
	at := v.center(`document.querySelector('[data-testid="hang"] rect[data-section="1"]')`)
	if got := under(at); got != "1" {
		t.Fatalf("over section 2 lies section %s", got)
	}
	for range 4 {
		v.wheel(at, -300)
	}
	v.until("the wheel looks closer", `Number(`+zoom+`) > 5`)
	if got := under(at); got != "1" {
		t.Errorf("looked at %s times as closely, %s lies where section 2 was", eval[string](v, zoom), got)
	}
	v.key("0")
	v.until("0 shows the whole", `Number(`+zoom+`) === 1`)
	v.key("z")
	v.until("Z looks closer", `Number(`+zoom+`) > 1`)
	v.key("0")
	v.key("0")
	v.until("0 once more fits the width", `Number(`+zoom+`) > 1`)
	v.key("0")
	v.key("l")
	v.do(chromedp.MouseEvent("mouseMoved", at[0], at[1]))
	v.until("L lays a lens under the pointer", `document.querySelectorAll('[data-testid="lens"] path.lay-body').length > 0`)
	v.key("l")
	v.until("and takes it away", `!document.querySelector('[data-testid="lens"]')`)
}

// The picture is saved as it is shown: at true scale, or in pixels that hold no
// colour that is none of its own.
func TestAPictureIsSaved(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	v.until("the piece is drawn", `document.querySelectorAll('[data-testid="hang"] path.lay-body').length > 0`)
	file := eval[string](v, `fetch([...document.querySelectorAll("a[download]")].find((a) => a.download.endsWith(".svg")).href).then((r) => r.text())`)
	if !strings.HasPrefix(file, "<svg") || !strings.Contains(file, "mm\"") {
		t.Errorf("the file begins %.80s", file)
	}
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-testid="hang"] summary').click()`))
	v.click("PNG")
	v.until("it is saved in pixels", `document.querySelector('[data-testid="hang"] details [role="status"]').textContent === "Saved as PNG."`)
	// Every pixel is a mixture of ink, white, and one or two of the piece's colours.
	strange := eval[[]string](v, `(async () => {
	  const text = await (await fetch("/api/pieces/1/picture.svg?scale=12")).text();
	  const img = new Image();
	  img.src = URL.createObjectURL(new Blob([text], {type: "image/svg+xml"}));
	  await img.decode();
	  const c = document.createElement("canvas");
	  c.width = img.naturalWidth * 3; c.height = img.naturalHeight * 3;
	  const g = c.getContext("2d");
	  g.drawImage(img, 0, 0, c.width, c.height);
	  const all = g.getImageData(0, 0, c.width, c.height).data;
	  const own = [...new Set(text.match(/#[0-9a-f]{6}/g))].map((h) => [1, 3, 5].map((i) => parseInt(h.slice(i, i + 2), 16)));
	  const lo = [0, 1, 2].map((i) => Math.min(...own.map((o) => o[i]))), hi = [0, 1, 2].map((i) => Math.max(...own.map((o) => o[i])));
	  // A colour lies among its own where it is no farther from the hull of two of them with ink and white than rounding.
	  const ink = [23, 36, 42], white = [255, 255, 255];
	  const near = (p) => own.some((a) => own.some((b) => {
	    for (let i = 0; i <= 8; i++) for (let j = 0; j <= 8; j++) for (let k = 0; k <= 4; k++) {
	      const m = [0, 1, 2].map((n) => { const mix = a[n] + (b[n] - a[n]) * i / 8; const dark = mix + (ink[n] - mix) * j / 8; return dark + (white[n] - dark) * k / 10; });
	      if (m.every((x, n) => Math.abs(x - p[n]) < 22)) return true;
	    }
	    return false;
	  }));
	  if (near([180, 83, 42])) return ["rust, which is none of its own, is taken for one of them"];
	  const seen = new Map();
	  for (let i = 0; i < all.length; i += 4) if (all[i + 3] === 255) {
	    const key = [all[i] >> 3, all[i + 1] >> 3, all[i + 2] >> 3].join();
	    seen.set(key, [all[i], all[i + 1], all[i + 2]]);
	  }
	  const out = [...seen.values()].filter((p) => !near(p)).map(String);
	  return seen.size > 20 ? out : ["only " + seen.size + " colours are seen", String(lo), String(hi)];
	})()`)
	if len(strange) > 0 {
		t.Errorf("%d colours are none of its own: %v", len(strange), strange[:min(8, len(strange))])
	}
}

// A strip names the stretch that is pointed at or in focus, and the hang shows it.
func TestStripsNameTheirSections(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/tie")
	part := `document.querySelector('[data-strip="A"] g[role="button"][data-section="1"]')`
	v.until("the strips are there", part)
	v.do(chromedp.Evaluate[chromedp.Void](part + `.focus()`))
	v.until("it is named", part+`.querySelector("text")?.textContent.startsWith("2. square knot")`)
	v.until("and its row is lit", `document.querySelector('[data-row="1"]').dataset.lit === "true"`)
	v.until("and the rest of the hang is dim", `document.querySelectorAll('[data-testid="hang"] g[opacity="0.62"]').length > 0`)
}

// At the vise the strand in hand is lit, the way that it is to go is shown while it
// is led, and the strands bear the numbers of their places.
func TestTheViseShowsTheWay(t *testing.T) {
	v := open(t, demoAt(t), "/piece/2/vise")
	v.until("the strand in hand is lit", `document.querySelectorAll('[data-testid="vise"] path.lay-lit').length > 0`)
	set := func(n int) {
		v.slide(n)
		v.until("it is shown", fmt.Sprintf(`document.querySelector("main [data-along]")?.dataset.along === "%d"`, n))
	}
	set(3)
	v.until("the way to come is shown", `document.querySelectorAll('[data-testid="way"]').length === 1`)
	places := eval[string](v, `[...document.querySelectorAll("[data-place]")].map((e) => e.dataset.place).join()`)
	if places != "1,2,3,4" {
		t.Errorf("the places are numbered %s", places)
	}
	set(24)
	v.until("drawn up it has gone its way", `!document.querySelector('[data-testid="way"]')`)
}

// A move plays by itself, and waits where a frame is not drawn yet: it never plays past an empty
// picture. Seen as the pictures are held back for two seconds of frames.
func TestAMoveWaitsForItsFrames(t *testing.T) {
	v := open(t, demoAt(t), "/piece/2/vise")
	at := `Number(document.querySelector("input.range").value)`
	v.until("the first move has played", at+` === 48 && document.querySelector("main [data-along]").dataset.along === "48"`)
	v.do(chromedp.Evaluate[chromedp.Void](`{const ask = window.fetch; const gate = new Promise((go) => { window.letGo = go; });
	  window.fetch = async (...a) => { if (String(a[0]).includes("/picture")) await gate; return ask(...a); };}`))
	v.click("Done, next")
	v.until("the next move is at its beginning", at+" < 48")
	passed := eval[string](v, `new Promise((done) => {
	  const passed = new Set();
	  let n = 0;
	  const look = () => {
	    if (!document.querySelector("main [data-along]")) { n++; passed.add(`+at+`); }
	    n > 120 ? done([...passed].join()) : requestAnimationFrame(look);
	  };
	  look();
	})`)
	if strings.Contains(passed, ",") || passed == "48" {
		t.Errorf("the film goes past frames %s, and no picture of them is there", passed)
	}
	v.do(chromedp.Evaluate[chromedp.Void](`window.letGo()`))
	v.until("it goes on with what is drawn", at+` === 48 && document.querySelector("main [data-along]").dataset.along === "48"`)
}

// An empty rack shows what one may begin with.
func TestAnEmptyRackShowsThePatterns(t *testing.T) {
	v := open(t, start(t, "serve", t.TempDir(), "127.0.0.1:0"), "/")
	v.until("patterns are shown as they hang", `document.querySelectorAll("main button[data-pattern] path.lay-ink").length > 10 && document.querySelector('button[data-pattern="spiral-fob"]')`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('button[data-pattern="spiral-fob"]').click()`))
	v.until("one is taken", `location.pathname.endsWith("/purpose")`)
}
