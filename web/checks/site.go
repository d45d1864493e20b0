package checks

import (
	"cmp"
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

// stopWait is how long one waits until a sweep that is to end has.
const stopWait = 2 * time.Second

// stopSweep ends the sweep of a site that is under way; what was found stays.
func (s *Screen) stopSweep(c *gin.Context) {
	st := shell.SiteOf(c)
	if err := s.Store.Findings.StopSweep(c, st.ID, stopWait); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("checks")+"?stopped=1")
}

// siteChecksView is what was found on all pages of a site.
type siteChecksView struct {
	User      *store.User
	Site      *store.Site
	Sweep     *store.Sweep // under way, or nil
	Rows      []siteChecksRow
	Total     store.Counts
	Sound     int // pages on which nothing was found
	Unchecked int // pages of which nothing is known
	Checked   int // the others
}

// siteChecksRow is a page: the counts as a bar, whose whole is the most that a page has.
type siteChecksRow struct {
	Name, Address string
	Slug          paths.Segment
	Known         bool
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
func (s *Screen) siteChecks(c *gin.Context) {
	v, ok := s.lookAtSite(c)
	if !ok {
		return
	}
	if c.Query("part") != "" {
		s.Parted(c, http.StatusOK, "site-checks-list", v)
		return
	}
	s.Screen(c, http.StatusOK, "site-checks", v)
}

func (s *Screen) lookAtSite(c *gin.Context) (v siteChecksView, ok bool) {
	st := shell.SiteOf(c)
	src, err := s.Source(c, st)
	if err != nil {
		s.Fail(c, err)
		return v, false
	}
	found, err := s.Store.Findings.FoundOn(c, st.ID, s.Workshop.Stage(st, src, "").Look())
	if err != nil {
		s.Fail(c, err)
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
		v.Rows = append(
			v.Rows,
			siteChecksRow{
				Name:    info.Name,
				Slug:    paths.Of(info.Slug),
				Address: "/" + info.Slug,
				Known:   known,
				Counts:  n,
			},
		)
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
		return cmp.Or(
			cmp.Compare(b.Broken, a.Broken),
			cmp.Compare(b.Doubtful, a.Doubtful),
			cmp.Compare(b.Hints, a.Hints),
		)
	})
	if len(unknown) > 0 && c.Query("part") == "" &&
		c.Query("stopped") == "" { // a page that can't be checked isn't tried again and again
		if err := s.Store.Findings.BeginSweep(c, st.ID, len(unknown)); err != nil {
			s.Fail(c, err)
			return v, false
		}
	}
	if v.Sweep, err = s.Store.Findings.Sweep(c, st.ID); err != nil {
		s.Fail(c, err)
		return v, false
	}
	v.User, v.Site = shell.User(c), st
	v.Unchecked, v.Checked = len(unknown), len(src.Pages)-len(unknown)
	return v, true
}
