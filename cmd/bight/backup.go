package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"golang.org/x/term"

	"nimblebight/formats/archive"
	"nimblebight/server"
	"nimblebight/store"
)

// openData opens a folder that is there; it never makes one by a slip of the pen.
func openData(ctx context.Context, dir string) (*store.Store, error) {
	if _, err := os.Stat(filepath.Join(dir, store.FileName)); err != nil {
		return nil, badInput{fmt.Errorf("there is no %s in %s; name the folder with --data", store.FileName, printable(dir))}
	}
	return store.Open(ctx, dir)
}

func runBackup(ctx context.Context, args []string, _ io.Reader, out io.Writer) error {
	fs := flags("backup", out)
	data := fs.String("data", defaultData(), "`folder` that holds the data")
	words, err := parse(fs, args, 1)
	if err != nil {
		return err
	}
	if len(words) == 0 {
		return badInput{errors.New("backup needs the file to write, or - for standard output")}
	}
	st, err := openData(ctx, *data)
	if err != nil {
		return err
	}
	defer st.Close()
	if words[0] == "-" {
		return st.Backup(ctx, out, server.Program)
	}
	// Whole or not at all: written beside and then put in its place.
	f, err := os.CreateTemp(filepath.Dir(words[0]), ".nimble-bight-*")
	if err != nil {
		return badInput{fmt.Errorf("writing the backup: %w", err)}
	}
	defer os.Remove(f.Name())
	err = st.Backup(ctx, f, server.Program)
	if err == nil {
		err = f.Sync()
	}
	if err = errors.Join(err, f.Close()); err == nil {
		err = os.Rename(f.Name(), words[0])
	}
	if err == nil {
		fmt.Fprintf(out, "Everything in %s is in %s.\n", printable(*data), printable(words[0]))
	}
	return err
}

func runRestore(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
	fs := flags("restore", out)
	data := fs.String("data", defaultData(), "`folder` to put it back into; it is made where there is none")
	replace := fs.Bool("replace", false, "make the folder what the backup is; without it the backup is merged into what is there")
	trial := fs.Bool("trial", false, "only say what it would do")
	yes := fs.Bool("yes", false, "do it without asking")
	words, err := parse(fs, args, 1)
	if err != nil {
		return err
	}
	if len(words) == 0 {
		return badInput{errors.New("restore needs the backup's file")}
	}
	f, err := os.Open(words[0])
	if err != nil {
		return badInput{err}
	}
	defer f.Close()
	info, err := f.Stat()
	if err != nil {
		return err
	}
	if _, err := archive.Open(f, info.Size()); err != nil { // before a folder is made
		return badInput{fmt.Errorf("%s: %w", printable(words[0]), err)}
	}
	st, err := store.Open(ctx, *data)
	if err != nil {
		return err
	}
	defer st.Close()
	how := store.Merge
	if *replace {
		how = store.Replace
	}
	rep, err := st.Restore(ctx, f, info.Size(), how, true)
	if err != nil {
		return refusedArchive(words[0], err)
	}
	fmt.Fprint(out, says(rep, true))
	if *trial {
		return nil
	}
	if !*yes {
		if t, ok := in.(*os.File); ok && !term.IsTerminal(int(t.Fd())) {
			return badInput{errors.New("nothing was changed: say --yes to do it")}
		}
		if !agreed(in, out, "Do it?") {
			fmt.Fprintln(out, "Nothing was changed.")
			return nil
		}
	}
	if rep, err = st.Restore(ctx, f, info.Size(), how, false); err != nil {
		return refusedArchive(words[0], err)
	}
	fmt.Fprint(out, says(rep, false))
	return nil
}

func refusedArchive(name string, err error) error {
	var no *archive.Refused
	if errors.As(err, &no) {
		return badInput{fmt.Errorf("%s: %w", printable(name), err)}
	}
	return err
}

// says is what putting a backup back does, in words.
func says(r store.Report, will bool) string {
	var b strings.Builder
	verb := "This backup of " + r.MadeAt.Local().Format("2 January 2006 15:04") + " was put back"
	if will {
		verb = "Putting back this backup of " + r.MadeAt.Local().Format("2 January 2006 15:04")
	}
	fmt.Fprintf(&b, "%s:\n", verb)
	line := func(n int, what string) {
		if n > 0 {
			fmt.Fprintf(&b, "  %s: %d\n", what, n)
		}
	}
	line(r.Removed, "pieces of the folder thrown out first, with its drawer and settings")
	line(r.NewPieces, "new pieces")
	line(r.Updated, "pieces with newer work in the backup")
	line(r.Diverged, "pieces changed on both sides, the backup's put beside them")
	line(r.Unchanged, "pieces that stay as they are")
	line(r.LogEntries, "new log entries")
	line(r.Drawer, "new things in the drawer")
	if r.Settings {
		fmt.Fprintln(&b, "  the settings come from the backup")
	}
	return b.String()
}
