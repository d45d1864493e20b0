package menus

import (
	"cmp"
	"errors"
	"maps"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/rights"
	"openplot/core/settings"
	"openplot/core/value"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is the screen of menus.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/menus", rights.Keep, s.menus),
		shell.Get(paths.SiteRoute+"/menus/drawn", rights.Keep, s.drawn),
		shell.Post(paths.SiteRoute+"/menus", rights.Keep, s.keep),
		shell.Post(paths.SiteRoute+"/menus/new", rights.Keep, s.begin),
		shell.Post(paths.SiteRoute+"/menus/drop", rights.Keep, s.drop),
	}
}

// view is the screen of one of a site's menus.
type view struct {
	Site *store.Site
	// Menus are all of them, ID the one that is shown.
	Menus []choice
	ID    string
	Name  string
	Own   bool // it is of the site's own
	// ByHand reports whether the menu is all by hand; otherwise pages come by themselves, which
	// some menus have none of.
	ByHand, Follows bool
	Rows            []row
	Others          []row // pages that aren't in it
	Shown           bool  // by a block on the home page
	Problem         string
	Kept            bool
}

type choice struct {
	ID, Name string
	Chosen   bool
}

// row is an item of a menu as it is entered.
type row struct {
	Label   string // "" calls a page what it is called
	Usual   string // what it is called then
	Address string
	Under   bool
	Button  bool
	NewTab  bool
	Page    bool // it leads to a page of the site
}

// menus shows one of the site's menus.
func (s *Screen) menus(c *gin.Context) {
	id := c.DefaultQuery("menu", value.Pages)
	if !known(shell.SiteOf(c), id) {
		id = value.Pages
	}
	s.show(c, http.StatusOK, id, shell.SiteOf(c).Menus[id], "")
}

func known(st *store.Site, menu string) bool {
	return slices.Contains(settings.MenuIDs(&st.Site), menu)
}

func (s *Screen) show(c *gin.Context, status int, id string, menu []doc.MenuItem, problem string) {
	st := shell.SiteOf(c)
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := view{
		Site:    st,
		ID:      id,
		Follows: id == value.Pages || id == value.Footer,
		Problem: problem,
		Kept:    c.Query("kept") != "",
	}
	for _, m := range settings.MenuNames {
		v.Menus = append(v.Menus, choice{m.ID, m.Name, m.ID == id})
		if m.ID == id {
			v.Name = m.Name
		}
	}
	for _, m := range st.OwnMenus() {
		v.Menus = append(v.Menus, choice{m.ID, m.Name, m.ID == id})
		if m.ID == id {
			v.Name, v.Own = m.Name, true
		}
	}
	items, byHand := doc.ByHand(menu)
	if v.ByHand = byHand; !byHand && v.Follows {
		items = append(following(infos, id), items...)
	}
	if _, v.Shown, err = s.shower(c, id); err != nil {
		s.Fail(c, err)
		return
	}
	named, in := map[string]string{}, map[string]bool{}
	for _, p := range infos {
		named["/"+p.Slug] = called(p)
	}
	for _, i := range items {
		r := row{Label: i.Label, Under: i.Under, Button: i.Button}
		r.Address, r.NewTab = doc.SplitLink(i.Link)
		r.Usual, r.Page = named[r.Address]
		in[r.Address] = true
		v.Rows = append(v.Rows, r)
	}
	for _, p := range infos {
		if at := "/" + p.Slug; !in[at] {
			v.Others = append(v.Others, row{Usual: named[at], Address: at, Page: true})
		}
	}
	s.Screen(c, status, "menus", v)
}

// called is what menus call a page.
func called(p *store.PageInfo) string {
	if p.MenuName != "" {
		return p.MenuName
	}
	return p.Name
}

// following are the pages that come by themselves into a menu, as it has them.
func following(infos []*store.PageInfo, menu string) (items []doc.MenuItem) {
	top := map[string]bool{}
	for _, p := range infos {
		first, nested := above(p.Slug)
		switch {
		case menu == value.Footer && p.InFooter, menu == value.Pages && p.InMenu && !nested:
			top[p.Slug] = true
			items = append(items, doc.MenuItem{Link: "/" + p.Slug})
		case menu == value.Pages && p.InMenu && top[first]:
			items = append(items, doc.MenuItem{Link: "/" + p.Slug, Under: true})
		}
	}
	return items
}

// drawn answers with the part of the home page that shows the menu, as visitors see it.
func (s *Screen) drawn(c *gin.Context) {
	document, err := s.drawing(c, c.Query("menu"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Header(
		"Content-Security-Policy",
		"default-src 'none'; style-src 'self' 'unsafe-inline'; font-src 'self'; img-src 'self' data: "+s.Hosts.Uploads()+
			"; base-uri 'none'; form-action 'none'; frame-ancestors 'self'",
	)
	c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(document))
}

// keep keeps a menu as it was entered, all of it or nothing.
func (s *Screen) keep(c *gin.Context) {
	st, id := shell.SiteOf(c), c.PostForm("menu")
	if !known(st, id) {
		s.Fail(c, doc.Problemf("Menu", "is none of the site’s: %.40q", id))
		return
	}
	entered := read(c)
	if own := slices.ContainsFunc(st.OwnMenus(), func(m doc.OwnMenu) bool { return m.ID == id }); own {
		entered[0].Label = cmp.Or(strings.TrimSpace(c.PostForm("called")), "Menu")
	}
	menu, err := settings.CheckMenu(entered)
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.show(c, http.StatusUnprocessableEntity, id, entered, problem.Sentence())
		return
	}
	if err == nil {
		menus := maps.Clone(st.Menus)
		if menus == nil {
			menus = map[string][]doc.MenuItem{}
		}
		if menus[id] = menu; len(menu) == 0 {
			delete(menus, id)
		}
		err = s.Store.Sites.SetMenus(c, st.ID, menus)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("menus")+"?menu="+id+"&kept=1")
}

// begin begins a menu of the site's own.
func (s *Screen) begin(c *gin.Context) {
	st := shell.SiteOf(c)
	own := len(st.OwnMenus())
	if own >= settings.MostOwnMenus {
		s.show(c, http.StatusUnprocessableEntity, value.Pages, st.Menus[value.Pages],
			doc.Problemf("Menus", "of the site’s own are %d, as many as there can be", own).Sentence())
		return
	}
	id := store.NewID("u")
	menus := maps.Clone(st.Menus)
	if menus == nil {
		menus = map[string][]doc.MenuItem{}
	}
	menus[id] = []doc.MenuItem{{Hand: true, Label: "Menu " + strconv.Itoa(own+1)}}
	s.set(c, st, menus, "?menu="+id)
}

// drop deletes a menu of the site's own. Blocks that showed it show nothing.
func (s *Screen) drop(c *gin.Context) {
	st, id := shell.SiteOf(c), c.PostForm("menu")
	menus := maps.Clone(st.Menus)
	for _, m := range st.OwnMenus() {
		if m.ID == id {
			delete(menus, id)
		}
	}
	s.set(c, st, menus, "")
}

// set keeps a site's menus, and leads to them.
func (s *Screen) set(c *gin.Context, st *store.Site, menus map[string][]doc.MenuItem, query string) {
	if err := s.Store.Sites.SetMenus(c, st.ID, menus); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("menus")+query)
}

// read reads what was entered of a menu. One that follows the pages keeps what isn't one of them.
func read(c *gin.Context) (menu []doc.MenuItem) {
	follows := c.PostForm("follows") != ""
	if !follows {
		menu = append(menu, doc.MenuItem{Hand: true})
	}
	labels, links, levels := c.PostFormArray("label"), c.PostFormArray("link"), c.PostFormArray("level")
	looks, tabs, pages := c.PostFormArray("look"), c.PostFormArray("tab"), c.PostFormArray("page")
	for i := range min(len(labels), len(links), len(levels), len(looks), len(tabs), len(pages)) {
		if follows && pages[i] == "yes" {
			continue
		}
		menu = append(menu, doc.MenuItem{
			Label: labels[i], Link: doc.JoinLink(links[i], tabs[i] == "yes"), Under: levels[i] == "under",
			Button: looks[i] == "button",
		})
	}
	return slices.Clip(menu)
}
