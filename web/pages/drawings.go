package pages

import (
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/number"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/shell"
)

// pageList is a part of the pages of a site.
type pageList struct {
	Site    *store.Site
	Pages   []desk.Row
	From    int
	Next    int    // where the next part begins, or 0
	Waiting bool   // some of these are still to be drawn
	Problem string // why something couldn't be done to them
	Focus   string // the page that it was done to
}

// rowsAtOnce is how many pages are shown before one scrolls on.
const rowsAtOnce = 60

// rows gives a part of a site's pages, and has those drawn that lack it.
func (s *Screen) rows(c *gin.Context, st *store.Site, from int) (*pageList, error) {
	pages, all, err := s.Store.Drawings.DrawnPages(c, st.ID, model.DrawingLook(st.Version, s.Hosts), from, rowsAtOnce)
	if err != nil {
		return nil, err
	}
	v := &pageList{Site: st, From: from}
	seen, err := lately(c, s.Desk, st, pages)
	if err != nil {
		return nil, err
	}
	for _, p := range pages {
		v.Waiting = v.Waiting || !p.Fresh
		row := s.Row(st, &p.PageInfo, p.SVG)
		row.Found, row.Visits, row.Lately = p.Found, p.Visits, points(seen[p.ID])
		if p.Planned != nil {
			row.Planned = p.Planned.In(desk.ZoneOf(st)).Format("2 January, 15:04")
		}
		v.Pages = append(v.Pages, row)
	}
	if from+len(pages) < all {
		v.Next = from + len(pages)
	}
	if v.Waiting {
		err = s.Store.Drawings.Want(c, st.Slug)
	}
	return v, err
}

// latelyDays is of how many days the line of a page tells.
const latelyDays = 28

// lately reads how often pages were seen on each of the last days, where the site counts that.
func lately(c *gin.Context, d *desk.Desk, st *store.Site, pages []*store.DrawnPage) (map[string][]int, error) {
	if !st.CountsVisits {
		return nil, nil
	}
	ids := make([]string, len(pages))
	for i, p := range pages {
		ids[i] = p.ID
	}
	return d.Store.Visits.OfPages(c, st.ID, ids, time.Now().UTC().AddDate(0, 0, 1), latelyDays)
}

// points lays a line out, 56 px wide and 14 high (SVG 2 §10.6); "" where there is nothing to be seen.
func points(days []int) string {
	most := slices.Max(append(days, 0))
	if most == 0 {
		return ""
	}
	var b strings.Builder
	for i, n := range days {
		fmt.Fprintf(&b, "%d,%.1f ", 2*i+1, 13-12*float64(n)/float64(most))
	}
	return b.String()
}

// moreRows answers with a part of the pages.
func (s *Screen) moreRows(c *gin.Context) {
	from, err := number.Whole(c.Query("from"))
	if err != nil || from < 0 {
		from = 0
	}
	v, err := s.rows(c, shell.SiteOf(c), from)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if c.Query("only") != "" { // the part that was waiting; what follows it stands already
		v.Next = 0
	}
	s.Parted(c, http.StatusOK, "page-rows", v)
}
