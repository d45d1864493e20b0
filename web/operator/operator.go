package operator

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/number"
	"openplot/core/rights"
	"openplot/web/desk"
	"openplot/web/shell"
)

// Screen is what whoever runs the program sees.
type Screen struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Screen) Routes() []shell.Route {
	return []shell.Route{
		shell.Get("/operator", rights.Operate, s.operator),
		shell.Post("/operator/jobs", rights.Operate, s.operateJob),
	}
}

// shownJobs is how many failed jobs the screen shows.
const shownJobs = 100

// operator shows whoever runs the program what failed.
func (s *Screen) operator(c *gin.Context) {
	jobs, err := s.Store.Jobs.Failed(c, shownJobs)
	if err != nil {
		s.Fail(c, err)
		return
	}
	lengths, err := s.Store.Jobs.QueueLengths(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	room := error(nil)
	if s.Room != nil {
		room = s.Room()
	}
	s.Screen(c, http.StatusOK, "operator", map[string]any{
		"User": shell.User(
			c,
		), "Jobs": jobs, "Waiting": int(lengths["available"] + lengths["running"] + lengths["scheduled"]), "Room": room,
	})
}

// operateJob tries a job again, or forgets it.
func (s *Screen) operateJob(c *gin.Context) {
	id, err := number.Sequence(c.PostForm("id"))
	if err != nil {
		s.ProblemPage(c, http.StatusNotFound)
		return
	}
	if c.PostForm("do") == "forget" {
		err = s.Store.Jobs.Drop(c, id)
	} else {
		err = s.Store.Jobs.Retry(c, id)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/operator")
}
