package bench

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/style"
	"openplot/icons"
	"openplot/store"
	"openplot/web/model"
	"openplot/web/shell"
)

// promote makes the selection's own value of a setting one of the house style's, and
// lets it follow that.
func (s *Screen) promote(c *gin.Context) {
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	values, kind, base := v.SelectedStyle()
	setting := style.Find(c.PostForm("setting"), kind)
	zone := v.Current().ID
	if setting == nil || values[setting.Name][zone] == "" {
		s.refuse(
			c,
			v,
			doc.Problemf("House style", "can't take this: the selection has no value of its own for it here any more"),
		)
		return
	}
	own := values[setting.Name][zone]
	house := edit.HouseCommand{Op: "promote", Token: setting.Name, Name: c.PostForm("name"), Value: own}
	s.together(
		c,
		v,
		house,
		"Added to the house style. This uses it now.",
		func(h doc.House) (doc.House, edit.Command, error) {
			next, token, err := edit.Promote(h, v.Site.Zones, setting, own, house.Name, base)
			return next, follow(setting.Name, v.Selected, zone, token), err
		},
	)
}

// restyle makes what the selection's type sets of its own that of its text style, and lets it
// follow that.
func (s *Screen) restyle(c *gin.Context) {
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	values, _, base := v.SelectedStyle()
	zone := v.Current().ID
	house := edit.HouseCommand{Op: "restyle", Token: base}
	s.together(
		c,
		v,
		house,
		"This is the style’s now, wherever it is used.",
		func(h doc.House) (doc.House, edit.Command, error) {
			next, done, err := edit.Restyle(h, base, zone, values)
			all := edit.Command{Op: edit.Many}
			for _, name := range done {
				all.Parts = append(all.Parts, edit.Command{Op: "follow", Node: v.Selected, Zone: zone, Setting: name})
			}
			return next, all, err
		},
	)
}

// together changes the house style and, with the command that change gives, the page, as one
// act, and answers with both.
func (s *Screen) together(
	c *gin.Context,
	v *model.View,
	house edit.HouseCommand,
	message string,
	change func(doc.House) (doc.House, edit.Command, error),
) {
	page := shell.PageOf(c)
	seen := store.Seen{House: v.Site.Version, Pages: map[string]int64{page.ID: v.Seq}}
	_, err := s.Store.Log.Together(
		c,
		v.Site.ID,
		shell.User(c).ID,
		seen,
		func(h doc.House, pages map[string]*doc.Page) (*store.Act, error) {
			next, command, err := change(h)
			if err != nil {
				return nil, err
			}
			as := v.Site.Site
			as.House = next
			r, err := edit.Apply(
				pages[page.ID], command,
				edit.Env{Site: &as, NewID: store.NewID, Medium: v.Medium, HasIcon: icons.Has},
			)
			if err != nil {
				return nil, err
			}
			return &store.Act{
				House:        &next,
				HouseCommand: house,
				Pages:        map[string]store.PageAct{page.ID: {Command: command, Result: r}},
			}, nil
		},
	)
	if err != nil {
		s.refuse(c, v, err)
		return
	}
	st, err := s.Store.Sites.BySlugFor(c, shell.User(c).ID, v.Site.Slug)
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Set(shell.KeySite, st)
	fresh, err := s.reload(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.answer(c, http.StatusOK, answer{View: fresh, fresh: true, grids: true, lists: true, message: message})
}

// follow is the command that lets a node take a token for its own value of a setting; a
// size of type became a text style.
func follow(setting, node, zone, token string) edit.Command {
	set := edit.Command{Op: "set", Node: node, Zone: zone, Setting: setting, Value: "$" + token}
	if setting != "font-size" {
		return set
	}
	set.Setting = "text-style"
	return edit.Command{
		Op:    edit.Many,
		Parts: []edit.Command{set, {Op: "follow", Node: node, Zone: zone, Setting: setting}},
	}
}
