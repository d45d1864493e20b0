package desk

import (
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/ready"
	"openplot/core/rights"
	"openplot/store"
	"openplot/web/shell"
)

// Worn is a house style that can be tried on: one that ships, or one that the site
// keeps.
type Worn struct {
	ID, Name, Hint                     string
	Ground, Deep, Words, Quiet, OnDeep string // colours as CSS has them
	Accent, OnAccent, Second           string
	Heading, Body                      string // families
	Weight                             int
	Radius                             float64 // px, of buttons
	Kept                               bool
}

func WornAs(id, name, hint string, h *doc.House, kept bool) Worn {
	of := func(token, otherwise string) string {
		if w := h.Swatch(token); w != nil {
			return w.Value
		}
		return otherwise
	}
	v := Worn{
		ID: id, Name: name, Hint: hint, Kept: kept, Ground: h.Ground(), Words: of("words", "#000000"), Quiet: of("quiet-words", "#555555"),
		Accent: of(
			"accent",
			"#555555",
		), Second: of("second-accent", "#555555"), Heading: h.Fonts.Heading, Body: h.Fonts.Body, Weight: h.Text["h1"].Weight,
	}
	v.Deep, v.OnAccent = of("deep", v.Accent), of("ground", "#ffffff")
	v.OnDeep = of("on-deep", v.OnAccent)
	if c, ok := doc.FindStep(h.Corners, h.ButtonLook().Corners); ok {
		v.Radius = min(c.Px, 10)
	}
	return v
}

// WornViews lists the house styles that a site can try on, its own first.
func (s *Desk) WornViews(c *gin.Context, st *store.Site) (out []Worn, err error) {
	kept, err := s.Store.Houses.Kept(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, k := range kept {
		out = append(out, WornAs(k.ID, k.Name, k.House.Fonts.Heading, &k.House, true))
	}
	for i := range ready.Houses {
		r := &ready.Houses[i]
		h := r.House()
		out = append(out, WornAs(r.ID, r.Name, r.Hint, &h, false))
	}
	return out, nil
}

// FindHouse gives a house style to try on, as it would be on the site.
func (s *Desk) FindHouse(c *gin.Context, st *store.Site, id string) (doc.House, error) {
	if r := ready.FindHouse(id); r != nil {
		return carry.TakeHouse(st.House, r.House())
	}
	kept, err := s.Store.Houses.Kept(c, st.ID)
	if err != nil {
		return doc.House{}, err
	}
	i := slices.IndexFunc(kept, func(k *store.KeptHouse) bool { return k.ID == id })
	if i < 0 {
		return doc.House{}, doc.Problemf("House style", "isn't kept here any more; choose another one")
	}
	return carry.TakeHouse(st.House, kept[i].House)
}

// Worn gives the site in the house style that the request tries on, if it does.
func (s *Desk) Worn(c *gin.Context) (*store.Site, error) {
	st := shell.SiteOf(c)
	id := c.Query("house")
	if id == "" || !st.Role.May(rights.House) {
		return st, nil
	}
	h, err := s.FindHouse(c, st, id)
	if err != nil {
		return nil, err
	}
	as := *st
	as.House, as.Worn = h, id
	return &as, nil
}
