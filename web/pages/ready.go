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
	Kept         []readyPage // pages of one's own that are kept to begin from
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
	kept, err := s.Store.Shelf.Beginnings(c, st.ID, shell.User(c).ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	for _, b := range kept {
		one := readyPage{ready.Page{ID: ownPrefix + b.Page, Name: b.Name, Hint: "of this site"}, template.HTML(b.SVG)}
		if b.Site != st.Slug {
			one.Hint = "of " + b.From
		}
		v.Kept = append(v.Kept, one)
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
		of, err = s.pageElsewhere(c, st, id)
	}
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
	p.ID, p.Name, p.Title, p.Description, p.Date = store.NewID("p"), name, copiedTitle(p.Title, p.Name, name), "", ""
	return p, nil
}

// pageElsewhere gives a page of another site that whoever asks keeps to begin from on all of theirs, as one
// of this site; store.ErrNotFound when it is none of those.
func (s making) pageElsewhere(c *gin.Context, st *store.Site, id string) (*store.Page, error) {
	kept, err := s.Store.Shelf.Beginnings(c, st.ID, shell.User(c).ID)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(kept, func(b *store.Beginning) bool { return b.Page == id })
	if i < 0 {
		return nil, store.ErrNotFound
	}
	from, err := s.Store.Sites.BySlugFor(c, shell.User(c).ID, kept[i].Site)
	if err != nil {
		return nil, err
	}
	p, err := s.Store.Pages.ByID(c, from.ID, id)
	if err != nil {
		return nil, err
	}
	p.Doc, err = s.Maker.Page(c, desk.By(c), from, p.Doc, st, p.ID)
	return p, err
}

// setBegins says how widely a page is offered for new ones to begin as.
func (s making) setBegins(c *gin.Context) {
	st, p, how := shell.SiteOf(c), shell.PageOf(c), c.PostForm("begins")
	if how != store.BeginsNowhere && how != store.BeginsOnSite && how != store.BeginsOnAll {
		s.Fail(c, doc.Problemf("To begin from", "can't be %.20q: choose no, on this site or on all your sites", how))
		return
	}
	if err := s.Store.Shelf.SetBegins(c, st.ID, p.ID, shell.User(c).ID, how); err != nil {
		s.Fail(c, err)
		return
	}
	if c.GetHeader("HX-Request") != "" {
		s.Parted(c, http.StatusOK, "page-said", &pagePanel{Kept: desk.DoneWords["begins"]})
		return
	}
	s.toPages(c, p.ID, "begins")
}
