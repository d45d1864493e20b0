package site

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"

	"openplot/store"
)

// Read gives what visitors can read of a page of a site, without what every page has (bars,
// menus, footers), and the forms on it.
func Read(page, slug string) (store.Said, error) {
	root, err := html.Parse(strings.NewReader(page))
	if err != nil {
		return store.Said{}, fmt.Errorf("reading a page: %w", err)
	}
	var said store.Said
	var words []string
	var walk func(n *html.Node, silent bool)
	walk = func(n *html.Node, silent bool) {
		if n.Type == html.ElementNode {
			if action, ok := attribute(n, "action"); ok && n.DataAtom == atom.Form {
				if form, ours := strings.CutPrefix(action, "/_forms/"+slug+"/"); ours {
					said.Forms = append(said.Forms, form)
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
	said.Words = strings.Join(words, " ")
	return said, nil
}

// unread are the elements whose words aren't a page's own.
var unread = []atom.Atom{atom.Head, atom.Header, atom.Footer, atom.Nav, atom.Script, atom.Style, atom.Template, atom.Svg, atom.Select, atom.Textarea, atom.Button}

func attribute(n *html.Node, name string) (string, bool) {
	for _, a := range n.Attr {
		if a.Key == name {
			return a.Val, true
		}
	}
	return "", false
}

// Recall keeps what the pages say that were published before that was kept.
func (p *Publisher) Recall(ctx context.Context, st *store.Store) error {
	pages, err := st.Unread(ctx)
	if err != nil {
		return err
	}
	for _, page := range pages {
		b, err := os.ReadFile(filepath.Join(p.Dir, page.Site, page.Slug, "index.html"))
		if errors.Is(err, fs.ErrNotExist) {
			continue // nobody can read it
		}
		if err != nil {
			return fmt.Errorf("reading what was published: %w", err)
		}
		said, err := Read(string(b), page.Site)
		if err != nil {
			return err
		}
		if err := st.KeepSaid(ctx, page.ID, said); err != nil {
			return err
		}
	}
	return nil
}
