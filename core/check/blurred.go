package check

import (
	"fmt"
	"math"

	"openplot/core/number"
	"openplot/core/style"
	"openplot/core/value"
)

var blurred = Rule{
	repair: mendBlurred,
	ID:     "blurred", Name: "A picture is larger than its pixels", Family: Weight, Severity: Doubtful, least: 4,
	What:  "a picture is shown over a tenth wider than its pixels",
	Why:   "It looks blurred.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("%.0f px of %.0f", f.By, f.Of) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s is shown %.0f px wide and has %.0f", name(f.Node), f.By, f.Of)
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("So at %d px. Upload a larger one, or show it smaller.", f.Worst)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if b.Node.Tag != "img" || b.block == "" || vector(attr(b.Node, "src")) {
				continue
			}
			w, _ := number.Real(attr(b.Node, "width"))
			h, _ := number.Real(attr(b.Node, "height"))
			if w <= 0 || h <= 0 {
				continue
			}
			shown := b.W // of all of the picture, cropped parts too
			if b.st.ObjectFit != "contain" {
				shown = max(b.W, b.H*w/h)
			}
			if shown > w*1.1 {
				s.noteWords(b.block, "", "", shown, w, "")
			}
		}
	},
}

func mendBlurred(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || style.Find("width", b.Kind) == nil {
		return nil
	}
	zs := p.Site.Zones
	if ratio, _, _ := b.Style["aspect-ratio"].Resolve(zs, zs.At(float64(f.Worst))); ratio == value.Rows {
		return nil
	}
	return &Repair{
		fmt.Sprintf("As wide as its %.0f px", f.Of),
		p.set(f, "width", fmt.Sprintf("%.0fpx", math.Floor(f.Of))),
	}
}
