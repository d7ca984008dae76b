// Package device speaks with the things that stand beside the cord: a scale, a caliper, a
// page pedal, a label printer. Each is a program that listens on a port of this machine and
// speaks plain lines of UTF-8, one message a line.
//
// A device greets whoever connects, then sends what happens:
//
//	hello scale          which kind it is
//	reading 12.4 g       a scale's in g, a caliper's in mm
//	press next           a pedal, next or back
//	printed 3            a printer has printed a label of so many lines
//
// A printer is sent a label, its number of lines first:
//
//	label 2
//	Slipway locker fob
//	A  cut 1260 mm
//
// A stand-in is a device without the thing ([StandIn]). It takes one message more, by which
// somebody says what it is to do:
//
//	set 12.4 g           read this, as it is written
//	set next             press this
//
// [Desk] is the side of the bench: it keeps a line to each device that is chosen and tells
// what comes.
package device

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode"
)

// Kind is a kind of device.
type Kind string

const (
	Scale   Kind = "scale"
	Caliper Kind = "caliper"
	Pedal   Kind = "pedal"
	Printer Kind = "printer"
)

// Kinds are all of them.
var Kinds = []Kind{Scale, Caliper, Pedal, Printer}

// Name is what a maker calls it.
func (k Kind) Name() string {
	switch k {
	case Pedal:
		return "page pedal"
	case Printer:
		return "label printer"
	}
	return string(k)
}

// measures is the unit that a kind reads in, and the most that it can; "" for one that does
// not measure.
func (k Kind) measures() (unit string, most float64) {
	switch k {
	case Scale:
		return "g", 50_000
	case Caliper:
		return "mm", 5_000
	}
	return "", 0
}

// Unit is the unit that a kind reads in, "" for one that does not measure.
func (k Kind) Unit() string {
	unit, _ := k.measures()
	return unit
}

// presses are what a pedal says.
var presses = []string{"next", "back"}

// Message is what a device said.
type Message struct {
	Word  string  // hello, reading, press or printed
	Kind  Kind    // of hello
	Value float64 // of reading, in Unit
	Unit  string
	Press string // of press
	Lines int    // of printed
}

// mostLine is the longest line that is read, bytes.
const mostLine = 256

// Parse reads a line of a device of this kind. What it cannot be is said in a sentence with
// what to do.
func Parse(k Kind, line string) (Message, error) {
	word, rest, _ := strings.Cut(strings.TrimSpace(line), " ")
	rest = strings.TrimSpace(rest)
	unit, most := k.measures()
	switch {
	case word == "hello":
		if rest != string(k) {
			return Message{}, fmt.Errorf("there is a %s where the %s should be: choose another address", shown(rest), k.Name())
		}
		return Message{Word: word, Kind: k}, nil
	case word == "reading" && unit != "":
		number, of, _ := strings.Cut(rest, " ")
		v, err := strconv.ParseFloat(number, 64)
		switch {
		case err != nil || math.IsNaN(v) || math.IsInf(v, 0):
			return Message{}, fmt.Errorf("the %s sent %s, which is no number: measure once more", k.Name(), shown(number))
		case strings.TrimSpace(of) != unit:
			return Message{}, fmt.Errorf("the %s reads in %s: set it to %s", k.Name(), shown(of), unit)
		case v < 0:
			return Message{}, fmt.Errorf("the %s reads %s %s, below zero: take off what lies there, set it to zero and measure once more", k.Name(), number, unit)
		case v > most:
			return Message{}, fmt.Errorf("the %s reads %s %s; more than %g %s it cannot: measure once more", k.Name(), number, unit, most, unit)
		}
		return Message{Word: word, Value: v, Unit: unit}, nil
	case word == "press" && k == Pedal && slices.Contains(presses, rest):
		return Message{Word: word, Press: rest}, nil
	case word == "printed" && k == Printer:
		n, err := strconv.Atoi(rest)
		if err != nil || n < 0 {
			return Message{}, fmt.Errorf("the %s says that it printed %s lines: print once more", k.Name(), shown(rest))
		}
		return Message{Word: word, Lines: n}, nil
	}
	return Message{}, fmt.Errorf("the %s sent %s, which it never should: switch it off and on", k.Name(), shown(line))
}

// shown is what came from outside, short and without what could move a cursor.
func shown(s string) string {
	s = strings.Map(func(r rune) rune {
		if unicode.IsPrint(r) {
			return r
		}
		return '·'
	}, s)
	if r := []rune(s); len(r) > 24 {
		s = string(r[:24]) + "…"
	}
	return "“" + s + "”"
}
