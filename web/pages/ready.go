package pages

import (
	"errors"
	"html/template"
	"net/http"
	"slices"
	"strconv"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/shell"
)

// readyPages are the pages that a new one can begin as: ready-made ones, and the site's own.
type readyPages struct {
	Site, Chosen string
	Drawn        bool
	Pages, Own   []readyPage
}

// ownPrefix stands before the id of a page of the site, as what a new one begins as.
const ownPrefix = "page:"

type readyPage struct {
	ready.Page
	Drawing template.HTML
}

// readyView lists the ready-made pages, which are drawn when they are asked for by themselves.
func readyView(st *store.Site, chosen string) *readyPages {
	v := &readyPages{Site: st.Slug, Chosen: chosen}
	for _, r := range ready.Pages {
		v.Pages = append(v.Pages, readyPage{Page: r})
	}
	return v
}

// The size in px of a ready-made page's drawing.
const (
	readyWidth  = 150
	readyHeight = 190
)

// drawReady answers with the ready-made pages drawn in the site's house style and in the words
// of its business.
func (s making) drawReady(c *gin.Context) {
	st := shell.SiteOf(c)
	src, err := s.Source(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	stage := s.Workshop.Stage(st, src, "")
	desk.WithStock(stage)
	v := readyView(st, c.Query("ready"))
	v.Drawn = true
	for i := range v.Pages {
		r := &v.Pages[i]
		ids := 0
		p, err := ready.NewPage(r.ID, r.Name, ready.FindBusiness(st.Business), func(prefix string) string {
			ids++
			return prefix + "-" + r.ID + "-" + strconv.Itoa(ids)
		}, func(id string) string { return edit.StockPrefix + id })
		if err != nil {
			s.Fail(c, err)
			return
		}
		r.Drawing = stage.DrawReady(r.ID, p, readyWidth, readyHeight)
	}
	if v.Own, err = s.ownReady(c, st, c.Query("parent")); err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "ready-pages", v)
}

// ownReady lists the site's own pages as what a new one can begin as: first those that stand where it
// will, the last of them first.
func (s making) ownReady(c *gin.Context, st *store.Site, parent string) (own []readyPage, err error) {
	pages, _, err := s.Store.Drawings.DrawnPages(c, st.ID, model.DrawingLook(st.Version, s.Hosts), 0, rowsAtOnce)
	if err != nil {
		return nil, err
	}
	var beside []readyPage
	for _, p := range pages {
		one := readyPage{ready.Page{ID: ownPrefix + p.ID, Name: p.Name, Hint: "/" + p.Slug}, template.HTML(p.SVG)}
		if parent != "" && p.Parent != nil && *p.Parent == parent {
			beside = append(beside, one)
		} else {
			own = append(own, one)
		}
	}
	slices.Reverse(beside)
	return append(beside, own...), nil
}

// pageLike makes a new page like one of the site's: with a name and a title of its own, and without its
// description, which is of the other. Errors are *doc.Problem when there is no such page.
func (s making) pageLike(c *gin.Context, st *store.Site, id, name string) (*doc.Page, error) {
	of, err := s.Store.Pages.ByID(c, st.ID, store.Clean(id))
	if errors.Is(err, store.ErrNotFound) {
		return nil, doc.Problemf("Page", "is to begin as one that isn't on this site any more; choose another")
	}
	if err != nil {
		return nil, err
	}
	if name, err = ready.PageName(name); err != nil {
		return nil, err
	}
	p := of.Doc.Clone()
	p.ID, p.Name, p.Title, p.Description = store.NewID("p"), name, copiedTitle(p.Title, p.Name, name), ""
	return p, nil
}
