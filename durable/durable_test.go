package durable

import (
	"errors"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"testing/iotest"
)

// A file is replaced whole, is its owner's alone, and one that failed leaves nothing.
func TestWriteIsAllOrNothing(t *testing.T) {
	dir := t.TempDir()
	name := filepath.Join(dir, "a", "b", "page.html")
	for _, text := range []string{"first", "second", "second"} {
		if err := Write(name, []byte(text)); err != nil {
			t.Fatal(err)
		}
		if b, err := os.ReadFile(name); err != nil || string(b) != text {
			t.Errorf("%q, %v", b, err)
		}
	}
	broken := errors.New("the line went dead")
	if _, err := Copy(name, io.MultiReader(strings.NewReader("half"), iotest.ErrReader(broken))); !errors.Is(
		err,
		broken,
	) {
		t.Errorf("%v", err)
	}
	if b, err := os.ReadFile(name); err != nil || string(b) != "second" {
		t.Errorf("after a failed write: %q, %v", b, err)
	}
	entries, err := os.ReadDir(filepath.Dir(name))
	if err != nil || len(entries) != 1 {
		t.Errorf("%v, %v", entries, err)
	}
	for path, want := range map[string]os.FileMode{name: 0o600, filepath.Dir(name): 0o700} {
		if fi, err := os.Stat(path); err != nil || fi.Mode().Perm() != want {
			t.Errorf("%s: %v, %v", path, fi.Mode(), err)
		}
	}
}
