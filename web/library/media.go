package library

import (
	"cmp"
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/shell"
)

type pickerView struct {
	Site  string
	Sort  doc.MediumSort // what is chosen
	Items []desk.PickerItem
	Stock []desk.StockItem
}

// mediaPicker answers with the site's pictures to choose from, or with its files of another
// sort.
func (s *Screen) mediaPicker(c *gin.Context) {
	st := shell.SiteOf(c)
	ms, err := s.Store.Media.List(c, st.ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := pickerView{Site: st.Slug, Sort: doc.MediumSort(cmp.Or(c.Query("sort"), string(doc.PictureMedium)))}
	for _, m := range ms {
		if m.Sort() == v.Sort {
			v.Items = append(v.Items, desk.PickerItem{
				ID: m.ID, Name: m.Name, Thumb: s.Hosts.Uploads() + "/media/" + m.Thumb(), Size: model.MediumSize(m),
				Width: m.Width, Height: m.Height, Wordless: m.Picture() && m.Alt == "",
			})
		}
	}
	if v.Sort == doc.PictureMedium {
		v.Stock = desk.StockItems()
	}
	s.Parted(c, http.StatusOK, "picker", v)
}

// upload takes a file for the Bench, and answers with what the library made of it.
func (s *Screen) upload(c *gin.Context) {
	name, file, err := desk.Received(c)
	var m *store.Medium
	if err == nil {
		defer file.Close()
		m, err = s.Pictures.Keep(c, desk.By(c), name, "", file)
	}
	var p *doc.Problem
	switch {
	case errors.As(err, &p):
		c.JSON(http.StatusUnprocessableEntity, gin.H{"problem": p.Sentence()})
	case err != nil:
		s.Fail(c, err)
	default:
		c.JSON(http.StatusOK, gin.H{"id": m.ID, "name": m.Name, "sort": m.Sort()})
	}
}
