// Command bight is Nimble Bight: it serves the bench, plans pieces from files
// and lists the knots it knows.
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"os/signal"
	"strings"
	"syscall"
)

// Exit codes: bad input, and a failure of ours.
const (
	exitBad  = 2
	exitOurs = 1
)

// badInput is an error that the caller can mend.
type badInput struct{ error }

func (b badInput) Unwrap() error { return b.error }

type command struct {
	name, line, example string
	run                 func(ctx context.Context, args []string, in io.Reader, out io.Writer) error
}

func commands() []command {
	return []command{
		{"serve", "serve the bench with the data of a folder", "bight serve --addr 127.0.0.1:7420 --data ~/nimble-bight", serve(false)},
		{"demo", "the same, and fill an empty folder with the Marram Quay boathouse", "bight demo --data /tmp/boathouse", serve(true)},
		{"plan", "plan a piece file: what to cut, where to fold, how to tie", "bight plan fob.json --text\n  cat fob.json | bight plan - --json", runPlan},
		{"backup", "write everything in a data folder into one file", "bight backup --data ~/nimble-bight boathouse.zip", runBackup},
		{"restore", "put a backup back: merged into what is there, or in its place", "bight restore --data ~/nimble-bight boathouse.zip\n  bight restore --data ~/nimble-bight --replace boathouse.zip", runRestore},
		{"knots", "list the knots, mounts and finishes", "bight knots --json", runKnots},
		{"fist", "how much cord a monkey's fist takes, how big it comes out and which cores suit", "bight fist --cord 4 --passes 3\n  bight fist --cord 4 --make kernmantle --core 16 --json\n  bight fist --cord 4 --passes 4 --drawer 12,16,20", runFist},
		{"device", "stand in for a scale, a caliper, a pedal or a label printer: what is typed it reads or presses", "bight device scale --addr 127.0.0.1:7431", runDevice},
		{"tighten", "draw a knot up tight and hold it against what is published of it", "bight tighten trefoil\n  bight tighten --list", runTighten},
	}
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	os.Exit(run(ctx, os.Args[1:], os.Stdin, os.Stdout, os.Stderr))
}

// run is main with its surroundings passed in.
func run(ctx context.Context, args []string, in io.Reader, out, errs io.Writer) int {
	if len(args) == 0 || args[0] == "--help" || args[0] == "-h" || args[0] == "help" {
		usage(out)
		if len(args) == 0 {
			return exitBad
		}
		return 0
	}
	for _, c := range commands() {
		if c.name != args[0] {
			continue
		}
		err := c.run(ctx, args[1:], in, out)
		var bad badInput
		switch {
		case err == nil, errors.Is(err, flag.ErrHelp):
			return 0
		case errors.As(err, &bad):
			fmt.Fprintln(errs, "bight:", printable(err.Error()))
			return exitBad
		default:
			fmt.Fprintln(errs, "bight:", printable(err.Error()))
			return exitOurs
		}
	}
	fmt.Fprintf(errs, "bight: there is no command %q; try bight --help\n", args[0])
	return exitBad
}

func usage(out io.Writer) {
	fmt.Fprintln(out, "bight plans cord: lengths, folds, knots and how to tie them.")
	for _, c := range commands() {
		fmt.Fprintf(out, "\n  bight %s: %s\n  for example:\n  %s\n", c.name, c.line, c.example)
	}
}

// flags makes a flag set that reports its errors as bad input and shows the
// command's example.
func flags(name string, out io.Writer) *flag.FlagSet {
	fs := flag.NewFlagSet(name, flag.ContinueOnError)
	fs.SetOutput(io.Discard)
	fs.Usage = func() {
		fs.SetOutput(out)
		for _, c := range commands() {
			if c.name == name {
				fmt.Fprintf(out, "bight %s: %s\n\nfor example:\n  %s\n\n", c.name, c.line, c.example)
			}
		}
		fs.PrintDefaults()
	}
	return fs
}

// parse reads flags and up to most other words, in any order.
func parse(fs *flag.FlagSet, args []string, most int) ([]string, error) {
	var words []string
	for {
		if err := fs.Parse(args); err != nil {
			if errors.Is(err, flag.ErrHelp) {
				return nil, err
			}
			if strings.HasSuffix(err.Error(), "not defined: -passcode") {
				return nil, badInput{errors.New("a passcode given as an argument could be read by everybody on this machine; write it into a file and give --passcode-file, or set BIGHT_PASSCODE")}
			}
			return nil, badInput{fmt.Errorf("%w; try bight %s --help", err, fs.Name())}
		}
		args = fs.Args()
		if len(args) == 0 {
			break
		}
		words = append(words, args[0])
		args = args[1:]
	}
	if len(words) > most {
		return nil, badInput{fmt.Errorf("%s takes no %q; try bight %s --help", fs.Name(), words[most], fs.Name())}
	}
	return words, nil
}
