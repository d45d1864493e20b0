package site

import (
	"fmt"
	"slices"
	"strings"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"

	"openplot/store"
)

// said gives what visitors can read of a page of a site, without what every page has (bars,
// menus, footers), and the forms on it.
func said(page, slug string) (store.Said, error) {
	root, err := html.Parse(strings.NewReader(page))
	if err != nil {
		return store.Said{}, fmt.Errorf("reading a page: %w", err)
	}
	var out store.Said
	var words []string
	var walk func(n *html.Node, silent bool)
	walk = func(n *html.Node, silent bool) {
		if n.Type == html.ElementNode {
			if action, ok := attribute(n, "action"); ok && n.DataAtom == atom.Form {
				if form, ours := strings.CutPrefix(action, "/_forms/"+slug+"/"); ours {
					out.Forms = append(out.Forms, store.PublishedForm{Block: form, Fields: fieldsOf(n)})
				}
			}
			silent = silent || slices.Contains(unread, n.DataAtom)
			if alt, ok := attribute(n, "alt"); ok && !silent && alt != "" {
				words = append(words, alt)
			}
		}
		if n.Type == html.TextNode && !silent {
			words = append(words, strings.Fields(n.Data)...)
		}
		for c := n.FirstChild; c != nil; c = c.NextSibling {
			walk(c, silent)
		}
	}
	walk(root, false)
	out.Words = strings.Join(words, " ")
	return out, nil
}

// fieldsOf gives the names of a form's fields in their order, each once.
func fieldsOf(form *html.Node) (names []string) {
	for n := range form.Descendants() {
		if n.DataAtom == atom.Input || n.DataAtom == atom.Select || n.DataAtom == atom.Textarea ||
			n.DataAtom == atom.Button {
			if name, ok := attribute(n, "name"); ok && name != "" && !slices.Contains(names, name) {
				names = append(names, name)
			}
		}
	}
	return names
}

// unread are the elements whose words aren't a page's own.
var unread = []atom.Atom{
	atom.Head,
	atom.Header,
	atom.Footer,
	atom.Nav,
	atom.Script,
	atom.Style,
	atom.Template,
	atom.Svg,
	atom.Select,
	atom.Textarea,
	atom.Button,
}

func attribute(n *html.Node, name string) (string, bool) {
	for _, a := range n.Attr {
		if a.Key == name {
			return a.Val, true
		}
	}
	return "", false
}
