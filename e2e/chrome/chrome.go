// Package chrome starts a headless Chromium that talks to nothing but the
// server under test.
package chrome

import (
	"context"
	"os"
	"os/exec"

	"github.com/chromedp/chromedp"
)

// Path finds the browser: what CHROMIUM names, or what the system installed.
func Path() (string, error) {
	if p := os.Getenv("CHROMIUM"); p != "" {
		return p, nil
	}
	return exec.LookPath("chromium")
}

// Start gives a context of a browser with a window of 1280 by 800; cancel ends
// it. The profile lies in dir.
func Start(ctx context.Context, dir string) (context.Context, context.CancelFunc, error) {
	path, err := Path()
	if err != nil {
		return nil, nil, err
	}
	opts := []chromedp.ExecAllocatorOption{
		chromedp.ExecPath(path), chromedp.Flag("headless", true), chromedp.NoSandbox, chromedp.NoFirstRun, chromedp.NoDefaultBrowserCheck,
		chromedp.WindowSize(1280, 800), chromedp.UserDataDir(dir), chromedp.DisableGPU,
		chromedp.Flag("force-color-profile", "srgb"), chromedp.Flag("font-render-hinting", "none"),
	}
	for _, f := range []string{"disable-quic", "disable-background-networking", "disable-component-update", "disable-sync",
		"disable-default-apps", "disable-extensions", "hide-scrollbars", "disable-dev-shm-usage"} {
		opts = append(opts, chromedp.Flag(f, true))
	}
	alloc, endAlloc := chromedp.NewExecAllocator(ctx, opts...)
	tab, endTab := chromedp.NewContext(alloc)
	return tab, func() { endTab(); endAlloc() }, nil
}
