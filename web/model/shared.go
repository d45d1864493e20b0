package model

import (
	"html/template"
	"strings"

	"openplot/core/doc"
	"openplot/web/paths"
)

// OnPage is a shared section where it stands on a page: drawn with what is around it.
type OnPage struct {
	Name, Href string
	Here       bool
	Drawing    template.HTML
}

// sharedWide is how wide, in px, the drawings of a shared section on its pages are.
const sharedWide = 190

// DrawOn draws a section of a page with the ones above and below it, at a width in px.
func (st *Stage) DrawOn(p *doc.Page, section string, width float64) OnPage {
	on := st.Passing()
	v := &View{Stage: on, Page: p}
	d := drawing{width: width, zone: st.Site.Zones.At(width), marked: section}
	_, at := p.Section(section)
	var b strings.Builder
	y := 0.0
	for i, sec := range p.Sections {
		if sec.Hidden || i < at-1 || i > at+1 || v.over(sec, d.zone) {
			continue
		}
		box := on.scene(p, sec).at(width)
		d.section(&b, box, y)
		y += box.H
	}
	slug := strings.ReplaceAll(st.Builder.Here, "/", ".")
	return OnPage{
		Name:    p.Name,
		Href:    paths.To(st.Site.Slug).Page(slug).At("bench"),
		Drawing: d.svg(b.String(), y, sharedWide),
	}
}
