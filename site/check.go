package site

import (
	"bytes"
	"context"
	"errors"
	"io/fs"
	"os"
	"path/filepath"
	"strings"

	"openplot/store"
)

// Mend brings to visitors what the database says is published, where the two differ: the
// program was stopped between one and the other, or published before there were releases.
// Nobody was told of what is undone by that.
func (p *Publisher) Mend(ctx context.Context, st *store.Store) error {
	all, err := st.AllShown(ctx)
	if err != nil {
		return err
	}
	for _, s := range all {
		if s.Content == nil {
			if err := p.again(ctx, st, s.Site); err != nil {
				return err
			}
			continue
		}
		b, err := os.ReadFile(filepath.Join(p.Dir, s.Slug, releaseFile))
		if err == nil && bytes.Equal(b, s.Content) {
			continue
		}
		if err := st.Reading(ctx, s.Site, p.put(s.Slug)); err != nil {
			return err
		}
	}
	return nil
}

// Check compares what the store says is published with what is, tells what is wrong, and with
// repair publishes again, as of the same edit, what is missing.
func (p *Publisher) Check(ctx context.Context, st *store.Store, repair bool, tell func(format string, args ...any)) error {
	all, err := st.AllShown(ctx)
	if err != nil {
		return err
	}
	for _, s := range all {
		r, err := parseRelease(s.Content)
		if err != nil {
			return err
		}
		assets := p.assets(s.Slug)
		ill := false
		shown, err := os.ReadFile(filepath.Join(p.Dir, s.Slug, releaseFile))
		if err != nil || !bytes.Equal(shown, s.Content) {
			tell("%s: visitors see another publication than the last", s.Slug)
			if repair {
				if err := st.Reading(ctx, s.Site, p.put(s.Slug)); err != nil {
					return err
				}
			}
		}
		r.entries(func(e *Entry) {
			if missing := p.lacks(s.Slug, e, assets); missing != "" {
				tell("%s /%s: %s", s.Slug, e.Name, missing)
				ill = true
			}
		})
		if !ill || !repair {
			continue
		}
		if err := p.again(ctx, st, s.Site); err != nil {
			tell("%s can't be published again: %v; publish it on the screen of its pages", s.Slug, err)
		}
	}
	return nil
}

// assets gives the names of all files among a site's assets.
func (p *Publisher) assets(slug string) map[string]bool {
	names := map[string]bool{}
	_ = filepath.WalkDir(filepath.Join(p.Dir, slug, assetFolder), func(_ string, e fs.DirEntry, err error) error { // what can't be read is missing
		if err == nil && !e.IsDir() {
			names[e.Name()] = true
		}
		return nil
	})
	return names
}

// lacks says what is missing of what an address shows, or "".
func (p *Publisher) lacks(slug string, e *Entry, assets map[string]bool) string {
	b, err := os.ReadFile(filepath.Join(p.Dir, slug, contentFolder, e.File))
	if errors.Is(err, fs.ErrNotExist) {
		return e.File + " is missing"
	}
	if err != nil {
		return err.Error()
	}
	if !strings.HasPrefix(e.Type, "text/html") {
		return ""
	}
	for part := range strings.SplitSeq(string(b), assetFolder+"/") {
		path, _, _ := strings.Cut(part, "\"")
		path, _, _ = strings.Cut(path, " ") // in a srcset
		if name := filepath.Base(path); filepath.Ext(name) != "" && strings.IndexFunc(name, outsideNames) < 0 && !assets[name] {
			return name + " is missing"
		}
	}
	return ""
}

// again publishes what a site has published again, as it was published.
func (p *Publisher) again(ctx context.Context, st *store.Store, id string) error {
	s, err := st.SiteByID(ctx, id)
	if err != nil {
		return err
	}
	src, err := ReadSource(ctx, st, s)
	if err != nil {
		return err
	}
	o := Order{Note: "Published again by the program"}
	for _, info := range src.Pages {
		if info.PublishedSeq == nil {
			continue
		}
		then := &store.Page{PageInfo: *info}
		then.Seq = *info.PublishedSeq
		if then.Doc, err = st.PageAt(ctx, info.ID, then.Seq); err != nil {
			return err
		}
		o.Pages = append(o.Pages, then)
	}
	if len(o.Pages) == 0 {
		return nil
	}
	_, err = p.Publish(ctx, st, src, o)
	return err
}
