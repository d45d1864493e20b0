package bench

import (
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/rights"
	"openplot/media"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Clipboard is what is copied between pages and sites.
type Clipboard struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Clipboard) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.PageRoute+"/copy", rights.See, s.copyNodes),
		shell.Post(paths.PageRoute+"/bring", rights.Compose, s.bring),
	}
}

// bring tells which files of somebody's other sites copied blocks show, and with "take" keeps
// them for this site too; the answer's text is what was copied, with their ids here.
func (s *Clipboard) bring(c *gin.Context) {
	st, text := shell.SiteOf(c), c.PostForm("text")
	if len(text) > edit.MaxCommand {
		c.JSON(http.StatusOK, gin.H{"count": 0, "text": ""})
		return
	}
	values := carry.ClipValues(text)
	found, err := s.Store.Media.Elsewhere(c, st.ID, shell.User(c).ID, values)
	if err != nil {
		s.Fail(c, err)
		return
	}
	if c.PostForm("take") == "" {
		names := []string{}
		for _, m := range found {
			names = append(names, m.Name)
		}
		c.JSON(http.StatusOK, gin.H{"count": len(found), "names": names})
		return
	}
	if len(found) > mostBrought {
		c.JSON(
			http.StatusUnprocessableEntity,
			gin.H{
				"problem": doc.Problemf("Pictures", "are %d of other sites; %d can be brought along at once", len(found), mostBrought).
					Sentence(),
			},
		)
		return
	}
	var ids []string // as they were and as they are
	for _, m := range found {
		brought, err := s.Pictures.Bring(c, media.By{Site: st.ID, User: shell.User(c).ID}, m)
		var problem *doc.Problem
		if errors.As(err, &problem) {
			c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": problem.Sentence()})
			return
		}
		if err != nil {
			s.Fail(c, err)
			return
		}
		ids = append(ids, `"`+m.ID+`"`, `"`+brought.ID+`"`)
	}
	c.JSON(http.StatusOK, gin.H{"count": len(found), "text": strings.NewReplacer(ids...).Replace(text)})
}

// mostBrought is how many files are brought along at once.
const mostBrought = 200
