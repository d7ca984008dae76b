package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"os"
	"path/filepath"
	"runtime/debug"
	"strings"

	"golang.org/x/term"

	"nimblebight/demo"
	"nimblebight/server"
	"nimblebight/store"
)

// memoryGoal is what the program's memory is kept near, bytes: its caches are
// bounded by half of it, the rest is work under way.
const memoryGoal = 240 << 20

func serve(filled bool) func(context.Context, []string, io.Reader, io.Writer) error {
	name := "serve"
	if filled {
		name = "demo"
	}
	return func(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
		fs := flags(name, out)
		addr := fs.String("addr", "127.0.0.1:7420", "`address` to listen on")
		data := fs.String("data", defaultData(), "`folder` that holds the data")
		file := fs.String("passcode-file", "", "`file` whose first line is the passcode, for an address that other machines can reach; without it the environment's BIGHT_PASSCODE counts, else it is asked for")
		cert := fs.String("tls-cert", "", "`file` of a certificate (PEM), to serve HTTPS")
		key := fs.String("tls-key", "", "`file` of the certificate's key (PEM)")
		if _, err := parse(fs, args, 0); err != nil {
			return err
		}
		cfg := server.Config{Addr: *addr, CertFile: *cert, KeyFile: *key, Log: slog.New(slog.NewTextHandler(os.Stderr, nil))}
		if server.Reachable(*addr) || *file != "" || os.Getenv("BIGHT_PASSCODE") != "" {
			var err error
			if cfg.Passcode, err = passcode(*file, in, out); err != nil {
				return badInput{err}
			}
		}
		srv, err := server.New(nil, cfg)
		if err != nil {
			return badInput{err}
		}
		l, err := srv.Listen(ctx) // before the folder is made
		if err != nil {
			return err
		}
		defer l.Close()
		debug.SetMemoryLimit(memoryGoal)
		st, err := store.Open(ctx, *data)
		if err != nil {
			return err
		}
		defer st.Close()
		if filled {
			if err := demo.Fill(ctx, st); err != nil {
				return fmt.Errorf("filling the demo: %w", err)
			}
		}
		srv.Use(st)
		if filled { // a new maker's first look is a full rack
			if err := srv.SumAll(ctx); err != nil {
				return err
			}
		}
		if err := tell(ctx, out, srv, st, l.Addr().String(), *data); err != nil {
			return err
		}
		return srv.Serve(ctx, l)
	}
}

// tell says where the bench is and what the maker should know of it.
func tell(ctx context.Context, out io.Writer, srv *server.Server, st *store.Store, addr, data string) error {
	scheme := "http"
	if srv.Secure() {
		scheme = "https"
	}
	fmt.Fprintf(out, "Nimble Bight is on %s://%s/  (data in %s, stop with Ctrl+C)\n", scheme, addr, printable(data))
	if srv.Plain() {
		fmt.Fprintln(out, "Other machines reach it over plain HTTP: who shares the network can read the passcode. Give --tls-cert and --tls-key to serve HTTPS.")
	}
	alone, err := st.CopiedAlone(ctx)
	if err == nil && alone {
		fmt.Fprintf(out, "Only the file %s was copied here; what was newest may have stayed behind. Move a folder with bight backup and bight restore.\n", store.FileName)
	}
	return err
}

// passcode gets it from a file, from the environment, or asks for it; never from
// an argument, which others on the machine could read.
func passcode(file string, in io.Reader, out io.Writer) (string, error) {
	if file != "" {
		b, err := os.ReadFile(file)
		if err != nil {
			return "", fmt.Errorf("reading the passcode: %w", err)
		}
		line, _, _ := strings.Cut(string(b), "\n")
		return strings.TrimRight(line, "\r"), nil
	}
	if p := os.Getenv("BIGHT_PASSCODE"); p != "" {
		return p, nil
	}
	f, ok := in.(*os.File)
	if !ok || !term.IsTerminal(int(f.Fd())) {
		return "", errors.New("other machines can reach this address, so it needs a passcode: write one into a file and give --passcode-file, set BIGHT_PASSCODE, or start it in a terminal to be asked")
	}
	fmt.Fprintf(out, "Passcode, %d letters or more: ", server.LeastPasscode)
	b, err := term.ReadPassword(int(f.Fd()))
	fmt.Fprintln(out)
	if err != nil {
		return "", fmt.Errorf("asking for the passcode: %w", err)
	}
	return string(b), nil
}

// defaultData is a folder of the user's, or one beside the program where the
// system names none.
func defaultData() string {
	if dir, err := os.UserConfigDir(); err == nil {
		return filepath.Join(dir, "nimble-bight")
	}
	return "data"
}

// agreed asks a yes or no on the terminal.
func agreed(in io.Reader, out io.Writer, question string) bool {
	fmt.Fprintf(out, "%s [y/N] ", question)
	line, _ := bufio.NewReader(in).ReadString('\n')
	switch strings.ToLower(strings.TrimSpace(line)) {
	case "y", "yes":
		return true
	}
	return false
}
