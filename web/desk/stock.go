package desk

import (
	"bytes"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/edit"
	"openplot/core/element"
	"openplot/stock"
	"openplot/store"
	"openplot/web/model"
)

// StockItem is a picture that ships, as people choose it.
type StockItem struct{ ID, Name, Alt, Thumb string }

func StockItems() (out []StockItem) {
	for i := range stock.Pictures {
		p := &stock.Pictures[i]
		out = append(out, StockItem{p.ID, p.Name, p.Alt, "/stock/" + p.ID + ".png"})
	}
	return out
}

// Stocked gives the site's own of stock pictures, by their ids there, and puts those into its
// library that it doesn't have yet.
func (s *Desk) Stocked(
	c *gin.Context,
	st *store.Site,
	has []*store.Medium,
	wanted []string,
) (ids map[string]string, added bool, err error) {
	ids = map[string]string{}
	for _, id := range wanted {
		p := stock.Find(id)
		if p == nil {
			continue
		}
		if i := slices.IndexFunc(has, func(m *store.Medium) bool { return m.Name == p.Name && m.Alt == p.Alt }); i >= 0 {
			ids[id] = has[i].ID
			continue
		}
		m, err := s.Pictures.Keep(c, By(c), p.Name, p.Alt, bytes.NewReader(p.Draw(p.Width).PNG()))
		if err != nil {
			return nil, false, err
		}
		ids[id], added = m.ID, true
	}
	return ids, added, nil
}

// WithStock lets a stage show stock pictures, which a try doesn't put into the library.
func WithStock(st *model.Stage) {
	media := st.Builder.Media
	st.Builder.Media = func(id string) (element.Medium, bool) {
		ready, ok := strings.CutPrefix(id, edit.StockPrefix)
		if !ok {
			return media(id)
		}
		p := stock.Find(ready)
		if p == nil {
			return element.Medium{}, false
		}
		url := "/stock/" + p.ID + ".png"
		return element.Medium{
			ID: id, Width: p.Width, Height: p.Height, Alt: p.Alt, Variants: []element.Variant{{URL: url, StyleURL: url, Width: p.Width}},
		}, true
	}
}
