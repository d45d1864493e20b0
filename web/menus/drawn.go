package menus

import (
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/compose"
	"openplot/core/doc"
	"openplot/core/emit"
	"openplot/core/value"
	"openplot/fonts"
	"openplot/site"
	"openplot/store"
	"openplot/web/shell"
)

// drawing is a page of the one section that shows a menu.
func (s *Screen) drawing(c *gin.Context, menu string) (string, error) {
	st := shell.SiteOf(c)
	src, err := s.Source(c, st)
	if err != nil {
		return "", err
	}
	sec, _, err := s.shower(c, menu)
	if err != nil {
		return "", err
	}
	stage := s.Workshop.Stage(st, src, "")
	stage.Builder.Link = func(string) string { return "#" } // nothing leads out of a drawing
	body := stage.Builder.Page(&doc.Page{Sections: []*doc.Section{sec}})
	var faces []emit.FontFace
	for _, f := range fonts.Needed(emit.Used(body)) {
		faces = append(faces, site.FontFace(f, "/fonts/"))
	}
	faces = append(faces, stage.OwnFaces()...)
	return emit.NewSheet(st.Zones).Inline(emit.Page{Title: "Menu", Language: "en", Fonts: faces}, body), nil
}

// shower is what shows a menu of the site that is asked for.
func (s *Screen) shower(c *gin.Context, menu string) (*doc.Section, bool, error) {
	home, err := s.Store.Pages.At(c, shell.SiteOf(c).ID, "")
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, false, err
	}
	return shower(home, menu)
}

// shower is the section that shows a menu: the home page's that does; or its bar or footer, as it
// would be with it; or one made for it. shows tells whether it was the first.
func shower(home *store.Page, menu string) (sec *doc.Section, shows bool, err error) {
	role := doc.RoleFooter
	if menu == value.Pages {
		role = doc.RoleHeader
	}
	var like *doc.Section
	if home != nil {
		for _, sec := range home.Doc.Sections {
			has, shows := false, false
			sec.Walk(func(b *doc.Block) {
				from := cmp.Or(b.Content.Values["from"], value.Pages)
				has, shows = has || b.Kind == doc.Menu, shows || b.Kind == doc.Menu && from == menu
			})
			if shows {
				return sec, true, nil
			}
			if has && sec.Role == role && like == nil {
				like = sec
			}
		}
	}
	if like == nil {
		like = compose.Section(
			doc.LineUp, compose.Look("padding-top", "$room", "padding-bottom", "$room"),
			&doc.Block{ID: "menu", Kind: doc.Menu},
		)
		like.ID = "menu-section"
	}
	text, err := json.Marshal(like)
	if err == nil {
		sec = new(doc.Section) // a copy, as documents are values
		err = json.Unmarshal(text, sec)
	}
	if err != nil {
		return nil, false, fmt.Errorf("drawing a menu: %w", err)
	}
	sec.Walk(func(b *doc.Block) {
		if b.Kind == doc.Menu {
			b.Content = doc.Content{Values: map[string]string{"from": menu}}
		}
	})
	return sec, false, nil
}

// above is the first part of a page's address, and whether it stands under that.
func above(slug string) (first string, nested bool) {
	first, _, nested = strings.Cut(slug, "/")
	return first, nested
}
