package web

import (
	"bytes"
	"encoding/json"
	"errors"
	"html/template"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/site"
	"openplot/store"
	"openplot/web/bench"
)

// source reads what the pages of a site are made from.
func (s *Server) source(c *gin.Context, st *store.Site) (site.Source, error) {
	return site.ReadSource(c, s.Store, st)
}

// look reads width and selection from the request and prepares the view of the
// page as it stands.
func (s *Server) look(c *gin.Context) (*bench.View, error) {
	st, p := siteOf(c), pageOf(c)
	src, err := s.source(c, st)
	if err != nil {
		return nil, err
	}
	v := &bench.View{Stage: s.workshop.Stage(st, src, p.Slug), Page: p.Doc, Slug: pageSlug(p.Slug), Seq: p.Seq}
	if v.History, err = s.Store.Log.History(c, p.ID, user(c).ID); err != nil {
		return nil, err
	}
	if v.Width, err = bench.ReadWidth(c.Request.FormValue("width"), float64(st.Zones[0].Typical)); err != nil {
		return nil, err
	}
	v.Zone = st.Zones.At(v.Width)
	v.Selected = c.Request.FormValue("select")
	if also := c.Request.FormValue("also"); also != "" {
		v.Also = strings.Split(also, ",")[:min(strings.Count(also, ",")+1, edit.MaxParts-1)]
	}
	return v, nil
}

type benchView struct {
	User     *store.User
	Site     *store.Site
	Page     *doc.Page
	Slug     string
	Pages    []*store.PageInfo
	Width    int
	Top      bench.Top
	Overview bench.Overview
	Reach    bench.Reach
	Tray     *bench.Tray
	State    template.JS
	Commands []bench.Command
	Table    template.JS // of them
	Live     string
}

func (s *Server) bench(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	pages, err := s.Store.Pages.List(c, v.Site.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	state, err := json.Marshal(v.State(nil, true))
	if err != nil {
		s.fail(c, err)
		return
	}
	commands := bench.CommandsFor(user(c).Keys)
	table, _ := json.Marshal(commands) // words alone
	s.screen(c, http.StatusOK, "bench", benchView{
		User: user(c), Site: v.Site, Page: v.Page, Slug: v.Slug, Pages: pages,
		Width: int(v.Width), Top: v.Top(), Overview: v.Overview(), Reach: v.Reach(), Tray: v.Tray(),
		State: template.JS(state), Commands: commands, Table: template.JS(table), Live: s.Hosts.Public(v.Site.Slug) + "/",
	})
}

// setTray keeps where the Tray stands for somebody.
func (s *Server) setTray(c *gin.Context) {
	if err := s.Store.People.SetTray(c, user(c).ID, c.PostForm("where")); err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// setKey gives a command another key for somebody, and answers with all commands.
func (s *Server) setKey(c *gin.Context) {
	keys, err := bench.WithKey(user(c).Keys, c.PostForm("id"), c.PostForm("key"), c.PostForm("usual") != "")
	var problem *doc.Problem
	if errors.As(err, &problem) {
		c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": problem.Sentence()})
		return
	}
	if err == nil {
		err = s.Store.People.SetKeys(c, user(c).ID, keys)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, bench.CommandsFor(keys))
}

// canvas answers with the page itself, for the frame in the middle of the Bench.
// No script runs in it.
func (s *Server) canvas(c *gin.Context) {
	st, err := s.worn(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Set(keySite, st)
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.canvasOf(c, v)
}

// canvasOf answers with a page as a document.
func (s *Server) canvasOf(c *gin.Context, v *bench.View) {
	c.Header(
		"Content-Security-Policy",
		"default-src 'none'; style-src 'self' 'unsafe-inline'; font-src 'self'; img-src 'self' data: "+s.Hosts.Uploads()+"; media-src "+s.Hosts.Uploads()+"; base-uri 'none'; form-action 'none'; frame-ancestors 'self'",
	)
	c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(v.Canvas(s.static.address("bench/canvas.css"))))
}

// parts answers with everything that depends on width and selection.
func (s *Server) parts(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	a := answer{View: v, grids: true, overview: c.Query("overview") != ""}
	s.answer(c, http.StatusOK, a)
}

// answer is what changes on the Bench after a request.
type answer struct {
	*bench.View
	message  string   // for the status line
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

// answer writes parts for htmx, each to its own place.
func (s *Server) answer(c *gin.Context, status int, a answer) {
	var b bytes.Buffer
	var err error
	add := func(target, swap, name string, data any) {
		if err != nil {
			return
		}
		b.WriteString(`<hx-partial hx-target="` + target + `" hx-swap="` + swap + `">`)
		err = s.part(&b, name, data)
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
		view, serr := s.shelf(c, a.Stage, user(c).ID)
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
	text, jerr := json.Marshal(a.View.State(changed, a.grids))
	if err == nil {
		err = jerr
	}
	add("#state", "outerHTML", "state", template.JS(text))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Data(status, "text/html; charset=utf-8", b.Bytes())
}

// structural reports whether steps change which sections there are, or their
// order.
func structural(steps []edit.Step) bool {
	return slices.ContainsFunc(steps, func(s edit.Step) bool {
		return s.Do == edit.InsertSection || s.Do == edit.RemoveSection || s.Do == edit.MoveSection
	})
}
