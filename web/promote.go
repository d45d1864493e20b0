package web

import (
	"net/http"
	"strconv"

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
	values, kind, base := v.selectedStyle()
	setting := style.Find(c.PostForm("setting"), kind)
	zone := v.current().ID
	if setting == nil || values[setting.Name][zone] == "" {
		s.refuse(c, v, doc.Problemf("House style", "can't take this: the selection has no value of its own for it here (any more)"))
		return
	}
	value, token := values[setting.Name][zone], ""
	command := edit.HouseCommand{Op: "promote", Token: setting.Name, Name: c.PostForm("name"), Value: value}
	err = s.Store.EditHouse(c, v.site.ID, user(c).ID, v.site.Version, command, func(h doc.House) (next doc.House, err error) {
		next, token, err = edit.Promote(h, v.site.Zones, setting, value, command.Name, base)
		return next, err
	})
	if err != nil {
		s.refuse(c, v, err)
		return
	}
	st, err := s.Store.Site(c, user(c).ID, v.site.Slug)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Set(keySite, st)
	commands := []edit.Command{{Op: "set", Node: v.selects, Zone: zone, Setting: setting.Name, Value: "$" + token}}
	if setting.Name == "font-size" { // it became a text style
		commands = []edit.Command{{Op: "set", Node: v.selects, Zone: zone, Setting: "text-style", Value: "$" + token}, {Op: "follow", Node: v.selects, Zone: zone, Setting: "font-size"}}
	}
	seq := v.seq
	for _, command := range commands {
		command.Base = seq
		done, err := s.Store.Edit(c, pageOf(c).ID, user(c).ID, seq, command, func(p *doc.Page) (*edit.Result, error) {
			return edit.Apply(p, command, edit.Env{Site: &st.Site, NewID: store.NewID, HasPicture: v.hasPicture, HasVideo: v.hasVideo, HasIcon: hasIcon})
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
	s.answer(c, http.StatusOK, answer{view: fresh, fresh: true, grids: true, lists: true, message: "It is the house style’s now, and this follows it."})
}

// selectedStyle gives the values of what is selected, its kind, and the text style that
// it is set in.
func (v *view) selectedStyle() (doc.Style, doc.Kind, string) {
	if sec, _ := v.page.Section(v.selects); sec != nil {
		return sec.Style, style.OnSection, ""
	}
	id, _ := doc.SplitItem(v.selects)
	_, b := v.page.Block(id)
	if b == nil {
		return nil, "", ""
	}
	base, _, _ := b.Style["text-style"].Resolve(v.site.Zones, v.zone)
	if base == "" && b.Kind == doc.Heading {
		base = "$h" + strconv.Itoa(b.Content.Level)
	}
	if base != "" {
		base = base[1:]
	}
	return b.Style, b.Kind, base
}
