package site

import (
	"strconv"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
)

// firstView has browsers fetch early what is seen before anybody scrolls: pictures of the first
// section, or where it has none the first of the second, aren't left for later, and the ground of
// the first is named in the head, since it is found only once the style sheet is read. It is a
// guess: how far down a page is seen depends on the screen.
func firstView(body *element.Node, zones doc.Zones) (grounds []emit.Preload) {
	sections, first := 0, true // first says that nothing is asked for first yet
	var walk func(n *element.Node)
	walk = func(n *element.Node) {
		if n.Section != "" && n.Tag == "section" {
			if sections++; sections == 1 {
				grounds = preloads(n, zones)
				first = len(grounds) == 0
			}
		}
		if n.Tag == "img" && (sections <= 1 || sections == 2 && first) {
			early(n, first)
			first = false
		}
		for _, c := range n.Children {
			if sections > 2 {
				return
			}
			walk(c)
		}
	}
	walk(body)
	return grounds
}

// early takes an img's loading away, and says of the first that it comes before others.
func early(img *element.Node, first bool) {
	kept := img.Attrs[:0:0]
	for _, a := range img.Attrs {
		if a.Name != "loading" {
			kept = append(kept, a)
		}
	}
	if first {
		kept = append(kept, element.Attr{Name: "fetchpriority", Value: "high"})
	}
	img.Attrs = kept
}

// preloads are those of a section's background, by zone where it differs by zone.
func preloads(n *element.Node, zones doc.Zones) (out []emit.Preload) {
	for z := range n.Styles {
		p := emit.Preload{Href: n.Styles[z].BackgroundURL}
		if m := n.Styles[z].BackgroundModern; m != "" {
			p.Href, p.Type = m, "image/avif"
		}
		if p.Href == "" || len(p.Href) > 4 && p.Href[:5] == "data:" {
			continue
		}
		if z+1 < len(zones) { // down to where the next narrower begins
			p.Media = "(min-width: " + strconv.Itoa(zones.Max(z+1)+1) + "px)"
		}
		if z > 0 {
			if p.Media != "" {
				p.Media += " and "
			}
			p.Media += "(max-width: " + strconv.Itoa(zones.Max(z)) + ".98px)"
		}
		out = append(out, p)
	}
	if len(out) == len(zones) { // the same everywhere is asked for once
		same := true
		for _, p := range out[1:] {
			same = same && p.Href == out[0].Href
		}
		if same {
			out = out[:1]
			out[0].Media = ""
		}
	}
	return out
}
