package edit

import (
	"slices"
	"strings"
	"unicode/utf8"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"

	"openplot/core/doc"
	"openplot/core/number"
	"openplot/core/settings"
	"openplot/core/value"
)

// ParseWords reads words from HTML as an editable element holds it: paragraphs,
// line breaks, headings of level 2 to 4, quotes, lists two deep, strong, em, u, s, small, sup,
// code, colours, sizes and letter spacing of single words, and links; everything else is taken for its text alone.
// White space is collapsed as CSS does. A link that can't be followed is a *doc.Problem.
func ParseWords(fragment string) (doc.Words, error) {
	if !utf8.ValidString(fragment) {
		return nil, doc.Problemf("Text", "isn't valid UTF-8; enter it again")
	}
	if utf8.RuneCountInString(fragment) > 4*doc.MaxWordsRunes {
		return nil, doc.Problemf("Text", "is too long; a block holds at most %d characters", doc.MaxWordsRunes)
	}
	context := &html.Node{Type: html.ElementNode, Data: "div", DataAtom: atom.Div}
	nodes, err := html.ParseFragment(strings.NewReader(fragment), context)
	if err != nil {
		return nil, doc.Problemf("Text", "can't be read: %v", err)
	}
	w := wordReader{}
	for _, n := range nodes {
		w.read(n, doc.Run{}, 0)
	}
	w.end()
	if w.err != nil {
		return nil, w.err
	}
	if n := utf8.RuneCountInString(w.words.Plain()); n > doc.MaxWordsRunes {
		return nil, doc.Problemf("Text", "has %d characters; a block holds at most %d", n, doc.MaxWordsRunes)
	}
	return w.words, nil
}

type wordReader struct {
	words doc.Words
	para  doc.Paragraph
	// begun is true inside a paragraph, even one without words.
	begun bool
	// item is the list that the paragraph is an item of, or "".
	item  string
	depth int    // of that list
	as    string // what else the paragraph is, as doc.Run has it
	lists int    // that are open
	quote bool   // within one
	err   error  // the first link that can't be followed
}

// maxWordsDepth is how deep elements are looked into; text below is left out.
const maxWordsDepth = 100

func (w *wordReader) read(n *html.Node, look doc.Run, depth int) {
	if depth > maxWordsDepth {
		return
	}
	switch n.Type {
	case html.TextNode:
		w.text(n.Data, look)
		return
	case html.ElementNode:
	default:
		return
	}
	block := false
	switch n.DataAtom {
	case atom.Br:
		look.Text = "\n"
		w.para = append(w.para, look)
		w.begun = true
		return
	case atom.Script, atom.Style, atom.Template, atom.Head, atom.Iframe, atom.Object, atom.Svg, atom.Math:
		return
	case atom.B, atom.Strong:
		look.Bold = true
	case atom.I, atom.Em:
		look.Italic = true
	case atom.U:
		look.Underline = true
	case atom.S, atom.Strike, atom.Del:
		look.Strike = true
	case atom.Small:
		look.Small = true
	case atom.Sup:
		look.Super = true
	case atom.Code:
		look.Code = true
	case atom.Ul, atom.Ol:
		w.lists++
		defer func() { w.lists-- }()
	case atom.Span, atom.Font:
		for _, a := range n.Attr {
			n, err := number.Whole(a.Val)
			switch {
			case a.Key == "data-colour":
				look.Colour = a.Val
			case a.Key == "lang":
				look.Language = a.Val
			case a.Key == "data-size" && err == nil:
				look.Size = n
			case a.Key == "data-tracking" && err == nil:
				look.Tracking = n
			}
		}
		look.Bound()
	case atom.A:
		link, inNewTab := "", false
		for _, a := range n.Attr {
			switch a.Key {
			case "href":
				link = a.Val
			case "target":
				inNewTab = a.Val == "_blank"
			}
		}
		link, err := settings.CheckLink(doc.JoinLink(strings.TrimSpace(link), inNewTab))
		if w.err == nil {
			w.err = err
		}
		if link != "" {
			look.Link = link
		}
	case atom.P,
		atom.Div,
		atom.Li,
		atom.H1,
		atom.H2,
		atom.H3,
		atom.H4,
		atom.H5,
		atom.H6,
		atom.Blockquote,
		atom.Section,
		atom.Tr:
		block = true
		if len(w.para) > 0 { // otherwise what is around it begins with it, as an item with its paragraph
			w.end()
		}
		w.begun = true
		switch n.DataAtom {
		case atom.H1, atom.H2:
			w.as = "h2"
		case atom.H3:
			w.as = "h3"
		case atom.H4, atom.H5, atom.H6:
			w.as = "h4"
		case atom.Blockquote:
			defer func(was bool) { w.quote = was }(w.quote)
			w.quote = true
		}
	}
	if n.DataAtom == atom.Li && n.Parent != nil {
		w.item, w.depth = value.Disc, min(max(w.lists-1, 0), doc.MostDepth)
		if n.Parent.DataAtom == atom.Ol {
			w.item = value.Decimal
		}
	}
	for c := n.FirstChild; c != nil; c = c.NextSibling {
		w.read(c, look, depth+1)
	}
	if block && w.begun {
		w.end()
	}
}

func (w *wordReader) text(s string, look doc.Run) {
	afterSpace := true
	if k := len(w.para) - 1; k >= 0 {
		afterSpace = strings.HasSuffix(w.para[k].Text, " ") || strings.HasSuffix(w.para[k].Text, "\n")
	}
	var b strings.Builder
	for _, r := range s {
		switch {
		case r == ' ' || r == '\n' || r == '\t' || r == '\r' || r == '\f':
			if !afterSpace {
				b.WriteByte(' ')
			}
			afterSpace = true
		case r < ' ' || r == 0x7f:
		default:
			b.WriteRune(r)
			afterSpace = false
		}
	}
	if b.Len() == 0 {
		return
	}
	look.Text = b.String()
	w.para = append(w.para, look)
	w.begun = true
}

// end closes the paragraph: neighbouring runs of one look are joined, space and a
// break at its edges go.
func (w *wordReader) end() {
	if !w.begun && len(w.para) == 0 {
		return
	}
	var p doc.Paragraph
	for _, r := range w.para {
		if k := len(p) - 1; k >= 0 && alike(p[k], r) {
			p[k].Text += r.Text
		} else {
			p = append(p, r)
		}
	}
	for i := range p {
		p[i].Text = strings.ReplaceAll(strings.ReplaceAll(p[i].Text, " \n", "\n"), "\n ", "\n")
	}
	if k := len(p) - 1; k >= 0 {
		p[k].Text = strings.TrimSuffix(strings.TrimSuffix(p[k].Text, " "), "\n")
	}
	p = slices.DeleteFunc(p, func(r doc.Run) bool { return r.Text == "" })
	if len(p) == 0 {
		p = nil
	}
	if len(p) > 0 {
		switch {
		case w.item != "":
			p[0].Item, p[0].Depth = w.item, w.depth
			if k := len(w.words) - 1; k < 0 || w.words[k].Item() == "" {
				p[0].Depth = 0 // there is no item that it could stand in
			}
		case w.as != "":
			p[0].As = w.as
		case w.quote:
			p[0].As = "quote"
		}
	}
	w.words = append(w.words, p)
	w.para, w.begun, w.item, w.depth, w.as = nil, false, "", 0, ""
}

// alike reports whether two runs have one look.
func alike(a, b doc.Run) bool {
	a.Text, b.Text = "", ""
	return a == b
}
