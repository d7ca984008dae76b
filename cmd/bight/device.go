package main

import (
	"bufio"
	"context"
	"fmt"
	"io"
	"net"
	"slices"
	"strings"

	"nimblebight/device"
)

// runDevice is a stand-in for a device: each line that is typed it reads or presses, and
// labels that are sent to it are written out.
func runDevice(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
	fs := flags("device", out)
	addr := fs.String("addr", "127.0.0.1:7431", "the port of this machine to listen on")
	words, err := parse(fs, args, 1)
	if err != nil {
		return err
	}
	if len(words) == 0 || !slices.Contains(device.Kinds, device.Kind(words[0])) {
		return badInput{fmt.Errorf("say which device: one of %v", device.Kinds)}
	}
	kind := device.Kind(words[0])
	if err := (device.Places{Scale: *addr}).Check(device.Scale); err != nil {
		return badInput{err}
	}
	l, err := (&net.ListenConfig{}).Listen(ctx, "tcp", *addr)
	if err != nil {
		return fmt.Errorf("listening for the bench: %w", err)
	}
	fmt.Fprintf(out, "A stand-in %s is at %s. %s Stop with Ctrl+C.\n", kind.Name(), l.Addr(), map[device.Kind]string{
		device.Scale: "Type 12.4 g to have it read that.", device.Caliper: "Type 4.1 mm to have it read that.",
		device.Pedal: "Type next or back to press it.", device.Printer: "Labels are written here.",
	}[kind])
	stands := device.NewStandIn(kind, func(lines []string) { fmt.Fprintln(out, printable(strings.Join(lines, "\n"))) })
	go func() {
		for typed := bufio.NewScanner(in); typed.Scan(); {
			stands.Set(typed.Text())
		}
	}()
	return stands.Serve(ctx, l)
}
