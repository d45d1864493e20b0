package shell

import (
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"html/template"
	"io"
	"io/fs"
	"net/http"
	"path"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/andybalholm/brotli"
)

// static serves embedded files, compressed once and kept. Below an address that has the hash
// of all of them they never change, so that browsers keep them without asking again; files
// that name each other do so by their place beside one another, and stay below it.
type static struct {
	files fs.FS
	hash  string
	mu    sync.Mutex
	ready map[string]*asset
}

type asset struct {
	plain, brotli, gzip []byte
	etag, kind          string
}

// Files are what ships for the application: the templates of its screens, and what browsers load.
type Files struct {
	static    *static
	templates map[string]*template.Template
}

// ReadFiles reads them, and compresses in the background what browsers load.
func ReadFiles(files fs.FS) (*Files, error) {
	f := new(Files)
	var err error
	if f.static, err = newStatic(files); err != nil {
		return nil, err
	}
	go f.static.prepare()
	f.templates, err = parseTemplates(files, f.static)
	return f, err
}

// newStatic prepares files, and takes their hash.
func newStatic(files fs.FS) (*static, error) {
	sum := sha256.New()
	err := fs.WalkDir(files, ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !served(name) {
			return err
		}
		b, err := fs.ReadFile(files, name)
		fmt.Fprintf(sum, "%s %d ", name, len(b))
		sum.Write(b)
		return err
	})
	if err != nil {
		return nil, fmt.Errorf("reading static files: %w", err)
	}
	return &static{files: files, hash: hex.EncodeToString(sum.Sum(nil)[:6]), ready: map[string]*asset{}}, nil
}

// address is where a file is found.
func (s *static) address(name string) string { return "/static/" + s.hash + "/" + name }

// modules gives the addresses of the scripts that patterns name, for browsers to fetch them
// before they come upon them.
func (s *static) modules(patterns ...string) (out []string, err error) {
	for _, pattern := range patterns {
		names, err := fs.Glob(s.files, pattern)
		if err != nil {
			return nil, fmt.Errorf("listing scripts: %w", err)
		}
		for _, name := range names {
			out = append(out, s.address(name))
		}
	}
	return slices.Clip(out), nil
}

var kinds = map[string]string{
	".js": "text/javascript; charset=utf-8", ".css": "text/css; charset=utf-8", ".svg": "image/svg+xml",
	".wasm": "application/wasm", ".png": "image/png",
}

// served reports whether a file is one that browsers load: a template isn't.
func served(name string) bool {
	return kinds[path.Ext(name)] != "" || strings.HasPrefix(path.Base(name), "LICENSE.")
}

func (s *static) asset(name string) (*asset, error) {
	if !served(name) {
		return nil, fs.ErrNotExist
	}
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
		a.brotli = packed(b, func(w io.Writer) io.WriteCloser { return brotli.NewWriterLevel(w, 6) })
		a.gzip = packed(b, func(w io.Writer) io.WriteCloser { return gzip.NewWriter(w) })
	}
	s.ready[name] = a
	return a, nil
}

// packed compresses what is to be sent, or gives nil.
func packed(b []byte, by func(io.Writer) io.WriteCloser) []byte {
	var out bytes.Buffer
	w := by(&out)
	if _, err := w.Write(b); err != nil || w.Close() != nil {
		return nil
	}
	return out.Bytes()
}

// prepare compresses everything before it is asked for.
func (s *static) prepare() {
	_ = fs.WalkDir(s.files, ".", func(name string, d fs.DirEntry, err error) error {
		if err == nil && !d.IsDir() && served(name) {
			_, err = s.asset(name)
		}
		return err
	})
}

func (s *static) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
	name, hashed := strings.CutPrefix(name, s.hash+"/")
	a, err := s.asset(name)
	if err != nil {
		http.NotFound(w, r)
		return
	}
	h := w.Header()
	h.Set("Cache-Control", "no-cache") // asked again each time; the ETag makes that cheap
	if hashed {
		h.Set("Cache-Control", "public, max-age=31536000, immutable")
	}
	h.Set("ETag", a.etag)
	h.Set("Vary", "Accept-Encoding")
	if a.kind != "" {
		h.Set("Content-Type", a.kind)
	}
	b, accepts := a.plain, r.Header.Get("Accept-Encoding")
	switch {
	case a.brotli != nil && strings.Contains(accepts, "br"):
		h.Set("Content-Encoding", "br")
		b = a.brotli
	case a.gzip != nil && strings.Contains(accepts, "gzip"):
		h.Set("Content-Encoding", "gzip")
		b = a.gzip
	}
	http.ServeContent(w, r, "", time.Time{}, bytes.NewReader(b))
}
