package bench

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/edit"
	"openplot/metrics"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/shell"
)

// tryEdit answers a command as if it had been carried out, with what the canvas would show,
// and keeps nothing anywhere.
func (s *Screen) tryEdit(c *gin.Context) {
	st, p := shell.SiteOf(c), shell.PageOf(c)
	command, err := edit.Parse([]byte(c.PostForm("command")))
	if err != nil {
		s.RefuseTry(c, err)
		return
	}
	src, err := s.Source(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := &model.View{Stage: s.Workshop.Stage(st, src, p.Slug), Page: p.Doc, Seq: p.Seq}
	if v.Width, err = model.ReadWidth(c.PostForm("at"), 0); err != nil {
		s.RefuseTry(c, err)
		return
	}
	if v.Width > 0 {
		v.Zone = st.Zones.At(v.Width)
	}
	dragged, err := model.ReadWidth(c.PostForm("width"), 0)
	if err != nil {
		s.RefuseTry(c, err)
		return
	}
	if !allowed(v, command) {
		c.JSON(http.StatusForbidden, gin.H{"problem": forWriters})
		return
	}
	desk.WithStock(v.Stage)
	result, err := edit.Apply(p.Doc, command, s.env(c, v, func(id string) string { return edit.StockPrefix + id }))
	if err != nil {
		s.RefuseTry(c, err)
		return
	}
	metrics.Edits.WithLabelValues("tried").Inc()
	v.Page = result.Page
	if dragged > 0 { // where it would all stand
		v.Width = dragged
		v.Zone = st.Zones.At(v.Width)
		v.Stage = v.Passing()
		c.JSON(http.StatusOK, gin.H{"boxes": v.Boxes(result.Sections), "select": result.Select})
		return
	}
	if v.Selected = c.PostForm("elsewhere"); v.Selected != "" { // what else it does, drawn small
		v.Stage = v.Passing()
		c.JSON(http.StatusOK, gin.H{"elsewhere": v.Elsewhere()})
		return
	}
	c.JSON(http.StatusOK, v.Tried(v.Alongside(result.Sections, structural(result.Steps)), result.Select))
}
