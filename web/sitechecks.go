package web

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"sync"
	"sync/atomic"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/site"
	"openplot/store"
)

// siteSweeps are the sweeps of sites that are under way, each over the pages whose findings aren't
// known as they are now.
type siteSweeps struct {
	mu sync.Mutex
	of map[string]*siteSweep
}

// siteSweep is how far one has come.
type siteSweep struct {
	Done, Of int
	stop     context.CancelFunc
}

// under gives how far a site's sweep has come, or nil when there is none.
func (s *siteSweeps) under(site string) *siteSweep {
	s.mu.Lock()
	defer s.mu.Unlock()
	if w := s.of[site]; w != nil {
		now := *w
		return &now
	}
	return nil
}

// begin begins one over so many pages, unless one is under way; step is to be called after each
// page, and end at the end.
func (s *siteSweeps) begin(site string, pages int, stop context.CancelFunc) (step, end func(), ok bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.of[site] != nil {
		return nil, nil, false
	}
	if s.of == nil {
		s.of = map[string]*siteSweep{}
	}
	w := &siteSweep{Of: pages, stop: stop}
	s.of[site] = w
	step = func() { s.mu.Lock(); w.Done++; s.mu.Unlock() }
	end = func() { s.mu.Lock(); delete(s.of, site); s.mu.Unlock() }
	return step, end, true
}

// mostSweep is how long a sweep of a site may take.
const mostSweep = 10 * time.Minute

// sweepSite checks pages of a site in the background, and keeps how much was found on each.
func (s *Server) sweepSite(st *store.Site, src site.Source, pages []*store.PageInfo) {
	ctx, cancel := context.WithTimeout(context.Background(), mostSweep)
	step, end, ok := s.sweeps.begin(st.ID, len(pages), cancel)
	if !ok {
		cancel()
		return
	}
	go func() {
		defer end()
		defer cancel()
		s.sweepPages(ctx, st, src, pages, step)
	}()
}

// pagesAtOnce is how many pages are checked at a time, so that no processor waits while what can't be
// shared out is done.
const pagesAtOnce = 2

func (s *Server) sweepPages(ctx context.Context, st *store.Site, src site.Source, pages []*store.PageInfo, step func()) {
	var next atomic.Int64
	var workers sync.WaitGroup
	for range pagesAtOnce {
		workers.Go(func() {
			for i := next.Add(1) - 1; int(i) < len(pages) && ctx.Err() == nil; i = next.Add(1) - 1 {
				if err := s.sweepPage(ctx, st, src, pages[i]); err != nil && ctx.Err() == nil {
					s.Log.Warn("checking a page", "site", st.Slug, "page", pages[i].Slug, "error", err)
				}
				step()
			}
		})
	}
	workers.Wait()
}

func (s *Server) sweepPage(ctx context.Context, st *store.Site, src site.Source, info *store.PageInfo) error {
	p, err := s.Store.Pages.ByID(ctx, st.ID, info.ID)
	if err != nil {
		return err
	}
	k, err := s.checkPage(ctx, st, src, p)
	if err != nil {
		return err
	}
	return s.Store.Findings.KeepFound(ctx, p.ID, p.Seq, k.stage.Look(), k.Counts())
}

// stopSweep ends the sweep of a site that is under way; what was found stays.
func (s *Server) stopSweep(c *gin.Context) {
	s.sweeps.stop(siteOf(c).ID)
	c.Redirect(http.StatusSeeOther, "/sites/"+siteOf(c).Slug+"/checks?stopped=1")
}

// stop ends a site's sweep, if one is under way, and waits a moment for its end.
func (s *siteSweeps) stop(site string) {
	s.mu.Lock()
	w := s.of[site]
	s.mu.Unlock()
	if w == nil {
		return
	}
	w.stop()
	for end := time.Now().Add(2 * time.Second); s.under(site) != nil && time.Now().Before(end); {
		time.Sleep(10 * time.Millisecond)
	}
}

// siteChecksView is what was found on all pages of a site.
type siteChecksView struct {
	User      *store.User
	Site      *store.Site
	Sweep     *siteSweep // under way, or nil
	Rows      []siteChecksRow
	Total     store.Counts
	Sound     int // pages on which nothing was found
	Unchecked int // pages of which nothing is known
	Checked   int // the others
}

// siteChecksRow is a page: the counts as a bar, whose whole is the most that a page has.
type siteChecksRow struct {
	Name, Slug, Address string
	Known               bool
	store.Counts
	Bars []siteChecksBar
}

type siteChecksBar struct {
	Grave string
	X, W  float64
}

// siteChecksWide is how wide a page's bar is at most, in px.
const siteChecksWide = 420.0

// siteChecks shows what was found on all pages of a site, and has those checked in the background
// that changed since.
func (s *Server) siteChecks(c *gin.Context) {
	v, ok := s.lookAtSite(c)
	if !ok {
		return
	}
	if c.Query("part") != "" {
		s.parted(c, http.StatusOK, "site-checks-list", v)
		return
	}
	s.screen(c, http.StatusOK, "site-checks", v)
}

func (s *Server) lookAtSite(c *gin.Context) (v siteChecksView, ok bool) {
	st := siteOf(c)
	src, err := s.source(c, st)
	if err != nil {
		s.fail(c, err)
		return v, false
	}
	found, err := s.Store.Findings.FoundOn(c, st.ID, s.workshop.Stage(st, src, "").Look())
	if err != nil {
		s.fail(c, err)
		return v, false
	}
	var unknown []*store.PageInfo
	most := 10 // so that few findings are short bars
	for _, info := range src.Pages {
		n, known := found[info.ID]
		if !known {
			unknown = append(unknown, info)
		}
		most = max(most, n.Broken+n.Doubtful+n.Hints)
		v.Rows = append(v.Rows, siteChecksRow{Name: info.Name, Slug: pageSlug(info.Slug), Address: "/" + info.Slug, Known: known, Counts: n})
		v.Total.Broken, v.Total.Doubtful, v.Total.Hints = v.Total.Broken+n.Broken, v.Total.Doubtful+n.Doubtful, v.Total.Hints+n.Hints
		if known && !n.Any() {
			v.Sound++
		}
	}
	for i := range v.Rows {
		r, x := &v.Rows[i], 0.0
		for _, part := range []struct {
			grave string
			n     int
		}{{"broken", r.Broken}, {"doubtful", r.Doubtful}, {"hint", r.Hints}} {
			w := float64(part.n) / float64(most) * siteChecksWide
			r.Bars = append(r.Bars, siteChecksBar{part.grave, x, w})
			x += w
		}
	}
	slices.SortStableFunc(v.Rows, func(a, b siteChecksRow) int {
		return cmp.Or(cmp.Compare(b.Broken, a.Broken), cmp.Compare(b.Doubtful, a.Doubtful), cmp.Compare(b.Hints, a.Hints))
	})
	if len(unknown) > 0 && c.Query("part") == "" && c.Query("stopped") == "" { // a page that can't be checked isn't tried again and again
		s.sweepSite(st, src, unknown)
	}
	v.User, v.Site, v.Sweep = user(c), st, s.sweeps.under(st.ID)
	v.Unchecked, v.Checked = len(unknown), len(src.Pages)-len(unknown)
	return v, true
}
