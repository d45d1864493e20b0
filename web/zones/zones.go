package zones

import (
	"encoding/json"
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/number"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is what is seen at which widths of a window.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/zones", rights.House, s.zones),
		shell.Post(paths.SiteRoute+"/zones", rights.House, s.setZones),
		shell.Get(paths.PageRoute+"/zones/:zone", rights.Compose, s.zoneHere),
	}
}

// zoneRow is a zone as the list of them shows it.
type zoneRow struct {
	doc.Zone
	From, To   int
	X, W       float64 // on a strip of 1,000 units
	Narrowest  bool
	Widest     bool
	Set, Pages int // values that are set in it, on so many pages
}

// zonesView is the list of a site's zones.
type zonesView struct {
	Site    *store.Site
	Rows    []zoneRow
	Back    bool // they can be had back as they were
	Problem string
}

// zones answers with the list of a site's zones, with what is set in each.
func (s *Screen) zones(c *gin.Context) { s.showZones(c, http.StatusOK, "") }

func (s *Screen) showZones(c *gin.Context, status int, problem string) {
	st := shell.SiteOf(c)
	before, err := s.Store.Sites.ZonesBefore(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := zonesView{Site: st, Back: len(before) > 0, Problem: problem}
	infos, err := s.Store.Pages.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	for i, z := range st.Zones {
		r := zoneRow{
			Zone:      z,
			From:      max(z.Min, doc.MinViewport),
			To:        doc.MaxViewport,
			Widest:    i == 0,
			Narrowest: i == len(st.Zones)-1,
		}
		if i > 0 {
			r.To = st.Zones[i-1].Min - 1
		}
		r.X = float64(r.From-doc.MinViewport) / (doc.MaxViewport - doc.MinViewport) * 1000
		r.W = float64(r.To-r.From+1) / (doc.MaxViewport - doc.MinViewport) * 1000
		v.Rows = append(v.Rows, r)
	}
	for _, info := range infos {
		p, err := s.Store.Pages.ByID(c, st.ID, info.ID)
		if err != nil {
			s.Fail(c, err)
			return
		}
		for i := range v.Rows {
			if n := edit.SetIn(p.Doc, v.Rows[i].ID); n > 0 && i > 0 {
				v.Rows[i].Set, v.Rows[i].Pages = v.Rows[i].Set+n, v.Rows[i].Pages+1
			}
		}
	}
	s.Parted(c, status, "zones", v)
}

// setZones changes a site's zones. What asks reads the page anew, since all of it may stand
// elsewhere.
func (s *Screen) setZones(c *gin.Context) {
	st := shell.SiteOf(c)
	id := c.PostForm("zone")
	at, aerr := number.Whole(strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(c.PostForm("at")), "px")))
	width := func() error {
		if aerr != nil {
			return doc.Problemf("Width", "can't be %.20q: write px, such as 640", c.PostForm("at"))
		}
		return nil
	}
	err := s.Store.Sites.SetZones(c, st.ID, func(zs doc.Zones) (doc.Zones, error) {
		switch c.PostForm("op") {
		case "move":
			if err := width(); err != nil {
				return nil, err
			}
			return edit.MoveZone(zs, id, at)
		case "split":
			if err := width(); err != nil {
				return nil, err
			}
			return edit.SplitZone(zs, at, c.PostForm("wider"), c.PostForm("narrower"), store.NewID)
		case "remove":
			return edit.RemoveZone(zs, id)
		case "name":
			return edit.NameZone(zs, id, c.PostForm("name"))
		case "back":
			before, err := s.Store.Sites.ZonesBefore(c, st.ID)
			if err == nil && len(before) == 0 {
				err = doc.Problemf("Zones", "weren't changed yet")
			}
			return before, err
		}
		return nil, doc.Problemf("Zones", "can't be changed so: %.20q", c.PostForm("op"))
	})
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showZones(c, http.StatusUnprocessableEntity, problem.Sentence())
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "zones changed", st.ID, c.PostForm("op")+" "+id)
	c.Header("HX-Refresh", "true")
	c.Status(http.StatusNoContent)
}

// hereView is all that is set in a zone on a page, by section.
type hereView struct {
	Site   *store.Site
	Page   *store.Page
	Zone   doc.Zone
	Count  int
	Again  bool // more than one section can be arranged again
	Groups []hereGroup
}

type hereGroup struct {
	ID, Name string
	Rows     []hereRow
	Again    *model.Again // where its blocks stand otherwise than by the rule
}

type hereRow struct {
	edit.Here
	Name    string
	Command string // what puts it back
}

// zoneHere answers with all that is set in a zone on a page.
func (s *Screen) zoneHere(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	i := st.Zones.Index(c.Param("zone"))
	if i < 1 {
		s.Fail(c, store.ErrNotFound)
		return
	}
	v := hereView{Site: st, Page: p, Zone: st.Zones[i]}
	src, err := s.Source(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	stage, arranged := s.Workshop.Stage(st, src, p.Slug), 0
	for _, sec := range p.Doc.Sections {
		g := hereGroup{ID: sec.ID, Name: sec.Name}
		for _, h := range edit.SetHere(&doc.Page{Sections: []*doc.Section{sec}}, v.Zone.ID) {
			r := hereRow{Here: h, Name: model.NameOf(p.Doc, h.Node)}
			put := edit.Command{Op: "follow", Node: h.Node, Zone: v.Zone.ID, Setting: h.Setting}
			if h.Setting == "" && h.Label == "Words" {
				put = edit.Command{Op: "block.words", Node: h.Node, Zone: v.Zone.ID, Hide: true}
			} else if h.Setting == "" && h.Label == "Place" {
				put = edit.Command{Op: "block.place.reset", Node: h.Node, Zone: v.Zone.ID}
			} else if h.Setting == "" {
				put = edit.Command{Op: "block.hide", Node: h.Node, Zone: v.Zone.ID, Hide: h.Value != "hidden"}
			}
			b, err := json.Marshal(put)
			if err != nil {
				s.Fail(c, err)
				return
			}
			r.Command = string(b)
			g.Rows = append(g.Rows, r)
		}
		if v.Count += len(g.Rows); len(g.Rows) > 0 {
			if !sec.Hidden {
				g.Again = stage.Again(c, p.Doc, sec, v.Zone, edit.Env{Site: &st.Site, NewID: store.NewID})
				if g.Again != nil {
					arranged++
				}
			}
			v.Groups = append(v.Groups, g)
		}
	}
	v.Again = arranged > 1
	s.Parted(c, http.StatusOK, "zone-here", v)
}
