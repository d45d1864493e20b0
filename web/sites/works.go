package sites

import (
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

// workPath is where a site that is being made shows how far that has come.
func workPath(id string) string { return "/works/" + id }

// workView is a site that is being made.
type workView struct {
	User *store.User
	Site *store.Site // none yet
	Work *store.SiteWork
}

// theWork is the work that is asked for, where it is of whoever asks.
func (s *Screen) theWork(c *gin.Context) (*store.SiteWork, bool) {
	w, err := s.Store.Works.ByID(c, c.Param("work"))
	if err == nil && w.User != shell.User(c).ID {
		err = store.ErrNotFound
	}
	if errors.Is(err, store.ErrNotFound) {
		s.ProblemPage(c, http.StatusNotFound)
		return nil, false
	}
	if err != nil {
		s.Fail(c, err)
		return nil, false
	}
	return w, true
}

// showWork shows how far a site has come that is being made, and leads to it when it is there.
func (s *Screen) showWork(c *gin.Context) {
	w, ok := s.theWork(c)
	if !ok {
		return
	}
	if w.State == store.WorkDone && w.Lost == "" {
		to := "/"
		if w.Made != "" {
			to = paths.To(w.Made).At()
		}
		if err := s.Store.Works.Drop(c, w.ID); err != nil { // it was seen
			s.Fail(c, err)
			return
		}
		s.lead(c, to)
		return
	}
	v := workView{User: shell.User(c), Work: w}
	if c.GetHeader("HX-Request") != "" {
		s.Parted(c, http.StatusOK, "work", w)
		return
	}
	s.Screen(c, http.StatusOK, "making", v)
}

// lead goes on to another screen, also from a part of one.
func (s *Screen) lead(c *gin.Context, to string) {
	if c.GetHeader("HX-Request") != "" {
		c.Header("HX-Redirect", to)
		c.Status(http.StatusNoContent)
		return
	}
	c.Redirect(http.StatusSeeOther, to)
}

// stopWork ends a work, or forgets one that has ended.
func (s *Screen) stopWork(c *gin.Context) {
	w, ok := s.theWork(c)
	if !ok {
		return
	}
	if err := s.Store.Works.Stop(c, w.User, w.ID); err != nil {
		s.Fail(c, err)
		return
	}
	if w.State != store.WorkRunning {
		s.Maker.Release(w.File)
	}
	to := "/"
	if w.Going() {
		to = "/?done=stopped"
	}
	c.Redirect(http.StatusSeeOther, to)
}

// retryWork has a work done that failed.
func (s *Screen) retryWork(c *gin.Context) {
	w, ok := s.theWork(c)
	if !ok {
		return
	}
	if err := s.Store.Works.Retry(c, w.User, w.ID); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, workPath(w.ID))
}
