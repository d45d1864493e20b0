package model

import (
	"cmp"
	"fmt"
	"html"
	"html/template"
	"slices"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/style"
	"openplot/core/value"
)

// drawing is a section drawn small, from the layout core's boxes.
type drawing struct {
	width  float64 // of the page, px
	zone   int
	marked string  // block to mark, or ""
	until  float64 // what begins further down, in px of the page, isn't drawn; 0 draws all
	top    float64 // where what is seen of it begins, in px of the page
	most   float64 // how many px of the page are seen of it, around what is marked; 0 are all
}

// over reports whether a section lies over the next one and takes no room of its own.
func (v *View) over(sec *doc.Section, zone int) bool {
	word, _, ok := sec.Style["over"].Resolve(v.Site.Zones, zone)
	return ok && word != value.No
}

// drawn draws a section by itself, width px wide on screen.
func (v *View) drawn(sec *doc.Section, d drawing, width float64) template.HTML {
	return d.whole(v.Stage.scene(v.Page, sec).at(d.width), v.over(sec, d.zone), width)
}

// whole draws a section's box by itself; over says that it lies over the next one.
func (d drawing) whole(box *layout.Box, over bool, width float64) template.HTML {
	height := box.H
	var b strings.Builder
	if over { // what it holds, on a ground that any words are seen on
		_, height = box.Overflow(d.zone)
		height += box.H // as much room below as above
		fmt.Fprintf(&b, `<rect width="%.0f" height="%.0f" fill="#66706d"/>`, d.width, height)
	}
	d.section(&b, box, 0)
	if d.most > 0 && height > d.most {
		box.Walk(func(c *layout.Box, _, y float64) {
			if c.Node.Block != "" && c.Node.Block == d.marked {
				d.top = min(max(y+c.H/2-d.most/2, 0), height-d.most)
			}
		})
		height = d.most
	}
	return d.svg(b.String(), height, width)
}

// section writes a section's box at y into an SVG whose units are px of the page.
func (d drawing) section(b *strings.Builder, box *layout.Box, y float64) {
	d.box(b, box, 0, y)
}

func (d drawing) box(b *strings.Builder, box *layout.Box, x, y float64) {
	if d.until > 0 && y > d.until {
		return
	}
	s := &box.Node.Styles[d.zone]
	opacity := ""
	if s.Opacity != 0 {
		opacity = fmt.Sprintf(` opacity="%s"`, style.Number(s.Opacity))
	}
	radius := min(s.BorderRadius.Or(box.W, style.Viewport{}, 0), box.H/2)
	if s.Background != "" || s.Border.Top > 0 {
		fill, stroke := cmp.Or(s.Background, "none"), ""
		if s.Border.Top > 0 {
			stroke = fmt.Sprintf(` stroke="%s" stroke-width="%s"`, s.BorderColor, style.Number(s.Border.Top))
		}
		fmt.Fprintf(
			b, `<rect x="%.0f" y="%.0f" width="%.0f" height="%.0f" rx="%.0f" fill="%s"%s%s/>`, x, y, box.W, box.H,
			radius, fill, stroke, opacity,
		)
	}
	if s.BackgroundURL != "" {
		d.picture(b, s.BackgroundURL, x, y, box.W, box.H, 0, opacity)
	}
	if s.BackgroundTop != "" {
		d.layers(b, s.BackgroundTop, x, y, box.W, box.H, radius)
	}
	if box.Node.Tag == "svg" {
		d.shape(b, box.Node, x, y, box.W, box.H)
	} else if box.Node.Tag == "img" {
		src := ""
		for _, a := range box.Node.Attrs {
			if a.Name == "src" {
				src = a.Value
			}
			if a.Name == "srcset" { // the narrowest is plenty
				src, _, _ = strings.Cut(a.Value, " ")
			}
		}
		d.picture(b, src, x, y, box.W, box.H, radius, opacity)
	} else if box.Node.Tag == "video" {
		fmt.Fprintf(b, `<rect x="%.0f" y="%.0f" width="%.0f" height="%.0f" rx="%.0f" fill="#33413f"%s/>`, x, y, box.W, box.H, radius, opacity)
		for _, a := range box.Node.Attrs {
			if a.Name == "poster" {
				d.picture(b, a.Value, x, y, box.W, box.H, radius, opacity)
			}
		}
	}
	for _, l := range box.Lines {
		if l.W == 0 {
			continue
		}
		h := s.FontPx(style.Viewport{Width: d.width}) * 0.62
		fmt.Fprintf(
			b,
			`<rect x="%.0f" y="%.0f" width="%.0f" height="%.0f" rx="%.0f" fill="%s" opacity="%s"/>`,
			x+l.X,
			y+l.Y+(l.H-h)/2,
			l.W,
			h,
			h/5,
			s.Color,
			cmp.Or(map[bool]string{true: "0.85"}[s.FontWeight >= 600], "0.42"),
		)
	}
	children := slices.Clone(box.Children)
	slices.SortStableFunc(children, func(a, c layout.Child) int {
		return cmp.Compare(a.Node.Styles[d.zone].ZIndex, c.Node.Styles[d.zone].ZIndex)
	})
	for _, c := range children {
		d.box(b, c.Box, x+c.X, y+c.Y)
	}
	if box.Node.Block != "" && box.Node.Block == d.marked {
		w := d.width / 40
		fmt.Fprintf(
			b,
			`<rect class="marked" x="%.0f" y="%.0f" width="%.0f" height="%.0f" stroke-width="%.0f"/>`,
			x,
			y,
			box.W,
			max(box.H, w),
			w,
		)
	}
}

// shape draws an icon, an edge or a map as it is, in the colour of the words around it.
func (d drawing) shape(b *strings.Builder, n *element.Node, x, y, w, h float64) {
	attrs := ""
	for _, a := range n.Attrs {
		switch a.Name {
		case "viewBox", "preserveAspectRatio":
			attrs += " " + a.Name + `="` + html.EscapeString(a.Value) + `"`
		}
	}
	fmt.Fprintf(
		b, `<svg x="%.0f" y="%.0f" width="%.0f" height="%.0f" fill="%s" color="%s"%s>%s</svg>`, x, y, w, h,
		n.Styles[d.zone].Color, n.Styles[d.zone].Color, attrs, n.Raw,
	)
}

func (d drawing) picture(b *strings.Builder, src string, x, y, w, h, radius float64, opacity string) {
	clip := ""
	if radius > 0 {
		clip = fmt.Sprintf(` clip-path="inset(0 round %.0fpx)"`, radius)
	}
	fmt.Fprintf(
		b,
		`<image href="%s" x="%.0f" y="%.0f" width="%.0f" height="%.0f" preserveAspectRatio="xMidYMid slice"%s%s/>`,
		html.EscapeString(src),
		x,
		y,
		w,
		h,
		clip,
		opacity,
	)
}

// svg wraps what was drawn; the picture is width px wide on screen.
func (d drawing) svg(content string, pageHeight, width float64) template.HTML {
	return template.HTML(
		fmt.Sprintf(
			`<svg class="drawing" viewBox="0 %.0f %.0f %.0f" width="%.0f" height="%.0f" preserveAspectRatio="xMinYMin slice" aria-hidden="true" focusable="false">%s</svg>`,
			d.top,
			d.width,
			max(pageHeight, 1),
			width,
			max(pageHeight*width/d.width, 1),
			content,
		),
	)
}

// DrawSection draws a section that stands on no page, width px wide on screen. Drawings are
// kept by the name that is given.
func (st *Stage) DrawSection(name string, sec *doc.Section, width float64) template.HTML {
	key := st.look + " " + name
	if svg, ok := st.workshop.drawings.Get(key); ok {
		return svg
	}
	on := st.Passing()
	p := &doc.Page{ID: "drawn", Sections: []*doc.Section{sec}}
	over := (&View{Stage: on, Page: p}).over(sec, 0)
	d := drawing{width: float64(st.Site.Zones[0].Typical)}
	svg := d.whole(on.scene(p, sec).at(d.width), over, width)
	st.workshop.drawings.Put(key, svg, nil)
	return svg
}

// DrawReady draws the upper part of a ready-made page as DrawPage does; drawings are kept by
// the name that is given.
func (st *Stage) DrawReady(name string, p *doc.Page, width, height float64) template.HTML {
	key := st.look + " page " + name
	svg, ok := st.workshop.drawings.Get(key)
	if !ok {
		svg = st.Passing().DrawPage(p, width, height)
		st.workshop.drawings.Put(key, svg, nil)
	}
	return svg
}

// DrawPage draws the upper part of a page at the widest zone's typical width, width by
// height px large on screen.
func (st *Stage) DrawPage(p *doc.Page, width, height float64) template.HTML {
	d := drawing{width: float64(st.Site.Zones[0].Typical)}
	d.until = height * d.width / width
	var b strings.Builder
	y := 0.0
	for _, sec := range p.Sections {
		if !sec.Hidden && y < d.until {
			box := st.scene(p, sec).at(d.width)
			margin, view := box.Node.Styles[d.zone].Margin, style.Viewport{Width: d.width}
			y += margin.Top.Or(d.width, view, 0)
			d.section(&b, box, y)
			y += box.H + margin.Bottom.Or(d.width, view, 0)
		}
	}
	return d.svg(b.String(), min(y, d.until), width)
}
