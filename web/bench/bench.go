package bench

import (
	"bytes"
	"encoding/json"
	"errors"
	"html/template"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is the screen on which a page is composed.
type Screen struct {
	*desk.Desk
	Shelf *Shelf
}

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Post("/tray", rights.Sign, s.setTray),
		shell.Post("/keys", rights.Sign, s.setKey),
		shell.Get(paths.PageRoute+"/bench", rights.See, s.bench),
		shell.Get(paths.PageRoute+"/canvas", rights.See, s.canvas),
		shell.Get(paths.PageRoute+"/parts", rights.See, s.parts),
		shell.Get(paths.PageRoute+"/recent", rights.Write, s.recent),
		shell.Within(shell.Composing, shell.Post(paths.PageRoute+"/edits", rights.Write, s.edit)),
		shell.Within(shell.Composing, shell.Post(paths.PageRoute+"/tries", rights.Write, s.tryEdit)),
		shell.Post(paths.PageRoute+"/undo", rights.Write, s.undo),
		shell.Post(paths.PageRoute+"/redo", rights.Write, s.redo),
		shell.Post(paths.PageRoute+"/ask", rights.Write, s.ask),
		shell.Post(paths.PageRoute+"/promote", rights.House, s.promote),
		shell.Post(paths.PageRoute+"/restyle", rights.House, s.restyle),
		shell.Post(paths.PageRoute+"/keep", rights.Keep, s.keepSection),
		shell.Within(shell.Writing, shell.Post(paths.PageRoute+"/publish", rights.Publish, s.publish)),
	}
}

type benchView struct {
	Frame    shell.Frame
	User     *store.User
	Site     *store.Site
	Page     *doc.Page
	Slug     paths.Segment
	Pages    []*store.PageInfo
	Width    int
	Top      model.Top
	Overview model.Overview
	Reach    model.Reach
	Tray     *model.Tray
	State    template.JS
	Commands []model.Command
	Words    []model.Word
	Table    template.JS // of them
	Live     string
}

func (s *Screen) bench(c *gin.Context) {
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if err := looked(c, s.Store, v); err != nil {
		s.Fail(c, err)
		return
	}
	pages, err := s.Store.Pages.List(c, v.Site.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	around, err := s.Around(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	state, err := json.Marshal(v.State(nil, true))
	if err != nil {
		s.Fail(c, err)
		return
	}
	commands := model.CommandsFor(shell.User(c).Keys)
	table, _ := json.Marshal(commands) // words alone
	s.Screen(c, http.StatusOK, "bench", benchView{
		Frame: around, User: shell.User(c), Site: v.Site, Page: v.Page, Slug: v.Slug, Pages: pages,
		Width: int(v.Width), Top: v.Top(), Overview: v.Overview(), Reach: v.Reach(), Tray: v.Tray(),
		State: template.JS(
			state,
		), Commands: commands, Words: model.OwnWords, Table: template.JS(table), Live: s.Hosts.Public(v.Site.Slug) + "/",
	})
}

// looked notes that a new site's page was looked at on a phone, which is one of its first steps.
func looked(c *gin.Context, st *store.Store, v *model.View) error {
	if v.Site.Begun || v.Zone != len(v.Site.Zones)-1 {
		return nil
	}
	return st.Steps.SeenNarrow(c, v.Site.ID)
}

// setTray keeps where the Tray stands for somebody.
func (s *Screen) setTray(c *gin.Context) {
	if err := s.Store.People.SetTray(c, shell.User(c).ID, c.PostForm("where")); err != nil {
		s.Fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// setKey gives a command another key for somebody, and answers with all commands.
func (s *Screen) setKey(c *gin.Context) {
	keys, err := model.WithKey(shell.User(c).Keys, c.PostForm("id"), c.PostForm("key"), c.PostForm("usual") != "")
	var problem *doc.Problem
	if errors.As(err, &problem) {
		c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": problem.Sentence()})
		return
	}
	if err == nil {
		err = s.Store.People.SetKeys(c, shell.User(c).ID, keys)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.JSON(http.StatusOK, model.CommandsFor(keys))
}

// canvas answers with the page itself, for the frame in the middle of the Bench.
// No script runs in it.
func (s *Screen) canvas(c *gin.Context) {
	st, err := s.Worn(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Set(shell.KeySite, st)
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.CanvasOf(c, v)
}

// parts answers with everything that depends on width and selection.
func (s *Screen) parts(c *gin.Context) {
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if err := looked(c, s.Store, v); err != nil {
		s.Fail(c, err)
		return
	}
	a := answer{View: v, grids: true, overview: c.Query("overview") != ""}
	s.answer(c, http.StatusOK, a)
}

// answer is what changes on the Bench after a request.
type answer struct {
	*model.View
	message  string   // for the status line
	did      string   // what was done, for those who hear it
	link     string   // address that the message leads to
	alert    bool     // the message is about something that went wrong
	grids    bool     // the width is another one
	overview bool     // the whole Overview
	changed  []string // sections to draw and write again
	fresh    bool     // everything is to be shown again
	noTray   bool
	shelf    bool // what lies on the Shelf is another
	lists    bool // the house style's values are others
}

// sayView is the status line.
type sayView struct {
	Message, Link string
	Alert         bool
}

// stateHeader says that an answer's first line is the state as JSON; parts for htmx come after it.
const stateHeader = "Openplot-State"

// answer writes the state, and parts for htmx, each to its own place.
func (s *Screen) answer(c *gin.Context, status int, a answer) {
	var b bytes.Buffer
	var err error
	add := func(target, swap, name string, data any) {
		if err != nil {
			return
		}
		b.WriteString(`<hx-partial hx-target="` + target + `" hx-swap="` + swap + `">`)
		err = s.Part(&b, name, data)
		b.WriteString("</hx-partial>\n")
	}
	if a.fresh {
		a.changed = []string{}
		for _, sec := range a.Page.Sections {
			a.changed = append(a.changed, sec.ID)
		}
		a.overview = true
	}
	if a.overview {
		add("#overview", "outerHTML", "overview", a.View.Overview())
	} else {
		for _, id := range a.changed {
			if sec, _ := a.Page.Section(id); sec != nil {
				add("#overview-"+id, "outerHTML", "overview-item", a.View.OverviewItem(sec))
			}
		}
	}
	if !a.noTray {
		add("#tray", "outerHTML", "tray", a.View.Tray())
	}
	if a.shelf {
		view, serr := s.Shelf.shelf(c, a.Stage, shell.User(c).ID)
		if err == nil {
			err = serr
		}
		add("#shelf-items", "outerHTML", "shelf-items", view)
	}
	if a.lists {
		add("#lists", "outerHTML", "lists", map[string]any{"Site": a.Site})
	}
	add("#history", "outerHTML", "history", a.View.Top())
	add("#say", "outerHTML", "say", sayView{a.message, a.link, a.alert})
	changed := a.changed
	if changed == nil {
		changed = []string{}
	}
	state := a.View.State(changed, a.grids)
	state.Did, state.Told = a.did, model.Told(a.View)
	text, jerr := json.Marshal(state)
	if err == nil {
		err = jerr
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Header(stateHeader, "first-line")
	c.Data(status, "text/html; charset=utf-8", slices.Concat(text, []byte("\n"), b.Bytes()))
}

// structural reports whether steps change which sections there are, or their
// order.
func structural(steps []edit.Step) bool {
	return slices.ContainsFunc(steps, func(s edit.Step) bool {
		return s.Do == edit.InsertSection || s.Do == edit.RemoveSection || s.Do == edit.MoveSection
	})
}
