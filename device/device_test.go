package device_test

import (
	"bufio"
	"context"
	"errors"
	"net"
	"slices"
	"strings"
	"testing"

	"nimblebight/device"
)

// What a device may say is read; what it may not is refused in words that name the device.
func TestLines(t *testing.T) {
	for line, want := range map[string]device.Message{
		"hello scale":        {Word: "hello", Kind: device.Scale},
		"reading 12.4 g":     {Word: "reading", Value: 12.4, Unit: "g"},
		" reading  0.05  g ": {Word: "reading", Value: 0.05, Unit: "g"},
	} {
		if got, err := device.Parse(device.Scale, line); err != nil || got != want {
			t.Errorf("%q is %+v, %v", line, got, err)
		}
	}
	for line, says := range map[string]string{
		"reading 12,x g":     "which is no number",
		"reading NaN g":      "which is no number",
		"reading g":          "which is no number",
		"reading -3 g":       "below zero",
		"reading 12.4 mm":    "set it to g",
		"reading 900000 g":   "more than 50000 g",
		"press next":         "which it never should",
		"hello caliper":      "choose another address",
		"":                   "which it never should",
		"reading \x1b[2J g":  "“·[2J”",
		"\x00\xff" + "words": "which it never should",
	} {
		if got, err := device.Parse(device.Scale, line); err == nil || !strings.Contains(err.Error(), says) || !strings.Contains(err.Error(), "scale") && !strings.Contains(err.Error(), "caliper") {
			t.Errorf("%q is %+v, %v; not %q", line, got, err, says)
		}
	}
}

// Nothing that a device sends brings the bench down.
func FuzzParse(f *testing.F) {
	for _, s := range []string{"hello pedal", "reading 1e400 g", "press back", "printed 99999999999999999999", "reading 0x1p-2 mm"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, line string) {
		for _, k := range device.Kinds {
			m, err := device.Parse(k, line)
			if err == nil && m.Word == "reading" && !(m.Value >= 0) {
				t.Errorf("%q reads %v", line, m.Value)
			}
			if err != nil && strings.ContainsAny(err.Error(), "\n\r\x1b") {
				t.Errorf("%q is refused with control characters", line)
			}
		}
	})
}

// next waits for an event of this sort.
func next(t *testing.T, events <-chan device.Event, kind device.Kind, what string) device.Event {
	t.Helper()
	for {
		select {
		case e := <-events:
			if e.Kind == kind && e.What == what {
				return e
			}
		case <-t.Context().Done():
			t.Fatalf("no %s of the %s came", what, kind)
		}
	}
}

// ready waits till all these devices are there, in whichever order they come.
func ready(t *testing.T, events <-chan device.Event, kinds ...device.Kind) {
	t.Helper()
	there := map[device.Kind]bool{}
	for e := range events {
		there[e.Kind] = there[e.Kind] || e.State == "ready"
		if !slices.ContainsFunc(kinds, func(k device.Kind) bool { return !there[k] }) {
			return
		}
	}
}

// What a stand-in is set to comes, or it is said that it did not: also while it starts.
func TestNothingSetIsLost(t *testing.T) {
	for range 50 {
		d := device.NewDesk()
		events, stop := d.Listen()
		d.Choose(device.Places{Pedal: device.Ours})
		err := d.Set(device.Pedal, "next")
		if err != nil && !errors.Is(err, device.ErrNone) {
			t.Error(err)
		}
		if err != nil {
			ready(t, events, device.Pedal)
			if err := d.Set(device.Pedal, "next"); err != nil {
				t.Error(err)
			}
		}
		next(t, events, device.Pedal, "press")
		stop()
		d.Close()
	}
}

// What a stand-in is set to comes to the desk over its line, nonsense with what to do; a
// label is printed whole; what is not chosen says so.
func TestStandInsSpeak(t *testing.T) {
	d := device.NewDesk()
	defer d.Close()
	d.Choose(device.Places{Scale: device.Ours, Pedal: device.Ours, Printer: device.Ours})
	events, stop := d.Listen()
	defer stop()
	ready(t, events, device.Scale, device.Pedal, device.Printer)
	if err := d.Set(device.Scale, "12.4 g"); err != nil {
		t.Fatal(err)
	}
	if e := next(t, events, device.Scale, "reading"); e.Value != 12.4 || e.Unit != "g" || e.Name != "scale" {
		t.Errorf("%+v", e)
	}
	if err := d.Set(device.Scale, "heavy"); err != nil {
		t.Fatal(err)
	}
	if e := next(t, events, device.Scale, "wrong"); !strings.Contains(e.Says, "“heavy”, which is no number") {
		t.Errorf("%+v", e)
	}
	for _, bad := range []error{d.Set(device.Caliper, "4 mm"), d.Set(device.Scale, "1 g\nreading 2 g")} {
		if bad == nil {
			t.Error("it is set without a caliper, or over two lines")
		}
	}
	d.Choose(device.Places{Pedal: device.Ours, Printer: device.Ours}) // the scale goes, the others stay
	if e := next(t, events, device.Scale, "state"); e.State != "off" {
		t.Errorf("%+v", e)
	}
	if err := d.Set(device.Pedal, "next"); err != nil {
		t.Fatal(err)
	}
	if e := next(t, events, device.Pedal, "press"); e.Press != "next" {
		t.Errorf("%+v", e)
	}
	if err := d.Print(t.Context(), []string{"Slipway\nlocker fob", strings.Repeat("w", 900)}); err != nil {
		t.Fatal(err)
	}
	if e := next(t, events, device.Printer, "label"); len(e.Label) != 2 || e.Label[0] != "Slipway locker fob" || len(e.Label[1]) > 100 {
		t.Errorf("%+v", e)
	}
	d.Choose(device.Places{})
	if err := d.Print(t.Context(), []string{"x"}); !errors.Is(err, device.ErrNone) {
		t.Errorf("printed without a printer: %v", err)
	}
}

// Where another program answers, it is said so; nothing that it sends counts.
func TestWhatIsNoDeviceIsNotBelieved(t *testing.T) {
	for _, says := range []string{"hello caliper", "reading 5 g", "HTTP/1.1 400 Bad Request"} {
		l, err := (&net.ListenConfig{}).Listen(t.Context(), "tcp", "127.0.0.1:0")
		if err != nil {
			t.Fatal(err)
		}
		defer l.Close()
		go func() {
			for {
				c, err := l.Accept()
				if err != nil {
					return
				}
				_, _ = c.Write([]byte(says + "\nreading 7 g\n"))
				_, _ = bufio.NewReader(c).ReadString('\n')
				_ = c.Close()
			}
		}()
		d := device.NewDesk()
		events, stop := d.Listen()
		d.Choose(device.Places{Scale: l.Addr().String()})
		for e := range events {
			if e.Kind != device.Scale || e.State == "off" {
				continue
			}
			if e.What != "state" || e.State != "looking" || !strings.Contains(e.Says, "scale") {
				t.Errorf("%q gives %+v", says, e)
			}
			break
		}
		stop()
		d.Close()
	}
	for _, at := range []string{"10.0.0.7:80", "example:80", "127.0.0.1", "127.0.0.1:", "nowhere"} {
		if (device.Places{Pedal: at}).Check(device.Pedal) == nil {
			t.Errorf("%q is taken for a port of this machine", at)
		}
	}
}

// A stand-in ends with its context, whoever is still listening.
func TestAStandInEnds(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	l, err := (&net.ListenConfig{}).Listen(ctx, "tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	ended := make(chan error, 1)
	go func() { ended <- device.NewStandIn(device.Caliper, nil).Serve(ctx, l) }()
	c, err := (&net.Dialer{}).DialContext(ctx, "tcp", l.Addr().String())
	if err != nil {
		t.Fatal(err)
	}
	defer c.Close()
	if greets, err := bufio.NewReader(c).ReadString('\n'); err != nil || greets != "hello caliper\n" {
		t.Errorf("%q, %v", greets, err)
	}
	stop()
	if err := <-ended; err != nil {
		t.Error(err)
	}
}
