package web

import (
	"context"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/origin"
	"openplot/store"
)

// shelfView is what can be inserted.
type shelfView struct {
	Groups []shelfGroup
}

type shelfGroup struct {
	Name  string
	Items []shelfItem
}

type shelfItem struct {
	Kind, Preset     string // one of them
	Name, Hint, Icon string
	Find             string // what searching looks in
	Span, Rows       int    // of a block in a grid, in twelfths and rows
	Favourite        bool
	Kept             string // id of a section that the site keeps
}

// key names the item among a person's uses of the Shelf.
func (i shelfItem) Key() string {
	if i.Kind != "" {
		return "block:" + i.Kind
	}
	return "section:" + i.Preset
}

// recentItems is how many of those used last stand first.
const recentItems = 6

// shelf lists blocks, the site's own sections and the ready-made ones. What the person
// marked as a favourite or used last stands first, and in its place too.
func (s *Server) shelf(ctx context.Context, st *store.Site, person string) (shelfView, error) {
	var groups []shelfGroup
	for _, name := range element.Shelves {
		g := shelfGroup{Name: string(name)}
		for _, k := range doc.Kinds {
			if a := element.Of(k); a.Shelf == name {
				g.Items = append(
					g.Items,
					shelfItem{
						Kind: string(k), Name: a.Name, Hint: a.Hint, Icon: a.Icon,
						Find: a.Name + " " + a.Find + " " + a.Hint, Span: a.Span, Rows: a.Rows,
					},
				)
			}
		}
		groups = append(groups, g)
	}
	kept, err := s.Store.KeptSections(ctx, st.ID)
	if err != nil {
		return shelfView{}, err
	}
	if len(kept) > 0 {
		g := shelfGroup{Name: "Kept on this site"}
		for _, k := range kept {
			g.Items = append(
				g.Items,
				shelfItem{
					Preset: "kept:" + k.ID, Kept: k.ID, Name: k.Name, Hint: "a section of this site",
					Icon: "bookmark-star",
					Find: k.Name + " own kept section " + kindsIn(k.Section),
				},
			)
		}
		groups = append(groups, g)
	}
	for _, purpose := range edit.Purposes {
		g := shelfGroup{Name: purpose}
		for i := range edit.Presets {
			p := &edit.Presets[i]
			if p.Purpose == purpose {
				g.Items = append(
					g.Items,
					shelfItem{
						Preset: p.ID, Name: p.Name, Hint: p.Hint, Icon: "layout-text-window",
						Find: p.Find() + " " + kindsIn(p.Look()),
					},
				)
			}
		}
		groups = append(groups, g)
	}
	uses, err := s.Store.ShelfUses(ctx, person)
	if err != nil {
		return shelfView{}, err
	}
	favourites := map[string]bool{}
	for _, u := range uses {
		favourites[u.Item] = u.Favourite
	}
	byKey := map[string]shelfItem{}
	for _, g := range groups {
		for i := range g.Items {
			g.Items[i].Favourite = favourites[g.Items[i].Key()]
			byKey[g.Items[i].Key()] = g.Items[i]
		}
	}
	first := shelfGroup{Name: "Favourites and last used"}
	for _, wanted := range []bool{true, false} {
		for _, u := range uses {
			it, ok := byKey[u.Item]
			if ok && u.Favourite == wanted && (wanted || len(first.Items) < recentItems) {
				first.Items = append(first.Items, it)
			}
		}
	}
	if len(first.Items) > 0 {
		groups = append([]shelfGroup{first}, groups...)
	}
	return shelfView{groups}, nil
}

// kindsIn names the kinds of block in a section, to be found by.
func kindsIn(sec *doc.Section) string {
	var names []string
	sec.Walk(func(b *doc.Block) {
		if a := element.Of(b.Kind); a != nil {
			names = append(names, a.Name)
		}
	})
	return strings.Join(names, " ")
}

// usedShelf notes what an edit took from the Shelf. A failure is noted too, and
// nothing else: the edit stands.
func (s *Server) usedShelf(c *gin.Context, command edit.Command) {
	item := ""
	switch command.Op {
	case "block.add":
		item = shelfItem{Kind: string(command.Kind)}.Key()
	case "section.add":
		item = shelfItem{Preset: command.Preset}.Key()
	default:
		return
	}
	if err := s.Store.UseShelf(c, user(c).ID, item); err != nil {
		s.Log.Error("shelf", "id", origin.RequestID(c), "error", err)
	}
}

// favour marks a thing on the Shelf as a favourite, or no longer, and answers with the
// Shelf's parts.
func (s *Server) favour(c *gin.Context) {
	item := c.PostForm("item")
	if len(item) > 80 || !strings.HasPrefix(item, "block:") && !strings.HasPrefix(item, "section:") {
		c.String(http.StatusUnprocessableEntity, "There is no such thing on the Shelf.")
		return
	}
	if err := s.Store.FavourShelf(c, user(c).ID, item, c.PostForm("on") == "true"); err != nil {
		s.fail(c, err)
		return
	}
	s.shelfParts(c)
}

// keepSection puts a section of a page on the site's Shelf.
func (s *Server) keepSection(c *gin.Context) {
	v, err := s.look(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	sec, _ := v.Page.Section(c.PostForm("section"))
	if sec == nil {
		s.say(c, v, http.StatusUnprocessableEntity, "The section isn’t on this page any more.")
		return
	}
	if err := s.Store.KeepSection(c, v.Site.ID, sec); err != nil {
		s.refuse(c, v, err)
		return
	}
	s.answer(c, http.StatusOK, answer{View: v, message: "“" + sec.Name + "” is on the Shelf now.", noTray: true, shelf: true})
}

// dropSection takes a section off the site's Shelf.
func (s *Server) dropSection(c *gin.Context) {
	if err := s.Store.DropSection(c, siteOf(c).ID, c.PostForm("id")); err != nil {
		s.fail(c, err)
		return
	}
	s.note(c, "kept section deleted", siteOf(c).ID, c.PostForm("id"))
	s.shelfParts(c)
}

func (s *Server) shelfParts(c *gin.Context) {
	view, err := s.shelf(c, siteOf(c), user(c).ID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.parted(c, http.StatusOK, "shelf-items", view)
}
