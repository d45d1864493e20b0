package publish

import (
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/web/paths"
	"openplot/web/shell"
)

// maxOfflineRunes is how much visitors are told at most while a site is offline.
const maxOfflineRunes = 400

// setOffline takes a site offline, with what visitors read meanwhile, or brings it back.
func (s *Screen) setOffline(c *gin.Context) {
	st := shell.SiteOf(c)
	offline := c.PostForm("offline") == "yes"
	words, err := doc.Line("What visitors read meanwhile", c.PostForm("words"), maxOfflineRunes)
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showPublishing(c, http.StatusUnprocessableEntity, problem.Sentence(), nil)
		return
	}
	if err == nil {
		err = s.Store.Sites.SetOffline(c, st.ID, offline, words)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, map[bool]string{true: "site taken offline", false: "site brought online"}[offline], st.ID, words)
	done := map[bool]string{true: "offline", false: "online"}[offline]
	c.Redirect(http.StatusSeeOther, paths.To(st.Slug).At("publish")+"?done="+done)
}
