package site

import (
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"time"

	"github.com/andybalholm/brotli"

	"openplot/durable"
)

// Release is all that a site's host shows: what each address has, by name of a file that never
// changes. One takes the place of another in one step, so that nobody sees half of one.
type Release struct {
	Number int64 `json:"number"`
	// Pages are by their address, without the slashes at its ends; "" is the home page.
	Pages map[string]*Entry `json:"pages"`
	// Moved are addresses that pages had before, with those to go to: on the site, as those of
	// pages, or whole ones elsewhere.
	Moved map[string]string `json:"moved,omitempty"`
	// Files are what else is at an address, such as sitemap.xml.
	Files map[string]*Entry `json:"files,omitempty"`
	// Missing is what an address shows that has nothing.
	Missing *Entry `json:"missing,omitempty"`
	// Frame is the page around what visitors are told beside pages: a title and words stand in for
	// FrameTitle and FrameWords.
	Frame *Entry `json:"frame,omitempty"`
}

// Entry is what an address shows.
type Entry struct {
	File string `json:"file"` // among the site's contents
	Type string `json:"type"` // media type
	// Page is the id of a page, and Seq the edit as of which it is shown.
	Page  string    `json:"page,omitempty"`
	Seq   int64     `json:"seq,omitempty"`
	Look  int64     `json:"look,omitempty"`
	Name  string    `json:"name,omitempty"`
	Since time.Time `json:"since,omitzero"` // it shows what it shows
	// Hidden is left out of the site map.
	Hidden bool `json:"hidden,omitempty"`
	// Styles are the hashes of the style sheets in it, as a policy names them (CSP 3 §2.3.1).
	Styles []string `json:"styles,omitempty"`
	// Frames are the origins of what frames on it show (CSP 3 §6.1.6); nil is that it isn't known.
	Frames []string `json:"frames"`
	// Letters are what its words need of fonts beside fonts.Usual.
	Letters string `json:"letters,omitempty"`
}

// Names of what is in the folder of a site.
const (
	releaseFile   = "release.json"
	contentFolder = "contents"
	assetFolder   = "assets"
)

// ReadRelease reads what the host of a site shows from its folder; fs.ErrNotExist when that is
// nothing.
func ReadRelease(folder fs.FS) (*Release, error) {
	b, err := fs.ReadFile(folder, releaseFile)
	if err != nil {
		return nil, err
	}
	r := new(Release)
	if err := json.Unmarshal(b, r); err != nil {
		return nil, fmt.Errorf("reading what is published: %w", err)
	}
	return r, nil
}

// StatRelease tells whether what the host shows has changed since.
func StatRelease(folder *os.Root) (fs.FileInfo, error) { return folder.Stat(releaseFile) }

// Content is the path of an entry's file in its site's folder.
func (e *Entry) Content() string { return path.Join(contentFolder, e.File) }

// At finds the page that an address shows now, or "" and nil.
func (r *Release) At(page string) (address string, e *Entry) {
	for a, e := range r.Pages {
		if e.Page == page {
			return a, e
		}
	}
	return "", nil
}

// Read gives what an address shows, from the folder of its site; fs.ErrNotExist when that is
// nothing.
func Read(folder fs.FS, address string) ([]byte, error) {
	r, err := ReadRelease(folder)
	if err != nil {
		return nil, err
	}
	e := r.Pages[address]
	if e == nil {
		e = r.Files[address]
	}
	if e == nil {
		return nil, fmt.Errorf("/%s: %w", address, fs.ErrNotExist)
	}
	return fs.ReadFile(folder, e.Content())
}

// entries calls f with all of what is shown.
func (r *Release) entries(f func(*Entry)) {
	for _, e := range r.Pages {
		f(e)
	}
	for _, e := range r.Files {
		f(e)
	}
	for _, e := range []*Entry{r.Missing, r.Frame} {
		if e != nil {
			f(e)
		}
	}
}

func parseRelease(content []byte) (*Release, error) {
	r := &Release{}
	if content != nil {
		if err := json.Unmarshal(content, r); err != nil {
			return nil, fmt.Errorf("reading a publication: %w", err)
		}
	}
	if r.Pages == nil {
		r.Pages = map[string]*Entry{}
	}
	if r.Files == nil {
		r.Files = map[string]*Entry{}
	}
	return r, nil
}

// Qualities of what is packed as it is published: quick enough for a hundred pages.
const (
	brotliQuality = 6
	gzipQuality   = gzip.DefaultCompression
)

// Endings of the packed copies of a file, by content coding (RFC 9110 §8.4.1).
var packedEndings = []struct{ Coding, Ending string }{{"br", ".br"}, {"gzip", ".gz"}}

// Packed gives the content codings in which files are kept beside them, the best first, with
// the endings of their names.
func Packed() []struct{ Coding, Ending string } { return packedEndings }

// leastPacked is the size in bytes below which nothing is gained.
const leastPacked = 512

// writePacked writes a file, which never changes, with its packed copies.
func writePacked(name string, b []byte) error {
	if _, err := os.Stat(name); err == nil {
		for _, p := range append([]struct{ Coding, Ending string }{{}}, packedEndings...) {
			if err := durable.Touch(name + p.Ending); err != nil && !errors.Is(err, fs.ErrNotExist) {
				return err
			}
		}
		return nil
	}
	if len(b) >= leastPacked {
		var packed bytes.Buffer
		for _, p := range packedEndings {
			packed.Reset()
			var w io.WriteCloser = brotli.NewWriterLevel(&packed, brotliQuality)
			if p.Coding == "gzip" {
				w, _ = gzip.NewWriterLevel(&packed, gzipQuality) // a level that there is
			}
			_, err := w.Write(b)
			if err = errors.Join(err, w.Close()); err != nil {
				return fmt.Errorf("packing %s: %w", filepath.Base(name), err)
			}
			if err := durable.Write(name+p.Ending, packed.Bytes()); err != nil {
				return err
			}
		}
	}
	return durable.Write(name, b) // last, so that it is there with its copies
}

// keep writes what an address is to show, named after what is in it.
func (p *Publisher) keep(site, ending string, b []byte) (file string, err error) {
	sum := sha256.Sum256(b)
	file = hex.EncodeToString(sum[:12]) + ending
	return file, writePacked(filepath.Join(p.folder(site), contentFolder, file), b)
}

// put brings a release to visitors.
func (p *Publisher) put(site string) func(content []byte) error {
	return func(content []byte) error { return durable.Write(filepath.Join(p.folder(site), releaseFile), content) }
}

// folder is where what a site publishes is kept, by the site's id: addresses can be another's
// tomorrow.
func (p *Publisher) folder(site string) string { return filepath.Join(p.Dir, site) }
