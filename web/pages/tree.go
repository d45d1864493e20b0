package pages

import (
	"cmp"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/found"
	"openplot/core/number"
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
	Kept    string // what was done, in words
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
	Base                                                                    int64
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
			InMenu: p.InMenu, InFooter: p.InFooter, Unlisted: p.Doc.Unlisted, Locked: p.Lock != "", Picture: p.Doc.Picture, Base: p.Seq,
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

// previewPart answers with how a title and a description that are being written are shown.
func (s *Screen) previewPart(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	v, err := s.panelOf(c, st, p)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v.Found = previewOf(s.Hosts, st, p.Slug, c.Query("title"), c.Query("description"))
	s.Parted(c, http.StatusOK, "page-found", v)
}

// keepPageSettings keeps what was entered of a page: all of it, or nothing.
func (s *Screen) keepPageSettings(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	base, _ := number.Sequence(c.PostForm("base"))
	in := pageSettings{
		Name: c.PostForm(
			"name",
		), Segment: strings.TrimSpace(c.PostForm("segment")), Parent: c.PostForm("parent"), Title: c.PostForm("title"),
		Description: c.PostForm(
			"description",
		), Language: c.PostForm("language"), MenuName: strings.TrimSpace(c.PostForm("menu-name")), Password: c.PostForm("password"),
		InMenu: c.PostForm(
			"in-menu",
		) != "", InFooter: c.PostForm("in-footer") != "", Unlisted: c.PostForm("unlisted") != "", Locked: c.PostForm("locked") != "",
		Picture: c.PostForm("picture"), Base: base,
	}
	err := s.Store.OnSite(c, st.ID, func(in2 *store.Store) error { return s.settle(c, in2, st, p, in) })
	var problem *doc.Problem
	switch {
	case errors.As(err, &problem):
		s.panelAgain(c, p, in, problem.Sentence())
		return
	case errors.Is(err, store.ErrStale):
		s.panelAgain(
			c,
			p,
			in,
			"Somebody else changed this page’s settings since. What you entered stands here; load the page again to see theirs.",
		)
		return
	case err == nil && in.Locked && in.Password != "" && p.PublishedSeq != nil:
		err = s.Publisher.Lock(c, s.Store, st.ID)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.toPages(c, p.ID, "kept")
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
		if _, err := st.Pages.Edit(c, p.ID, shell.User(c).ID, in.Base, commands, func(d *doc.Page) (*edit.Result, error) { return edit.Apply(d, commands, env) }); err != nil {
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
	case in.Locked && in.Password != "":
		return st.Tree.LockPage(c, site.ID, p.ID, in.Password)
	case in.Locked && p.Lock == "":
		return doc.Problemf("Password", "is missing: choose one that you can tell those who may see the page")
	}
	return nil
}

// panelAgain answers with what was entered and why it can't be kept.
func (s *Screen) panelAgain(c *gin.Context, p *store.Page, in pageSettings, problem string) {
	v, err := s.panelOf(c, shell.SiteOf(c), p)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v.Entered, v.Problem = in, problem
	for i := range v.Parents {
		v.Parents[i].Chosen = v.Parents[i].ID == in.Parent
	}
	v.Found = previewOf(s.Hosts, shell.SiteOf(c), p.Slug, in.Title, in.Description)
	s.pagesScreen(c, http.StatusUnprocessableEntity, pagesView{Panel: v})
}

// toPages leads to the list of pages with the panel of one of them.
func (s *Screen) toPages(c *gin.Context, page, done string) {
	q := url.Values{}
	if page != "" {
		q.Set("page", page)
	}
	if done != "" {
		q.Set("done", done)
	}
	to := paths.To(shell.SiteOf(c).Slug).At()
	if len(q) > 0 {
		to += "?" + q.Encode()
	}
	c.Redirect(http.StatusSeeOther, to)
}

// movePage moves a page in the tree: by a key ("to"), or under another behind another.
func (s *Screen) movePage(c *gin.Context) {
	p := shell.PageOf(c)
	err := s.Store.Tree.Rearrange(c, shell.SiteOf(c).ID, func(t tree.Tree) (tree.Tree, error) {
		if to := c.PostForm("to"); to != "" {
			return t.Step(p.ID, tree.Direction(to))
		}
		return t.Move(p.ID, c.PostForm("parent"), c.PostForm("after"))
	})
	s.listAgain(c, p.ID, err)
}

// listAgain answers with the list of pages, after something was done to it or not.
func (s *Screen) listAgain(c *gin.Context, page string, err error) {
	var problem *doc.Problem
	if err != nil && !errors.As(err, &problem) {
		s.Fail(c, err)
		return
	}
	status, said := http.StatusOK, ""
	if problem != nil {
		status, said = http.StatusUnprocessableEntity, problem.Sentence()
	}
	if c.GetHeader("HX-Request") == "" {
		if problem != nil {
			s.pagesScreen(c, status, pagesView{Problem: said})
			return
		}
		s.toPages(c, page, "")
		return
	}
	v, err := s.rows(c, shell.SiteOf(c), 0)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v.Problem, v.Focus = said, page
	s.Parted(c, http.StatusOK, "page-list", v)
}

// makeHome makes a page the home page.
func (s *Screen) makeHome(c *gin.Context) {
	p := shell.PageOf(c)
	err := s.Store.Tree.Rearrange(
		c,
		shell.SiteOf(c).ID,
		func(t tree.Tree) (tree.Tree, error) { return t.MakeHome(p.ID) },
	)
	s.done(c, p.ID, "home", err)
}

// done leads back to the list after something was done to a page, or says why it wasn't.
func (s *Screen) done(c *gin.Context, page, what string, err error) {
	var problem *doc.Problem
	switch {
	case errors.As(err, &problem):
		s.pagesScreen(c, http.StatusUnprocessableEntity, pagesView{Problem: problem.Sentence()})
	case err != nil:
		s.Fail(c, err)
	default:
		s.toPages(c, page, what)
	}
}

// copyPage makes a copy of a page behind it.
func (s *Screen) copyPage(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	next := *p.Doc
	next.ID = store.NewID("p")
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	next.Name = freshName(p.Doc.Name, infos)
	next.Title, next.Date = copiedTitle(p.Doc.Title, p.Doc.Name, next.Name), ""
	err = s.Store.OnSite(c, st.ID, func(in *store.Store) error {
		if err := in.Tree.Put(c, st.ID, &next, func(t tree.Tree) (tree.Tree, error) {
			parent := ""
			if p.Parent != nil {
				parent = *p.Parent
			}
			t, err := t.Add(tree.Page{ID: next.ID, Parent: parent, Name: next.Name}, "")
			if err != nil {
				return nil, err
			}
			return t.Move(next.ID, parent, p.ID)
		}); err != nil {
			return err
		}
		return in.Tree.SetPlacing(c, st.ID, next.ID, store.Placing{InMenu: p.InMenu, InFooter: p.InFooter})
	})
	s.done(c, next.ID, "copied", err)
}

// copiedTitle is the title of a copy: no two pages have the same, and it says which page it is of.
func copiedTitle(title, name, next string) string {
	if strings.Contains(title, name) {
		return strings.Replace(title, name, next, 1)
	}
	return next
}

// freshName is what a copy of a page is called.
func freshName(name string, infos []*store.PageInfo) string {
	for n := 2; ; n++ {
		next := name + " " + strconv.Itoa(n)
		if !slices.ContainsFunc(infos, func(i *store.PageInfo) bool { return i.Name == next }) {
			return next
		}
	}
}

// restorePage brings a deleted page back.
func (s *Screen) restorePage(c *gin.Context) {
	id := c.PostForm("id")
	err := s.Store.Tree.Restore(c, shell.SiteOf(c).ID, id)
	if err == nil {
		s.Note(c, "page restored", shell.SiteOf(c).ID, id)
	}
	s.done(c, id, "restored", err)
}

// several does something to several pages of a site at once: puts them into menus or takes them
// out, moves them under another, withdraws or deletes them.
func (s *Screen) several(c *gin.Context) {
	st := shell.SiteOf(c)
	ids := c.PostFormArray("id")
	if len(ids) == 0 {
		s.done(c, "", "", doc.Problemf("Pages", "are missing: tick those that you mean"))
		return
	}
	act := c.PostForm("act")
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	t := store.Tree(infos)
	chosen := slices.DeleteFunc(
		slices.Clone(infos),
		func(p *store.PageInfo) bool { return !slices.Contains(ids, p.ID) },
	)
	switch act {
	case "show", "hide":
		err = s.Store.OnSite(c, st.ID, func(in *store.Store) error {
			for _, p := range chosen {
				if err := in.Tree.SetPlacing(c, st.ID, p.ID, store.Placing{InMenu: act == "show", InFooter: p.InFooter, MenuName: p.MenuName}); err != nil {
					return err
				}
			}
			return nil
		})
	case "move":
		err = s.Store.Tree.Rearrange(c, st.ID, func(t tree.Tree) (tree.Tree, error) {
			parent := c.PostForm("parent")
			for _, p := range chosen {
				after := ""
				if under := t.Children(parent); len(under) > 0 {
					after = under[len(under)-1].ID
				}
				if i := t.Index(p.ID); i >= 0 && t[i].Parent == parent || after == p.ID {
					continue
				}
				var err error
				if t, err = t.Move(p.ID, parent, after); err != nil {
					return nil, err
				}
			}
			return t, nil
		})
	case "withdraw", "delete":
		var gone []string
		for _, p := range chosen {
			for _, q := range t.Branch(p.ID) {
				if act == "delete" || q.ID == p.ID {
					gone = append(gone, q.ID)
				}
			}
		}
		err = s.remove(c, st, gone, infos, act == "delete")
	case "publish":
		c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("publish")+"?"+url.Values{"id": ids}.Encode())
		return
	default:
		err = doc.Problemf("Action", "%.20q isn't one; publish, show, hide, move, withdraw and delete are", act)
	}
	s.done(c, "", act, err)
}

// remove withdraws pages from visitors, and deletes them if that is asked for: all of it, or
// nothing.
func (s *Screen) remove(c *gin.Context, st *store.Site, ids []string, infos []*store.PageInfo, deleted bool) error {
	var names, published []string
	for _, p := range infos {
		if !slices.Contains(ids, p.ID) {
			continue
		}
		names = append(names, p.Name)
		if p.PublishedSeq != nil {
			published = append(published, p.ID)
		}
	}
	act := map[bool]string{true: "page deleted", false: "page withdrawn"}[deleted]
	err := s.Store.OnSite(c, st.ID, func(in *store.Store) error {
		if deleted {
			if err := in.Tree.Rearrange(c, st.ID, func(t tree.Tree) (tree.Tree, error) {
				for _, id := range ids {
					if t.Index(id) < 0 { // with what it stood under
						continue
					}
					var err error
					if t, err = t.Remove(id); err != nil {
						return nil, err
					}
				}
				return t, nil
			}); err != nil {
				return err
			}
		}
		if len(published) == 0 {
			return nil
		}
		src, err := site.ReadSource(c, in, st)
		if err != nil {
			return err
		}
		_, err = s.Publisher.Publish(
			c,
			in,
			src,
			site.Order{Withdraw: published, By: shell.User(c).ID, Note: "Withdrawn: " + site.Brief(names)},
		)
		return err
	})
	if err != nil {
		return err
	}
	for _, name := range names {
		s.Note(c, act, st.ID, name)
	}
	return nil
}
