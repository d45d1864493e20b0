package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"time"

	"openplot/core/check"
	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/style"
	"openplot/demo"
	"openplot/icons"
)

// pairing is a rule of Checks beside the ones of axe-core that look for the same.
type pairing struct {
	ours func(f *check.Finding) bool
	axe  []string
	name string
}

func is(rule string) func(*check.Finding) bool {
	return func(f *check.Finding) bool { return f.ID == rule }
}

var pairings = []pairing{
	{is("contrast"), []string{"color-contrast"}, "contrast"},
	{is("no-alternative"), []string{"image-alt"}, "alternative words"},
	{is("no-label"), []string{"label", "select-name"}, "labels"},
	{
		func(f *check.Finding) bool { return f.ID == "small-target" && f.Severity > check.Hint },
		[]string{"target-size"},
		"target size",
	},
	{
		func(f *check.Finding) bool { return f.ID == "headings" && f.Part != "two" },
		[]string{"heading-order", "page-has-heading-one"},
		"headings",
	},
	{is("no-words-link"), []string{"link-name"}, "link words"},
}

// outside holds Checks against two that know nothing of it: Chromium's boxes at forty widths for
// what reaches past the page and what runs into each other, and axe-core at three for the rules
// that both have.
func (j *judge) outside(pages int, seed uint64) error {
	s := demo.Site()
	var forty []int
	for i := range 40 {
		forty = append(forty, 320+i*41)
	}
	three := []int{320, 700, 1280}
	type count struct{ both, ours, theirs, neither int }
	add := func(c *count, a, b bool) {
		switch {
		case a && b:
			c.both++
		case a:
			c.ours++
		case b:
			c.theirs++
		default:
			c.neither++
		}
	}
	var past, into count
	same := make([]count, len(pairings))
	only := map[string][]string{}
	var asking, checking time.Duration
	for i := range pages {
		r := rand.New(rand.NewPCG(seed, uint64(i)))
		p := faulty(r)
		b := element.Builder{Site: s, Media: described, Icon: icons.Drawing, DropEmpty: true}
		c := testCase{name: fmt.Sprintf("page-%d", i), kind: "pages", zones: s.Zones, root: b.Page(p), site: s, page: p}
		start := time.Now()
		found := check.All(checkedPage(j, s, p))
		checking += time.Since(start)
		start = time.Now()
		line, err := j.request(map[string]any{"url": j.publish(c), "widths": forty, "axe": three})
		if err != nil {
			return err
		}
		asking += time.Since(start)
		var answer struct {
			Widths map[int][]box
			Scroll map[int]float64
			Axe    map[int]map[string][]string
			Error  string
		}
		if err := json.Unmarshal(line, &answer); err != nil {
			return fmt.Errorf("reading the browser's answer: %w", err)
		}
		if answer.Error != "" {
			return errors.New("in the browser: " + answer.Error)
		}
		tree := layout.New(j.lib, c.zones, c.root)
		meant := make([]map[string]bool, len(s.Zones)) // by zone: pairs that overlap where they were placed
		for z, zone := range s.Zones {
			meant[z] = blocksInto(tree, s.Zones[0].Typical, nil)
			for pair := range blocksInto(tree, zone.Typical, nil) {
				a, b, _ := strings.Cut(pair, " ")
				_, x := p.Block(a)
				_, y := p.Block(b)
				if _, byHand := x.Place[zone.ID]; byHand {
					meant[z][pair] = true
				} else if _, byHand := y.Place[zone.ID]; byHand {
					meant[z][pair] = true
				}
			}
		}
		for _, w := range forty {
			ours := slices.ContainsFunc(
				found,
				func(f check.Finding) bool { return f.ID == "beside-page" && f.Holds(w) },
			)
			add(&past, ours, answer.Scroll[w] > float64(w))
			pairs := map[string]bool{}
			for pair := range blocksInto(tree, w, answer.Widths[w]) {
				pairs[pair] = !meant[s.Zones.At(float64(w))][pair]
			}
			for _, f := range found {
				if f.ID == "overlapping" && f.Holds(w) {
					pair := pairName(f.Node, f.Other)
					add(&into, true, pairs[pair])
					delete(pairs, pair)
				}
			}
			for pair, wrong := range pairs {
				if wrong {
					add(&into, false, true)
					note(only, "overlap", fmt.Sprintf("%s at %d: %s, theirs alone", c.name, w, pair))
				}
			}
		}
		for k, pair := range pairings {
			for _, w := range three {
				ours := slices.ContainsFunc(found, func(f check.Finding) bool { return pair.ours(&f) && f.Holds(w) })
				var theirs []string
				for _, rule := range pair.axe {
					theirs = append(theirs, answer.Axe[w][rule]...)
				}
				add(&same[k], ours, len(theirs) > 0)
				if ours != (len(theirs) > 0) {
					said := "ours alone:"
					for i := range found {
						if f := &found[i]; pair.ours(f) && f.Holds(w) {
							said += " " + f.Title(func(id string) string { return id }) + ","
						}
					}
					if !ours {
						said = "axe alone: " + strings.Join(theirs, " | ")
					}
					note(only, pair.name, fmt.Sprintf("%s at %d: %s", c.name, w, said))
				}
			}
		}
	}
	fmt.Printf(
		"outside: %d pages; the checks took %v, the browser %v\n",
		pages,
		checking.Round(time.Millisecond),
		asking.Round(time.Millisecond),
	)
	row := func(name string, c count) {
		fmt.Printf(
			"outside: %-28s both %4d, ours alone %3d, theirs alone %3d, neither %5d\n",
			name,
			c.both,
			c.ours,
			c.theirs,
			c.neither,
		)
	}
	row("past the page, 40 widths", past)
	row("blocks run together, 40", into)
	for k, pair := range pairings {
		row(pair.name+", axe at 3", same[k])
	}
	for name, lines := range only {
		for _, l := range lines[:min(len(lines), 4)] {
			fmt.Println("outside:", name+":", l)
		}
	}
	return nil
}

func note(to map[string][]string, name, line string) { to[name] = append(to[name], line) }

func pairName(a, b string) string {
	if a > b {
		a, b = b, a
	}
	return a + " " + b
}

// blocksInto gives the pairs of blocks beside each other whose boxes have more than 2 px of each other
// at a width: core's boxes, or theirs where they are given, in core's order.
func blocksInto(t *layout.Tree, width int, theirs []box) map[string]bool {
	type standing struct{ b box }
	at := map[string]standing{}
	for i, n := range computed(t, width) {
		b := n.box
		if theirs != nil && i < len(theirs) {
			b = theirs[i]
		}
		if n.node.Block != "" {
			at[n.node.Block] = standing{b}
		}
	}
	out := map[string]bool{}
	for a, x := range at {
		for b, y := range at {
			if a >= b {
				continue
			}
			w := min(x.b.x+x.b.w, y.b.x+y.b.w) - max(x.b.x, y.b.x)
			h := min(x.b.y+x.b.h, y.b.y+y.b.h) - max(x.b.y, y.b.y)
			if w > 2 && h > 2 {
				out[pairName(a, b)] = true
			}
		}
	}
	return out
}

// checkedPage makes a page ready to be checked; its pictures are of one colour.
func checkedPage(j *judge, s *doc.Site, p *doc.Page) *check.Page {
	b := element.Builder{Site: s, Media: described, Icon: icons.Drawing, DropEmpty: true}
	b.On(p)
	page := &check.Page{Site: s, Doc: p, Others: []check.Other{{Address: "", Name: "Home", Title: "Home"}}}
	slate := &colour.Pixels{W: 1, H: 1, RGBA: []colour.Colour{{R: 0x77, G: 0x88, B: 0x99, A: 255}}}
	for _, sec := range p.Sections {
		root := b.Section(sec)
		tree := layout.New(j.lib, s.Zones, root)
		page.Parts = append(page.Parts, check.Part{
			Root: root, Tree: func() *layout.Tree { return tree }, Zones: s.Zones, Section: sec, Pixels: func(string) *colour.Pixels { return slate },
		})
	}
	return page
}

// described gives pictures with alternative words, but for those called bare.
func described(id string) (element.Medium, bool) {
	m, ok := medium(id)
	if id != "bare" {
		m.Alt = "Hills under a low sun"
	}
	return m, ok
}

// faulty makes a page in which some things may be wrong.
func faulty(r *rand.Rand) *doc.Page {
	n := 0
	id := func() string { n++; return fmt.Sprintf("b%d", n) }
	some := func(of int) bool { return r.IntN(of) == 0 }
	look := func(pairs ...string) doc.Style { return element.Look(pairs...) }
	say := func(k doc.Kind, said string, st doc.Style) *doc.Block {
		return &doc.Block{ID: id(), Kind: k, Style: st, Content: doc.Content{Words: doc.PlainWords(said), Level: 2}}
	}
	const long = "Boats leave from the north steps every day of the year, in any weather that a boat should be out in at all."
	title := say(doc.Heading, "Boats to the islands", nil)
	if title.Content.Level = 1; some(6) {
		title.Content.Level = 2
	}
	first := &doc.Section{ID: "s1", Name: "First", Arrangement: doc.LineUp, Blocks: []*doc.Block{title}}
	if some(2) {
		grey := 90 + r.IntN(120)
		first.Blocks = append(
			first.Blocks,
			say(doc.Text, long, look("color", fmt.Sprintf("#%02x%02x%02x", grey, grey, grey), "background", "#ffffff")),
		)
	}
	if some(3) {
		h := say(doc.Heading, "Small ones", nil)
		h.Content.Level = 2 + r.IntN(3)
		first.Blocks = append(first.Blocks, h)
	}
	if some(2) {
		pic := &doc.Block{
			ID:      id(),
			Kind:    doc.Picture,
			Content: doc.Content{Picture: []string{"picture", "bare"}[r.IntN(2)]},
			Style:   look("width", style.Pixels(float64(120+r.IntN(900))).String(), "max-width", "none"),
		}
		if some(2) {
			pic.Content.Link = "/"
		}
		first.Blocks = append(first.Blocks, pic)
	}
	if some(2) {
		form := &doc.Block{ID: id(), Kind: doc.Form}
		for range 1 + r.IntN(3) {
			label := "Name"
			if some(2) {
				label = ""
			}
			form.Content.Entries = append(
				form.Content.Entries,
				doc.Entry{Values: map[string]string{"type": "line", "label": label}},
			)
		}
		first.Blocks = append(first.Blocks, form)
	}
	if some(2) {
		for range 2 {
			b := say(
				doc.Button,
				"Go",
				look(
					"font-size",
					"9px",
					"padding-top",
					"0px",
					"padding-bottom",
					"0px",
					"padding-left",
					"0px",
					"padding-right",
					"0px",
				),
			)
			b.Content.Link = "/"
			first.Blocks = append(first.Blocks, b)
		}
		first.Style = look("row-gap", []string{"2px", "30px"}[r.IntN(2)])
	}
	second := &doc.Section{ID: "s2", Name: "Second"}
	beside := some(2)
	for i := range 2 + r.IntN(4) {
		k, st := doc.Text, look()
		if some(3) {
			st = look("min-width", style.Pixels(float64(200+r.IntN(700))).String(), "max-width", "none")
		}
		if some(3) {
			st["min-height"] = doc.Zoned[string]{"desktop": style.Pixels(float64(40 + r.IntN(300))).String()}
		}
		b := say(k, long[:20+r.IntN(80)], st)
		c := 1 + r.IntN(9)
		at := doc.Place{Column: c, Span: 2 + r.IntN(12-c), Row: 1 + 3*i, Rows: 2 + r.IntN(4)}
		if beside { // two by two, which run together where one of them needs more than its half
			at = doc.Place{Column: 1 + 6*(i%2), Span: 6, Row: 1 + i/2*3, Rows: 2}
		}
		b.Place = doc.Zoned[doc.Place]{"desktop": at}
		if some(4) {
			b.Place["phone"] = doc.Place{Column: 1, Span: 2 + r.IntN(3), Row: 1 + r.IntN(4), Rows: 1 + r.IntN(2)}
		}
		second.Blocks = append(second.Blocks, b)
	}
	return &doc.Page{ID: "p", Name: "Page", Title: "Page", Sections: []*doc.Section{first, second}}
}
