package settings

import (
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/ready"
	"openplot/store"
	"openplot/web/paths"
	"openplot/web/shell"
)

// archive sets a site aside, or brings it back.
func (s *Screen) archive(c *gin.Context) {
	back := c.PostForm("back") != ""
	err := s.Store.Sites.Archive(c, shell.SiteOf(c).ID, !back)
	if err == nil && back {
		err = s.Publisher.Show(c, s.Store, shell.SiteOf(c).ID)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(
		c,
		map[bool]string{false: "site archived", true: "site brought back"}[back],
		shell.SiteOf(c).ID,
		shell.SiteOf(c).Slug,
	)
	to := "/?done=archived"
	if back {
		to = "/?done=unarchived"
	}
	c.Redirect(http.StatusSeeOther, to)
}

// moveSite gives a site another address.
func (s *Screen) moveSite(c *gin.Context) {
	st := shell.SiteOf(c)
	slug := strings.TrimSpace(c.PostForm("slug"))
	probe, err := ready.NewSite(slug, st.Name, store.NewID)
	if err == nil && probe.Slug != st.Slug {
		err = s.Store.Sites.Rename(c, st.ID, slug)
	}
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showSettings(c, http.StatusUnprocessableEntity, settingsView{Problem: problem.Sentence()}, nil)
		return
	}
	if err == nil {
		s.Note(c, "site moved", st.ID, st.Slug+" to "+slug)
		err = s.Publisher.Again(c, s.Store, st.ID)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, paths.To(slug).At("settings")+"?kept=1")
}

// deleteSite deletes a site whose name was written to confirm it.
func (s *Screen) deleteSite(c *gin.Context) {
	st := shell.SiteOf(c)
	if strings.TrimSpace(c.PostForm("name")) != st.Name {
		s.showSettings(
			c,
			http.StatusUnprocessableEntity,
			settingsView{Problem: doc.Problemf("Name", "isn't “%s”: write it to delete the site", st.Name).Sentence()},
			nil,
		)
		return
	}
	if err := s.Store.Sites.Delete(c, st.ID); err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "site deleted", st.ID, st.Slug)
	c.Redirect(http.StatusSeeOther, "/?done=deleted")
}
