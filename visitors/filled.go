package visitors

import (
	"bytes"
	"cmp"
	"html/template"
	"io/fs"
	"net/http"
	"net/mail"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"

	"openplot/core/number"
	"openplot/site"
)

// control is a field of a published form, as its page has it: one element, or those of a name to choose from.
type control struct {
	name     string
	kind     string // an input's type, or textarea or select
	label    string
	nodes    []*html.Node
	required bool
}

// formOn finds a form on a published page, by where it sends to.
func formOn(page *html.Node, action string) *html.Node {
	for n := range page.Descendants() {
		if n.DataAtom == atom.Form && attribute(n, "action") == action {
			return n
		}
	}
	return nil
}

// controls lists the fields of a form that people see.
func controls(form *html.Node) (all []*control) {
	labels := map[string]string{}
	for n := range form.Descendants() {
		if n.DataAtom == atom.Label {
			labels[attribute(n, "for")] = said(n)
		}
	}
	for n := range form.Descendants() {
		if n.DataAtom != atom.Input && n.DataAtom != atom.Textarea && n.DataAtom != atom.Select || has(n, "hidden") ||
			attribute(n, "name") == "" {
			continue
		}
		c := &control{name: attribute(n, "name"), kind: n.Data, nodes: []*html.Node{n}, required: has(n, "required")}
		if n.DataAtom == atom.Input {
			c.kind = cmp.Or(attribute(n, "type"), "text")
		}
		if i := slices.IndexFunc(all, func(o *control) bool { return o.name == c.name && o.kind == c.kind }); i >= 0 &&
			c.ticks() {
			all[i].nodes, all[i].required = append(all[i].nodes, n), all[i].required || c.required
			continue
		}
		all = append(all, c)
	}
	for _, c := range all {
		c.label = c.name
		switch id := attribute(c.nodes[0], "id"); {
		case c.ticks() && len(c.nodes) == 1:
			c.label = said(c.nodes[0].Parent)
		case !c.ticks() && id != "":
			c.label = cmp.Or(labels[id], c.name)
		}
	}
	return all
}

// ticks reports whether one ticks what there is.
func (c *control) ticks() bool { return c.kind == "radio" || c.kind == "checkbox" }

// offers lists what can be chosen; nil where anything can be written.
func (c *control) offers() (values []string) {
	for _, n := range c.nodes {
		switch {
		case c.ticks():
			values = append(values, attribute(n, "value"))
		case c.kind == "select":
			for o := range n.Descendants() {
				if o.DataAtom == atom.Option {
					value := attribute(o, "value")
					if !has(o, "value") {
						value = said(o)
					}
					values = append(values, value)
				}
			}
		}
	}
	return values
}

// wrong says what is wrong with what was entered in a field, or "": what browsers that know its
// constraints would say (HTML §4.10.21), for those that don't and for programs.
func (c *control) wrong(entered []string) string {
	values := slices.DeleteFunc(slices.Clone(entered), func(v string) bool { return strings.TrimSpace(v) == "" })
	if len(values) == 0 {
		switch {
		case !c.required:
			return ""
		case c.ticks() && len(c.nodes) == 1:
			return "Tick this to send the form."
		case c.ticks() || c.kind == "select":
			return "Choose one."
		}
		return "Fill this in."
	}
	offers := c.offers()
	for _, v := range values {
		if offers != nil && !slices.Contains(offers, v) {
			return "Choose one of those that are there."
		}
		v = strings.TrimSpace(v)
		switch c.kind {
		case "email":
			if a, err := mail.ParseAddress(v); err != nil || a.Address != v {
				return "Write an address such as somebody@example.org."
			}
		case "number":
			if _, err := number.Real(v); err != nil {
				return "Write a number."
			}
		case "date":
			if _, err := time.Parse(time.DateOnly, v); err != nil {
				return "Write a date as year, month and day: 2026-12-31."
			}
		case "time":
			if _, err := time.Parse("15:04", v); err != nil {
				return "Write a time such as 09:30."
			}
		}
	}
	return ""
}

// fill has a field hold what was entered.
func (c *control) fill(entered []string) {
	for i, n := range c.nodes {
		switch {
		case c.ticks():
			set(n, "checked", slices.Contains(entered, attribute(n, "value")))
		case c.kind == "select":
			for o := range n.Descendants() {
				if o.DataAtom == atom.Option {
					set(
						o,
						"selected",
						slices.Contains(entered, cmp.Or(attribute(o, "value"), said(o))) && len(entered) > 0 &&
							entered[0] != "",
					)
				}
			}
		case i >= len(entered):
		case c.kind == "textarea":
			for n.FirstChild != nil {
				n.RemoveChild(n.FirstChild)
			}
			n.AppendChild(&html.Node{Type: html.TextNode, Data: entered[i]})
		default:
			put(n, "value", entered[i])
		}
	}
}

// asksAgain answers with the page that a form was sent from, with what was entered in it and what is wrong beside
// each field; false where nothing is, or the page can't be found.
func asksAgain(c *gin.Context, s *Server, form, sent string) bool {
	at := standingOf(c)
	if at == nil {
		return false
	}
	entered, err := url.ParseQuery(sent)
	if err != nil {
		return false
	}
	f, err := s.folder(at)
	if err != nil {
		return false
	}
	defer f.root.Close()
	name, e := formPage(c, s, f, at.Site, form)
	if e == nil {
		return false
	}
	text, err := fs.ReadFile(f.root.FS(), e.Content())
	if err != nil {
		return false
	}
	page, err := html.Parse(bytes.NewReader(text))
	if err != nil {
		return false
	}
	here := c.Request.URL.Path
	if asked := formOn(page, here); asked == nil || !pointOut(asked, entered) {
		return false
	}
	stand(page, strings.TrimSuffix("/"+name, "/")+"/", here)
	var out bytes.Buffer
	if err := html.Render(&out, page); err != nil {
		return false
	}
	h := c.Writer.Header()
	f.policy(h, e)
	h.Set(
		"Content-Security-Policy",
		strings.Replace(h.Get("Content-Security-Policy"), "base-uri 'none'", "base-uri 'self'", 1),
	)
	h.Set("Cache-Control", "no-store")
	h.Set("X-Robots-Tag", "noindex")
	c.Data(http.StatusUnprocessableEntity, e.Type, out.Bytes())
	return true
}

// formPage finds the page that a form was sent from, or else one that has it, with its address; nil where visitors
// may not see one.
func formPage(c *gin.Context, s *Server, f *folder, of, form string) (name string, e *site.Entry) {
	open := func(e *site.Entry) bool { return f.lock(e) == "" || opens(c.Request, e.Page, f.lock(e)) }
	if from := back(c); from != "" {
		name = strings.Trim(from, "/")
		if e = f.release.Pages[name]; e != nil && open(e) {
			return name, e
		}
	}
	pages, err := s.Store.Visible.FormPages(c, of)
	if err != nil {
		return "", nil
	}
	for name, e := range f.release.Pages {
		if e.Page == pages[form] && open(e) {
			return name, e
		}
	}
	return "", nil
}

// problemsAt is the id of what leads to the fields that need another look.
const problemsAt = "form-problems"

// problems lead to the fields that need another look.
var problems = template.Must(
	template.New("problems").Parse(`<div class="form-problems" id="` + problemsAt + `" role="alert" tabindex="-1">` +
		`<p>{{if eq (len .) 1}}One field needs{{else}}{{len .}} fields need{{end}} another look. Nothing was sent yet, and what you wrote is still there.</p>` +
		`<ul>{{range .}}<li><a href="#{{.ID}}">{{.Label}}</a>: {{.Words}}</li>{{end}}</ul></div>`),
)

type problem struct{ ID, Label, Words string }

// pointOut fills a form with what was entered, and says beside each field what is wrong; false where nothing is.
func pointOut(form *html.Node, entered url.Values) bool {
	var all []problem
	for i, c := range controls(form) {
		values := entered[c.name]
		c.fill(values)
		words := c.wrong(values)
		if words == "" {
			continue
		}
		first := c.nodes[0]
		if attribute(first, "id") == "" {
			put(first, "id", "form-field-"+string(rune('a'+i%26)))
		}
		id := attribute(first, "id")
		all = append(all, problem{id, strings.TrimSuffix(strings.TrimSuffix(c.label, " (required)"), "."), words})
		for _, n := range c.nodes {
			put(n, "aria-invalid", "true")
			put(n, "aria-describedby", strings.TrimSpace(attribute(n, "aria-describedby")+" "+id+"-problem"))
		}
		p := newElement("p", "class", "form-problem", "id", id+"-problem")
		p.AppendChild(&html.Node{Type: html.TextNode, Data: words})
		after := first
		if c.ticks() { // below the label of the last
			after = c.nodes[len(c.nodes)-1].Parent
		}
		after.Parent.InsertBefore(p, after.NextSibling)
	}
	if len(all) == 0 {
		return false
	}
	var b bytes.Buffer
	if err := problems.Execute(&b, all); err != nil {
		return false
	}
	nodes, err := html.ParseFragment(&b, &html.Node{Type: html.ElementNode, Data: "form", DataAtom: atom.Form})
	if err != nil {
		return false
	}
	for _, n := range slices.Backward(nodes) {
		form.InsertBefore(n, form.FirstChild)
	}
	return true
}

// stand has a page stand at another address than its own: what it loads and leads to is found from where it is,
// places on it are on it here, and its title says first that something is wrong.
func stand(page *html.Node, at, here string) {
	for n := range page.Descendants() {
		switch n.DataAtom {
		case atom.Head:
			base := newElement("base", "href", at)
			n.InsertBefore(base, n.FirstChild)
			n.AppendChild(newElement("link", "rel", "stylesheet", "href", saidPath))
		case atom.Title:
			if n.FirstChild != nil && n.Parent.DataAtom == atom.Head {
				n.FirstChild.Data = "Another look: " + n.FirstChild.Data
			}
		case atom.A:
			if to := attribute(n, "href"); strings.HasPrefix(to, "#") {
				put(n, "href", here+to)
			}
		}
	}
}

func newElement(name string, attributes ...string) *html.Node {
	n := &html.Node{Type: html.ElementNode, Data: name, DataAtom: atom.Lookup([]byte(name))}
	for i := 0; i+1 < len(attributes); i += 2 {
		put(n, attributes[i], attributes[i+1])
	}
	return n
}

func has(n *html.Node, name string) bool {
	return slices.ContainsFunc(n.Attr, func(a html.Attribute) bool { return a.Key == name })
}

func attribute(n *html.Node, name string) string {
	for _, a := range n.Attr {
		if a.Key == name {
			return a.Val
		}
	}
	return ""
}

func put(n *html.Node, name, value string) {
	n.Attr = slices.DeleteFunc(n.Attr, func(a html.Attribute) bool { return a.Key == name })
	n.Attr = append(n.Attr, html.Attribute{Key: name, Val: value})
}

// set has an attribute that is there or not be so.
func set(n *html.Node, name string, there bool) {
	n.Attr = slices.DeleteFunc(n.Attr, func(a html.Attribute) bool { return a.Key == name })
	if there {
		n.Attr = append(n.Attr, html.Attribute{Key: name})
	}
}

// said is the text in an element, on one line.
func said(n *html.Node) string {
	var b strings.Builder
	for d := range n.Descendants() {
		if d.Type == html.TextNode {
			b.WriteString(d.Data)
		}
	}
	return strings.Join(strings.Fields(b.String()), " ")
}
