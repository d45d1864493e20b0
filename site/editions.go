package site

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"

	"openplot/core/doc"
	"openplot/store"
)

// edition is what a page was published from.
type edition struct {
	Slug   string
	Page   *doc.Page
	Source Source
}

// Edition is a page of the site, as of a sequence number, to be published.
func (src Source) Edition(seq int64, slug string, page *doc.Page) (store.Edition, error) {
	e := store.Edition{Page: page.ID, Seq: seq}
	var shown []*store.Medium
	for _, m := range src.Media {
		if !page.Shows(m.ID) {
			continue
		}
		shown = append(shown, m)
		if m.CopiesLeft > 0 {
			e.Lacks = append(e.Lacks, m.Original)
		}
	}
	if len(e.Lacks) == 0 {
		return e, nil
	}
	src.Media = shown
	var err error
	if e.Source, err = json.Marshal(edition{slug, page, src}); err != nil {
		return e, fmt.Errorf("writing an edition: %w", err)
	}
	return e, nil
}

// Release publishes a page of a site as it stands: it gives its address on the site's host,
// and how many pictures on it still lack copies, which come to it by themselves.
func (p *Publisher) Release(ctx context.Context, st *store.Store, src Source, page *store.Page) (address string, lacking int, err error) {
	e, err := src.Edition(page.Seq, page.Slug, page.Doc)
	if err != nil {
		return "", 0, err
	}
	ready, err := p.Prepare(src, page.Slug, page.Doc)
	if err != nil {
		return "", 0, err
	}
	e.Said = ready.Said
	if err := st.Publish(ctx, e, ready.Put); err != nil {
		return "", 0, err
	}
	lacking, err = p.CatchUp(ctx, st, src.Site.ID, e)
	return ready.Address, lacking, err
}

// ReleaseAll publishes all pages of a site.
func (p *Publisher) ReleaseAll(ctx context.Context, st *store.Store, s *doc.Site) error {
	src, err := ReadSource(ctx, st, s)
	if err != nil {
		return err
	}
	for _, info := range src.Pages {
		page, err := st.Page(ctx, s.ID, info.Slug)
		if err != nil {
			return err
		}
		if _, _, err := p.Release(ctx, st, src, page); err != nil {
			return err
		}
	}
	return nil
}

// CatchUp brings copies to an edition that were made while it was being published, and
// gives how many pictures still lack some.
func (p *Publisher) CatchUp(ctx context.Context, st *store.Store, site string, e store.Edition) (int, error) {
	if len(e.Lacks) == 0 {
		return 0, nil
	}
	media, err := st.Media(ctx, site)
	if err != nil {
		return 0, err
	}
	left := 0
	for _, original := range e.Lacks {
		if slices.ContainsFunc(media, func(m *store.Medium) bool { return m.Original == original && m.CopiesLeft > 0 }) {
			left++
		} else if err := p.CopiesMade(ctx, st, store.MakeCopies{Site: site, Original: original}); err != nil {
			return 0, err
		}
	}
	return left, nil
}

// CopiesMade publishes again, just as they were, the pages that were published before a
// picture on them had all its copies.
func (p *Publisher) CopiesMade(ctx context.Context, st *store.Store, job store.MakeCopies) error {
	media, err := st.Media(ctx, job.Site)
	if err != nil {
		return err
	}
	now := map[string]*store.Medium{}
	for _, m := range media {
		now[m.Original] = m
	}
	m := now[job.Original]
	return st.Renew(ctx, job.Site, job.Original, m == nil || m.CopiesLeft == 0, func(source []byte) ([]byte, error) {
		var e edition
		if err := json.Unmarshal(source, &e); err != nil {
			return nil, fmt.Errorf("reading an edition: %w", err)
		}
		for _, was := range e.Source.Media { // all else about them is as it was published
			if m := now[was.Original]; m != nil {
				was.Variants = m.Variants
			}
		}
		if _, err := p.Publish(e.Source, e.Slug, e.Page); err != nil {
			return nil, err
		}
		return json.Marshal(e)
	})
}
