package bench

import (
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/doc"
)

// copyNodes answers with what is selected as text for the clipboard, or with its look.
func (s *Clipboard) copyNodes(c *gin.Context) {
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	var text string
	if c.Query("of") == "look" {
		text, err = carry.CopyLook(v.Page, v.Selected, v.Site.Zones, v.Zone)
	} else {
		text, err = carry.Copy(v.Page, append([]string{v.Selected}, v.Also...))
	}
	var p *doc.Problem
	if errors.As(err, &p) {
		c.String(http.StatusUnprocessableEntity, "%s", p.Sentence())
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.String(http.StatusOK, "%s", text)
}
