package web

import (
	"cmp"
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/store"
	"openplot/web/bench"
)

type pickerView struct {
	Site  string
	Sort  doc.MediumSort // what is chosen
	Items []pickerItem
	Stock []stockItem
}

type pickerItem struct {
	ID, Name, Thumb, Size string
	Width, Height         int
	Wordless              bool // a picture of which nobody has said what is seen on it
}

// mediaPicker answers with the site's pictures to choose from, or with its files of another
// sort.
func (s *Server) mediaPicker(c *gin.Context) {
	st := siteOf(c)
	ms, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	v := pickerView{Site: st.Slug, Sort: doc.MediumSort(cmp.Or(c.Query("sort"), string(doc.PictureMedium)))}
	for _, m := range ms {
		if m.Sort() == v.Sort {
			v.Items = append(v.Items, pickerItem{
				ID: m.ID, Name: m.Name, Thumb: s.Hosts.Uploads() + "/media/" + m.Variants[0].File, Size: bench.MediumSize(m),
				Width: m.Width, Height: m.Height, Wordless: m.Picture() && m.Alt == "",
			})
		}
	}
	if v.Sort == doc.PictureMedium {
		v.Stock = stockItems()
	}
	s.parted(c, http.StatusOK, "picker", v)
}

// upload takes a file for the Bench, and answers with what the library made of it.
func (s *Server) upload(c *gin.Context) {
	name, file, err := received(c)
	var m *store.Medium
	if err == nil {
		defer file.Close()
		m, err = s.Pictures.Keep(c, by(c), name, "", file)
	}
	var p *doc.Problem
	switch {
	case errors.As(err, &p):
		c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": p.Sentence()})
	case err != nil:
		s.fail(c, err)
	default:
		c.JSON(http.StatusOK, gin.H{"id": m.ID, "name": m.Name, "sort": m.Sort()})
	}
}
