package e2e

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"nimblebight/store"
)

// A storm over one piece: in turn the server is killed, another program locks
// its database, and the disk fills up. Every revision that was acknowledged is
// there afterwards, what fails says why, and the server goes on by itself when
// the cause is gone.
func TestAStormOfKillsLocksAndAFullDisk(t *testing.T) {
	dir := t.TempDir()
	p := start(t, "demo", dir, "127.0.0.1:0")
	client := &http.Client{Timeout: 10 * time.Second}
	type bench struct {
		Revision int64           `json:"revision"`
		Document json.RawMessage `json:"document"`
		Code     string          `json:"code"`
	}
	get := func() (b bench) {
		t.Helper()
		r, err := client.Get("http://" + p.addr + "/api/pieces/1")
		if err != nil {
			t.Fatal(err)
		}
		defer r.Body.Close()
		if err := json.NewDecoder(r.Body).Decode(&b); err != nil {
			t.Fatal(err)
		}
		return b
	}
	// save sends a document of its own; an error is a server that is gone.
	save := func(on bench, name string, pad int) (status int, b bench, err error) {
		doc := fmt.Sprintf(`{"format":"nimble-bight.piece","version":1,"name":%q,"purpose":{"kind":"key-fob","note":%q,"hangs_on":{"type":"rod","inner_mm":20,"wire_mm":3}},"cords":[],"sequence":[]}`, name, strings.Repeat("x", pad))
		req, err := http.NewRequest(http.MethodPut, "http://"+p.addr+"/api/pieces/1", strings.NewReader(fmt.Sprintf(`{"revision":%d,"document":%s}`, on.Revision, doc)))
		if err != nil {
			t.Fatal(err)
		}
		r, err := client.Do(req)
		if err != nil {
			return 0, b, err
		}
		defer r.Body.Close()
		return r.StatusCode, b, json.NewDecoder(r.Body).Decode(&b)
	}
	acknowledged, saves := int64(0), 0
	held := func(round int) bench {
		t.Helper()
		b := get()
		if b.Revision < acknowledged {
			t.Fatalf("round %d: revision %d was acknowledged, the piece is at %d", round, acknowledged, b.Revision)
		}
		return b
	}
	told := map[string]int{}
	for round := range 45 {
		b := held(round)
		switch round % 3 {
		case 0: // killed at a moment that differs from round to round
			killed := make(chan struct{})
			for n := 0; ; n++ {
				if n == 5+round%5 { // saves go on while it is killed
					go func() {
						defer close(killed)
						<-time.NewTimer(time.Duration(round%17) * time.Millisecond / 4).C
						_ = p.cmd.Process.Kill()
					}()
				}
				status, next, err := save(b, fmt.Sprintf("%d-%d", round, n), 0)
				if err != nil {
					break // killed
				}
				if status != http.StatusOK {
					t.Fatalf("a save answered %d", status)
				}
				b, acknowledged, saves = next, next.Revision, saves+1
			}
			<-killed
			_ = p.cmd.Wait()
			p = start(t, "serve", dir, "127.0.0.1:0")
		case 1: // locked for longer than it is waited for
			db, err := sql.Open("sqlite", filepath.Join(dir, store.FileName))
			if err != nil {
				t.Fatal(err)
			}
			conn, err := db.Conn(context.Background())
			if err == nil {
				_, err = conn.ExecContext(context.Background(), "BEGIN IMMEDIATE")
			}
			if err != nil {
				t.Fatal(err)
			}
			if round == 1 { // once to its end; the other rounds let go at once
				status, next, err := save(b, "locked", 0)
				if err != nil || status != http.StatusServiceUnavailable || next.Code != "locked" {
					t.Fatalf("under a lock a save answered %d %q, %v", status, next.Code, err)
				}
				told["locked"]++
			}
			if _, err := conn.ExecContext(context.Background(), "ROLLBACK"); err != nil {
				t.Fatal(err)
			}
			_, _ = conn.Close(), db.Close()
			status, next, err := save(b, fmt.Sprintf("%d after the lock", round), 0)
			if err != nil || status != http.StatusOK {
				t.Fatalf("after the lock a save answered %d, %v", status, err)
			}
			acknowledged, saves = next.Revision, saves+1
		case 2: // no file may grow beyond what it has: a full disk
			if round > 10 {
				continue // a few times tell it
			}
			p.stop()
			most := int64(0)
			files, err := os.ReadDir(dir)
			if err != nil {
				t.Fatal(err)
			}
			for _, f := range files {
				if info, err := f.Info(); err == nil {
					most = max(most, info.Size())
				}
			}
			p = limited(t, dir, most+200<<10)
			b = held(round)
			full := false
			for n := 0; n < 600 && !full; n++ {
				status, next, err := save(b, fmt.Sprintf("%d-%d", round, n), 1800)
				if err != nil {
					t.Fatalf("the full disk ended the server: %v", err)
				}
				switch {
				case status == http.StatusOK:
					b, acknowledged, saves = next, next.Revision, saves+1
				case next.Code == "full":
					full = true
					told["full"]++
				default:
					t.Fatalf("on a full disk a save answered %d %q", status, next.Code)
				}
			}
			if !full {
				t.Error("the disk was never full")
			}
			if now := held(round); now.Revision != acknowledged { // it still reads
				t.Errorf("on a full disk the piece is at %d, %d was acknowledged", now.Revision, acknowledged)
			}
			p.stop()
			p = start(t, "serve", dir, "127.0.0.1:0")
		}
	}
	held(99)
	if told["locked"] == 0 || told["full"] == 0 || saves < 100 {
		t.Errorf("told %v in %d saves: the storm was a breeze", told, saves)
	}
	t.Logf("%d saves acknowledged, the last is revision %d; told %v", saves, acknowledged, told)
}

// limited starts the program so that no file of its can grow beyond so many
// bytes.
func limited(t *testing.T, dir string, bytes int64) *program {
	t.Helper()
	const block = 1024
	return starting(t, exec.Command("bash", "-c", fmt.Sprintf(`ulimit -f %d; exec "$0" serve --addr 127.0.0.1:0 --data "$1"`, bytes/block), binary, dir), dir)
}

// A folder that may only be read is told when it is opened; a port that is taken
// is told before a folder is made.
func TestFoldersAndPortsAreTold(t *testing.T) {
	p := start(t, "serve", t.TempDir(), "127.0.0.1:0")
	made := filepath.Join(t.TempDir(), "not yet")
	out, err := exec.Command(binary, "serve", "--addr", p.addr, "--data", made).CombinedOutput()
	if err == nil || !strings.Contains(string(out), "listening on") {
		t.Errorf("a port that is taken: %v, %s", err, out)
	}
	if _, err := os.Stat(made); err == nil {
		t.Error("the folder was made before the port was had")
	}
	for name, c := range map[string]struct {
		content string
		says    string
	}{
		"damaged": {strings.Repeat("a shopping list\n", 300), "bight restore"},
	} {
		dir := t.TempDir()
		if err := os.WriteFile(filepath.Join(dir, store.FileName), []byte(c.content), 0o600); err != nil {
			t.Fatal(err)
		}
		out, err := exec.Command(binary, "serve", "--addr", "127.0.0.1:0", "--data", dir).CombinedOutput()
		if err == nil || !strings.Contains(string(out), c.says) || strings.Count(strings.TrimSpace(string(out)), "\n") > 0 {
			t.Errorf("%s: %v, %s", name, err, out)
		}
	}
}

// The passcode is never an argument: not in ps, not in the help.
func TestThePasscodeIsNoArgument(t *testing.T) {
	out, _ := exec.Command(binary, "serve", "--addr", "0.0.0.0:0", "--passcode", "half hitch over").CombinedOutput()
	if !strings.Contains(string(out), "--passcode-file") {
		t.Errorf("an argument: %s", out)
	}
	help := exec.Command(binary, "serve", "--help")
	help.Env = append(os.Environ(), "BIGHT_PASSCODE=half hitch over")
	if out, _ := help.CombinedOutput(); strings.Contains(string(out), "half hitch over") {
		t.Error("the help prints the passcode")
	}
	file := filepath.Join(t.TempDir(), "passcode")
	if err := os.WriteFile(file, []byte("half hitch over\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	p := starting(t, exec.Command(binary, "serve", "--addr", "127.0.0.1:0", "--data", t.TempDir(), "--passcode-file", file), "")
	if b, err := os.ReadFile(fmt.Sprintf("/proc/%d/cmdline", p.cmd.Process.Pid)); err != nil || strings.Contains(string(b), "half hitch") {
		t.Errorf("ps shows %q, %v", b, err)
	}
	r, err := http.Get("http://" + p.addr + "/api/pieces")
	if err != nil {
		t.Fatal(err)
	}
	_ = r.Body.Close()
	if r.StatusCode != http.StatusUnauthorized {
		t.Errorf("without it the rack answered %d", r.StatusCode)
	}
	// Stopped, it ends with 0.
	if err := p.cmd.Process.Signal(syscall.SIGTERM); err != nil {
		t.Fatal(err)
	}
	if err := p.cmd.Wait(); err != nil {
		t.Errorf("stopped, it ended with %v", err)
	}
}

// Everything in a folder goes into one file by command and comes back.
func TestBackupAndRestoreByCommand(t *testing.T) {
	p := demoAt(t)
	file, into := filepath.Join(t.TempDir(), "boathouse.zip"), filepath.Join(t.TempDir(), "new")
	run := func(args ...string) (string, error) {
		out, err := exec.Command(binary, args...).CombinedOutput()
		return string(out), err
	}
	if out, err := run("backup", "--data", p.dir, file); err != nil { // while the server is at work
		t.Fatal(out, err)
	}
	if out, err := run("restore", "--data", into, file); err == nil || !strings.Contains(out, "new pieces: ") || !strings.Contains(out, "--yes") {
		t.Errorf("without an answer: %v, %s", err, out)
	}
	if out, err := run("restore", "--data", into, "--yes", file); err != nil || !strings.Contains(out, "was put back") {
		t.Errorf("put back: %v, %s", err, out)
	}
	if out, err := run("restore", "--data", into, "--yes", file); err != nil || strings.Contains(out, "new pieces: ") {
		t.Errorf("put back again: %v, %s", err, out)
	}
	if out, err := run("backup", "--data", filepath.Join(into, "none"), file); err == nil || !strings.Contains(out, "--data") {
		t.Errorf("a folder that is not there: %v, %s", err, out)
	}
	if err := os.WriteFile(file, []byte("a letter"), 0o600); err != nil {
		t.Fatal(err)
	}
	if out, err := run("restore", "--data", into, "--yes", file); err == nil || !strings.Contains(out, "no zip file") {
		t.Errorf("a letter: %v, %s", err, out)
	}
}
