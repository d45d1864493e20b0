package layout

import (
	"math"
	"slices"
	"strconv"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

// need is how wide in px a picture is drawn at a viewport width.
type need struct{ width, px float64 }

// SayWidths writes into the pictures of a tree how wide each is drawn: that moves no box.
func (t *Tree) SayWidths() {
	choose := false
	t.Root.Walk(func(n *element.Node) { choose = choose || n.Tag == "img" && chooses(n) })
	if !choose {
		return
	}
	for n, sizes := range t.Sizes() {
		n.SetSizes(sizes)
	}
}

// Sizes tells, for each <img> of a tree that can choose from copies and has a box, how wide it is
// drawn, cropping included, as the HTML attribute sizes has it (HTML §4.8.4.2.2).
func (t *Tree) Sizes() map[*element.Node]string {
	of := map[*element.Node][]need{}
	c := t.context()
	for _, w := range t.samples() {
		c.at(w).Walk(func(b *Box, _, _ float64) {
			if b.Node.Tag == "img" && chooses(b.Node) {
				of[b.Node] = append(of[b.Node], need{w, drawn(b, &b.Node.Styles[c.zone])})
			}
		})
	}
	sizes := make(map[*element.Node]string, len(of))
	for n, ns := range of {
		sizes[n] = written(ns)
	}
	return sizes
}

// sampleStep is how far apart the widths are, in px, at which Sizes lays a tree out, beside both
// ends of each zone.
const sampleStep = 64

// samples are the widths at which it is found how wide pictures are, from narrow to wide.
func (t *Tree) samples() (ws []float64) {
	for w := doc.MinViewport; w <= doc.MaxViewport; w += sampleStep {
		ws = append(ws, float64(w))
	}
	for z := range t.zones[:len(t.zones)-1] {
		ws = append(ws, float64(t.zones[z].Min-1), float64(t.zones[z].Min))
	}
	slices.Sort(ws)
	return slices.Compact(ws)
}

// chooses reports whether an <img> has copies to choose from.
func chooses(n *element.Node) bool {
	return len(n.Sources) > 0 ||
		slices.ContainsFunc(n.Attrs, func(a element.Attr) bool { return a.Name == "sizes" })
}

// drawn is the width in px at which the whole picture in a box is drawn: wider than the box where
// it is cropped to it from the sides (CSS Images 3 §5.5).
func drawn(b *Box, st *style.Style) float64 {
	w, h := natural(b.Node)
	if h == 0 {
		return b.W
	}
	byHeight := b.H * (1 + 2*st.Drift) * w / h
	switch st.ObjectFit {
	case "cover":
		return max(b.W, byHeight)
	case "contain":
		return min(b.W, byHeight)
	}
	return b.W
}

// piece is a run of viewport widths, up to one in px, at which a picture is a·width + b px wide.
type piece struct{ to, a, b float64 }

func (p piece) at(w float64) float64 { return p.a*w + p.b }

// sizeSlack is by how much what sizes says may differ from what is needed: a part of it, and px.
const sizeSlack, sizeSlackPx = 0.02, 3.0

// pieces describes needs by as few straight lines as are true within the slack. Between two
// widths at which another line begins, the one holds that says more.
func pieces(ns []need) (out []piece) {
	for i := 0; i < len(ns); {
		j, line := i, piece{a: 0, b: ns[i].px}
		for k := i + 1; k < len(ns); k++ {
			a := (ns[k].px - ns[i].px) / (ns[k].width - ns[i].width)
			p := piece{a: a, b: ns[i].px - a*ns[i].width}
			if !slices.ContainsFunc(ns[i:k+1], func(n need) bool {
				return math.Abs(p.at(n.width)-n.px) > max(sizeSlackPx, sizeSlack*n.px)
			}) {
				j, line = k, p
			} else {
				break
			}
		}
		line.to = ns[j].width
		if j+1 < len(ns) && ns[j+1].px < ns[j].px && ns[j+1].width-ns[j].width > 1 {
			line.to = ns[j+1].width - 1
		}
		out = append(out, line)
		i = j + 1
	}
	return out
}

// written gives needs as sizes has them. Beyond the widest viewport the last line goes on.
func written(ns []need) (s string) {
	ps := pieces(ns)
	for i, p := range ps {
		if i+1 < len(ps) {
			s += "(max-width: " + style.Number(p.to) + ".98px) " + p.length() + ", "
			continue
		}
		s += p.length()
	}
	return s
}

// length is the line as a CSS length.
func (p piece) length() string {
	vw, px := math.Round(p.a*1e4)/100, math.Round(p.b)
	switch {
	case math.Abs(vw) < 0.05:
		return style.Number(math.Ceil(p.at(p.to))) + "px"
	case px == 0:
		return style.Number(vw) + "vw"
	case px < 0:
		return "calc(" + style.Number(vw) + "vw - " + strconv.Itoa(int(-px)) + "px)"
	}
	return "calc(" + style.Number(vw) + "vw + " + strconv.Itoa(int(px)) + "px)"
}
