package sites

import (
	"errors"
	"html/template"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/number"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/shell"
)

// Screen is the screens of somebody's sites, and of beginning one.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get("/", rights.Sign, s.sites),
		shell.Get("/new", rights.Sign, s.newSite),
		shell.Within(shell.Writing, shell.Post("/new", rights.Sign, s.beginSite)),
		shell.Within(shell.WholeSite, shell.Post("/new/file", rights.Sign, s.siteFromFile)),
		shell.Get("/new/sheet", rights.Sign, s.newSiteSheet),
		shell.Get("/new/slug", rights.Sign, s.newSiteSlug),
		shell.Post("/restore", rights.Sign, s.restoreSite),
		shell.Post("/several", rights.Sign, s.several),
		shell.Get("/works/:work", rights.Sign, s.showWork),
		shell.Post("/works/:work/stop", rights.Sign, s.stopWork),
		shell.Post("/works/:work/again", rights.Sign, s.retryWork),
	}
}

type siteCard struct {
	store.SiteInfo
	Drawing template.HTML
	Edited  string
	State   desk.State
	Next    int // where the next part begins, in the last of a part
}

// sitesView is the screen of somebody's sites.
type sitesView struct {
	User     *store.User
	Site     *store.Site
	Sites    []siteCard
	Waiting  bool // some drawings are still to be made
	Query    string
	Archived bool
	From     int
	Next     int
	All      int
	Deleted  []store.DeletedSite
	Works    []*store.SiteWork
	Done     string
}

// sitesAtOnce is how many sites are shown before one scrolls on.
const sitesAtOnce = 24

// sites shows the sites of the person, each with a drawing of its home page.
func (s *Screen) sites(c *gin.Context) {
	q := store.SiteQuery{
		Words:    strings.TrimSpace(c.Query("q")),
		Archived: c.Query("archived") != "",
		Limit:    sitesAtOnce,
	}
	q.From, _ = number.Whole(c.Query("from"))
	q.From = max(q.From, 0)
	found, all, err := s.Store.Sites.Search(c, shell.User(c).ID, q)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := sitesView{
		User:     shell.User(c),
		Query:    q.Words,
		Archived: q.Archived,
		From:     q.From,
		All:      all,
		Done: map[string]string{
			"archived": "Archived: visitors find nothing of it until you bring it back. It is listed under Archived.", "unarchived": "It is among your sites again, and visitors see what they saw before.",
			"stopped": "Stopped. Nothing of it is kept.",
			"several": "Done.", "notall": "Done, but for those that you don’t own.",
			"deleted": "Deleted. It can be had back below for 30 days.",
		}[c.Query("done")],
	}
	for _, i := range found {
		card := siteCard{
			SiteInfo: *i,
			Drawing:  template.HTML(i.SVG),
			Edited:   desk.Ago(time.Since(i.EditedAt)),
			State:    siteStanding(i),
		}
		if !i.Fresh || i.Look != model.DrawingLook(i.Version, s.Hosts) {
			v.Waiting = true
			if err := s.Store.Drawings.Want(c, i.Slug); err != nil {
				s.Fail(c, err)
				return
			}
		}
		v.Sites = append(v.Sites, card)
	}
	if q.From+len(found) < all {
		v.Next = q.From + len(found)
	}
	if c.GetHeader("HX-Request") != "" {
		if c.Query("only") != "" { // the part that was waiting; what follows it stands already
			v.Next = 0
		}
		s.Parted(c, http.StatusOK, "site-cards", v)
		return
	}
	if v.Deleted, err = s.Store.Sites.Deleted(c, shell.User(c).ID); err != nil {
		s.Fail(c, err)
		return
	}
	if v.Works, err = s.Store.Works.Of(c, shell.User(c).ID); err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, http.StatusOK, "sites", v)
}

// siteStanding tells how a site's pages and what visitors see of them stand to each other.
func siteStanding(i *store.SiteInfo) desk.State {
	switch never := i.Pages - i.Published; {
	case i.Published == 0:
		return desk.State{Mark: "never", Text: "Not published"}
	case i.Changed > 0 || never > 0:
		return desk.State{Mark: "changed", Text: desk.PagesIn(i.Changed+never) + " not as visitors see it"}
	}
	return desk.State{Mark: "live", Text: "Published"}
}

// several archives the sites that are ticked, or brings them back: those that whoever asks owns.
func (s *Screen) several(c *gin.Context) {
	back, done, to := c.PostForm("back") != "", "several", "/?done="
	for _, slug := range c.PostFormArray("site") {
		st, err := s.Store.Sites.BySlugFor(c, shell.User(c).ID, slug)
		if errors.Is(err, store.ErrNotFound) || err == nil && !st.Role.May(rights.Account) {
			done = "notall"
			continue
		}
		if err == nil {
			err = s.Store.Sites.Archive(c, st.ID, !back)
		}
		if err == nil && back {
			err = s.Publisher.Show(c, s.Store, st.ID)
		}
		if err != nil {
			s.Fail(c, err)
			return
		}
		s.Note(c, map[bool]string{false: "site archived", true: "site brought back"}[back], st.ID, st.Slug)
	}
	if back {
		to = "/?archived=1&done="
	}
	s.lead(c, to+done)
}
