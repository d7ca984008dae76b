// Command shots takes the pictures of docs/screenshots from the demo data: one
// current picture of each main view. With names it takes only those;
// a path takes a shot of that view.
package main

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/chromedp/chromedp"

	"nimblebight/demo"
	"nimblebight/e2e/chrome"
	"nimblebight/server"
	"nimblebight/store"
)

type shot struct {
	name, path string
	w, h       int64
	theme      string
	click      string // a button to click after loading, by its text
	slide      int    // how far the move at the vise is shown, 0 for as it comes
}

var shots = []shot{
	{"rack", "/", 1280, 800, "day", "", 0},
	{"new-piece", "/new", 1280, 800, "day", "", 0},
	{"purpose", "/piece/1/purpose", 1280, 800, "day", "", 0},
	{"stuff", "/piece/4/stuff", 1280, 800, "day", "", 0},
	{"colour", "/piece/21/colour", 1280, 800, "day", "", 0},
	{"cut", "/piece/5/cut", 1280, 800, "day", "", 0},
	{"tie", "/piece/1/tie", 1280, 800, "day", "", 0},
	{"tie-both-night", "/piece/4/tie", 1280, 800, "night", "both", 0},
	{"palette", "/piece/1/tie", 1280, 800, "day", "Add a section", 0},
	{"trainer", "/trainer/figure-eight", 1280, 800, "day", "Over", 0},
	{"finish", "/piece/3/finish", 1280, 800, "day", "", 0},
	{"balls", "/balls", 1280, 800, "day", "", 0},
	{"check", "/piece/1/check", 1280, 1100, "day", "", 0},
	{"log", "/piece/7/log", 1280, 800, "day", "", 0},
	{"vise", "/piece/2/vise", 1280, 800, "day", "", 6},
	{"cut-sheet", "/piece/4/sheet", 900, 1100, "day", "", 0},
	{"tie-tablet", "/piece/6/tie", 820, 1100, "day", "", 0},
	{"tie-phone", "/piece/1/tie", 390, 844, "day", "", 0},
	{"vise-phone", "/piece/2/vise", 390, 844, "night", "", 8},
}

func main() {
	if err := run(os.Args[1:]); err != nil {
		fmt.Fprintln(os.Stderr, "shots:", err)
		os.Exit(1)
	}
}

func run(only []string) error {
	out := "docs/screenshots"
	if d := os.Getenv("SHOTS"); d != "" {
		out = d
	}
	ctx, cancel := context.WithTimeout(context.Background(), 5*time.Minute)
	defer cancel()
	dir, err := os.MkdirTemp("", "bight-shots")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	st, err := store.Open(ctx, filepath.Join(dir, "data"))
	if err != nil {
		return err
	}
	defer st.Close()
	if err := demo.Fill(ctx, st); err != nil {
		return err
	}
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return err
	}
	srv, err := server.New(st, server.Config{Addr: l.Addr().String()})
	if err != nil {
		return err
	}
	if err := srv.SumAll(ctx); err != nil { // the rack as it is once it is worked out
		return err
	}
	web := &http.Server{Handler: srv.Handler(), ReadHeaderTimeout: 5 * time.Second}
	go func() { _ = web.Serve(l) }()
	defer web.Close()
	tab, end, err := chrome.Start(ctx, filepath.Join(dir, "profile"))
	if err != nil {
		return err
	}
	defer end()
	for i, path := range only { // a path like /piece/1/tie@820x1100:both is one shot more
		if !strings.HasPrefix(path, "/") {
			continue
		}
		s := shot{name: fmt.Sprintf("path-%d", i+1), w: 1280, h: 800, theme: "day"}
		path, s.click, _ = strings.Cut(path, ":")
		if n, ok := strings.CutPrefix(s.click, "slide="); ok {
			s.click = ""
			if _, err := fmt.Sscan(n, &s.slide); err != nil {
				return fmt.Errorf("%s: %w", path, err)
			}
		}
		path, size, _ := strings.Cut(path, "@")
		s.path = path
		if size != "" {
			if _, err := fmt.Sscanf(size, "%dx%d", &s.w, &s.h); err != nil {
				return fmt.Errorf("%s: write the size as 820x1100: %w", size, err)
			}
		}
		only[i] = s.name
		shots = append(shots, s)
	}
	for _, s := range shots {
		if len(only) > 0 && !strings.Contains(" "+strings.Join(only, " ")+" ", " "+s.name+" ") {
			continue
		}
		b, err := take(tab, "http://"+l.Addr().String(), s)
		if err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
		if err := os.WriteFile(filepath.Join(out, s.name+".png"), b, 0o644); err != nil {
			return err
		}
		fmt.Println("took", s.name)
	}
	return nil
}

// settled is true when nothing is being fetched or laid out any more.
const settled = `(async () => {
  await document.fonts.ready;
  let quiet = 0, seen = -1;
  while (quiet < 6) {
    await new Promise((r) => setTimeout(r, 60));
    const n = performance.getEntriesByType("resource").length + document.querySelectorAll("*").length;
    quiet = n === seen && !document.querySelector('[data-wait]') ? quiet + 1 : 0;
    seen = n;
  }
  return true;
})()`

func take(tab context.Context, base string, s shot) ([]byte, error) {
	if err := chromedp.Do(tab,
		chromedp.EmulateViewport(s.w, s.h),
		chromedp.Navigate(base+"/"),
		chromedp.Evaluate[chromedp.Void](`fetch("/api/settings",{method:"PATCH",body:JSON.stringify({theme:"`+s.theme+`"})}).then(()=>{})`, chromedp.EvalAwaitPromise),
		chromedp.Navigate(base+s.path),
	); err != nil {
		return nil, err
	}
	if _, err := chromedp.Run(tab, chromedp.Evaluate[bool](settled, chromedp.EvalAwaitPromise)); err != nil {
		return nil, err
	}
	if s.click != "" {
		js := fmt.Sprintf(`[...document.querySelectorAll("button")].find((b) => b.textContent.trim() === %q).click()`, s.click)
		if err := chromedp.Do(tab, chromedp.Evaluate[chromedp.Void](js)); err != nil {
			return nil, err
		}
		if _, err := chromedp.Run(tab, chromedp.Evaluate[bool](settled, chromedp.EvalAwaitPromise)); err != nil {
			return nil, err
		}
	}
	if s.slide > 0 {
		js := fmt.Sprintf(`{const e = document.querySelector('input.range');
		  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(e, "%d"); e.dispatchEvent(new Event("input", {bubbles: true}));}`, s.slide)
		if err := chromedp.Do(tab, chromedp.Evaluate[chromedp.Void](js)); err != nil {
			return nil, err
		}
		if _, err := chromedp.Run(tab, chromedp.Evaluate[bool](settled, chromedp.EvalAwaitPromise)); err != nil {
			return nil, err
		}
	}
	return chromedp.Run(tab, chromedp.CaptureScreenshot())
}
