// Package everywhere makes a section of a page the top bar or the footer of a site: it shows what each
// page has in its place, what of that is a copy and differs in what, and puts it on those that are ticked.
package everywhere

import (
	"cmp"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/core/compare"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is what a section would be on all pages.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.PageRoute+"/everywhere/:section", rights.Compose, s.look),
		shell.Within(shell.Writing, shell.Post(paths.PageRoute+"/everywhere/:section", rights.Compose, s.put)),
	}
}

// drawnWide is how wide sections are drawn, in px.
const drawnWide = 420

// part is how a role is called.
var part = map[doc.Role]string{doc.RoleHeader: "top bar", doc.RoleFooter: "footer"}

// view is the screen.
type view struct {
	User    *store.User
	Site    *store.Site
	Page    *store.Page
	Slug    paths.Segment
	Section *doc.Section // as it would be
	Part    string
	Drawing template.HTML
	Groups  []*group
	There   []string // names of pages that have it so
	Problem string
}

// group is pages that have the same in its place.
type group struct {
	Words   string // what that is
	Drawing template.HTML
	Differs []string // from what would come, where it is a copy of that
	Pages   []page
}

type page struct{ ID, Name string }

// section is the one that is asked for, as it would be.
func (s *Screen) section(c *gin.Context) (*doc.Section, bool) {
	sec, _ := shell.PageOf(c).Doc.Section(c.Param("section"))
	if sec == nil {
		s.ProblemPage(c, http.StatusNotFound)
		return nil, false
	}
	as, err := edit.AsPart(sec, doc.Role(c.Request.FormValue("role")))
	if err != nil {
		s.Fail(c, err)
		return nil, false
	}
	return as, true
}

// look shows what each page has in the section's place.
func (s *Screen) look(c *gin.Context) {
	if as, ok := s.section(c); ok {
		s.show(c, http.StatusOK, as, "")
	}
}

func (s *Screen) show(c *gin.Context, status int, as *doc.Section, problem string) {
	st, at := shell.SiteOf(c), shell.PageOf(c)
	src, err := s.Source(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	stage := s.Workshop.Stage(st, src, at.Slug)
	draw := func(sec *doc.Section) template.HTML {
		as, _ := json.Marshal(sec) // as it is kept
		sum := sha256.Sum256(as)
		return stage.DrawSection(fmt.Sprintf("everywhere %x", sum[:8]), sec, drawnWide)
	}
	v := view{
		User: shell.User(
			c,
		), Site: st, Page: at, Slug: paths.Of(at.Slug), Section: as, Part: part[as.Role], Drawing: draw(as), Problem: problem,
	}
	groups := map[string]*group{}
	for _, info := range src.Pages {
		p, err := s.Store.Pages.Read(c, info)
		if err != nil {
			s.Fail(c, err)
			return
		}
		r, err := edit.Everywhere(p.Doc, as)
		if err != nil {
			s.Fail(c, err)
			return
		}
		if r == nil {
			v.There = append(v.There, info.Name)
			continue
		}
		key, g := has(p.Doc, as, draw)
		if groups[key] == nil {
			groups[key] = g
			v.Groups = append(v.Groups, g)
		}
		groups[key].Pages = append(groups[key].Pages, page{info.ID, info.Name})
	}
	slices.SortStableFunc(v.Groups, func(a, b *group) int { return cmp.Compare(len(b.Pages), len(a.Pages)) })
	s.Screen(c, status, "everywhere", v)
}

// has tells what a page has in the place of a section that would come, and a key that is the same for
// pages that have the same.
func has(p *doc.Page, as *doc.Section, draw func(*doc.Section) template.HTML) (key string, g *group) {
	parts := edit.PartsOf(p, as.Role)
	if len(parts) == 0 {
		if here, _ := p.Section(as.ID); here != nil {
			return "here", &group{Words: "It stands among the other sections"}
		}
		return "", &group{Words: "No " + part[as.Role] + " yet"}
	}
	first := parts[0]
	if first.ID == as.ID && len(parts) == 1 {
		return "here", &group{Words: "It is this page’s own " + part[as.Role]}
	}
	changes, alike := compare.Copies(first, as)
	g = &group{Drawing: draw(first)}
	switch {
	case len(parts) > 1:
		g.Words = fmt.Sprintf("%d of them, which it takes the place of", len(parts))
	case alike && len(changes) == 0:
		g.Words = "A copy of it that is the same"
	case alike:
		g.Words, g.Differs = "A copy of it that differs", compare.Say(changes)
	default:
		g.Words = "Another one: “" + first.Name + "”"
	}
	return string(g.Drawing) + g.Words + fmt.Sprint(g.Differs), g
}

// put puts the section on the pages that are ticked, in one act that is taken back as one.
func (s *Screen) put(c *gin.Context) {
	as, ok := s.section(c)
	if !ok {
		return
	}
	st, at := shell.SiteOf(c), shell.PageOf(c)
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	ticked := c.PostFormArray("page")
	if len(ticked) == 0 {
		s.show(
			c,
			http.StatusUnprocessableEntity,
			as,
			doc.Problemf("Pages", "to put it on weren't ticked: tick at least one").Sentence(),
		)
		return
	}
	seen := store.Seen{House: st.Version, Pages: map[string]int64{}}
	for _, p := range infos {
		// Where it is shared already it stays the same on all of them.
		if slices.Contains(ticked, p.ID) || p.ID == at.ID || slices.Contains(p.Shared, as.ID) {
			seen.Pages[p.ID] = p.Seq
		}
	}
	done, err := s.Store.Log.Together(
		c, st.ID, shell.User(c).ID, seen,
		func(_ doc.House, pages map[string]*doc.Page) (*store.Act, error) {
			act := &store.Act{Pages: map[string]store.PageAct{}}
			for id, p := range pages {
				r, err := edit.Everywhere(p, as)
				if err == nil && r == nil && id == at.ID {
					r, err = edit.Stays(p, as)
				}
				if err != nil {
					return nil, err
				}
				if r != nil {
					command := edit.Command{Op: edit.EverywhereOp, Node: as.ID, Value: string(as.Role)}
					act.Pages[id] = store.PageAct{Command: command, Result: r}
				}
			}
			return act, nil
		},
	)
	var problem *doc.Problem
	if errors.Is(err, store.ErrStale) {
		err = doc.Problemf("Pages", "were changed meanwhile by somebody else: look again, and put it there")
	}
	if errors.As(err, &problem) {
		s.show(c, http.StatusConflict, as, problem.Sentence())
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "section put on pages", st.ID, fmt.Sprintf("%s as %s, on %d", as.Name, part[as.Role], len(done)))
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).Page(at.Slug).At("bench")+"?select="+as.ID)
}
