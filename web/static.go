package web

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"io"
	"io/fs"
	"net/http"
	"path"
	"strings"
	"sync"
	"time"

	"github.com/andybalholm/brotli"
)

// static serves embedded files with an ETag, compressed once and kept.
type static struct {
	files fs.FS
	mu    sync.Mutex
	ready map[string]*asset
}

type asset struct {
	plain, packed []byte
	etag, kind    string
}

func newStatic(files fs.FS) *static { return &static{files: files, ready: map[string]*asset{}} }

var kinds = map[string]string{
	".js": "text/javascript; charset=utf-8", ".css": "text/css; charset=utf-8", ".svg": "image/svg+xml",
	".wasm": "application/wasm", ".png": "image/png", ".html": "text/html; charset=utf-8",
}

func (s *static) asset(name string) (*asset, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if a := s.ready[name]; a != nil {
		return a, nil
	}
	b, err := fs.ReadFile(s.files, name)
	if err != nil {
		return nil, err
	}
	sum := sha256.Sum256(b)
	a := &asset{plain: b, etag: `"` + hex.EncodeToString(sum[:8]) + `"`, kind: kinds[path.Ext(name)]}
	if a.kind != "" && a.kind != "image/png" {
		var packed bytes.Buffer
		w := brotli.NewWriterLevel(&packed, 6)
		if _, err := io.Copy(w, bytes.NewReader(b)); err == nil && w.Close() == nil {
			a.packed = packed.Bytes()
		}
	}
	s.ready[name] = a
	return a, nil
}

func (s *static) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	a, err := s.asset(strings.TrimPrefix(path.Clean(r.URL.Path), "/"))
	if err != nil {
		http.NotFound(w, r)
		return
	}
	h := w.Header()
	h.Set("Cache-Control", "no-cache") // asked again each time; the ETag makes that cheap
	h.Set("ETag", a.etag)
	h.Set("Vary", "Accept-Encoding")
	if a.kind != "" {
		h.Set("Content-Type", a.kind)
	}
	b := a.plain
	if a.packed != nil && strings.Contains(r.Header.Get("Accept-Encoding"), "br") {
		h.Set("Content-Encoding", "br")
		b = a.packed
	}
	http.ServeContent(w, r, "", time.Time{}, bytes.NewReader(b))
}
