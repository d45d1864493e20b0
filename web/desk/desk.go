package desk

import (
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/site"
	"openplot/store"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Desk is what several screens need beside the shell.
type Desk struct{ *shell.Shell }

// Source reads what the pages of a site are made from.
func (s *Desk) Source(c *gin.Context, st *store.Site) (site.Source, error) {
	return site.ReadSource(c, s.Store, st)
}

// Look reads width and selection from the request and prepares the view of the
// page as it stands.
func (s *Desk) Look(c *gin.Context) (*model.View, error) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	src, err := s.Source(c, st)
	if err != nil {
		return nil, err
	}
	v := &model.View{Stage: s.Workshop.Stage(st, src, p.Slug), Page: p.Doc, Slug: paths.Of(p.Slug), Seq: p.Seq}
	if v.History, err = s.Store.Log.History(c, p.ID, shell.User(c).ID); err != nil {
		return nil, err
	}
	if v.Width, err = model.ReadWidth(c.Request.FormValue("width"), float64(st.Zones[0].Typical)); err != nil {
		return nil, err
	}
	v.Zone = st.Zones.At(v.Width)
	v.Selected = c.Request.FormValue("select")
	if also := c.Request.FormValue("also"); also != "" {
		v.Also = strings.Split(also, ",")[:min(strings.Count(also, ",")+1, edit.MaxParts-1)]
	}
	model.Stand(v, v.Page) // what isn't there can't be
	return v, nil
}

// CanvasOf answers with a page as a document.
func (s *Desk) CanvasOf(c *gin.Context, v *model.View) {
	c.Header(
		"Content-Security-Policy",
		"default-src 'none'; style-src 'self' 'unsafe-inline'; font-src 'self'; img-src 'self' data: "+s.Hosts.Uploads()+"; media-src "+s.Hosts.Uploads()+"; base-uri 'none'; form-action 'none'; frame-ancestors 'self'",
	)
	c.Data(http.StatusOK, "text/html; charset=utf-8", []byte(v.Canvas(s.Address("bench/canvas.css"))))
}

// RefuseTry answers a command that can't be tried, with why.
func (s *Desk) RefuseTry(c *gin.Context, err error) {
	var problem *doc.Problem
	if !errors.As(err, &problem) {
		s.Fail(c, err)
		return
	}
	c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": problem.Sentence()})
}

type PictureChoice struct{ ID, Name, Thumb string }

// PictureChoices are the pictures of a library that one can be chosen from.
func (s *Desk) PictureChoices(media []*store.Medium) (out []PictureChoice) {
	for _, m := range media {
		if m.Picture() && len(m.Variants) > 0 {
			out = append(out, PictureChoice{m.ID, m.Name, s.Hosts.Uploads() + "/media/" + m.Thumb()})
		}
	}
	return out
}

// SharedSection finds a section that stands on several pages of a site.
func (s *Desk) SharedSection(c *gin.Context, site string) func(id string) *doc.Section {
	return func(id string) *doc.Section {
		sec, err := s.Store.Pages.SharedSection(c, site, id)
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			s.Log.Error("shared section", "id", id, "error", err)
		}
		return sec
	}
}

// ZoneOf is a site's time zone.
func ZoneOf(st *store.Site) *time.Location {
	if l, err := time.LoadLocation(st.TimeZone); err == nil && st.TimeZone != "" {
		return l
	}
	return time.UTC
}

// Shortened cuts text to a number of characters.
func Shortened(s string, runes int) string {
	n := 0
	for i := range s {
		if n++; n > runes {
			return s[:i]
		}
	}
	return s
}
