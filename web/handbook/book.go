package handbook

import (
	"bytes"
	"fmt"
	"html/template"
	"path"
	"slices"
	"strings"
	"sync"
	"unicode"

	"github.com/yuin/goldmark"
	"github.com/yuin/goldmark/ast"
	"github.com/yuin/goldmark/parser"
	"github.com/yuin/goldmark/text"

	"openplot/docs"
)

// order is the chapters by their files, as they are read one after the other.
var order = []string{
	"first-page", "bench", "sections", "placing", "widths", "words",
	"pictures", "house-style", "checks", "pages-menus", "series", "inbox", "visits", "publishing",
}

// Chapter is one chapter, ready to show.
type Chapter struct {
	ID, Title string
	Body      template.HTML
	Parts     []Part
}

// Part is what stands below one heading of a chapter, the chapter's own first.
type Part struct {
	// Address is where it is, Title its heading, and In the chapter's if that is another.
	Address string `json:"address"`
	Title   string `json:"title"`
	In      string `json:"in,omitempty"`
	// Text is its words without their marks.
	Text string `json:"text"`
}

// base is where the handbook is.
const base = "/handbook"

// chapters gives all of them, read once.
var chapters = sync.OnceValues(func() ([]Chapter, error) {
	var all []Chapter
	for _, id := range order {
		source, err := docs.Files.ReadFile("handbook/" + id + ".md")
		if err != nil {
			return nil, fmt.Errorf("reading the handbook: %w", err)
		}
		c, err := read(id, source)
		if err != nil {
			return nil, fmt.Errorf("reading chapter %s: %w", id, err)
		}
		all = append(all, c)
	}
	return all, nil
})

// read makes a chapter of its Markdown: its links lead to chapters and pictures as they are served.
func read(id string, source []byte) (Chapter, error) {
	md := goldmark.New(goldmark.WithParserOptions(parser.WithAutoHeadingID()))
	root := md.Parser().Parse(text.NewReader(source))
	c := Chapter{ID: id}
	err := ast.Walk(root, func(n ast.Node, entering bool) (ast.WalkStatus, error) {
		if !entering {
			return ast.WalkContinue, nil
		}
		switch n := n.(type) {
		case *ast.Link:
			if file, anchor, _ := strings.Cut(string(n.Destination), "#"); strings.HasSuffix(file, ".md") {
				n.Destination = []byte(address(strings.TrimSuffix(file, ".md"), anchor))
			}
		case *ast.Image:
			n.Destination = []byte(base + "/pictures/" + path.Base(string(n.Destination)))
			n.SetAttributeString("loading", []byte("lazy"))
		case *ast.Heading:
			part := Part{Title: words(n, source), In: c.Title}
			if n.Level == 1 {
				c.Title, part.Address = part.Title, address(id, "")
			} else if anchor, ok := n.AttributeString("id"); ok {
				part.Address = address(id, string(anchor.([]byte)))
			}
			c.Parts = append(c.Parts, part)
			return ast.WalkSkipChildren, nil
		case *ast.Text:
			if len(c.Parts) > 0 {
				p := &c.Parts[len(c.Parts)-1]
				p.Text = strings.TrimSpace(p.Text + " " + string(n.Segment.Value(source)))
			}
		}
		return ast.WalkContinue, nil
	})
	if err != nil {
		return c, err
	}
	var b bytes.Buffer
	if err := md.Renderer().Render(&b, source, root); err != nil {
		return c, err
	}
	c.Body = template.HTML(b.String())
	return c, nil
}

// words are the words in a node.
func words(n ast.Node, source []byte) string {
	var b strings.Builder
	for child := n.FirstChild(); child != nil; child = child.NextSibling() {
		if t, ok := child.(*ast.Text); ok {
			b.Write(t.Segment.Value(source))
		} else {
			b.WriteString(words(child, source))
		}
	}
	return b.String()
}

// address is where a chapter is, or a heading in it.
func address(id, anchor string) string {
	if anchor != "" {
		anchor = "#" + anchor
	}
	return base + "/" + id + anchor
}

// find gives the parts with words that begin as what is looked for does, those with them in the heading first.
func find(all []Chapter, sought string) []Part {
	fields := strings.Fields(strings.ToLower(sought))
	if len(fields) == 0 {
		return nil
	}
	has := func(in string) bool {
		own := strings.FieldsFunc(
			strings.ToLower(in),
			func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) },
		)
		for _, w := range fields {
			if !slices.ContainsFunc(own, func(o string) bool { return strings.HasPrefix(o, w) }) {
				return false
			}
		}
		return true
	}
	var inTitle, inText []Part
	for _, c := range all {
		for _, p := range c.Parts {
			switch {
			case has(p.Title):
				inTitle = append(inTitle, p)
			case has(p.Title + " " + p.Text):
				inText = append(inText, p)
			}
		}
	}
	return append(inTitle, inText...)
}
