package pages

import (
	"cmp"
	"errors"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/found"
	"openplot/core/tree"
	"openplot/core/value"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// pagePanel is what is beside the list: the settings of a page.
type pagePanel struct {
	Site    *store.Site
	Page    *store.Page
	Slug    paths.Segment
	Row     desk.Row
	Entered pageSettings
	Problem string
	Kept    string    // what was done, in words
	Listed  *pageList // the list, where what was changed stands there too
	Written bool      // the address became another than was entered
	Parents []parentChoice
	Prefix  string // the address of what it stands under
	Found   foundPreview
	Role    store.Role
	Live    string // its address in the world
	Picture *store.Medium
	Choices []desk.PictureChoice // pictures that links can be shown with
	Begins  string               // how widely it is offered for new pages to begin as
	Photo   string               // address of the picture that links are shown with
}

// parentChoice is a page that another can stand under.
type parentChoice struct {
	ID, Name string
	Depth    int
	Chosen   bool
}

// pageSettings is what is entered of a page.
type pageSettings struct {
	Name, Segment, Parent, Title, Description, Language, MenuName, Password string
	InMenu, InFooter, Unlisted, Locked                                      bool
	Picture                                                                 string
}

// foundPreview is a page as others show it: in results of a search, and as a shared link.
type foundPreview struct {
	Host, Trail, Name  string
	Title, Description found.Fit
	Shared             string // the title in full
	Said               string // the description in full
}

func previewOf(hosts site.Hosts, st *store.Site, slug, title, description string) foundPreview {
	host := strings.TrimPrefix(strings.TrimPrefix(hosts.Public(st.Slug), "http://"), "https://")
	trail := host
	for part := range strings.SplitSeq(slug, "/") {
		if part != "" {
			trail += " › " + part
		}
	}
	return foundPreview{
		Host: host, Trail: trail, Name: st.Name, Title: found.Title(title), Description: found.Description(description), Shared: title, Said: description,
	}
}

// panelOf is the panel of a page as it stands.
func (s *Screen) panelOf(c *gin.Context, st *store.Site, p *store.Page) (*pagePanel, error) {
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		return nil, err
	}
	at := strings.LastIndex(p.Slug, "/")
	v := &pagePanel{
		Site: st, Page: p, Slug: paths.Of(p.Slug), Row: s.Row(st, &p.PageInfo, ""), Role: st.Role, Prefix: "/" + p.Slug[:at+1],
		Live:  s.Hosts.Public(st.Slug) + strings.TrimSuffix("/"+p.Slug, "/") + "/",
		Found: previewOf(s.Hosts, st, p.Slug, p.Doc.Title, p.Doc.Description),
		Entered: pageSettings{
			Name: p.Doc.Name, Segment: p.Slug[at+1:], Title: p.Doc.Title, Description: p.Doc.Description, Language: p.Doc.Language, MenuName: p.MenuName,
			InMenu: p.InMenu, InFooter: p.InFooter, Unlisted: p.Doc.Unlisted, Locked: p.Lock != "", Picture: p.Doc.Picture,
		},
	}
	if p.Parent != nil {
		v.Entered.Parent = *p.Parent
	}
	v.Parents = parentsFor(store.Tree(infos), p.ID, v.Entered.Parent)
	media, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		return nil, err
	}
	v.Choices = s.PictureChoices(media)
	if v.Begins, err = s.Store.Shelf.BeginsFor(c, p.ID); err != nil {
		return nil, err
	}
	if v.Picture, err = s.MediumOr(c, st, cmp.Or(p.Doc.Picture, st.SharePicture)); err != nil {
		return nil, err
	}
	if v.Picture != nil && len(v.Picture.Variants) > 0 {
		v.Photo = s.Hosts.Uploads() + "/media/" + v.Picture.Variants[min(1, len(v.Picture.Variants)-1)].File
	}
	return v, nil
}

// parentsFor lists the pages that one, "" being a new one, can stand under.
func parentsFor(t tree.Tree, id, chosen string) (out []parentChoice) {
	branch, depths := t.Branch(id), t.Depths()
	for i, p := range t {
		if p.Address == "" || branch.Index(p.ID) >= 0 || depths[i]+1 >= tree.MaxDepth {
			continue
		}
		out = append(out, parentChoice{p.ID, p.Name, depths[i], p.ID == chosen})
	}
	return out
}

// pageSettingsPart answers with the panel of a page.
func (s *Screen) pageSettingsPart(c *gin.Context) {
	v, err := s.panelOf(c, shell.SiteOf(c), shell.PageOf(c))
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "page-panel", v)
}

// asked is the page that a form of the panel is about: its address may change while the panel is open, its id doesn't.
func (s *Screen) asked(c *gin.Context, id string) *store.Page {
	p, err := s.Store.Pages.ByID(c, shell.SiteOf(c).ID, store.Clean(id))
	if err != nil {
		s.Fail(c, err)
		return nil
	}
	return p
}

// previewPart answers with how a title and a description that are being written are shown.
func (s *Screen) previewPart(c *gin.Context) {
	p := s.asked(c, c.Query("page"))
	if p == nil {
		return
	}
	v, err := s.panelOf(c, shell.SiteOf(c), p)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v.Found = previewOf(s.Hosts, v.Site, p.Slug, c.Query("title"), c.Query("description"))
	s.Parted(c, http.StatusOK, "page-found", v)
}

// entered is what a form holds of a page's settings. Where it names those that were changed ("set"), the others are as
// they are now, whatever the form holds: somebody else may have changed them since.
func entered(c *gin.Context, now pageSettings) pageSettings {
	only := c.PostFormArray("set")
	if slices.Contains(only, "password") { // which alone doesn't say that it is asked for
		only = append(only, "locked")
	}
	text := func(field string, to *string) {
		if len(only) == 0 || slices.Contains(only, field) {
			*to = c.PostForm(field)
		}
	}
	tick := func(field string, to *bool) {
		if len(only) == 0 || slices.Contains(only, field) {
			*to = c.PostForm(field) != ""
		}
	}
	text("name", &now.Name)
	text("segment", &now.Segment)
	text("parent", &now.Parent)
	text("title", &now.Title)
	text("description", &now.Description)
	text("language", &now.Language)
	text("menu-name", &now.MenuName)
	text("password", &now.Password)
	text("picture", &now.Picture)
	tick("in-menu", &now.InMenu)
	tick("in-footer", &now.InFooter)
	tick("unlisted", &now.Unlisted)
	tick("locked", &now.Locked)
	now.Segment, now.MenuName = strings.TrimSpace(now.Segment), strings.TrimSpace(now.MenuName)
	return now
}

// keepPageSettings keeps what was entered of a page: all of it, or nothing.
func (s *Screen) keepPageSettings(c *gin.Context) {
	st, p := shell.SiteOf(c), s.asked(c, c.PostForm("page"))
	if p == nil {
		return
	}
	was, err := s.panelOf(c, st, p)
	if err != nil {
		s.Fail(c, err)
		return
	}
	in := entered(c, was.Entered)
	err = s.Store.OnSite(c, st.ID, func(inside *store.Store) error { return s.settle(c, inside, st, p, in) })
	var problem *doc.Problem
	switch {
	case errors.As(err, &problem):
		s.panelAgain(c, was, in, problem.Sentence())
		return
	case errors.Is(err, store.ErrStale):
		s.panelAgain(c, was, in, "Somebody else changed this page at the same moment. Change it once more.")
		return
	case err == nil && in.Locked && in.Password != "" && p.PublishedSeq != nil:
		err = s.Publisher.Lock(c, s.Store, st.ID)
	}
	switch {
	case err != nil:
		s.Fail(c, err)
	case c.GetHeader("HX-Request") != "":
		s.keptInPlace(c, p.ID, in)
	default:
		s.toPages(c, p.ID, "kept")
	}
}

// keptInPlace answers what was changed with what else of the screen it changed.
func (s *Screen) keptInPlace(c *gin.Context, page string, in pageSettings) {
	p := s.asked(c, page)
	if p == nil {
		return
	}
	v, err := s.panelOf(c, shell.SiteOf(c), p)
	if err == nil && slices.ContainsFunc(c.PostFormArray("set"), listed) {
		v.Listed, err = s.rows(c, v.Site, 0)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	v.Kept, v.Written = desk.DoneWords["kept"], v.Entered.Segment != in.Segment
	if in.Locked && !v.Entered.Locked {
		v.Kept += " Write the password too."
	}
	s.Parted(c, http.StatusOK, "page-kept", v)
}

// listed reports whether a setting of a page is seen in the list of pages.
func listed(set string) bool {
	return !slices.Contains([]string{"title", "description", "language", "picture", "unlisted"}, set)
}

// settle writes what was entered.
func (s *Screen) settle(c *gin.Context, st *store.Store, site *store.Site, p *store.Page, in pageSettings) error {
	commands := edit.Command{Op: edit.Many}
	set := func(setting, was, now string) {
		if was != now {
			commands.Parts = append(commands.Parts, edit.Command{Op: "page.set", Setting: setting, Value: now})
		}
	}
	set("name", p.Doc.Name, in.Name)
	set("title", p.Doc.Title, in.Title)
	set("description", p.Doc.Description, in.Description)
	set("language", p.Doc.Language, in.Language)
	set("picture", p.Doc.Picture, in.Picture)
	unlisted := map[bool]string{true: value.Yes}
	set("unlisted", unlisted[p.Doc.Unlisted], unlisted[in.Unlisted])
	if len(commands.Parts) > 0 {
		env := edit.Env{Site: &site.Site, NewID: store.NewID, Medium: func(id string) doc.MediumSort {
			m, err := st.Media.ByID(c, site.ID, id)
			if err != nil {
				return ""
			}
			return m.Sort()
		}}
		if _, err := st.Pages.Edit(c, p.ID, shell.User(c).ID, p.Seq, commands, func(d *doc.Page) (*edit.Result, error) { return edit.Apply(d, commands, env) }); err != nil {
			return err
		}
	}
	err := st.Tree.Rearrange(c, site.ID, func(t tree.Tree) (tree.Tree, error) {
		i := t.Index(p.ID)
		if i >= 0 && t[i].Parent != in.Parent {
			under := t.Children(in.Parent)
			after := ""
			if len(under) > 0 {
				after = under[len(under)-1].ID
			}
			var err error
			if t, err = t.Move(p.ID, in.Parent, after); err != nil {
				return nil, err
			}
			i = t.Index(p.ID)
		}
		if i < 0 || t[i].Address == "" || t[i].Address[strings.LastIndex(t[i].Address, "/")+1:] == in.Segment {
			return t, nil
		}
		return t.SetAddress(p.ID, cmp.Or(in.Segment, tree.Fresh(in.Name, "page", t.Taken(in.Parent))))
	})
	if err != nil {
		return err
	}
	if len([]rune(in.MenuName)) > doc.MaxNameRunes {
		return doc.Problemf(
			"Menu name",
			"has %d characters; write at most %d",
			len([]rune(in.MenuName)),
			doc.MaxNameRunes,
		)
	}
	if err := st.Tree.SetPlacing(c, site.ID, p.ID, store.Placing{InMenu: in.InMenu, InFooter: in.InFooter, MenuName: store.Clean(in.MenuName)}); err != nil {
		return err
	}
	switch {
	case !in.Locked && p.Lock != "":
		return st.Tree.LockPage(c, site.ID, p.ID, "")
	case in.Locked && in.Password != "": // without one it is as it was, until one is written
		return st.Tree.LockPage(c, site.ID, p.ID, in.Password)
	}
	return nil
}

// panelAgain answers with what was entered and why it can't be kept.
func (s *Screen) panelAgain(c *gin.Context, v *pagePanel, in pageSettings, problem string) {
	v.Problem = problem
	if c.GetHeader("HX-Request") != "" {
		s.Parted(c, http.StatusOK, "page-said", v)
		return
	}
	v.Entered = in
	for i := range v.Parents {
		v.Parents[i].Chosen = v.Parents[i].ID == in.Parent
	}
	v.Found = previewOf(s.Hosts, v.Site, v.Page.Slug, in.Title, in.Description)
	s.pagesScreen(c, http.StatusUnprocessableEntity, pagesView{Panel: v})
}
