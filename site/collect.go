package site

import (
	"context"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"time"

	"openplot/durable"
	"openplot/store"
)

// Collect removes published files that no published page needs and that are older than a
// time, and tells how many that were, and their bytes. Publishing makes what it needs as
// young as the page, so that nothing is removed under its hands.
func (p *Publisher) Collect(ctx context.Context, st *store.Store, before time.Time) (files int, bytes int64, err error) {
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
		err := st.WithFiles(ctx, func() error {
			n, b, err := collect(filepath.Join(p.Dir, s.Name()), before)
			files, bytes = files+n, bytes+b
			return err
		})
		if err != nil {
			return files, bytes, fmt.Errorf("collecting files of %s: %w", s.Name(), err)
		}
	}
	return files, bytes, nil
}

// collect does so in the folder of one site.
func collect(root string, before time.Time) (files int, bytes int64, err error) {
	needed, err := Needed(root)
	if err != nil {
		return 0, 0, err
	}
	err = filepath.WalkDir(root, func(name string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() {
			return err
		}
		rest, _ := filepath.Rel(root, name)
		unfinished := strings.HasPrefix(e.Name(), durable.TemporaryPrefix)
		if !unfinished && (!strings.HasPrefix(rest, "assets"+string(filepath.Separator)) || needed[e.Name()]) {
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

// Needed gives the names of files that the pages and style sheets in a site's folder name.
func Needed(root string) (map[string]bool, error) {
	needed := map[string]bool{}
	err := filepath.WalkDir(root, func(name string, e fs.DirEntry, err error) error {
		if err != nil || e.IsDir() || filepath.Ext(name) != ".html" && filepath.Ext(name) != ".css" {
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
