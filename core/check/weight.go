package check

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/number"
	"openplot/core/style"
)

// Bytes are what a visitor's browser loads for a page, by what it is.
type Bytes struct{ HTML, CSS, Fonts, Pictures, Scripts int }

// Sum is all of them.
func (b Bytes) Sum() int { return b.HTML + b.CSS + b.Fonts + b.Pictures + b.Scripts }

// mostBytes is how much a page may weigh; common practice, about five seconds on a slow line of
// 1.6 Mbit/s.
const mostBytes = 1_000_000

var heavy = Rule{
	ID: "heavy", Name: "The page is heavy", Family: Weight, Severity: Doubtful,
	Why: "On a slow line visitors wait, and pay for it.",
	title: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("The page loads %s kB", thousands(f.By/1000))
	},
	say: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf(
			"%s; up to %s kB is what loads in some five seconds on a slow line.",
			f.Words,
			thousands(f.Of/1000),
		)
	},
	whole: func(p *Page, r *report) {
		if len(p.Weights) != len(p.Site.Zones) {
			return
		}
		for z, w := range p.Weights {
			if w.Sum() > mostBytes {
				r.add(Finding{
					Part: p.Site.Zones[z].ID, By: float64(w.Sum()), Of: mostBytes, Ranges: []Range{zoneRange(p.Site.Zones, z)},
					Words: fmt.Sprintf(
						"Pictures %s kB, fonts %s kB, the rest %s kB",
						thousands(
							float64(w.Pictures)/1000,
						),
						thousands(float64(w.Fonts)/1000),
						thousands(float64(w.HTML+w.CSS+w.Scripts)/1000),
					),
				})
			}
		}
	},
}

func thousands(n float64) string {
	s := strconv.Itoa(int(n + 0.5))
	if len(s) > 3 {
		return s[:len(s)-3] + "," + s[len(s)-3:]
	}
	return s
}

var blurred = Rule{
	repair: mendBlurred,
	ID:     "blurred", Name: "A picture is larger than its pixels", Family: Weight, Severity: Doubtful, least: 4,
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

// vector reports whether a picture has no pixels.
func vector(address string) bool {
	return strings.HasSuffix(address, ".svg") || strings.HasPrefix(address, "data:image/svg")
}

// How much wider a file may be than what is shown of it, and from how many px on that counts;
// common practice: screens have up to three pixels a px.
const (
	mostWaste  = 3.0
	leastWaste = 800
)

var wasteful = Rule{
	ID: "wasteful", Name: "A picture is much smaller than its file", Family: Weight, Severity: Hint, least: 16, viewport: true,
	Why: "Visitors load pixels that nobody sees.",
	short: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("loads %.0f px for %.0f", f.By, f.Of)
	},
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s loads %.0f px and shows %.0f", name(f.Node), f.By, f.Of)
	},
	at: func(s *sight) {
		for i := range s.boxes {
			b := &s.boxes[i]
			if b.Node.Tag != "img" || b.block == "" || b.W <= 0 || vector(attr(b.Node, "src")) {
				continue
			}
			if _, loads := Loads(b.Node, s.width); loads >= leastWaste && loads > b.W*mostWaste {
				s.noteWords(b.block, "", "", loads, b.W, "")
			}
		}
	},
}

// Loads gives the file that a browser takes of those of a picture in a viewport of a width in px, on
// a screen with one pixel a px (HTML §4.8.4.3), and how wide that is: the first that is as wide as
// sizes says, or the widest. Of several formats it is the first.
func Loads(n *element.Node, width float64) (address string, px float64) {
	srcset, sizes := attr(n, "srcset"), attr(n, "sizes")
	if len(n.Sources) > 0 {
		srcset, sizes = n.Sources[0].Srcset, n.Sources[0].Sizes
	}
	address = attr(n, "src")
	px, _ = number.Real(attr(n, "width"))
	needs, first := sizesAt(sizes, width), true
	for _, c := range strings.Split(srcset, ",") {
		f := strings.Fields(c)
		if len(f) != 2 {
			continue
		}
		w, err := number.Real(strings.TrimSuffix(f[1], "w"))
		if err != nil {
			continue
		}
		if first || px < needs && w > px || w >= needs && w < px {
			address, px, first = f[0], w, false
		}
	}
	return address, px
}

// sizesAt gives the width in px that a sizes attribute, as package element writes it, says at a
// viewport's width.
func sizesAt(sizes string, width float64) float64 {
	length := func(v string) float64 {
		n, unit := v, 1.0
		if w, is := strings.CutSuffix(v, "vw"); is {
			n, unit = w, width/100
		}
		f, err := number.Real(strings.TrimSuffix(n, "px"))
		if err != nil {
			return width
		}
		return f * unit
	}
	for _, part := range layers(sizes) {
		if rest, is := strings.CutPrefix(part, "(max-width: "); is {
			most, then, _ := strings.Cut(rest, "px) ")
			if n, err := number.Real(most); err == nil && width > n {
				continue
			}
			part = then
		}
		if inner, is := strings.CutPrefix(part, "min("); is {
			a, b, _ := strings.Cut(strings.TrimSuffix(inner, ")"), ",")
			return min(length(strings.TrimSpace(a)), length(strings.TrimSpace(b)))
		}
		return length(part)
	}
	return width
}

// mostBlocks is how many blocks a section has until it is hard to work with.
const mostBlocks = 60

var crowded = Rule{
	ID: "crowded", Name: "A section has many blocks", Family: Weight, Severity: Hint,
	Why:   "It is slow to change and hard to find one’s way in; two sections may say the same more clearly.",
	short: func(f *Finding, name func(string) string) string { return fmt.Sprintf("%.0f blocks", f.By) },
	title: func(f *Finding, name func(string) string) string {
		return fmt.Sprintf("%s has %.0f blocks", name(f.Node), f.By)
	},
	whole: func(p *Page, r *report) {
		for _, s := range p.Doc.Sections {
			n := 0
			s.Walk(func(*doc.Block) { n++ })
			if n > mostBlocks {
				r.add(Finding{Node: s.ID, By: float64(n), Of: mostBlocks})
			}
		}
	},
}

var unusedFont = Rule{
	ID: "unused-font", Name: "A font is loaded and not used", Family: Weight, Severity: Hint,
	Why: "Visitors load it for nothing.",
	title: func(f *Finding, _ func(string) string) string {
		return fmt.Sprintf("%s is loaded and not used", f.Words)
	},
	whole: func(p *Page, r *report) {
		for _, family := range p.Families {
			p.inZones(r, func(z int, note func(Finding)) {
				for _, part := range p.Parts {
					if usesFont(part.Root, z, family) {
						return
					}
				}
				note(Finding{Part: family, Words: family})
			})
		}
	},
}

// usesFont reports whether any words of an element that are displayed in a zone are set in a family.
func usesFont(n *element.Node, z int, family string) bool {
	if n.Tag == "" {
		return n.Styles[z].FontFamily == family
	}
	return n.Styles[z].Display != style.None &&
		slices.ContainsFunc(n.Children, func(c *element.Node) bool { return usesFont(c, z, family) })
}
