// Package demo makes the site that Open Plot shows itself with: Skerry Line, a
// small ferry company that doesn't exist. Its words are made up and its pictures
// are drawn here.
//
// In comes an empty store; out comes a site with pages, pictures and two accounts.
// Start at Load.
package demo

import (
	"context"
	"fmt"
	"runtime"
	"sync"

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
// are made in the background, by media.Run.
type Copies int

// The choices: the first one of each; all, but none in AVIF, which takes minutes, and
// none later either; or all.
const (
	Later Copies = iota
	Quick
	Whole
)

// Load makes the demo site.
func Load(ctx context.Context, st *store.Store, mediaDir string, copies Copies) error {
	site := Site()
	if err := st.AddSite(ctx, site); err != nil {
		return err
	}
	designer, err := st.AddUser(ctx, DesignerEmail, "Dana Holm", Password)
	if err != nil {
		return err
	}
	writer, err := st.AddUser(ctx, WriterEmail, "Wil Aske", Password)
	if err != nil {
		return err
	}
	if err := st.AddMember(ctx, site.ID, designer.ID, store.Designer); err != nil {
		return err
	}
	if err := st.AddMember(ctx, site.ID, writer.ID, store.Writer); err != nil {
		return err
	}
	ids, err := loadPictures(ctx, st, mediaDir, site.ID, copies)
	if err != nil {
		return err
	}
	for i, p := range Pages(ids) {
		if err := st.AddPage(ctx, site.ID, p.Slug, i, p.Page); err != nil {
			return err
		}
	}
	return nil
}

// Page is a page of the demo with its slug.
type Page struct {
	Slug string
	Page *doc.Page
}

// Pages gives the demo's pages, the home page first; ids are its pictures' by name.
func Pages(ids map[string]string) []Page {
	return []Page{
		{"", Home(ids)}, {"sailings", Sailings()}, {"fares", Fares()}, {"islands", Islands(ids)}, {"crew", Crew(ids)},
		{"notices", Notices()}, {"ask-for-a-berth", Berth()}, {"winter-weekend", WinterWeekend(ids)},
	}
}

// loadPictures draws and keeps the pictures, and gives their ids by name.
func loadPictures(ctx context.Context, st *store.Store, dir, site string, copies Copies) (map[string]string, error) {
	ids := map[string]string{}
	errs := make([]error, len(pictures)+1) // the last is the clip's
	var mu sync.Mutex
	var wg sync.WaitGroup
	slots := make(chan struct{}, runtime.NumCPU())
	for i, p := range pictures {
		wg.Go(func() {
			slots <- struct{}{}
			defer func() { <-slots }()
			m, err := media.Keep(ctx, st, dir, site, p.name, p.alt, p.draw())
			if err == nil && copies != Later {
				job := store.MakeCopies{Site: site, Medium: m.ID, Original: m.Original}
				if err = media.Finish(ctx, st, dir, job); err == nil && copies == Quick {
					_, err = st.AddCopy(ctx, job, nil, 0) // no others are wanted
				} else if err == nil {
					job.Modern = true
					err = media.Finish(ctx, st, dir, job)
				}
			}
			if err != nil {
				errs[i] = fmt.Errorf("drawing %s: %w", p.name, err)
				return
			}
			mu.Lock()
			defer mu.Unlock()
			ids[p.name] = m.ID
		})
	}
	wg.Go(func() {
		b, err := clip()
		var m *store.Medium
		if err == nil {
			m, err = media.Keep(ctx, st, dir, site, clipName, "The ferry crosses the sound from left to right, under two islands", b)
		}
		if err != nil {
			errs[len(pictures)] = fmt.Errorf("drawing %s: %w", clipName, err)
			return
		}
		mu.Lock()
		defer mu.Unlock()
		ids[clipName] = m.ID
	})
	wg.Wait()
	for _, err := range errs {
		if err != nil {
			return nil, err
		}
	}
	return ids, nil
}

// Site is Skerry Line without its pages.
func Site() *doc.Site {
	return &doc.Site{ID: store.NewID("w"), Slug: SiteSlug, Name: "Skerry Line", House: doc.StandardHouse(), Zones: doc.StandardZones(), Facts: doc.Facts{
		Address: "1 North Steps\nSkerry Harbour", Hours: "Every day 07:30 to 18:00\nIn winter 08:00 to 16:00", Phone: "555 0142", Mail: "office@skerry.example",
	}}
}
