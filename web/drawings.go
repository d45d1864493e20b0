package web

import (
	"context"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"openplot/core/number"
	"openplot/site"
	"openplot/store"
)

// The size in px of a page's drawing on a card: as wide as they are shown at most, and as
// high as one that is narrower may be.
const (
	cardWidth  = 400
	cardHeight = 400
)

// lookOf names the look that drawings of a site's pages are in: with another house style,
// or other addresses of pictures, they are drawn anew.
func (s *Server) lookOf(st *store.Site) string {
	return s.lookAt(st.Version)
}

func (s *Server) lookAt(version int64) string {
	return strconv.FormatInt(version, 10) + " " + s.Hosts.Uploads()
}

// drawnBatch is how many pages are drawn before it is looked anew which aren't.
const drawnBatch = 50

// DrawPages draws the pages of a site whose drawings aren't fresh.
func (s *Server) DrawPages(ctx context.Context, slug string) error {
	for {
		st, err := s.Store.Sites.BySlug(ctx, slug)
		if err != nil {
			return err
		}
		look := s.lookOf(st)
		pages, err := s.Store.Drawings.Undrawn(ctx, st.ID, look, drawnBatch)
		if err != nil || len(pages) == 0 {
			return err
		}
		src, err := site.ReadSource(ctx, s.Store, st)
		if err != nil {
			return err
		}
		stage := s.workshop.Stage(st, src, "")
		for _, info := range pages {
			p, err := s.Store.Pages.At(ctx, st.ID, info.Slug)
			if err != nil {
				return err
			}
			svg := stage.For(info.Slug).Passing().DrawPage(p.Doc, cardWidth, cardHeight)
			if err := s.Store.Drawings.Keep(ctx, p.ID, p.Seq, look, string(svg)); err != nil {
				return err
			}
		}
	}
}

// pageList is a part of the pages of a site.
type pageList struct {
	Site    *store.Site
	Pages   []pageRow
	From    int
	Next    int    // where the next part begins, or 0
	Waiting bool   // some of these are still to be drawn
	Problem string // why something couldn't be done to them
	Focus   string // the page that it was done to
}

// rowsAtOnce is how many pages are shown before one scrolls on.
const rowsAtOnce = 60

// rows gives a part of a site's pages, and has those drawn that lack it.
func (s *Server) rows(c *gin.Context, st *store.Site, from int) (*pageList, error) {
	pages, all, err := s.Store.Drawings.DrawnPages(c, st.ID, s.lookOf(st), from, rowsAtOnce)
	if err != nil {
		return nil, err
	}
	v := &pageList{Site: st, From: from}
	for _, p := range pages {
		v.Waiting = v.Waiting || !p.Fresh
		v.Pages = append(v.Pages, s.row(st, &p.PageInfo, p.SVG))
	}
	if from+len(pages) < all {
		v.Next = from + len(pages)
	}
	if v.Waiting {
		err = s.Store.Drawings.Want(c, st.Slug)
	}
	return v, err
}

// moreRows answers with a part of the pages.
func (s *Server) moreRows(c *gin.Context) {
	from, err := number.Whole(c.Query("from"))
	if err != nil || from < 0 {
		from = 0
	}
	v, err := s.rows(c, siteOf(c), from)
	if err != nil {
		s.fail(c, err)
		return
	}
	if c.Query("only") != "" { // the part that was waiting; what follows it stands already
		v.Next = 0
	}
	s.parted(c, http.StatusOK, "page-rows", v)
}
