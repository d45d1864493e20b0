package menus

import (
	"errors"
	"net/http"
	"slices"

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
		shell.Post(paths.SiteRoute+"/menus", rights.Keep, s.keepMenus),
	}
}

// menusView is the screen of a site's menus.
type menusView struct {
	User    *store.User
	Site    *store.Site
	Menus   []menuView
	Problem string
	Kept    bool
}

// menuView is a menu: the pages that come by themselves, and what is put behind them.
type menuView struct {
	ID, Name, Hint string
	Pages          []menuPage
	Items          []doc.MenuItem // with some that are empty, to be filled
}

type menuPage struct {
	Name  string
	Under bool
}

// emptyItems is how many more items can be entered at once.
const emptyItems = 3

// menus shows what the site's menus hold.
func (s *Screen) menus(c *gin.Context) {
	s.showMenus(c, http.StatusOK, shell.SiteOf(c).Menus, "")
}

func (s *Screen) showMenus(c *gin.Context, status int, menus map[string][]doc.MenuItem, problem string) {
	st := shell.SiteOf(c)
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := menusView{User: shell.User(c), Site: st, Problem: problem, Kept: c.Query("kept") != ""}
	for _, m := range settings.MenuNames {
		menu := menuView{
			ID:    m.ID,
			Name:  m.Name,
			Hint:  m.Hint,
			Items: append(slices.Clone(menus[m.ID]), make([]doc.MenuItem, emptyItems)...),
		}
		for _, p := range infos {
			row := s.Row(st, p, "")
			if name := p.MenuName; name != "" {
				row.Name = name
			}
			if m.ID == value.Pages && p.InMenu || m.ID == value.Footer && p.InFooter {
				menu.Pages = append(menu.Pages, menuPage{row.Name, row.Depth > 0 && m.ID == value.Pages})
			}
		}
		v.Menus = append(v.Menus, menu)
	}
	s.Screen(c, status, "menus", v)
}

// keepMenus keeps what was entered of all menus: all of it, or nothing.
func (s *Screen) keepMenus(c *gin.Context) {
	menus, entered := map[string][]doc.MenuItem{}, map[string][]doc.MenuItem{}
	var first error
	for _, m := range settings.MenuNames {
		labels, links, levels := c.PostFormArray(
			m.ID+"-label",
		), c.PostFormArray(
			m.ID+"-link",
		), c.PostFormArray(
			m.ID+"-level",
		)
		under := make([]bool, len(levels))
		for i := range levels {
			under[i] = levels[i] == "under"
			if i < len(labels) && i < len(links) && labels[i]+links[i] != "" {
				entered[m.ID] = append(entered[m.ID], doc.MenuItem{Label: labels[i], Link: links[i], Under: under[i]})
			}
		}
		items, err := settings.ReadMenu(labels, links, under)
		if err != nil && first == nil {
			first = err
		}
		if len(items) > 0 {
			menus[m.ID] = items
		}
	}
	var problem *doc.Problem
	if errors.As(first, &problem) {
		s.showMenus(c, http.StatusUnprocessableEntity, entered, problem.Sentence())
		return
	}
	if first == nil {
		first = s.Store.Sites.SetMenus(c, shell.SiteOf(c).ID, menus)
	}
	if first != nil {
		s.Fail(c, first)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(shell.SiteOf(c).Slug).At("menus")+"?kept=1")
}
