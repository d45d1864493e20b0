package web

import (
	"context"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/number"
	"openplot/origin"
	"openplot/store"
)

// note adds to the audit log what the person did, or with another name whoever used that
// to sign in. A failure is in the program's log: what was done is done.
func (s *Server) note(c *gin.Context, act, site, about string) {
	n := store.Noted{Site: site, Act: act, About: about, Address: c.ClientIP()}
	if u, ok := c.Get(keyUser); ok {
		n.User, n.Who = u.(*store.User).ID, u.(*store.User).Email
	} else {
		n.Who, n.About = about, ""
	}
	if err := s.Store.Audit.Note(context.WithoutCancel(c), n); err != nil {
		s.Log.Error("audit", "id", origin.RequestID(c), "act", act, "error", err)
	}
}

// shownAudit is how much of the audit log the screen shows, the newest.
const shownAudit = 500

// audit shows a site's owner who did what.
func (s *Server) audit(c *gin.Context) {
	st := siteOf(c)
	notes, err := s.Store.Audit.List(c, st.ID, shownAudit)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.screen(c, http.StatusOK, "audit", map[string]any{"User": user(c), "Site": st, "Notes": notes})
}

// shownJobs is how many failed jobs the screen shows.
const shownJobs = 100

// operator shows whoever runs the program what failed.
func (s *Server) operator(c *gin.Context) {
	jobs, err := s.Store.Jobs.Failed(c, shownJobs)
	if err != nil {
		s.fail(c, err)
		return
	}
	lengths, err := s.Store.Jobs.QueueLengths(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	room := error(nil)
	if s.Room != nil {
		room = s.Room()
	}
	s.screen(c, http.StatusOK, "operator", map[string]any{
		"User": user(c), "Jobs": jobs, "Waiting": int(lengths["available"] + lengths["running"] + lengths["scheduled"]), "Room": room,
	})
}

// operateJob tries a job again, or forgets it.
func (s *Server) operateJob(c *gin.Context) {
	id, err := number.Sequence(c.PostForm("id"))
	if err != nil {
		s.problemPage(c, http.StatusNotFound)
		return
	}
	if c.PostForm("do") == "forget" {
		err = s.Store.Jobs.Drop(c, id)
	} else {
		err = s.Store.Jobs.Retry(c, id)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/operator")
}
