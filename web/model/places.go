package model

import (
	"encoding/json"
	"fmt"
	"html/template"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/store"
	"openplot/web/paths"
)

// Place is a section in which a medium is shown, drawn.
type Place struct {
	Page, Section string
	Slug          paths.Segment
	Drawing       template.HTML
}

// placeWidth is how wide a place is drawn, in px.
const placeWidth = 290

// Places gives the sections of a page that show a medium or lead to it.
func (st *Stage) Places(p *doc.Page, slug paths.Segment, m *store.Medium) (out []Place) {
	for _, sec := range p.Sections {
		if !names(sec, m.ID) {
			continue
		}
		b, _ := json.Marshal(sec) // it came from JSON
		out = append(
			out,
			Place{p.Name, sec.Name, slug, st.DrawSection(fmt.Sprintf("place %s %v", b, m.Variants), sec, placeWidth)},
		)
	}
	return out
}

// names reports whether a section or anything in it names a medium.
func names(sec *doc.Section, id string) bool {
	b, _ := json.Marshal(sec)
	return strings.Contains(string(b), `"`+id+`"`) || strings.Contains(string(b), `"`+doc.FilePrefix+id)
}

// Wants gives the width in px that pictures would need on a page, by medium, of those that
// have fewer px than they are shown in at the given widths.
func (st *Stage) Wants(p *doc.Page, widths ...float64) map[string]int {
	shown := map[string]*store.Medium{} // by what an img has as its src
	for _, m := range st.Source.Media {
		if m.Picture() && m.Type != "image/svg+xml" {
			for _, v := range m.Variants {
				shown[st.workshop.mediaURL+v.File] = m
			}
		}
	}
	wants := map[string]int{}
	for _, sec := range p.Sections {
		if sec.Hidden {
			continue
		}
		scene := st.scene(p, sec)
		for _, width := range widths {
			scene.at(width).Walk(func(box *layout.Box, _, _ float64) {
				look := &box.Node.Styles[st.Site.Zones.At(width)]
				m, covers := shown[look.BackgroundURL], look.BackgroundFit == "" ||
					strings.Contains(look.BackgroundFit, "cover")
				if m == nil {
					m, covers = pictured(box.Node, shown), look.ObjectFit == "cover"
				}
				if m == nil || m.Height == 0 {
					return
				}
				w := box.W
				if covers {
					w = max(w, box.H*float64(m.Width)/float64(m.Height))
				}
				if px := int(w + 0.5); px > m.Width {
					wants[m.ID] = max(wants[m.ID], px)
				}
			})
		}
	}
	return wants
}

func pictured(n *element.Node, shown map[string]*store.Medium) *store.Medium {
	if n.Tag != "img" {
		return nil
	}
	for _, a := range n.Attrs {
		if a.Name == "src" {
			return shown[a.Value]
		}
	}
	return nil
}

// MediumSize says how large a medium is.
func MediumSize(m *store.Medium) string {
	if m.Picture() || m.Video() {
		return fmt.Sprintf("%d × %d", m.Width, m.Height)
	}
	return strings.ToUpper(m.Extension())
}
