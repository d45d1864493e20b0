package site

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"

	"openplot/core/doc"
	"openplot/store"
)

// Mend brings to visitors what the database says is published, where the two differ: the
// program was stopped between one and the other, or published before there were releases.
// Nobody was told of what is undone by that.
func (p *Publisher) Mend(ctx context.Context, st *store.Store) error {
	all, err := st.Releases.AllShown(ctx)
	if err != nil {
		return err
	}
	if err := (soundness{p}).settle(ctx, st, all); err != nil {
		return err
	}
	for _, s := range all {
		if s.Content == nil {
			if err := (soundness{p}).again(ctx, st, s.Site); err != nil {
				return err
			}
			continue
		}
		if err := (soundness{p}).readForms(ctx, st, s); err != nil {
			return err
		}
		b, err := os.ReadFile(filepath.Join(p.folder(s.Site), releaseFile))
		if err == nil && bytes.Equal(b, s.Content) {
			continue
		}
		if err := st.Releases.Reading(ctx, s.Site, p.put(s.Site)); err != nil {
			return err
		}
	}
	return nil
}

// settle moves what was published in folders named by addresses, as it was before they were named
// by id, and takes in where such addresses led.
func (p soundness) settle(ctx context.Context, st *store.Store, all []store.Shown) error {
	for _, s := range all {
		if _, err := os.Stat(p.folder(s.Site)); err == nil || s.Content == nil {
			continue
		}
		was := filepath.Join(p.Dir, s.Slug)
		if b, err := os.ReadFile(filepath.Join(was, releaseFile)); err != nil || !bytes.Equal(b, s.Content) {
			continue // of another, or nothing
		}
		if err := os.Rename(was, p.folder(s.Site)); err != nil {
			return fmt.Errorf("moving what %s published: %w", s.Slug, err)
		}
	}
	const movedFile = "moved"
	moved, err := filepath.Glob(filepath.Join(p.Dir, "*", movedFile))
	if err != nil {
		return fmt.Errorf("listing what is published: %w", err)
	}
	for _, name := range moved {
		to, err := os.ReadFile(name)
		if err == nil {
			err = st.Hosts.KeepFormerAddress(ctx, filepath.Base(filepath.Dir(name)), string(to))
		}
		if err == nil {
			err = os.Remove(name)
		}
		if err != nil {
			return fmt.Errorf("reading where a site moved: %w", err)
		}
	}
	return nil
}

// readForms reads the fields of forms that were published before they were kept.
func (p soundness) readForms(ctx context.Context, st *store.Store, s store.Shown) error {
	pages, err := st.Visible.FieldsUnknown(ctx, s.Site)
	if err != nil || len(pages) == 0 {
		return err
	}
	r, err := parseRelease(s.Content)
	if err != nil {
		return err
	}
	for _, page := range pages {
		_, e := r.At(page)
		if e == nil {
			continue
		}
		b, err := os.ReadFile(filepath.Join(p.folder(s.Site), filepath.FromSlash(e.Content())))
		if errors.Is(err, fs.ErrNotExist) {
			continue // doctor tells
		}
		if err != nil {
			return fmt.Errorf("reading what was published: %w", err)
		}
		said, err := said(string(b), s.Slug)
		if err == nil {
			err = st.Visible.KeepFields(ctx, page, said)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// Show brings to visitors what a site shows, as after it was set aside.
func (p *Publisher) Show(ctx context.Context, st *store.Store, site string) error {
	return st.Releases.Reading(ctx, site, p.put(site))
}

// Lock takes from visitors what other pages of a site, its site map and its lists say of pages
// that have a password now.
func (p *Publisher) Lock(ctx context.Context, st *store.Store, site string) error {
	s, err := st.Sites.ByID(ctx, site)
	if err != nil {
		return err
	}
	src, err := ReadSource(ctx, st, s)
	if err != nil {
		return err
	}
	for _, info := range src.Pages {
		if info.PublishedSeq == nil {
			continue
		}
		d, err := st.Pages.AsOf(ctx, info.ID, *info.PublishedSeq)
		if err != nil {
			return err
		}
		lists := false
		for _, section := range d.Sections {
			section.Walk(func(b *doc.Block) { lists = lists || b.Kind == doc.PageList })
		}
		if lists {
			return soundness{p}.again(ctx, st, site)
		}
	}
	return p.Refresh(ctx, st, src)
}

// Check compares what the store says is published with what is, tells what is wrong, and with
// repair publishes again, as of the same edit, what is missing.
func (p *Publisher) Check(
	ctx context.Context,
	st *store.Store,
	repair bool,
	tell func(format string, args ...any),
) error {
	all, err := st.Releases.AllShown(ctx)
	if err != nil {
		return err
	}
	for _, s := range all {
		r, err := parseRelease(s.Content)
		if err != nil {
			return err
		}
		assets := soundness{p}.assets(s.Site)
		ill := false
		shown, err := os.ReadFile(filepath.Join(p.folder(s.Site), releaseFile))
		if err != nil || !bytes.Equal(shown, s.Content) {
			tell("%s: visitors see another publication than the last", s.Slug)
			if repair {
				if err := st.Releases.Reading(ctx, s.Site, p.put(s.Site)); err != nil {
					return err
				}
			}
		}
		r.entries(func(e *Entry) {
			if missing := (soundness{p}).lacks(s.Site, e, assets); missing != "" {
				tell("%s /%s: %s", s.Slug, e.Name, missing)
				ill = true
			}
		})
		if !ill || !repair {
			continue
		}
		if err := (soundness{p}).again(ctx, st, s.Site); err != nil {
			tell("%s can't be published again: %v; publish it on the screen of its pages", s.Slug, err)
		}
	}
	return nil
}

// assets gives the names of all files among a site's assets.
func (p soundness) assets(site string) map[string]bool {
	names := map[string]bool{}
	_ = filepath.WalkDir(
		filepath.Join(p.folder(site), assetFolder),
		func(_ string, e fs.DirEntry, err error) error { // what can't be read is missing
			if err == nil && !e.IsDir() {
				names[e.Name()] = true
			}
			return nil
		},
	)
	return names
}

// lacks says what is missing of what an address shows, or "".
func (p soundness) lacks(site string, e *Entry, assets map[string]bool) string {
	b, err := os.ReadFile(filepath.Join(p.folder(site), contentFolder, e.File))
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
		if name := filepath.Base(path); filepath.Ext(name) != "" && strings.IndexFunc(name, outsideNames) < 0 &&
			!assets[name] {
			return name + " is missing"
		}
	}
	return ""
}

// again publishes what a site has published again, as it was published.
func (p soundness) again(ctx context.Context, st *store.Store, id string) error {
	s, err := st.Sites.ByID(ctx, id)
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
		if then.Doc, err = st.Pages.AsOf(ctx, info.ID, then.Seq); err != nil {
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
