package archive_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"nimblebight/formats/archive"
)

var made = time.Date(2026, 5, 1, 12, 0, 0, 0, time.UTC)

func packed(t testing.TB, files map[string]string) []byte {
	t.Helper()
	var b bytes.Buffer
	w := archive.Write(&b, archive.Manifest{MadeAt: made, MadeBy: "test", Identity: "abc"})
	for name, text := range files {
		if err := w.Add(name, []byte(text)); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func open(b []byte) (*archive.Archive, error) {
	return archive.Open(bytes.NewReader(b), int64(len(b)))
}

func TestWhatGoesInComesOut(t *testing.T) {
	files := map[string]string{"pieces/a.json": `{"x":1}`, "drawer.json": "[]", "empty.json": ""}
	a, err := open(packed(t, files))
	if err != nil {
		t.Fatal(err)
	}
	if got := a.Names(); len(got) != 3 || got[0] != "drawer.json" {
		t.Errorf("names %v", got)
	}
	for name, text := range files {
		if b, err := a.Read(name); err != nil || string(b) != text {
			t.Errorf("%s is %q, %v", name, b, err)
		}
	}
	if !a.Manifest.MadeAt.Equal(made) || a.Manifest.Identity != "abc" {
		t.Errorf("manifest %+v", a.Manifest)
	}
}

// zipped is a zip of any names and texts; "" as text of the manifest writes a
// true one for the others.
func zipped(t testing.TB, files ...[2]string) []byte {
	t.Helper()
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, f := range files {
		out, err := w.Create(f[0])
		if err != nil {
			t.Fatal(err)
		}
		fmt.Fprint(out, f[1])
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func manifest(t testing.TB, change func(*archive.Manifest)) string {
	t.Helper()
	m := archive.Manifest{Format: archive.Format, Version: archive.Version}
	change(&m)
	b, err := json.Marshal(m)
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

func TestWhatIsNoArchiveOfOursIsRefused(t *testing.T) {
	good := packed(t, map[string]string{"drawer.json": strings.Repeat("cord ", 500)})
	spoilt := bytes.Clone(good)
	spoilt[60] ^= 0xff
	nothing := func(*archive.Manifest) {}
	for name, c := range map[string]struct {
		bytes []byte
		says  string
	}{
		"empty":          {nil, "no zip"},
		"text":           {[]byte("a shopping list"), "no zip"},
		"cut off":        {good[:len(good)-30], "no zip"},
		"half":           {good[:len(good)/2], "no zip"},
		"spoilt":         {spoilt, ""},
		"foreign":        {zipped(t, [2]string{"letter.txt", "dear"}), "manifest"},
		"other manifest": {zipped(t, [2]string{"manifest.json", `{"format":"other"}`}), "not one of a backup"},
		"no manifest":    {zipped(t, [2]string{"drawer.json", "[]"}), "manifest"},
		"newer":          {zipped(t, [2]string{"manifest.json", manifest(t, func(m *archive.Manifest) { m.Version = 2 })}), "newer"},
		"up and out":     {zipped(t, [2]string{"manifest.json", manifest(t, nothing)}, [2]string{"../../etc/passwd", "x"}), "none of ours"},
		"absolute":       {zipped(t, [2]string{"manifest.json", manifest(t, nothing)}, [2]string{"/etc/passwd.json", "x"}), "none of ours"},
		"backslash":      {zipped(t, [2]string{"manifest.json", manifest(t, nothing)}, [2]string{`..\x.json`, "x"}), "none of ours"},
		"unnamed":        {zipped(t, [2]string{"manifest.json", manifest(t, nothing)}, [2]string{"extra.json", "x"}), "names 0"},
		"twice":          {zipped(t, [2]string{"a.json", "x"}, [2]string{"a.json", "y"}), "twice"},
		"missing": {zipped(t, [2]string{"b.json", "x"}, [2]string{"manifest.json", manifest(t, func(m *archive.Manifest) {
			m.Files = []archive.Entry{{Name: "a.json", Bytes: 1}}
		})}), "missing"},
		"bomb": {zipped(t, [2]string{"a.json", strings.Repeat("0", 3<<20)}, [2]string{"manifest.json", manifest(t, func(m *archive.Manifest) {
			m.Files = []archive.Entry{{Name: "a.json", Bytes: 10}}
		})}), "larger than it says"},
		"too large": {zipped(t, [2]string{"a.json", "0"}, [2]string{"manifest.json", manifest(t, func(m *archive.Manifest) {
			m.Files = []archive.Entry{{Name: "a.json", Bytes: 1 << 40}}
		})}), "larger than"},
		"other content": {zipped(t, [2]string{"a.json", "12345"}, [2]string{"manifest.json", manifest(t, func(m *archive.Manifest) {
			m.Files = []archive.Entry{{Name: "a.json", Bytes: 5, SHA256: strings.Repeat("0", 64)}}
		})}), "changed or damaged"},
	} {
		_, err := open(c.bytes)
		var no *archive.Refused
		if !errors.As(err, &no) || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v; it should say %q", name, err, c.says)
		}
	}
}

// Cut off anywhere, an archive is refused; nothing of it is taken for whole.
func TestCutOffAnywhere(t *testing.T) {
	good := packed(t, map[string]string{"a.json": "one", "b.json": "two"})
	for n := range len(good) {
		if _, err := open(good[:n]); err == nil {
			t.Fatalf("the first %d of %d bytes were taken", n, len(good))
		}
	}
}

func TestNamesThatLeadOutAreNotWritten(t *testing.T) {
	w := archive.Write(&bytes.Buffer{}, archive.Manifest{})
	for _, name := range []string{"", "../a.json", "/a.json", "a", "manifest.json", "A.json", "a.json/", "a//b.json", "a b.json"} {
		if err := w.Add(name, nil); err == nil {
			t.Errorf("%q was written", name)
		}
	}
}

func FuzzOpen(f *testing.F) {
	f.Add(packed(f, map[string]string{"pieces/a.json": `{"x":1}`, "drawer.json": "[]"}))
	f.Add(zipped(f, [2]string{"manifest.json", `{}`}))
	f.Fuzz(func(t *testing.T, b []byte) {
		a, err := open(b)
		if err != nil {
			var no *archive.Refused
			if !errors.As(err, &no) {
				t.Fatalf("%T: %v", err, err)
			}
			return
		}
		for _, name := range a.Names() { // what was taken can be read
			if _, err := a.Read(name); err != nil {
				t.Fatalf("%s: %v", name, err)
			}
		}
	})
}

func Example() {
	var file bytes.Buffer
	w := archive.Write(&file, archive.Manifest{Identity: "boathouse"})
	_ = w.Add("drawer.json", []byte(`["lagoon, 4 mm"]`))
	_ = w.Close()

	a, err := archive.Open(bytes.NewReader(file.Bytes()), int64(file.Len()))
	if err != nil {
		fmt.Println(err)
		return
	}
	b, _ := a.Read("drawer.json")
	fmt.Println(a.Names(), string(b))
	// Output: [drawer.json] ["lagoon, 4 mm"]
}
