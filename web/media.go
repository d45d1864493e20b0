package web

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/media"
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
				pickerItem{m.ID, m.Name, s.PagesURL + "/media/" + m.Variants[0].File, fmt.Sprintf("%d × %d", m.Width, m.Height), m.Alt == ""},
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
	name, data, err := received(c)
	if err == nil {
		_, err = media.Keep(c, s.Store, s.MediaDir, siteOf(c).ID, name, "", data)
	}
	var p *doc.Problem
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
