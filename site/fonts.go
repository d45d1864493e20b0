package site

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
	"openplot/durable"
	"openplot/fonts"
	"openplot/store"
)

// OwnFontFace gives the rule for a font file of a site's own at an address.
func OwnFontFace(f *store.Font, address string) emit.FontFace {
	return emit.FontFace{
		Family: f.Family, URL: address, Italic: f.Italic, Weights: weights([2]int{f.Least, f.Most}),
	}
}

// FontFace gives the rule for a shipped font file.
func FontFace(f fonts.Face, prefix string) emit.FontFace {
	return emit.FontFace{
		Family: f.Family, URL: prefix + f.File, Italic: f.Italic, Weights: weights(f.Weights), Range: f.Range(),
	}
}

// weights gives a range of weights as CSS has it.
func weights(w [2]int) string {
	if w[0] == w[1] {
		return strconv.Itoa(w[0])
	}
	return strconv.Itoa(w[0]) + " " + strconv.Itoa(w[1])
}

// Needed gives the site's own font files that words need which are set in families and
// styles as used tells. Where a family has no italic, its upright files stand in.
func (src Source) Needed(used func(family string, italic bool) bool) (out []*store.Font) {
	italics := map[string]bool{}
	for _, f := range src.Fonts {
		italics[f.Family] = italics[f.Family] || f.Italic
	}
	for _, f := range src.Fonts {
		if used(f.Family, f.Italic) || !italics[f.Family] && used(f.Family, true) {
			out = append(out, f)
		}
	}
	return out
}

// words are all that can be read on a page, what the site says everywhere included.
func (src Source) words(p *doc.Page) string {
	var b strings.Builder
	f := src.Site.Facts
	for _, s := range []string{p.Plain(), src.Site.Name, f.Address, f.InWords(), f.Phone, f.Mail} {
		b.WriteString(s)
	}
	for _, i := range src.Pages {
		if i.Lock == "" || i.ID == p.ID {
			b.WriteString(i.Name + i.Description)
		}
	}
	return b.String()
}

// bold is the weight of strong words, which any paragraph may have.
const bold = 700

// fontNeeds is what a page needs of the fonts that its words are set in: all of the site's words
// and the house style's weights with it, so that most pages need the very same files.
type fontNeeds struct {
	own     string // letters of the page itself, beside fonts.Usual
	letters string // and those of the others that are published
	weights map[fontStyle][2]int
	typed   bool // visitors type words of their own
}

// fontStyle is a family, upright or italic.
type fontStyle struct {
	family string
	italic bool
}

func (src Source) fontNeeds(p *doc.Page, body *element.Node) fontNeeds {
	n := fontNeeds{weights: map[fontStyle][2]int{}}
	take := func(of fontStyle, weight int) {
		w, ok := n.weights[of]
		if !ok {
			w = [2]int{weight, weight}
		}
		n.weights[of] = [2]int{min(w[0], weight), max(w[1], weight)}
	}
	var said strings.Builder
	said.WriteString(src.words(p))
	body.Walk(func(e *element.Node) {
		switch e.Tag {
		case "input", "textarea":
			n.typed = true
		case "":
			said.WriteString(e.Text)
			for z := range e.Styles {
				st := &e.Styles[z]
				take(fontStyle{st.FontFamily, st.FontItalic}, st.FontWeight)
			}
		}
	})
	n.own = fonts.Letters(said.String())
	n.letters = fonts.Letters(n.own + src.Letters)
	house := &src.Site.House
	family := map[string]string{"heading": house.Fonts.Heading, "body": house.Fonts.Body, "mono": house.Fonts.Mono}
	for of := range n.weights {
		for _, t := range house.Text {
			if family[t.Family] == of.family {
				take(of, t.Weight)
			}
		}
		if of.family == house.Fonts.Body {
			take(of, bold)
		}
	}
	return n
}

// of is what is wanted of a face that holds characters as in tells.
func (n fontNeeds) of(family string, italic bool, in func(r rune) bool) fonts.Want {
	w := fonts.Want{Weights: n.weights[fontStyle{family, italic}]}
	if other, ok := n.weights[fontStyle{family, !italic}]; w.Weights[1] == 0 && ok { // it stands in
		w.Weights = other
	}
	var letters strings.Builder
	for _, r := range n.letters {
		if in(r) {
			letters.WriteRune(r)
		}
	}
	w.Letters = letters.String()
	return w
}

// cutter cuts fonts for published pages into a folder.
type cutter struct {
	ctx           context.Context
	dir, mediaDir string
	err           error
}

// keep gives a file's size, made unless it is there.
func (c *cutter) keep(name string, cut func() ([]byte, error)) int64 {
	to := filepath.Join(c.dir, name)
	if i, err := os.Stat(to); err == nil {
		c.fail(durable.Touch(to))
		return i.Size()
	} else if !errors.Is(err, fs.ErrNotExist) {
		c.fail(err)
		return 0
	}
	b, err := cut()
	if err == nil {
		err = durable.Write(to, b)
	}
	c.fail(err)
	return int64(len(b))
}

func (c *cutter) fail(err error) {
	if err != nil && c.err == nil {
		c.err = fmt.Errorf("publishing a font: %w", err)
	}
}

// shipped gives the name and size in bytes of a shipped font as it is wanted.
func (c *cutter) shipped(f fonts.Face, w fonts.Want) (name string, size int64) {
	name = f.CutName(w)
	return name, c.keep(name, func() ([]byte, error) { return f.Cut(c.ctx, w) })
}

// own is the same of a font of the site's own. One that can't be cut is published whole.
func (c *cutter) own(f *store.Font, w fonts.Want) (name string, size int64) {
	if f.Least == f.Most {
		w.Weights = [2]int{}
	}
	name = "own-" + w.Key([]byte(f.Original)) + ".woff2"
	return name, c.keep(name, func() ([]byte, error) {
		whole, err := os.ReadFile(filepath.Join(c.mediaDir, f.Original))
		if err != nil {
			return nil, err
		}
		part, err := fonts.Cut(c.ctx, whole, w)
		if err == nil || c.ctx.Err() != nil { // stopped is not that it can't be
			return part, err
		}
		return fonts.Pack(whole, fonts.Small)
	})
}

// letters gives what the words that a site publishes need of fonts, once an order is carried out.
// Pages with a password don't count: nothing of them is told on others, not even their letters.
func (p *Publisher) letters(src Source, o Order) (string, error) {
	var said strings.Builder
	locked := src.locked()
	r, err := ReadRelease(os.DirFS(p.folder(src.Site.ID)))
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return "", err
	}
	if err == nil {
		for _, e := range r.Pages {
			if !locked[e.Page] {
				said.WriteString(e.Letters)
			}
		}
	}
	for _, page := range o.Pages {
		if !locked[page.ID] {
			said.WriteString(src.words(page.Doc))
		}
	}
	return fonts.Letters(said.String()), nil
}

// mostPreloaded is how much of fonts in bytes browsers are told of before they need them: more
// comes in the way of the page itself.
const mostPreloaded = 15_000

// faces gives the rules of the fonts that a page's words are set in, and notes in it what they
// need. What its first words are set in is wanted before the style sheet is read.
func (src Source) faces(p *doc.Page, r *Rendered, a Addresses) (out []emit.FontFace) {
	used := emit.Used(r.Body)
	needs := src.fontNeeds(p, r.Body)
	r.Letters = needs.own
	first := emit.Used(firstWords(r.Body))
	var preloaded int64
	early := func(face *emit.FontFace, address string, size int64) {
		if preloaded+size <= mostPreloaded && first(face.Family, face.Italic) {
			preloaded += size
			face.Preload = address
		}
	}
	for _, f := range fonts.Needed(used) {
		face := FontFace(f, a.StyleFonts)
		if a.Cut == nil {
			out = append(out, face)
			continue
		}
		want := needs.of(f.Family, f.Italic, f.Holds)
		if f.Extended && want.Letters == "" {
			continue
		}
		name, size := a.Cut.shipped(f, want)
		face.URL, face.Range = a.StyleFonts+name, fonts.Ranges(want.Holds(f.Extended))
		if kept := want.Within(f.Weights); kept[1] > 0 {
			face.Weights = weights(kept)
		}
		early(&face, a.Fonts+name, size)
		out = append(out, face)
		// What visitors may type beside is in a file that is loaded when they do.
		if rest := want.Rest(); needs.typed && !f.Extended && f.Family == src.Site.House.Fonts.Body {
			name, _ := a.Cut.shipped(f, rest)
			face.URL, face.Range, face.Preload = a.StyleFonts+name, fonts.Ranges(rest.Letters), ""
			out = append(out, face)
		}
	}
	for _, f := range src.Needed(used) {
		if a.Cut == nil {
			out = append(out, OwnFontFace(f, a.StyleFonts+a.OwnFont(f)))
			continue
		}
		want := needs.of(f.Family, f.Italic, func(rune) bool { return true })
		if needs.typed {
			want.Letters = fonts.Letters(want.Letters + fonts.Western)
		}
		name, size := a.Cut.own(f, want)
		face := OwnFontFace(f, a.StyleFonts+name)
		if kept := want.Within([2]int{f.Least, f.Most}); kept[1] > 0 {
			face.Weights = weights(kept)
		}
		early(&face, a.Fonts+name, size)
		out = append(out, face)
	}
	return out
}

// firstWords gives the part of a page that is seen first: its first section, and what stands
// above it.
func firstWords(body *element.Node) *element.Node {
	top := *body
	top.Children = nil
	var walk func(n *element.Node) bool
	walk = func(n *element.Node) bool {
		for _, c := range n.Children {
			if c.Section == "" && c.Tag != "" {
				if walk(c) {
					return true
				}
				continue
			}
			if top.Children = append(top.Children, c); c.Tag == "section" {
				return true
			}
		}
		return false
	}
	walk(body)
	return &top
}
