package web

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/style"
	"openplot/store"
)

// promote makes the selection's own value of a setting one of the house style's, and
// lets it follow that.
func (s *Server) promote(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	values, kind, base := v.SelectedStyle()
	setting := style.Find(c.PostForm("setting"), kind)
	zone := v.Current().ID
	if setting == nil || values[setting.Name][zone] == "" {
		s.refuse(c, v, doc.Problemf("House style", "can't take this: the selection has no value of its own for it here (any more)"))
		return
	}
	value, token := values[setting.Name][zone], ""
	command := edit.HouseCommand{Op: "promote", Token: setting.Name, Name: c.PostForm("name"), Value: value}
	err = s.Store.EditHouse(c, v.Site.ID, user(c).ID, v.Site.Version, command, func(h doc.House) (next doc.House, err error) {
		next, token, err = edit.Promote(h, v.Site.Zones, setting, value, command.Name, base)
		return next, err
	})
	if err != nil {
		s.refuse(c, v, err)
		return
	}
	st, err := s.Store.Site(c, user(c).ID, v.Site.Slug)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Set(keySite, st)
	commands := []edit.Command{{Op: "set", Node: v.Selected, Zone: zone, Setting: setting.Name, Value: "$" + token}}
	if setting.Name == "font-size" { // it became a text style
		commands = []edit.Command{{Op: "set", Node: v.Selected, Zone: zone, Setting: "text-style", Value: "$" + token}, {Op: "follow", Node: v.Selected, Zone: zone, Setting: "font-size"}}
	}
	seq := v.Seq
	for _, command := range commands {
		command.Base = seq
		done, err := s.Store.Edit(c, pageOf(c).ID, user(c).ID, seq, command, func(p *doc.Page) (*edit.Result, error) {
			return edit.Apply(p, command, edit.Env{Site: &st.Site, NewID: store.NewID, HasPicture: v.HasPicture, HasVideo: v.HasVideo, HasIcon: hasIcon})
		})
		if err != nil {
			s.refuse(c, v, err)
			return
		}
		seq = done.Seq
	}
	fresh, err := s.reload(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.answer(c, http.StatusOK, answer{View: fresh, fresh: true, grids: true, lists: true, message: "Added to the house style. This uses it now."})
}
