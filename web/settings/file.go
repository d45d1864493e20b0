package settings

import (
	"errors"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/site"
	"openplot/web/shell"
)

// siteFile answers with the whole site as a file, from which it can be begun again here or
// elsewhere.
func (s *Screen) siteFile(c *gin.Context) {
	st := shell.SiteOf(c)
	carried, err := s.Maker.Carried(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	files := map[string]string{}
	for i := range carried.Media {
		m := &carried.Media[i]
		files[m.ID], m.File = m.File, "media/"+m.ID+strings.ToLower(filepath.Ext(m.Name))
	}
	// Written whole before any of it is sent, so that what goes wrong can still be told.
	tmp, err := os.CreateTemp("", "site-*.zip")
	if err != nil {
		s.Fail(c, err)
		return
	}
	defer func() { _ = errors.Join(tmp.Close(), os.Remove(tmp.Name())) }()
	err = site.WriteFile(tmp, carried, func(m carry.Medium) (io.ReadCloser, error) {
		return os.Open(filepath.Join(s.MediaDir, files[m.ID]))
	})
	var problem *doc.Problem
	if errors.As(err, &problem) {
		s.showSettings(c, http.StatusUnprocessableEntity, settingsView{Problem: problem.Sentence()}, nil)
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "site saved as a file", st.ID, "")
	c.Header("Content-Type", "application/zip")
	c.FileAttachment(tmp.Name(), st.Slug+".site.zip")
}
