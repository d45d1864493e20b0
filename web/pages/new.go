package pages

import (
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/ready"
	"openplot/core/tree"
	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

// making is how new pages come about: of ready-made sections, or like another.
type making struct{ *Screen }

// newPage adds a page made of ready-made sections.
func (s making) newPage(c *gin.Context) {
	st := shell.SiteOf(c)
	form := newPageForm{
		Name:   c.PostForm("name"),
		Slug:   strings.TrimSpace(c.PostForm("slug")),
		Ready:  c.PostForm("ready"),
		Parent: c.PostForm("parent"),
		Bare:   c.PostForm("bars") == "",
		Open:   true,
	}
	var p *doc.Page
	var err error
	if id, own := strings.CutPrefix(form.Ready, ownPrefix); own {
		p, err = s.pageLike(c, st, id, form.Name)
	} else {
		p, err = s.readyPage(c, st, form)
	}
	if err == nil && !form.Bare && !strings.HasPrefix(form.Ready, ownPrefix) {
		err = s.around(c, st, p)
	}
	var at tree.Page
	if err == nil {
		err = s.Store.Tree.Put(c, st.ID, p, func(t tree.Tree) (tree.Tree, error) {
			next, err := t.Add(tree.Page{ID: p.ID, Parent: form.Parent, Name: p.Name}, form.Slug)
			if err == nil {
				at = next[next.Index(p.ID)]
			}
			return next, err
		})
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		form.Problem = problem.Sentence()
		infos, err := s.Store.Pages.List(c, st.ID)
		if err != nil {
			s.Fail(c, err)
			return
		}
		form.Derived = derived(form.Name, form.Parent, infos)
		s.pagesScreen(c, http.StatusUnprocessableEntity, pagesView{New: form})
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).Page(at.Address).At("bench"))
}

// readyPage makes a new page of ready-made sections, with pictures that ship.
func (s making) readyPage(c *gin.Context, st *store.Site, form newPageForm) (*doc.Page, error) {
	has, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		return nil, err
	}
	stock := func(id string) string {
		ids, _, err := s.Stocked(c, st, has, []string{id})
		if err != nil { // the page begins without it
			s.Log.Error("stock", "picture", id, "error", err)
		}
		return ids[id]
	}
	return ready.NewPage(form.Ready, form.Name, ready.FindBusiness(st.Business), store.NewID, stock)
}

// around gives a new page the bars and footers that the home page shares.
func (s making) around(c *gin.Context, st *store.Site, p *doc.Page) error {
	home, err := s.Store.Pages.At(c, st.ID, "")
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err == nil {
		ready.Around(p, home.Doc)
	}
	return err
}

// derivedSlug answers with the field of a new page's address while its name is typed.
func (s making) derivedSlug(c *gin.Context) {
	infos, err := s.Store.Pages.List(c, shell.SiteOf(c).ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(
		c,
		http.StatusOK,
		"slug",
		newPageForm{Slug: c.Query("slug"), Derived: derived(c.Query("name"), c.Query("parent"), infos)},
	)
}

// derived is the word of an address that a name gives which no page has under a parent.
func derived(name, parent string, infos []*store.PageInfo) string {
	return tree.Fresh(name, "page", store.Tree(infos).Taken(parent))
}
