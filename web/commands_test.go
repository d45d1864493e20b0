package web

import (
	"slices"
	"strings"

	"golang.org/x/net/html"
)

// commands gives what of a page's text a browser would take for a command that says zq, or "".
func commands(text string) string {
	root, err := html.Parse(strings.NewReader(text))
	if err != nil {
		return err.Error()
	}
	for n := range root.Descendants() {
		switch n.Type {
		case html.ElementNode:
			for _, a := range n.Attr {
				value := strings.ToLower(strings.TrimSpace(a.Val))
				if strings.HasPrefix(a.Key, "on") || a.Key == "srcdoc" {
					return "<" + n.Data + " " + a.Key + "=" + a.Val + ">"
				}
				if (a.Key == "href" || a.Key == "src" || a.Key == "action" || a.Key == "formaction" || a.Key == "data" || a.Key == "xlink:href") &&
					strings.HasPrefix(value, "javascript:") {
					return "<" + n.Data + " " + a.Key + "=" + a.Val + ">"
				}
				if strings.HasPrefix(a.Key, "x-") && strings.Contains(value, "zq") { // which Alpine evaluates
					return "<" + n.Data + " " + a.Key + "=" + a.Val + ">"
				}
			}
			if n.Data == "iframe" && n.Parent != nil && strings.Contains(text, "zq()") {
				for _, a := range n.Attr {
					if strings.Contains(a.Val, "zq") {
						return "a frame: " + a.Val
					}
				}
			}
		case html.TextNode:
			if n.Parent != nil && n.Parent.Data == "script" && strings.Contains(n.Data, "zq") {
				if !slices.Contains(
					n.Parent.Attr,
					html.Attribute{Key: "type", Val: "application/json"},
				) { // data, in which nothing ends the element
					return "a script: " + n.Data
				}
			}
			if n.Parent != nil && n.Parent.Data == "style" && strings.Contains(n.Data, "zq") {
				return "a style sheet: " + n.Data
			}
		}
	}
	return ""
}
