package web

import (
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/core/rights"
	"openplot/store"
)

// wornView is a house style that can be tried on: one that ships, or one that the site
// keeps.
type wornView struct {
	ID, Name, Hint                     string
	Ground, Deep, Words, Quiet, OnDeep string // colours as CSS has them
	Accent, OnAccent, Second           string
	Heading, Body                      string // families
	Weight                             int
	Radius                             float64 // px, of buttons
	Kept                               bool
}

func worn(id, name, hint string, h *doc.House, kept bool) wornView {
	of := func(token, otherwise string) string {
		if w := h.Swatch(token); w != nil {
			return w.Value
		}
		return otherwise
	}
	v := wornView{
		ID: id, Name: name, Hint: hint, Kept: kept, Ground: h.Ground(), Words: of("words", "#000000"), Quiet: of("quiet-words", "#555555"),
		Accent: of("accent", "#555555"), Second: of("second-accent", "#555555"), Heading: h.Fonts.Heading, Body: h.Fonts.Body, Weight: h.Text["h1"].Weight,
	}
	v.Deep, v.OnAccent = of("deep", v.Accent), of("ground", "#ffffff")
	v.OnDeep = of("on-deep", v.OnAccent)
	if c, ok := doc.FindStep(h.Corners, h.ButtonLook().Corners); ok {
		v.Radius = min(c.Px, 10)
	}
	return v
}

// wornViews lists the house styles that a site can try on, its own first.
func (s *Server) wornViews(c *gin.Context, st *store.Site) (out []wornView, err error) {
	kept, err := s.Store.Houses.Kept(c, st.ID)
	if err != nil {
		return nil, err
	}
	for _, k := range kept {
		out = append(out, worn(k.ID, k.Name, k.House.Fonts.Heading, &k.House, true))
	}
	for i := range ready.Houses {
		r := &ready.Houses[i]
		h := r.House()
		out = append(out, worn(r.ID, r.Name, r.Hint, &h, false))
	}
	return out, nil
}

// findHouse gives a house style to try on, as it would be on the site.
func (s *Server) findHouse(c *gin.Context, st *store.Site, id string) (doc.House, error) {
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

// worn gives the site in the house style that the request tries on, if it does.
func (s *Server) worn(c *gin.Context) (*store.Site, error) {
	st := siteOf(c)
	id := c.Query("house")
	if id == "" || !st.Role.May(rights.House) {
		return st, nil
	}
	h, err := s.findHouse(c, st, id)
	if err != nil {
		return nil, err
	}
	as := *st
	as.House, as.Worn = h, id
	return &as, nil
}

// tryHouse shows a house style without taking it; "" goes back to the site's own.
func (s *Server) tryHouse(c *gin.Context) {
	st := siteOf(c)
	v, err := s.houseView(c, st)
	if err != nil {
		s.fail(c, err)
		return
	}
	id := c.PostForm("id")
	if i := slices.IndexFunc(v.Ready, func(w wornView) bool { return w.ID == id }); i >= 0 {
		v.Trying = &v.Ready[i]
		if h, err := s.findHouse(c, st, id); err == nil {
			v.Contrasts = contrasts(&h)
		}
	} else if id != "" {
		v.Problem = "House style isn’t kept here any more. Choose another one."
	}
	s.houseParts(c, http.StatusOK, v)
}

// takeHouse makes a house style that was tried on the site's own.
func (s *Server) takeHouse(c *gin.Context) {
	st := siteOf(c)
	command := edit.HouseCommand{Op: "house.take", Value: c.PostForm("id")}
	h, err := s.findHouse(c, st, command.Value)
	if err == nil {
		err = s.Store.Log.KeepSiteVersion(c, st.ID, user(c).ID, store.Before, "Before another house style")
	}
	if err == nil {
		err = s.Store.Houses.Edit(c, st.ID, user(c).ID, baseOf(c), command, func(was doc.House) (doc.House, error) { return carry.TakeHouse(was, h) })
	}
	s.houseDone(c, command, err)
}

// keepHouse keeps the site's house style under a name.
func (s *Server) keepHouse(c *gin.Context) {
	st := siteOf(c)
	command := edit.HouseCommand{Op: "house.keep", Value: c.PostForm("name")}
	name, err := ready.HouseName(command.Value)
	if err == nil {
		err = s.Store.Houses.Keep(c, st.ID, name, st.House)
	}
	s.houseDone(c, command, err)
}

// dropHouse forgets a house style that the site keeps.
func (s *Server) dropHouse(c *gin.Context) {
	s.houseDone(c, edit.HouseCommand{}, s.Store.Houses.Drop(c, siteOf(c).ID, c.PostForm("id")))
}
