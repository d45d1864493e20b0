// Package demo makes the site that Open Plot shows itself with: Skerry Line, a
// small ferry company that doesn't exist. Its words are made up and its pictures
// are drawn here.
//
// In comes an empty store; out comes a site with pages, pictures and two accounts.
// Start at Load.
package demo

import (
	"bytes"
	"context"
	"fmt"
	"runtime"

	"golang.org/x/sync/errgroup"

	"openplot/core/doc"
	"openplot/media"
	"openplot/store"
)

// The demo's accounts. They are for trying things out on one's own machine.
const (
	DesignerEmail = "designer@skerry.example"
	WriterEmail   = "writer@skerry.example"
	Password      = "three-islands"
)

// SiteSlug is the demo site's.
const SiteSlug = "skerry-line"

// Copies says which copies of the demo's pictures are made before it opens; the others
// are made in the background.
type Copies int

// The choices: the first one of each; all, but none in AVIF, which takes minutes, and
// none later either; or all.
const (
	Later Copies = iota
	Quick
	Whole
)

// milestone is reached when the demo was made, however often its site is deleted since.
const milestone = "demo"

// Load makes the demo site, unless it was made before: all of it, or nothing. It tells
// whether it did.
func Load(ctx context.Context, st *store.Store, pictures *media.Keeper, copies Copies) (bool, error) {
	var kept []*store.Medium
	fresh := false
	err := st.Transaction(ctx, func(st *store.Store) (err error) {
		if fresh, err = st.Once(ctx, milestone); err != nil || !fresh {
			return err
		}
		kept, err = load(ctx, st, pictures)
		return err
	})
	if err != nil || !fresh || copies == Later {
		return fresh, err
	}
	var all errgroup.Group
	all.SetLimit(runtime.NumCPU())
	for _, m := range kept {
		all.Go(func() error {
			job := store.MakeCopies{Site: m.SiteID, Medium: m.ID, Original: m.Original}
			err := pictures.Finish(ctx, job)
			if err == nil && copies == Quick {
				_, err = st.Media.AddCopy(ctx, job, nil, 0, 0) // no others are wanted
			} else if err == nil {
				job.Modern = true
				err = pictures.Finish(ctx, job)
			}
			if err != nil {
				return fmt.Errorf("making copies of %s: %w", m.Name, err)
			}
			return nil
		})
	}
	return fresh, all.Wait()
}

func load(ctx context.Context, st *store.Store, pictures *media.Keeper) ([]*store.Medium, error) {
	site := Site()
	if err := st.Sites.Add(ctx, site); err != nil {
		return nil, err
	}
	if err := st.Mails.Set(ctx, site.ID, store.MailSettings{To: site.Facts.Mail}); err != nil {
		return nil, err
	}
	for _, p := range []struct {
		email, name string
		role        store.Role
	}{{DesignerEmail, "Dana Holm", store.Owner}, {WriterEmail, "Wil Aske", store.Writer}} {
		u, err := st.People.AddUser(ctx, p.email, p.name, Password)
		if err != nil {
			return nil, err
		}
		if err := st.People.AddMember(ctx, site.ID, u.ID, p.role); err != nil {
			return nil, err
		}
	}
	if err := st.Steps.Begun(ctx, site.ID); err != nil { // it is past its first steps
		return nil, err
	}
	if err := st.People.SetOperator(ctx, DesignerEmail, true); err != nil {
		return nil, err
	}
	kept, err := drawPictures(ctx, pictures, site.ID)
	if err != nil {
		return nil, err
	}
	ids := map[string]string{}
	for _, m := range kept {
		if err := st.Media.Add(ctx, m); err != nil {
			return nil, err
		}
		ids[m.Name] = m.ID
	}
	for i, p := range Pages(ids) {
		if err := st.Pages.Add(ctx, site.ID, p.Slug, i, p.Page); err != nil {
			return nil, err
		}
	}
	return kept, nil
}

// Page is a page of the demo with its slug.
type Page struct {
	Slug string
	Page *doc.Page
}

// Pages gives the demo's pages, the home page first; ids are its pictures' by name. All share
// the top bar; the inner pages share a footer, and the home page has one with the winter weekend.
func Pages(ids map[string]string) []Page {
	pages := []Page{
		{"", Home(ids)}, {"sailings", Sailings()}, {"fares", Fares()}, {"islands", Islands(ids)}, {"crew", Crew(ids)},
		{"notices", Notices()}, {"ask-for-a-berth", Berth()}, {"winter-weekend", WinterWeekend(ids)},
	}
	shared := map[string]*doc.Section{}
	for _, p := range pages {
		for i, s := range p.Page.Sections {
			if s.Role == doc.RoleMain {
				continue
			}
			which := string(s.Role) + s.Anchor
			if shared[which] == nil {
				s.Shared = true
				shared[which] = s
			}
			p.Page.Sections[i] = shared[which]
		}
	}
	return pages
}

// drawPictures draws the pictures and writes their files.
func drawPictures(ctx context.Context, keeper *media.Keeper, site string) ([]*store.Medium, error) {
	kept := make([]*store.Medium, len(pictures)+1) // the last is the clip
	var all errgroup.Group
	all.SetLimit(runtime.NumCPU())
	prepare := func(i int, name, alt string, draw func() ([]byte, error)) {
		all.Go(func() error {
			b, err := draw()
			if err == nil {
				kept[i], err = keeper.Prepare(ctx, media.By{Site: site}, name, alt, bytes.NewReader(b))
			}
			if err != nil {
				return fmt.Errorf("drawing %s: %w", name, err)
			}
			return nil
		})
	}
	prepare(len(pictures), clipName, "The ferry crosses the sound from left to right, under two islands", clip)
	for i, p := range pictures {
		prepare(i, p.name, p.alt, func() ([]byte, error) { return p.draw(), nil })
	}
	return kept, all.Wait()
}

// Site is Skerry Line without its pages.
func Site() *doc.Site {
	return &doc.Site{
		ID:    store.NewID("w"),
		Slug:  SiteSlug,
		Name:  "Skerry Line",
		House: doc.StandardHouse(),
		Zones: doc.StandardZones(),
		Facts: doc.Facts{
			Address: "1 North Steps\nSkerry Harbour", Hours: "Every day 07:30 to 18:00\nIn winter 08:00 to 16:00", Phone: "555 0142", Mail: "office@skerry.example",
		},
	}
}
