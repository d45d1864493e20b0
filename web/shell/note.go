package shell

import (
	"context"

	"github.com/gin-gonic/gin"

	"openplot/origin"
	"openplot/store"
)

// Note adds to the audit log what the person did, or with another name whoever used that
// to sign in. A failure is in the program's log: what was done is done.
func (s *Shell) Note(c *gin.Context, act, site, about string) {
	n := store.Noted{Site: site, Act: act, About: about, Address: c.ClientIP()}
	if u, ok := c.Get(KeyUser); ok {
		n.User, n.Who = u.(*store.User).ID, u.(*store.User).Email
	} else {
		n.Who, n.About = about, ""
	}
	if err := s.Store.Audit.Note(context.WithoutCancel(c), n); err != nil {
		s.Log.Error("audit", "id", origin.RequestID(c), "act", act, "error", err)
	}
}
