package visitors

import (
	"bytes"
	"cmp"
	"html/template"
	"io/fs"
	"net/http"
	"net/mail"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf16"

	"github.com/gin-gonic/gin"
	"golang.org/x/net/html"
	"golang.org/x/net/html/atom"

	"openplot/core/number"
	"openplot/core/phrase"
	"openplot/site"
	"openplot/store"
)

// control is a field of a published form, as its page has it: one element, or those of a name to choose from.
type control struct {
	name     string
	kind     string // an input's type, or textarea or select
	label    string
	nodes    []*html.Node
	required bool
	// when is the field that it depends on, and is the value that this has to have, or "" for any; when is ""
	// where it is always wanted.
	when, is string
}

// wanted reports whether the field is to be filled in, others being as they were entered.
func (c *control) wanted(entered url.Values) bool {
	return c.when == "" ||
		slices.ContainsFunc(entered[c.when], func(v string) bool { return v != "" && (c.is == "" || v == c.is) })
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
		c := &control{
			name:     attribute(n, "name"),
			kind:     n.Data,
			nodes:    []*html.Node{n},
			required: has(n, "required") || has(n, "data-required"),
		}
		for row := n.Parent; row != nil && row != form; row = row.Parent {
			if has(row, "data-when") {
				c.when, c.is = attribute(row, "data-when"), attribute(row, "data-is")
			}
		}
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
func (c *control) wrong(entered []string, says *phrase.Book) string {
	values := slices.DeleteFunc(slices.Clone(entered), func(v string) bool { return strings.TrimSpace(v) == "" })
	if len(values) == 0 {
		switch {
		case !c.required:
			return ""
		case c.ticks() && len(c.nodes) == 1:
			return says.Say(phrase.Tick)
		case c.ticks() || c.kind == "select":
			return says.Say(phrase.ChooseOne)
		}
		return says.Say(phrase.FillIn)
	}
	offers := c.offers()
	for _, v := range values {
		if offers != nil && !slices.Contains(offers, v) {
			return says.Say(phrase.ChooseThere)
		}
		v = strings.TrimSpace(v)
		switch c.kind {
		case "email":
			if a, err := mail.ParseAddress(v); err != nil || a.Address != v {
				return says.Say(phrase.Email)
			}
		case "number":
			if _, err := number.Real(v); err != nil {
				return says.Say(phrase.Number)
			}
		case "date":
			if _, err := time.Parse(time.DateOnly, v); err != nil {
				return says.Say(phrase.Date)
			}
		case "time":
			if _, err := time.Parse("15:04", v); err != nil {
				return says.Say(phrase.Time)
			}
		}
		if words := c.outside(v, says); words != "" {
			return words
		}
	}
	return ""
}

// outside says which limit something that was entered isn't within, or "" (HTML §4.10.5.3).
func (c *control) outside(v string, says *phrase.Book) string {
	n := c.nodes[0]
	length := len(utf16.Encode([]rune(strings.ReplaceAll(v, "\r\n", "\n"))))
	if least, err := number.Whole(attribute(n, "minlength")); err == nil && length < least {
		return says.Say(phrase.Short, attribute(n, "minlength"))
	}
	if most, err := number.Whole(attribute(n, "maxlength")); err == nil && length > most {
		return says.Say(phrase.Long, attribute(n, "maxlength"))
	}
	if p := attribute(n, "pattern"); p != "" {
		if only, err := regexp.Compile(`^(?:` + p + `)$`); err == nil && !only.MatchString(v) {
			return attribute(n, "title") // which says in the page's language what it takes
		}
	}
	least, most := attribute(n, "min"), attribute(n, "max")
	switch c.kind {
	case "number":
		entered, err := number.Real(v)
		if l, wrong := number.Real(least); wrong == nil && err == nil && entered < l {
			return says.Say(phrase.Least, least)
		}
		if m, wrong := number.Real(most); wrong == nil && err == nil && entered > m {
			return says.Say(phrase.Most, most)
		}
	case "date", "time": // as they are written they are in order
		if least != "" && v < least {
			return says.Say(phrase.Early, least)
		}
		if most != "" && v > most {
			return says.Say(phrase.Late, most)
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

// askedForm is a form as it is published, on its page.
type askedForm struct {
	folder     *folder
	name       string // the page's
	entry      *site.Entry
	page, form *html.Node
	says       *phrase.Book // in the page's language
}

// askedBy finds a form as it is published; nil where its page can't be found. Whoever asks closes its folder.
func (s forms) askedBy(c *gin.Context, form string) *askedForm {
	at := standingOf(c)
	if at == nil {
		return nil
	}
	f, err := s.folder(at)
	if err != nil {
		return nil
	}
	a := &askedForm{folder: f}
	if a.name, a.entry = formPage(c, s.Server, f, at.Site, form); a.entry != nil {
		text, err := fs.ReadFile(f.root.FS(), a.entry.Content())
		if err == nil {
			a.page, err = html.Parse(bytes.NewReader(text))
		}
		if err == nil {
			a.form = formOn(a.page, c.Request.URL.Path)
		}
	}
	if a.form == nil {
		f.root.Close()
		return nil
	}
	language := "en"
	for n := range a.page.ChildNodes() {
		if n.DataAtom == atom.Html {
			language = attribute(n, "lang")
		}
	}
	a.says = phrase.In(language)
	return a
}

// again answers with the page that a form was sent from, with what was entered in it and what is wrong beside
// each field; false where nothing is.
func (a *askedForm) again(c *gin.Context, entered url.Values) bool {
	here := c.Request.URL.Path
	if !pointOut(a.form, entered, a.says) {
		return false
	}
	stand(a.page, strings.TrimSuffix("/"+a.name, "/")+"/", here, a.says)
	var out bytes.Buffer
	if err := html.Render(&out, a.page); err != nil {
		return false
	}
	h := c.Writer.Header()
	a.folder.policy(h, a.entry)
	h.Set(
		"Content-Security-Policy",
		strings.Replace(h.Get("Content-Security-Policy"), "base-uri 'none'", "base-uri 'self'", 1),
	)
	h.Set("Cache-Control", "no-store")
	h.Set("X-Robots-Tag", "noindex")
	c.Data(http.StatusUnprocessableEntity, a.entry.Type, out.Bytes())
	return true
}

// fromAddress fills hidden values that the address of the page has, where no script did.
func (a *askedForm) fromAddress(c *gin.Context, answers []store.Answer) {
	from, err := url.Parse(c.Request.Referer())
	if err != nil || from.Host != c.Request.Host {
		return
	}
	for n := range a.form.Descendants() {
		p := attribute(n, "data-parameter")
		if n.DataAtom != atom.Input || p == "" || !from.Query().Has(p) {
			continue
		}
		for i := range answers {
			if answers[i].Field == attribute(n, "name") && answers[i].Value == attribute(n, "value") {
				answers[i].Value = store.Clean(firstCharacters(from.Query().Get(p), maxFormName))
			}
		}
	}
}

func firstCharacters(s string, n int) string {
	if r := []rune(s); len(r) > n {
		return string(r[:n])
	}
	return s
}

// then is where a visitor is led once the form is sent: a page of the same site, or "".
func (a *askedForm) then(c *gin.Context) string {
	to := attribute(a.form, "data-then")
	base := &url.URL{Path: strings.TrimSuffix("/"+a.name, "/") + "/"}
	u, err := base.Parse(to)
	if to == "" || err != nil || u.Host != "" || u.Scheme != "" || !strings.HasPrefix(u.Path, "/") ||
		strings.HasPrefix(u.Path, "//") {
		return ""
	}
	return u.String()
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
		`<p>{{.Words}}</p><ul>{{range .All}}<li><a href="#{{.ID}}">{{.Label}}</a>: {{.Words}}</li>{{end}}</ul></div>`),
)

type problem struct{ ID, Label, Words string }

// pointOut fills a form with what was entered, and says beside each field what is wrong; false where nothing is.
func pointOut(form *html.Node, entered url.Values, says *phrase.Book) bool {
	var all []problem
	for i, c := range controls(form) {
		values := entered[c.name]
		c.fill(values)
		words := c.wrong(values, says)
		if words == "" || !c.wanted(entered) {
			continue
		}
		first := c.nodes[0]
		if attribute(first, "id") == "" {
			put(first, "id", "form-field-"+string(rune('a'+i%26)))
		}
		id := attribute(first, "id")
		all = append(
			all,
			problem{id, strings.TrimSuffix(strings.TrimSuffix(c.label, says.Say(phrase.Required)), "."), words},
		)
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
	words := says.Say(phrase.OneProblem)
	if len(all) > 1 {
		words = says.Say(phrase.Problems, strconv.Itoa(len(all)))
	}
	if err := problems.Execute(&b, map[string]any{"Words": words + " " + says.Say(phrase.NotSent), "All": all}); err != nil {
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
func stand(page *html.Node, at, here string, says *phrase.Book) {
	for n := range page.Descendants() {
		switch n.DataAtom {
		case atom.Head:
			base := newElement("base", "href", at)
			n.InsertBefore(base, n.FirstChild)
			n.AppendChild(newElement("link", "rel", "stylesheet", "href", saidPath))
		case atom.Title:
			if n.FirstChild != nil && n.Parent.DataAtom == atom.Head {
				n.FirstChild.Data = says.Say(phrase.AnotherLook) + ": " + n.FirstChild.Data
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
