package site

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"time"

	"golang.org/x/sync/errgroup"

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
	e := store.Edition{Page: page.ID, Seq: seq, Look: src.Look}
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

// Order is what is to be published of a site at once, as it stands, and what withdrawn.
type Order struct {
	Pages    []*store.Page
	Withdraw []string // ids of pages
	By       string   // a user, or "" for the program itself
	Note     string   // what is done, in words
	// Ready, where it isn't nil, is called as each page is; it is called by several at once, and an
	// error of it ends all of it before anything is published.
	Ready func() error
}

// Publish carries out an order, and gives how many pictures on its pages still lack copies,
// which come to them by themselves.
func (p *Publisher) Publish(ctx context.Context, st *store.Store, src Source, o Order) (lacking int, err error) {
	if src, err = src.published(o).forVisitors(ctx, st); err != nil {
		return 0, err
	}
	if src.Letters, err = p.letters(src, o); err != nil {
		return 0, err
	}
	ready := make([]*Prepared, len(o.Pages))
	editions := make([]store.Edition, len(o.Pages))
	g, going := errgroup.WithContext(ctx)
	g.SetLimit(runtime.NumCPU())
	for i, page := range o.Pages {
		g.Go(func() (err error) {
			if err := going.Err(); err != nil {
				return err
			}
			if editions[i], err = src.Edition(page.Seq, page.Slug, page.Doc); err != nil {
				return err
			}
			if ready[i], err = p.Prepare(ctx, src, page.Slug, page.Doc); err != nil {
				return err
			}
			editions[i].Said = ready[i].Said
			if o.Ready != nil {
				return o.Ready()
			}
			return ctx.Err()
		})
	}
	if err := g.Wait(); err != nil {
		return 0, err
	}
	home, err := shownHome(ctx, st, src, o)
	if err != nil {
		return 0, err
	}
	missing, err := telling{p}.missing(ctx, src, home)
	if err != nil {
		return 0, err
	}
	frame, err := telling{p}.frame(ctx, src, home)
	if err != nil {
		return 0, err
	}
	err = st.Releases.Publish(ctx, store.Publication{
		Site: src.Site.ID, By: o.By, Note: o.Note, Editions: editions, Withdrawn: o.Withdraw,
		Change: p.change(src, func(r *Release, number int64) error {
			r.Number, r.Missing, r.Frame = number, missing, frame
			for _, id := range o.Withdraw {
				if at, e := r.At(id); e != nil {
					delete(r.Pages, at)
				}
			}
			for i, page := range o.Pages {
				if at, e := r.At(page.ID); e != nil {
					delete(r.Pages, at)
				}
				e := ready[i].Entry
				e.Seq, e.Since = page.Seq, time.Now().UTC().Truncate(time.Second)
				r.Pages[page.Slug] = e
			}
			return nil
		}),
	})
	if err != nil {
		return 0, err
	}
	for _, e := range editions {
		n, err := p.CatchUp(ctx, st, src.Site.ID, e)
		if err != nil {
			return 0, err
		}
		lacking += n
	}
	return lacking, nil
}

// Back shows visitors again what a publication showed, but for pages that were deleted since. It
// is a publication of its own, so that one can go back from it too.
func (p *Publisher) Back(ctx context.Context, st *store.Store, src Source, number int64, by string) error {
	src, err := src.forVisitors(ctx, st)
	if err != nil {
		return err
	}
	content, err := st.Releases.ByID(ctx, src.Site.ID, number)
	if err != nil {
		return err
	}
	then, err := parseRelease(content)
	if err != nil {
		return err
	}
	there := map[string]*store.PageInfo{}
	for _, info := range src.Pages {
		there[info.ID] = info
	}
	var editions []store.Edition
	shown := map[string]bool{}
	for at, e := range then.Pages {
		info := there[e.Page]
		if info == nil {
			delete(then.Pages, at)
			continue
		}
		b, err := os.ReadFile(filepath.Join(p.folder(src.Site.ID), filepath.FromSlash(e.Content())))
		if err != nil {
			return fmt.Errorf("reading what was published: %w", err)
		}
		words, err := said(string(b), src.Site.Slug)
		if err != nil {
			return err
		}
		shown[e.Page] = true
		editions = append(editions, store.Edition{Page: e.Page, Seq: e.Seq, Look: e.Look, Said: words})
	}
	var gone []string
	for id, info := range there {
		if info.PublishedSeq != nil && !shown[id] {
			gone = append(gone, id)
		}
	}
	if err := st.Releases.Publish(ctx, store.Publication{
		Site: src.Site.ID, By: by, Note: fmt.Sprintf("Back to publication %d", number), Editions: editions, Withdrawn: gone,
		Change: p.change(src, func(r *Release, number int64) error {
			r.Number, r.Pages, r.Missing, r.Frame = number, then.Pages, then.Missing, then.Frame
			return nil
		}),
	}); err != nil {
		return err
	}
	if len(src.locked()) > 0 {
		return p.Lock(ctx, st, src.Site.ID) // lists of then may tell of them
	}
	return nil
}

// published leaves out of a site's pages those that visitors won't find after an order: menus
// and lists don't show them, and links don't lead to them.
func (src Source) published(o Order) Source {
	src.Pages = slices.DeleteFunc(slices.Clone(src.Pages), func(p *store.PageInfo) bool {
		ordered := slices.ContainsFunc(o.Pages, func(q *store.Page) bool { return q.ID == p.ID })
		return !ordered && (p.PublishedSeq == nil || slices.Contains(o.Withdraw, p.ID))
	})
	return src
}

// change is a change of what the host of a site shows.
func (p *Publisher) change(src Source, how func(r *Release, number int64) error) store.Change {
	return store.Change{
		Next: func(was []byte, number int64) ([]byte, error) {
			r, err := parseRelease(was)
			if err != nil {
				return nil, err
			}
			if err := how(r, number); err != nil {
				return nil, err
			}
			if err := p.complete(src, r); err != nil {
				return nil, err
			}
			return json.Marshal(r)
		},
		Put: p.put(src.Site.ID),
	}
}

// PublishAll publishes all pages of a site.
func (p *Publisher) PublishAll(ctx context.Context, st *store.Store, s *store.Site) error {
	src, err := ReadSource(ctx, st, s)
	if err != nil {
		return err
	}
	o := Order{Note: "All pages"}
	for _, info := range src.Pages {
		page, err := st.Pages.At(ctx, s.ID, info.Slug)
		if err != nil {
			return err
		}
		o.Pages = append(o.Pages, page)
	}
	_, err = p.Publish(ctx, st, src, o)
	return err
}

// CatchUp brings copies to an edition that were made while it was being published, and
// gives how many pictures still lack some.
func (p *Publisher) CatchUp(ctx context.Context, st *store.Store, site string, e store.Edition) (int, error) {
	if len(e.Lacks) == 0 {
		return 0, nil
	}
	media, err := st.Media.List(ctx, site)
	if err != nil {
		return 0, err
	}
	left := 0
	for _, original := range e.Lacks {
		if slices.ContainsFunc(
			media,
			func(m *store.Medium) bool { return m.Original == original && m.CopiesLeft > 0 },
		) {
			left++
		} else if err := p.CopiesMade(ctx, st, store.MakeCopies{Site: site, Original: original}); err != nil {
			return 0, err
		}
	}
	return left, nil
}

// CopiesMade publishes again, just as they were, the pages that were published before a
// picture on them had all its copies; nothing where the site was deleted since.
func (p *Publisher) CopiesMade(ctx context.Context, st *store.Store, job store.MakeCopies) error {
	media, err := st.Media.List(ctx, job.Site)
	if err != nil {
		return err
	}
	now := map[string]*store.Medium{}
	for _, m := range media {
		now[m.Original] = m
	}
	m := now[job.Original]
	site, err := st.Sites.ByID(ctx, job.Site)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	src, err := ReadSource(ctx, st, site)
	if err == nil {
		src, err = src.forVisitors(ctx, st)
	}
	if err != nil {
		return err
	}
	var ready []*Prepared
	return st.Releases.Renew(
		ctx,
		job.Site,
		job.Original,
		m == nil || m.CopiesLeft == 0,
		func(source []byte) ([]byte, error) {
			var e edition
			if err := json.Unmarshal(source, &e); err != nil {
				return nil, fmt.Errorf("reading an edition: %w", err)
			}
			for _, was := range e.Source.Media { // all else about them is as it was published
				if m := now[was.Original]; m != nil {
					was.Variants = m.Variants
				}
			}
			r, err := p.Prepare(ctx, e.Source, e.Slug, e.Page)
			if err != nil {
				return nil, err
			}
			ready = append(ready, r)
			return json.Marshal(e)
		},
		p.change(src, func(r *Release, _ int64) error {
			for _, now := range ready {
				if _, e := r.At(now.Entry.Page); e != nil {
					e.File, e.Styles = now.Entry.File, now.Entry.Styles
				}
			}
			return nil
		}),
	)
}
