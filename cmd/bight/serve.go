package main

import (
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"nimblebight/demo"
	"nimblebight/server"
	"nimblebight/store"
)

func serve(filled bool) func(context.Context, []string, io.Reader, io.Writer) error {
	name := "serve"
	if filled {
		name = "demo"
	}
	return func(ctx context.Context, args []string, _ io.Reader, out io.Writer) error {
		fs := flags(name, out)
		addr := fs.String("addr", "127.0.0.1:7420", "`address` to listen on")
		data := fs.String("data", defaultData(), "`folder` that holds the data")
		passcode := fs.String("passcode", os.Getenv("BIGHT_PASSCODE"), "`words` to ask for when other machines can reach the address")
		if _, err := parse(fs, args, 0); err != nil {
			return err
		}
		srv, err := server.New(nil, server.Config{Addr: *addr, Passcode: *passcode})
		if err != nil {
			return badInput{err}
		}
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
		return srv.Serve(ctx, func(addr string) {
			fmt.Fprintf(out, "Nimble Bight is on http://%s/  (data in %s, stop with Ctrl+C)\n", addr, *data)
		})
	}
}

// defaultData is a folder of the user's, or one beside the program where the
// system names none.
func defaultData() string {
	if dir, err := os.UserConfigDir(); err == nil {
		return filepath.Join(dir, "nimble-bight")
	}
	return "data"
}
