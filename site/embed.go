package site

import (
	"crypto/sha256"
	"encoding/hex"
	"net/url"
	"slices"
	"strings"

	"openplot/core/element"
)

// EmbedPrefix begins the names of files that hold own HTML. They are served so that
// they can't reach anything of the site.
const EmbedPrefix = "own-"

// embedFile names a file of own HTML after what is in it.
func embedFile(markup string) string {
	sum := sha256.Sum256([]byte(markup))
	return EmbedPrefix + hex.EncodeToString(sum[:6]) + ".html"
}

// EmbedDocument is the page that own HTML is in.
func EmbedDocument(markup string) string {
	return "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>Embedded content</title></head><body>\n" + markup + "\n</body></html>\n"
}

// Frames gives the origins of what the frames of a page show: own HTML, and players that take the
// place of their links when those are pressed. It is never nil.
func Frames(body *element.Node) []string {
	origins := []string{}
	add := func(address string) {
		u, err := url.Parse(address)
		if err != nil || u.Host == "" || u.Scheme != "https" && u.Scheme != "http" {
			return
		}
		if o := u.Scheme + "://" + strings.ToLower(u.Host); !slices.Contains(origins, o) &&
			!strings.ContainsAny(o, " ;,'\"") {
			origins = append(origins, o)
		}
	}
	body.Walk(func(n *element.Node) {
		attr := func(name string) string {
			for _, a := range n.Attrs {
				if a.Name == name {
					return a.Value
				}
			}
			return ""
		}
		switch {
		case n.Tag == "iframe":
			add(attr("src"))
		case n.Tag == "a" && attr("type") == "text/html":
			add(attr("href"))
		}
	})
	slices.Sort(origins)
	return origins
}
