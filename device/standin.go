package device

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net"
	"strconv"
	"strings"
	"sync"
)

// StandIn is a device without the thing: it says what it is told to say. It is safe for use
// by many goroutines.
type StandIn struct {
	kind Kind
	// Label is called with each label that is printed; nil for nobody who wants to see it.
	Label func(lines []string)

	mu    sync.Mutex
	lines map[net.Conn]bool
}

// NewStandIn makes one of a kind.
func NewStandIn(k Kind, label func([]string)) *StandIn {
	return &StandIn{kind: k, Label: label, lines: map[net.Conn]bool{}}
}

// mostLabel is how many lines a label may have.
const mostLabel = 40

// Serve speaks with whoever connects till the context ends. It closes the listener.
func (s *StandIn) Serve(ctx context.Context, l net.Listener) error {
	stop := context.AfterFunc(ctx, func() {
		_ = l.Close()
		s.mu.Lock()
		defer s.mu.Unlock()
		for c := range s.lines {
			_ = c.Close()
		}
	})
	defer stop()
	var all sync.WaitGroup
	defer all.Wait()
	for {
		c, err := l.Accept()
		if err != nil {
			if ctx.Err() != nil {
				return nil
			}
			return fmt.Errorf("a stand-in %s listening: %w", s.kind, err)
		}
		all.Go(func() { s.speak(ctx, c) })
	}
}

func (s *StandIn) speak(ctx context.Context, c net.Conn) {
	s.mu.Lock()
	s.lines[c] = true
	s.mu.Unlock()
	defer func() {
		s.mu.Lock()
		delete(s.lines, c)
		s.mu.Unlock()
		_ = c.Close()
	}()
	if ctx.Err() != nil {
		return
	}
	s.tell(c, "hello "+string(s.kind))
	in := bufio.NewScanner(c)
	in.Buffer(nil, mostLine)
	for in.Scan() {
		word, rest, _ := strings.Cut(in.Text(), " ")
		switch {
		case word == "set":
			s.Set(rest)
		case word == "label" && s.kind == Printer:
			n, err := strconv.Atoi(rest)
			if err != nil || n < 1 || n > mostLabel {
				return // what follows could be anything
			}
			label := make([]string, 0, n)
			for len(label) < n && in.Scan() {
				label = append(label, in.Text())
			}
			if len(label) < n {
				return
			}
			if s.Label != nil {
				s.Label(label)
			}
			s.tell(c, fmt.Sprintf("printed %d", n))
		}
	}
}

// Set has it read or press what is written there, to all who listen. It passes nonsense on
// as a broken device would.
func (s *StandIn) Set(what string) {
	word := "reading"
	if s.kind == Pedal {
		word = "press"
	}
	s.mu.Lock()
	all := make([]net.Conn, 0, len(s.lines))
	for c := range s.lines {
		all = append(all, c)
	}
	s.mu.Unlock()
	for _, c := range all {
		s.tell(c, word+" "+what)
	}
}

// tell sends a line; who does not take it is gone, and told nothing more.
func (s *StandIn) tell(c net.Conn, line string) {
	if _, err := c.Write([]byte(line + "\n")); err != nil && !errors.Is(err, net.ErrClosed) {
		_ = c.Close()
	}
}
