package web

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"path"
	"path/filepath"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/media"
)

type pickerView struct {
	Site, Problem, Target, Op, Setting string
	Pictures                           []pickerItem
}

type pickerItem struct {
	ID, Name, Thumb, Size string
}

// mediaPicker answers with the site's pictures to choose from.
func (s *Server) mediaPicker(c *gin.Context) {
	s.picker(c, http.StatusOK, "")
}

func (s *Server) picker(c *gin.Context, status int, problem string) {
	st := siteOf(c)
	ms, err := s.Store.Media(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	v := pickerView{Site: st.Slug, Problem: problem}
	for _, m := range ms {
		v.Pictures = append(v.Pictures, pickerItem{m.ID, m.Name, s.PagesURL + "/media/" + m.Variants[0].File, fmt.Sprintf("%d × %d", m.Width, m.Height)})
	}
	s.parted(c, status, "picker", v)
}

// upload takes pictures and answers with the picker.
func (s *Server) upload(c *gin.Context) {
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, media.MaxBytes+1<<20)
	file, header, err := c.Request.FormFile("file")
	if err != nil {
		var large *http.MaxBytesError
		if errors.As(err, &large) {
			s.picker(c, http.StatusUnprocessableEntity, "The picture is larger than 20 MB. Make it smaller and upload it again.")
			return
		}
		s.picker(c, http.StatusUnprocessableEntity, "No picture came with the form. Choose one first.")
		return
	}
	defer file.Close()
	data, err := io.ReadAll(file)
	if err != nil {
		s.picker(c, http.StatusUnprocessableEntity, "The picture did not arrive whole. Try again.")
		return
	}
	if _, err := media.Keep(c, s.Store, s.MediaDir, siteOf(c).ID, header.Filename, "", data); err != nil {
		var p *doc.Problem
		if errors.As(err, &p) {
			s.picker(c, http.StatusUnprocessableEntity, p.Field+" "+p.Message+".")
			return
		}
		s.fail(c, err)
		return
	}
	s.picker(c, http.StatusOK, "")
}

// mediaFile serves a copy of an upload, on the second origin.
func (s *Server) mediaFile(c *gin.Context) {
	name := path.Base(c.Param("file"))
	if strings.HasPrefix(name, ".") || strings.HasSuffix(name, media.OriginalMark) {
		c.Status(http.StatusNotFound)
		return
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Header("X-Content-Type-Options", "nosniff")
	c.Header("Cross-Origin-Resource-Policy", "cross-origin")
	c.Header("Content-Security-Policy", "default-src 'none'")
	switch path.Ext(name) {
	case ".svg":
		svgHeaders(c.Writer.Header())
	case ".webp":
		c.Header("Content-Type", "image/webp")
	}
	c.File(filepath.Join(s.MediaDir, name))
}
