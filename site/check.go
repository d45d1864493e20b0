package site

import (
	"context"
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"strings"

	"openplot/core/doc"
	"openplot/store"
)

// Check compares what the store says is published with what is, tells what is wrong, and with
// repair publishes again, as of the same edit, what is missing.
func (p *Publisher) Check(ctx context.Context, st *store.Store, repair bool, tell func(format string, args ...any)) error {
	pages, err := st.AllPublished(ctx)
	if err != nil {
		return err
	}
	files := map[string]map[string]bool{} // names of assets by site
	for _, page := range pages {
		if files[page.Site] == nil {
			files[page.Site] = p.assets(page.Site)
		}
		missing := p.missing(page, files[page.Site])
		if missing == "" {
			continue
		}
		tell("%s /%s: %s", page.Site, page.Slug, missing)
		if !repair {
			continue
		}
		if err := p.again(ctx, st, page); err != nil {
			tell("%s /%s can't be published again: %v; publish it on the Bench", page.Site, page.Slug, err)
		}
	}
	return nil
}

// assets gives the names of all files among a site's assets.
func (p *Publisher) assets(slug string) map[string]bool {
	names := map[string]bool{}
	_ = filepath.WalkDir(filepath.Join(p.Dir, slug, "assets"), func(_ string, e fs.DirEntry, err error) error { // what can't be read is missing
		if err == nil && !e.IsDir() {
			names[e.Name()] = true
		}
		return nil
	})
	return names
}

// missing says what a published page lacks, or "".
func (p *Publisher) missing(page *store.PublishedPage, assets map[string]bool) string {
	b, err := os.ReadFile(filepath.Join(p.Dir, page.Site, page.Slug, "index.html"))
	if errors.Is(err, fs.ErrNotExist) {
		return "the page is missing"
	}
	if err != nil {
		return err.Error()
	}
	for part := range strings.SplitSeq(string(b), "assets/") {
		path, _, _ := strings.Cut(part, "\"")
		path, _, _ = strings.Cut(path, " ") // in a srcset
		if name := filepath.Base(path); filepath.Ext(name) != "" && strings.IndexFunc(name, outsideNames) < 0 && !assets[name] {
			return name + " is missing"
		}
	}
	return ""
}

// again publishes a page as it was published.
func (p *Publisher) again(ctx context.Context, st *store.Store, page *store.PublishedPage) error {
	s, err := st.SiteBySlug(ctx, page.Site)
	if err != nil {
		return err
	}
	src, err := ReadSource(ctx, st, &s.Site)
	if err != nil {
		return err
	}
	then := &store.Page{PageInfo: page.PageInfo}
	then.Seq = *page.PublishedSeq
	var was *doc.Page
	if was, err = st.PageAt(ctx, page.ID, then.Seq); err != nil {
		return err
	}
	then.Doc = was
	_, _, err = p.Release(ctx, st, src, then)
	return err
}
