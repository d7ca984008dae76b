package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

const deviceSays = `(document.querySelector('[data-testid="device-says"]')?.textContent ?? "")`

// Stand-ins for devices: a reading goes into the field in focus, in no other; one that is no
// number is told and nothing is written; the pedal turns the steps; a label is printed.
func TestStandInsForDevices(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/log")
	v.click("Settings")
	for _, d := range []string{"Scale", "Caliper", "Page pedal", "Label printer"} {
		v.choose(d, "stand-in")
	}
	v.choose("Scale", "address")
	v.into("Scale at")
	v.key("10.1.2.3:80" + kb.Enter)
	v.until("another machine's port is refused at the field", `document.querySelector("dialog").textContent.includes("“10.1.2.3:80” is no port of this machine; write one like 127.0.0.1:7431.")`)
	v.choose("Scale", "stand-in")
	v.until("all are there", `document.querySelectorAll("aside[data-devices] form").length === 2 && document.querySelector("aside[data-devices]").textContent.includes("has printed nothing yet") && document.querySelector("aside[data-devices]").textContent.includes("Press next")`)
	v.key(kb.Escape)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector("aside[data-devices] summary").click()`))
	v.into("Measured length")
	send := func(device, reads string) {
		t.Helper()
		v.into("The " + device + " reads, " + map[string]string{"scale": "g", "caliper": "mm"}[device])
		v.key(reads + kb.Enter)
	}
	const field = `document.getElementById([...document.querySelectorAll("label")].find((e) => e.textContent === "Measured length").htmlFor).value`
	send("caliper", "98.5")
	v.until("the caliper's reading is written", field+` === "98.5 mm"`)
	v.until("it is said", deviceSays+`.includes("The caliper reads 98.5 mm: written into “Measured length”.")`)
	was := eval[string](v, field)
	send("caliper", "9x")
	v.until("what is no number is told", deviceSays+`.includes("The caliper sent “9x”, which is no number: measure once more. Nothing was written.")`)
	send("scale", "12.4")
	v.until("a weight does not go into a length", deviceSays+`.includes("The scale reads 12.4 g; “Measured length” takes a length. It stays as it is.")`)
	if now := eval[string](v, field); now != was {
		t.Errorf("the field went from %q to %q", was, now)
	}
	v.goTo("/piece/1/cut")
	v.click("Print a label")
	v.until("a label is printed", `document.querySelector('section[aria-label="Cut"]').textContent.includes("Printed, ")`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector("aside[data-devices] summary").click()`))
	v.until("it is seen", text("label")+`.includes("cut ")`)
	v.goTo("/piece/1/vise")
	v.cutAll()
	v.until("the piece is in the vise", visePlace+` === "0"`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector("aside[data-devices] summary").click()`))
	for _, f := range v.axe() {
		t.Error(f)
	}
	v.click("Press next")
	v.until("the pedal goes on", visePlace+` === "1"`)
	v.click("Press back")
	v.until("and back", visePlace+` === "0"`)
}

// While a dialog is open the stand-ins are in it, so that a reading goes into its fields too.
func TestStandInsInADialog(t *testing.T) {
	v := open(t, demoAt(t), "/piece/1/stuff")
	v.click("Settings")
	v.choose("Caliper", "stand-in")
	v.until("its panel is in the dialog", `document.querySelector("dialog aside[data-devices] summary") !== null`)
	v.key(kb.Escape)
	v.until("and beside the page again", `document.querySelector("dialog") === null && document.querySelector("aside[data-devices] summary") !== null`)
	v.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll("button")].find((b) => b.textContent.startsWith("Swatches of")).click()`))
	v.until("the swatches are open", `document.querySelector("dialog aside[data-devices] summary") !== null`)
	v.do(chromedp.Evaluate[chromedp.Void](`document.querySelector("dialog aside[data-devices] summary").click()`))
	v.into("The row is tall")
	v.into("The caliper reads, mm")
	v.key("250" + kb.Enter)
	const field = `document.getElementById([...document.querySelectorAll("dialog label")].find((e) => e.textContent === "The row is tall").htmlFor).value`
	v.until("the reading is written into the dialog's field", field+` === "250 mm"`)
	for _, f := range v.axe() {
		t.Error(f)
	}
}
