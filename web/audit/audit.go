package audit

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/rights"
	"openplot/web/desk"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Screen is who did what on a site.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/audit", rights.Account, s.audit),
	}
}

// shownAudit is how much of the audit log the screen shows, the newest.
const shownAudit = 500

// audit shows a site's owner who did what.
func (s *Screen) audit(c *gin.Context) {
	st := shell.SiteOf(c)
	notes, err := s.Store.Audit.List(c, st.ID, shownAudit)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Screen(c, http.StatusOK, "audit", map[string]any{"User": shell.User(c), "Site": st, "Notes": notes})
}
