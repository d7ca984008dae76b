package device

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net"
	"strings"
	"sync"
	"time"
)

// Places are where each device is: "" for none, [Ours] for a stand-in that the bench starts
// itself, or the address of a port of this machine.
type Places struct {
	Scale   string `json:"scale"`
	Caliper string `json:"caliper"`
	Pedal   string `json:"pedal"`
	Printer string `json:"printer"`
}

// Ours is a stand-in that the bench starts itself.
const Ours = "stand-in"

func (c Places) at(k Kind) string {
	return map[Kind]string{Scale: c.Scale, Caliper: c.Caliper, Pedal: c.Pedal, Printer: c.Printer}[k]
}

// Check tells what is wrong with where a device of a kind is said to be.
func (c Places) Check(k Kind) error {
	at := c.at(k)
	if at == "" || at == Ours {
		return nil
	}
	host, port, err := net.SplitHostPort(at)
	if ip := net.ParseIP(host); err != nil || port == "" || (host != "localhost" && (ip == nil || !ip.IsLoopback())) {
		return fmt.Errorf("%s is no port of this machine; write one like 127.0.0.1:7431", shown(at))
	}
	return nil
}

// Event is something that came from a device, or how it stands with it.
type Event struct {
	Kind Kind   `json:"kind"`
	Name string `json:"name"`
	// What is reading, press, label, wrong or state.
	What  string  `json:"what" jsonschema:"enum=reading,enum=press,enum=label,enum=wrong,enum=state"`
	Value float64 `json:"value,omitempty"`
	Unit  string  `json:"unit,omitempty"` // of a reading; of a state, in which it reads
	Press string  `json:"press,omitempty"`
	// Label are the lines of one that a stand-in printed.
	Label []string `json:"label,omitempty"`
	// Says is what is wrong and what to do, or why it is looked for.
	Says string `json:"says,omitempty"`
	// State is off, looking or ready.
	State string `json:"state,omitempty" jsonschema:"enum=off,enum=looking,enum=ready"`
	// Stands is set where a stand-in of ours is in its place.
	Stands bool `json:"stands,omitempty"`
}

// Desk keeps a line to each device that is chosen. It is safe for use by many goroutines.
type Desk struct {
	ctx  context.Context
	stop context.CancelFunc
	all  sync.WaitGroup

	printing sync.Mutex

	mu     sync.Mutex
	chosen Places
	lines  map[Kind]*line
	heard  map[chan Event]bool
}

// line is the line to a device.
type line struct {
	kind    Kind
	cancel  context.CancelFunc
	stands  *StandIn // where it is one of ours
	state   string
	says    string
	conn    net.Conn // where it is there
	printed chan int
}

// NewDesk makes a desk with nothing on it.
func NewDesk() *Desk {
	ctx, stop := context.WithCancel(context.Background())
	return &Desk{ctx: ctx, stop: stop, lines: map[Kind]*line{}, heard: map[chan Event]bool{}}
}

// Close ends all lines and waits for them.
func (d *Desk) Close() {
	d.stop()
	d.all.Wait()
}

// Choose takes the devices that are chosen; what stays keeps its line.
func (d *Desk) Choose(c Places) {
	d.mu.Lock()
	defer d.mu.Unlock()
	for _, k := range Kinds {
		if was := d.lines[k]; was != nil {
			if d.chosen.at(k) == c.at(k) {
				continue
			}
			was.cancel()
			delete(d.lines, k)
			d.tell(Event{Kind: k, What: "state", State: "off"})
		}
		if c.at(k) == "" || d.ctx.Err() != nil {
			continue
		}
		ctx, cancel := context.WithCancel(d.ctx)
		l := &line{kind: k, cancel: cancel, state: "looking", printed: make(chan int, 1)}
		d.lines[k] = l
		at := c.at(k)
		d.all.Go(func() { d.keep(ctx, l, at) })
	}
	d.chosen = c
}

// again is how long is waited before a device that is not there is looked for once more.
const again = 2 * time.Second

// keep keeps a line till its context ends.
func (d *Desk) keep(ctx context.Context, l *line, at string) {
	if at == Ours {
		var err error
		if at, err = d.stand(ctx, l); err != nil {
			d.set(l, "looking", err.Error())
			return
		}
	}
	for ctx.Err() == nil {
		err := d.listen(ctx, l, at)
		if ctx.Err() != nil {
			return
		}
		if err != nil {
			d.set(l, "looking", err.Error())
		}
		select {
		case <-ctx.Done():
		case <-time.After(again):
		}
	}
}

// stand starts a stand-in and tells where it listens.
func (d *Desk) stand(ctx context.Context, l *line) (string, error) {
	port, err := (&net.ListenConfig{}).Listen(ctx, "tcp", "127.0.0.1:0")
	if err != nil {
		return "", fmt.Errorf("the stand-in finds no free port: %w", err)
	}
	in := NewStandIn(l.kind, func(lines []string) { d.told(Event{Kind: l.kind, What: "label", Label: lines}) })
	d.mu.Lock()
	l.stands = in
	d.mu.Unlock()
	d.all.Go(func() { _ = in.Serve(ctx, port) })
	return port.Addr().String(), nil
}

// listen takes a line up and tells what comes over it till it ends.
func (d *Desk) listen(ctx context.Context, l *line, at string) error {
	c, err := (&net.Dialer{Timeout: again}).DialContext(ctx, "tcp", at)
	if err != nil {
		return fmt.Errorf("nothing answers at %s: start it there, or choose another address", at)
	}
	defer c.Close()
	defer context.AfterFunc(ctx, func() { _ = c.Close() })()
	in := bufio.NewScanner(c)
	in.Buffer(nil, mostLine)
	greeted := false
	for in.Scan() {
		m, err := Parse(l.kind, in.Text())
		switch {
		case !greeted && (err != nil || m.Word != "hello"):
			if err == nil {
				err = fmt.Errorf("what answers at %s is no %s: choose another address", at, l.kind.Name())
			}
			return err
		case !greeted:
			greeted = true
			d.mu.Lock()
			l.conn = c
			d.mu.Unlock()
			d.set(l, "ready", "")
		case err != nil:
			d.told(Event{Kind: l.kind, What: "wrong", Says: err.Error()})
		case m.Word == "printed":
			select {
			case l.printed <- m.Lines:
			default:
			}
		case m.Word != "hello":
			d.told(Event{Kind: l.kind, What: m.Word, Value: m.Value, Unit: m.Unit, Press: m.Press})
		}
	}
	d.mu.Lock()
	l.conn = nil
	d.mu.Unlock()
	if errors.Is(in.Err(), bufio.ErrTooLong) {
		return fmt.Errorf("the %s sent a line without an end: switch it off and on", l.kind.Name())
	}
	return fmt.Errorf("the %s at %s has gone; it is looked for", l.kind.Name(), at)
}

func (d *Desk) set(l *line, state, says string) {
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.lines[l.kind] != l { // another is chosen by now
		return
	}
	l.state, l.says = state, says
	d.tell(l.event())
}

func (l *line) event() Event {
	return Event{Kind: l.kind, What: "state", Unit: l.kind.Unit(), State: l.state, Says: l.says, Stands: l.stands != nil}
}

func (d *Desk) told(e Event) {
	d.mu.Lock()
	defer d.mu.Unlock()
	d.tell(e)
}

// tell tells all who listen; d.mu is held. Who is too slow misses it: a reading is for now.
func (d *Desk) tell(e Event) {
	e.Name = e.Kind.Name()
	for ch := range d.heard {
		select {
		case ch <- e:
		default:
		}
	}
}

// Listen tells how it stands with each device and then what comes, till stop is called.
func (d *Desk) Listen() (events <-chan Event, stop func()) {
	const room = 32
	ch := make(chan Event, room)
	d.mu.Lock()
	defer d.mu.Unlock()
	d.heard[ch] = true
	for _, k := range Kinds {
		if l := d.lines[k]; l != nil {
			d.tell(l.event())
		} else {
			d.tell(Event{Kind: k, What: "state", State: "off"})
		}
	}
	return ch, func() {
		d.mu.Lock()
		defer d.mu.Unlock()
		delete(d.heard, ch)
	}
}

// ErrNone is wrapped by the error for a device that is not there.
var ErrNone = errors.New("it is not there")

// Set has the stand-in of a kind read or press something. One that nobody listens to yet
// refuses, so that nothing is lost in silence.
func (d *Desk) Set(k Kind, what string) error {
	if strings.ContainsAny(what, "\r\n") || len(what) > 40 {
		return fmt.Errorf("a stand-in takes one line of 40 letters at most, not %s", shown(what))
	}
	d.mu.Lock()
	var in *StandIn
	if l := d.lines[k]; l != nil && l.conn != nil {
		in = l.stands
	}
	ours := d.chosen.at(k) == Ours
	d.mu.Unlock()
	switch {
	case !ours:
		return fmt.Errorf("no stand-in of a %s is chosen in Settings: %w", k.Name(), ErrNone)
	case in == nil:
		return fmt.Errorf("the stand-in of the %s is still starting, wait a moment and do it again: %w", k.Name(), ErrNone)
	}
	in.Set(what)
	return nil
}

// widest is how many letters of a line are printed.
const widest = mostLine / 4

// within is how long a label may take.
const within = 5 * time.Second

// Print prints a label and waits till it is printed, one label after the other.
func (d *Desk) Print(ctx context.Context, label []string) error {
	d.printing.Lock()
	defer d.printing.Unlock()
	d.mu.Lock()
	l := d.lines[Printer]
	var c net.Conn
	if l != nil {
		c = l.conn
	}
	d.mu.Unlock()
	switch {
	case l == nil:
		return fmt.Errorf("no label printer is chosen in Settings: %w", ErrNone)
	case c == nil:
		return fmt.Errorf("the label printer does not answer: %w", ErrNone)
	}
	var b strings.Builder
	fmt.Fprintf(&b, "label %d\n", len(label))
	for _, s := range label {
		r := []rune(strings.Map(plain, s))
		b.WriteString(string(r[:min(len(r), widest)]) + "\n")
	}
	select { // what an earlier label left
	case <-l.printed:
	default:
	}
	if _, err := c.Write([]byte(b.String())); err != nil {
		return fmt.Errorf("sending the label: %w", err)
	}
	wait := time.NewTimer(within)
	defer wait.Stop()
	select {
	case n := <-l.printed:
		if n != len(label) {
			return fmt.Errorf("the label printer printed %d of %d lines: look at its paper and print once more", n, len(label))
		}
		return nil
	case <-ctx.Done():
		return ctx.Err()
	case <-wait.C:
		return fmt.Errorf("the label printer has not printed within %v: look at its paper and print once more", within)
	}
}

// plain keeps a line one line.
func plain(r rune) rune {
	if r == '\n' || r == '\r' {
		return ' '
	}
	return r
}
