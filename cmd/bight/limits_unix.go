//go:build unix

package main

import (
	"os/signal"
	"syscall"
)

// A write beyond a file-size limit shall fail, to be told, and not end the
// program.
func init() { signal.Ignore(syscall.SIGXFSZ) }
