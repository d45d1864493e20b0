package bench

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/ready"
	"openplot/core/rights"
	"openplot/origin"
	"openplot/site"
	"openplot/store"
	"openplot/web/desk"
	"openplot/web/model"
	"openplot/web/paths"
	"openplot/web/shell"
)

// Shelf is what lies on the Shelf of the Bench.
type Shelf struct{ *desk.Desk }

// Routes lists its addresses.
func (s *Shelf) Routes() []shell.Route {
	return []shell.Route{
		shell.Get(paths.SiteRoute+"/links", rights.See, s.links),
		shell.Get("/icons", rights.Sign, s.iconSheet),
		shell.Get(paths.SiteRoute+"/shelf", rights.See, s.shelfParts),
		shell.Post(paths.SiteRoute+"/shelf/business", rights.Keep, s.setBusiness),
		shell.Post(paths.SiteRoute+"/shelf/favourite", rights.See, s.favour),
		shell.Post(paths.SiteRoute+"/shelf/drop", rights.Keep, s.dropSection),
		shell.Get(paths.PageRoute+"/shared/:section", rights.See, s.sharedOn),
	}
}

// shelfView is what can be inserted: sections and blocks, by what they are for.
type shelfView struct {
	Sorts    []shelfSort
	Business desk.Choice
}

type shelfSort struct {
	ID, Name string
	Purposes []shelfPurpose
	Items    []shelfItem
}

// shelfPurpose narrows a sort to what is for something; its count is of those.
type shelfPurpose struct {
	Name  string
	Count int
	Apart bool // the first after those that aren't purposes
}

type shelfItem struct {
	Kind, Preset     string // one of them
	Name, Hint, Icon string
	Purpose          string
	Find             string // what searching looks in
	Span, Rows       int    // of a block in a grid, in twelfths and rows
	Recent           int    // 1 for what was used last; 0 for what wasn't lately
	Favourite        bool
	Kept             string // id of a section that the site keeps
	Drawing          template.HTML
}

// Key names the item among a person's uses of the Shelf.
func (i shelfItem) Key() string {
	if i.Kind != "" {
		return "block:" + i.Kind
	}
	return "section:" + i.Preset
}

const (
	recentItems = 6   // how many of those used last are recent
	drawnWide   = 182 // px; of a section on the Shelf
)

// shelf lists ready-made sections, drawn in the site's house style and in the words of its
// business, blocks, and the site's own sections.
func (s *Shelf) shelf(ctx context.Context, stage *model.Stage, person string) (shelfView, error) {
	st := stage.Site
	desk.WithStock(stage)
	business := ready.FindBusiness(st.Business)
	sections, blocks, own := shelfSort{
		ID:   "sections",
		Name: "Sections",
	}, shelfSort{
		ID:   "blocks",
		Name: "Blocks",
	}, shelfSort{
		ID:   "kept",
		Name: "Kept",
	}
	for _, purpose := range ready.Purposes {
		for i := range ready.Presets {
			p := &ready.Presets[i]
			if p.Purpose != purpose {
				continue
			}
			sec := p.Drawn(business)
			if p.Stock != "" {
				sec.Picture = edit.StockPrefix + p.Stock
			}
			sections.Items = append(sections.Items, shelfItem{
				Preset: p.ID, Name: p.Name, Hint: p.Hint, Purpose: purpose, Find: p.Find() + " " + kindsIn(sec),
				Drawing: stage.DrawSection(p.ID+" "+st.Business, sec, drawnWide),
			})
		}
	}
	for _, name := range element.Shelves {
		for _, k := range doc.Kinds {
			if a := element.Of(k); a.Shelf == name {
				blocks.Items = append(blocks.Items, shelfItem{
					Kind: string(k), Name: a.Name, Hint: a.Hint, Icon: a.Icon, Purpose: string(name),
					Find: a.Name + " " + a.Find + " " + a.Hint, Span: a.Span, Rows: a.Rows,
				})
			}
		}
	}
	kept, err := s.Store.Shelf.KeptSections(ctx, st.ID, person)
	if err != nil {
		return shelfView{}, err
	}
	for _, k := range kept {
		hint := "a section of this site"
		if k.Owner != "" {
			hint = "on all your sites"
		}
		own.Items = append(own.Items, shelfItem{
			Preset: "kept:" + k.ID, Kept: k.ID, Name: k.Name, Hint: hint, Purpose: k.Purpose,
			Find: k.Name + " " + k.Purpose + " own kept section " + kindsIn(
				k.Section,
			), Drawing: stage.DrawSection("kept "+k.ID, k.Section, drawnWide),
		})
	}
	slices.SortStableFunc(own.Items, func(a, b shelfItem) int { // those for the same stand together
		return slices.Index(ready.Purposes, a.Purpose) - slices.Index(ready.Purposes, b.Purpose)
	})
	shared, err := s.sharedOnShelf(ctx, stage)
	if err != nil {
		return shelfView{}, err
	}
	uses, err := s.Store.Shelf.ShelfUses(ctx, person)
	if err != nil {
		return shelfView{}, err
	}
	v := shelfView{Sorts: []shelfSort{sections, blocks, shared, own}, Business: businessChoice(st)}
	for i := range v.Sorts {
		v.Sorts[i].used(uses)
	}
	return v, nil
}

// sharedOnShelf lists the sections that stand on several pages.
func (s *Shelf) sharedOnShelf(ctx context.Context, stage *model.Stage) (shelfSort, error) {
	sort := shelfSort{ID: "shared", Name: "Shared"}
	all, err := s.Store.Pages.SharedSections(ctx, stage.Site.ID)
	if err != nil {
		return sort, err
	}
	for _, sh := range all {
		names := make([]string, len(sh.Pages))
		for i, p := range sh.Pages {
			names[i] = p.Name
		}
		as, err := json.Marshal(sh.Section)
		if err != nil {
			return sort, err
		}
		sum := sha256.Sum256(as) // another drawing for another state
		sort.Items = append(sort.Items, shelfItem{
			Preset: edit.SharedPrefix + sh.Section.ID, Name: sh.Section.Name, Hint: "the same on " + site.Brief(names), Purpose: ready.Purposes[0],
			Find: sh.Section.Name + " shared " + kindsIn(
				sh.Section,
			), Drawing: stage.DrawSection(fmt.Sprintf("shared %x", sum[:8]), sh.Section, drawnWide),
		})
	}
	return sort, nil
}

// used marks what a person used last or likes, and counts.
func (s *shelfSort) used(uses []store.ShelfUse) {
	recent := 0
	for _, u := range uses {
		for i := range s.Items {
			if it := &s.Items[i]; it.Key() == u.Item {
				it.Favourite = u.Favourite
				if recent < recentItems && u.Used {
					recent++
					it.Recent = recent
				}
			}
		}
	}
	s.Purposes = []shelfPurpose{{Name: "All"}, {Name: "Recent"}, {Name: "Favourites"}}
	for _, it := range s.Items {
		s.Purposes[0].Count++
		if it.Recent > 0 {
			s.Purposes[1].Count++
		}
		if it.Favourite {
			s.Purposes[2].Count++
		}
		if last := &s.Purposes[len(s.Purposes)-1]; it.Purpose != "" && last.Name != it.Purpose {
			s.Purposes = append(s.Purposes, shelfPurpose{Name: it.Purpose, Apart: len(s.Purposes) == 3})
		}
		if it.Purpose != "" {
			s.Purposes[len(s.Purposes)-1].Count++
		}
	}
}

// businessChoice is the kind of business that stand-in words and pictures are for.
func businessChoice(st *store.Site) desk.Choice {
	v := desk.Choice{ID: "shelf-business", Label: "Words and pictures for", Op: "shelf:business"}
	offer := func(id, name, scene string) {
		v.Offers = append(v.Offers, desk.Offer{
			Label: name, Value: id, Picture: site.SceneFor(&st.House, scene), Chosen: st.Business == id,
		})
	}
	offer("", "Any kind of business", "landscape")
	for _, b := range ready.Businesses {
		offer(b.ID, b.Name, b.Scenes[0])
	}
	return v
}

// setBusiness says what kind of business the site is for, and answers with the Shelf's parts.
func (s *Shelf) setBusiness(c *gin.Context) {
	id := c.PostForm("value")
	if id != "" && ready.FindBusiness(id) == nil {
		c.String(http.StatusUnprocessableEntity, "There is no such kind of business.")
		return
	}
	st := shell.SiteOf(c)
	if err := s.Store.Sites.SetBusiness(c, st.ID, id); err != nil {
		s.Fail(c, err)
		return
	}
	st.Business = id
	s.shelfParts(c)
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
func (s *Shelf) usedShelf(c *gin.Context, command edit.Command) {
	item := ""
	switch command.Op {
	case "block.add":
		item = shelfItem{Kind: string(command.Kind)}.Key()
	case "section.add":
		item = shelfItem{Preset: command.Preset}.Key()
	default:
		return
	}
	if err := s.Store.Shelf.UseShelf(c, shell.User(c).ID, item); err != nil {
		s.Log.Error("shelf", "id", origin.RequestID(c), "error", err)
	}
}

// favour marks a thing on the Shelf as a favourite, or no longer, and answers with the
// Shelf's parts.
func (s *Shelf) favour(c *gin.Context) {
	item := c.PostForm("item")
	if len(item) > 80 || !strings.HasPrefix(item, "block:") && !strings.HasPrefix(item, "section:") {
		c.String(http.StatusUnprocessableEntity, "There is no such thing on the Shelf.")
		return
	}
	if err := s.Store.Shelf.FavourShelf(c, shell.User(c).ID, item, c.PostForm("on") == "true"); err != nil {
		s.Fail(c, err)
		return
	}
	s.shelfParts(c)
}

// keepSection puts a section of a page on the site's Shelf.
func (s *Screen) keepSection(c *gin.Context) {
	v, err := s.Look(c)
	if err != nil {
		s.Fail(c, err)
		return
	}
	sec, _ := v.Page.Section(c.PostForm("section"))
	if sec == nil {
		s.say(c, v, http.StatusUnprocessableEntity, "The section isn’t on this page any more.")
		return
	}
	k := &store.KeptSection{
		Site:    v.Site.ID,
		Name:    strings.Join(strings.Fields(cmp.Or(c.PostForm("name"), sec.Name)), " "),
		Purpose: c.PostForm("purpose"),
		Section: sec,
	}
	if c.PostForm("all") == "yes" {
		k.Owner = shell.User(c).ID
	}
	if n := len([]rune(k.Name)); n > doc.MaxNameRunes {
		s.refuse(c, v, doc.Problemf("Name", "has %d characters; write at most %d", n, doc.MaxNameRunes))
		return
	}
	if k.Purpose != "" && !slices.Contains(ready.Purposes, k.Purpose) {
		s.refuse(c, v, doc.Problemf("Purpose", "can't be %.40q: choose one of the Shelf’s", k.Purpose))
		return
	}
	if err := s.Store.Shelf.KeepSection(c, k); err != nil {
		s.refuse(c, v, err)
		return
	}
	s.answer(
		c,
		http.StatusOK,
		answer{View: v, message: "“" + k.Name + "” is on the Shelf now.", noTray: true, shelf: true},
	)
}

// dropSection takes a section off the site's Shelf.
func (s *Shelf) dropSection(c *gin.Context) {
	if err := s.Store.Shelf.DropSection(c, shell.SiteOf(c).ID, shell.User(c).ID, c.PostForm("id")); err != nil {
		s.Fail(c, err)
		return
	}
	s.Note(c, "kept section deleted", shell.SiteOf(c).ID, c.PostForm("id"))
	s.shelfParts(c)
}

// shelfParts answers with what lies on the Shelf.
func (s *Shelf) shelfParts(c *gin.Context) {
	st := shell.SiteOf(c)
	src, err := s.Source(c, st)
	if err != nil {
		s.Fail(c, err)
		return
	}
	view, err := s.shelf(c, s.Workshop.Stage(st, src, ""), shell.User(c).ID)
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.Parted(c, http.StatusOK, "shelf-items", view)
}
