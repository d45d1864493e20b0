package web

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/store"
)

type pickerView struct {
	Site, Problem string
	Video         bool // videos are chosen, not pictures
	Pictures      []pickerItem
	Stock         []stockItem
}

type pickerItem struct {
	ID, Name, Thumb, Size string
	Wordless              bool // nobody has said what is seen on it
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
	v := pickerView{Site: st.Slug, Problem: problem, Video: c.Request.FormValue("video") == "yes"}
	for _, m := range ms {
		if m.Video() == v.Video {
			v.Pictures = append(
				v.Pictures,
				pickerItem{m.ID, m.Name, s.Hosts.Uploads() + "/media/" + m.Variants[0].File, fmt.Sprintf("%d × %d", m.Width, m.Height), m.Alt == ""},
			)
		}
	}
	if !v.Video {
		v.Stock = stockItems()
	}
	s.parted(c, status, "picker", v)
}

// upload takes pictures and answers with the picker.
func (s *Server) upload(c *gin.Context) {
	name, file, err := received(c)
	var m *store.Medium
	if err == nil {
		defer file.Close()
		m, err = s.Pictures.Keep(c, by(c), name, "", file)
	}
	var p *doc.Problem
	if c.PostForm("for") == "canvas" { // it was dropped there
		switch {
		case errors.As(err, &p):
			c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": p.Sentence()})
		case err != nil:
			s.fail(c, err)
		default:
			c.JSON(http.StatusOK, gin.H{"id": m.ID, "name": m.Name, "video": m.Video()})
		}
		return
	}
	if errors.As(err, &p) {
		s.picker(c, http.StatusUnprocessableEntity, p.Sentence())
		return
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.picker(c, http.StatusOK, "")
}
