package pages

import (
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

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

// mostGoing is how many of the pages that a deletion takes along are drawn.
const mostGoing = 12

// going is what a deletion takes along.
type going struct {
	Pages []desk.Row
	More  int
}

// goingPart answers with the pages that go when some are deleted, drawn; with nothing where those alone go and visitors
// have none of them, which nobody needs to be asked about: they can be had back.
func (s *Screen) goingPart(c *gin.Context) {
	st := shell.SiteOf(c)
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	t, ids := store.Tree(infos), c.QueryArray("id")
	var gone []string
	for _, id := range ids {
		for _, p := range t.Branch(id) {
			if !slices.Contains(gone, p.ID) {
				gone = append(gone, p.ID)
			}
		}
	}
	drawn, err := s.Store.Drawings.Of(c, st.ID, gone)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v, seen, along := going{}, 0, 0
	for _, p := range infos {
		if !slices.Contains(gone, p.ID) {
			continue
		}
		if p.PublishedSeq != nil {
			seen++
		}
		if !slices.Contains(ids, p.ID) {
			along++
		}
		if len(v.Pages) == mostGoing {
			v.More++
			continue
		}
		v.Pages = append(v.Pages, s.Row(st, p, drawn[p.ID]))
	}
	if seen == 0 && along == 0 {
		c.Status(http.StatusNoContent)
		return
	}
	s.Parted(c, http.StatusOK, "pages-going", v)
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
