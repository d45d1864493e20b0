package backup

import (
	"archive/tar"
	"bytes"
	"compress/gzip"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// No archive leads out of where it is brought back to.
func FuzzEach(f *testing.F) {
	for _, name := range []string{"media/x", "../x", "media/../../x", "/etc/passwd", "database.dump", "media/a\x00b"} {
		var b bytes.Buffer
		w := tar.NewWriter(&b)
		_ = w.WriteHeader(&tar.Header{Name: name, Mode: 0o600, Size: 1})
		_, _ = w.Write([]byte("x"))
		_ = w.Close()
		f.Add(b.Bytes())
	}
	name := filepath.Join(f.TempDir(), "archive")
	f.Fuzz(func(t *testing.T, archive []byte) {
		var packed bytes.Buffer
		z := gzip.NewWriter(&packed)
		_, _ = z.Write(archive)
		_ = z.Close()
		if err := os.WriteFile(name, packed.Bytes(), 0o600); err != nil {
			t.Fatal(err)
		}
		_ = each(name, func(h *tar.Header, r io.Reader) error {
			if !filepath.IsLocal(h.Name) || strings.Contains(filepath.Clean(h.Name), "..") {
				t.Errorf("%q", h.Name)
			}
			_, err := io.Copy(io.Discard, io.LimitReader(r, 1<<20))
			return err
		})
	})
}
