package house

import (
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/ready"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/shell"
)

// tryHouse shows a house style without taking it; "" goes back to the site's own.
func (s *Screen) tryHouse(c *gin.Context) {
	st := shell.SiteOf(c)
	v, err := s.houseView(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	id := c.PostForm("id")
	if i := slices.IndexFunc(v.Ready, func(w desk.Worn) bool { return w.ID == id }); i >= 0 {
		v.Trying = &v.Ready[i]
		if h, err := s.FindHouse(c, st, id); err == nil {
			v.Contrasts = contrasts(&h)
		}
	} else if id != "" {
		v.Problem = "House style isn’t kept here any more. Choose another one."
	}
	s.houseParts(c, http.StatusOK, v)
}

// takeHouse makes a house style that was tried on the site's own.
func (s *Screen) takeHouse(c *gin.Context) {
	st := shell.SiteOf(c)
	command := edit.HouseCommand{Op: "house.take", Value: c.PostForm("id")}
	h, err := s.FindHouse(c, st, command.Value)
	if err == nil {
		err = s.Store.Log.KeepSiteVersion(c, st.ID, shell.User(c).ID, store.Before, "Before another house style")
	}
	if err == nil {
		err = s.Store.Houses.Edit(
			c,
			st.ID,
			shell.User(c).ID,
			baseOf(c),
			command,
			func(was doc.House) (doc.House, error) { return carry.TakeHouse(was, h) },
		)
	}
	s.houseDone(c, command, err)
}

// keepHouse keeps the site's house style under a name.
func (s *Screen) keepHouse(c *gin.Context) {
	st := shell.SiteOf(c)
	command := edit.HouseCommand{Op: "house.keep", Value: c.PostForm("name")}
	name, err := ready.HouseName(command.Value)
	if err == nil {
		err = s.Store.Houses.Keep(c, st.ID, name, st.House)
	}
	s.houseDone(c, command, err)
}

// dropHouse forgets a house style that the site keeps.
func (s *Screen) dropHouse(c *gin.Context) {
	s.houseDone(c, edit.HouseCommand{}, s.Store.Houses.Drop(c, shell.SiteOf(c).ID, c.PostForm("id")))
}
