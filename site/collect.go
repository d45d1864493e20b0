package site

import (
	"context"
	"fmt"
	"io/fs"
	"maps"
	"os"
	"path/filepath"
	"strings"
	"time"

	"openplot/durable"
	"openplot/store"
)

// Collect removes published files that no publication needs that is kept, and that are older
// than a time, and tells how many that were, and their bytes. Publishing makes what it needs as
// young as the page, so that nothing is removed under its hands.
func (p *Publisher) Collect(
	ctx context.Context,
	st *store.Store,
	before time.Time,
) (files int, bytes int64, err error) {
	sites, err := os.ReadDir(p.Dir)
	if os.IsNotExist(err) {
		return 0, 0, nil
	}
	if err != nil {
		return 0, 0, fmt.Errorf("listing what is published: %w", err)
	}
	for _, s := range sites {
		if !s.IsDir() {
			continue
		}
		if err := ctx.Err(); err != nil {
			return files, bytes, err
		}
		err := st.Media.WithFiles(ctx, func() error {
			root := filepath.Join(p.Dir, s.Name())
			kept, err := p.contents(ctx, st, s.Name())
			if err != nil {
				return err
			}
			n, b, err := collect(root, kept, before)
			files, bytes = files+n, bytes+b
			return err
		})
		if err != nil {
			return files, bytes, fmt.Errorf("collecting files of %s: %w", s.Name(), err)
		}
	}
	return files, bytes, nil
}

// contents gives the names of the contents that the publications of a site show that are kept.
func (p *Publisher) contents(ctx context.Context, st *store.Store, site string) (map[string]bool, error) {
	all, err := st.Releases.ReleaseContents(ctx, site)
	if err != nil {
		return nil, err
	}
	kept := map[string]bool{}
	for _, content := range all {
		r, err := parseRelease(content)
		if err != nil {
			return nil, err
		}
		r.entries(func(e *Entry) { kept[e.File] = true })
	}
	return kept, nil
}

// collect does so in the folder of one site, of which some contents are kept.
func collect(root string, kept map[string]bool, before time.Time) (files int, bytes int64, err error) {
	needed, err := needed(root, kept)
	if err != nil {
		return 0, 0, err
	}
	err = filepath.WalkDir(root, func(name string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		rest, _ := filepath.Rel(root, name)
		unpacked := strings.TrimSuffix(strings.TrimSuffix(e.Name(), ".br"), ".gz")
		if !strings.HasPrefix(e.Name(), durable.TemporaryPrefix) &&
			(rest == releaseFile && len(kept) > 0 || needed[unpacked]) {
			return nil
		}
		fi, err := e.Info()
		if err != nil || !fi.ModTime().Before(before) {
			return nil
		}
		files, bytes = files+1, bytes+fi.Size()
		return os.Remove(name)
	})
	return files, bytes, err
}

// needed gives the names of files in a site's folder that the contents that are kept name, and
// their own.
func needed(root string, kept map[string]bool) (map[string]bool, error) {
	needed := maps.Clone(kept)
	err := filepath.WalkDir(root, func(name string, e fs.DirEntry, err error) error {
		ext := filepath.Ext(name)
		if err != nil || e.IsDir() || ext != ".css" && !(kept[e.Name()] && ext == ".html") {
			return err
		}
		b, err := os.ReadFile(name)
		if err != nil {
			return err
		}
		for word := range strings.FieldsFuncSeq(string(b), outsideNames) {
			if strings.Contains(word, ".") {
				needed[word] = true
			}
		}
		return nil
	})
	return needed, err
}

// outsideNames reports whether a character is in no file's name.
func outsideNames(r rune) bool {
	return !(r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || r == '.' || r == '-' || r == '_')
}
