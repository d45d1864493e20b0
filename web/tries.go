package web

import (
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/metrics"
	"openplot/stock"
	"openplot/web/bench"
)

// tryEdit answers a command as if it had been carried out, with what the canvas would show,
// and keeps nothing anywhere.
func (s *Server) tryEdit(c *gin.Context) {
	st, p := siteOf(c), pageOf(c)
	command, err := edit.Parse([]byte(c.PostForm("command")))
	if err != nil {
		s.refuseTry(c, err)
		return
	}
	src, err := s.source(c, st)
	if err != nil {
		s.fail(c, err)
		return
	}
	v := &bench.View{Stage: s.workshop.Stage(st, src, p.Slug), Page: p.Doc, Seq: p.Seq}
	if v.Width, err = bench.ReadWidth(c.PostForm("at"), 0); err != nil {
		s.refuseTry(c, err)
		return
	}
	if v.Width > 0 {
		v.Zone = st.Zones.At(v.Width)
	}
	dragged, err := bench.ReadWidth(c.PostForm("width"), 0)
	if err != nil {
		s.refuseTry(c, err)
		return
	}
	if !allowed(v, command) {
		c.JSON(http.StatusForbidden, gin.H{"problem": forWriters})
		return
	}
	stocked(v.Stage)
	result, err := edit.Apply(p.Doc, command, s.env(c, v, func(id string) string { return stockPrefix + id }))
	if err != nil {
		s.refuseTry(c, err)
		return
	}
	metrics.Edits.WithLabelValues("tried").Inc()
	v.Page = result.Page
	if dragged > 0 { // where it would all stand
		v.Width = dragged
		v.Zone = st.Zones.At(v.Width)
		v.Stage = v.Passing()
		c.JSON(http.StatusOK, gin.H{"boxes": v.Boxes(result.Sections)})
		return
	}
	if v.Selected = c.PostForm("elsewhere"); v.Selected != "" { // what else it does, drawn small
		v.Stage = v.Passing()
		c.JSON(http.StatusOK, gin.H{"elsewhere": v.Elsewhere()})
		return
	}
	c.JSON(http.StatusOK, v.Tried(v.Alongside(result.Sections, structural(result.Steps)), result.Select))
}

// refuseTry answers a command that can't be tried, with why.
func (s *Server) refuseTry(c *gin.Context, err error) {
	var problem *doc.Problem
	if !errors.As(err, &problem) {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": problem.Sentence()})
}

// stockPrefix begins what stands for a stock picture that isn't in a site's library.
const stockPrefix = "stock:"

// stocked lets a stage show stock pictures, which a try doesn't put into the library.
func stocked(st *bench.Stage) {
	media := st.Builder.Media
	st.Builder.Media = func(id string) (element.Medium, bool) {
		ready, ok := strings.CutPrefix(id, stockPrefix)
		if !ok {
			return media(id)
		}
		p := stock.Find(ready)
		if p == nil {
			return element.Medium{}, false
		}
		url := "/stock/" + p.ID + ".png"
		return element.Medium{
			ID: id, Width: p.Width, Height: p.Height, Alt: p.Alt, Variants: []element.Variant{{URL: url, StyleURL: url, Width: p.Width}},
		}, true
	}
}
