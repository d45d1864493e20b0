package shell

import (
	"bytes"
	"encoding/json"
	"fmt"
	"html/template"
	"io/fs"
	"net/http"
	"net/url"
	"path"
	"strings"

	"github.com/gin-gonic/gin"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/ready"
	"openplot/core/settings"
	"openplot/icons"
	"openplot/origin"
	"openplot/web/paths"
)

// parseTemplates reads every screen (pages with a head, which use the parts) and
// gives them by name.
func parseTemplates(files fs.FS, served *static) (map[string]*template.Template, error) {
	funcs := template.FuncMap{
		"icon": icon, "drawing": drawing, "command": command, "pair": pair, "sides": sides, "purposes": func() []string { return ready.Purposes[1:] }, "input": input, "kinds": blockKinds,
		"static": served.address, "segment": paths.Of,
		"site": func(slug string, parts ...string) string { return paths.To(slug).At(parts...) },
		"page": func(site string, page paths.Segment, parts ...string) string {
			return paths.To(site).Segment(page).At(parts...)
		},
		"modules": served.modules, "languages": func() []settings.Language { return settings.Languages("") },
	}
	parts, err := template.New("parts").Funcs(funcs).ParseFS(files, "*/parts/*.html")
	if err != nil {
		return nil, fmt.Errorf("reading templates: %w", err)
	}
	names, err := fs.Glob(files, "*/*.html")
	if err != nil {
		return nil, fmt.Errorf("listing templates: %w", err)
	}
	out := map[string]*template.Template{"parts": parts}
	for _, name := range names {
		t, err := parts.Clone()
		if err == nil {
			t, err = t.ParseFS(files, name)
		}
		if err != nil {
			return nil, fmt.Errorf("reading template %s: %w", name, err)
		}
		out[strings.TrimSuffix(path.Base(name), ".html")] = t
	}
	return out, nil
}

// icon gives an icon's drawing; the words beside it, or the control's accessible
// name, say what it means.
func icon(name string) (template.HTML, error) {
	drawing, ok := icons.Drawing(name)
	if !ok {
		return "", fmt.Errorf("there is no icon %q", name)
	}
	return template.HTML(
		`<svg xmlns="http://www.w3.org/2000/svg" width="16" height="16" fill="currentColor" viewBox="0 0 16 16" aria-hidden="true" focusable="false">` + drawing + `</svg>`,
	), nil
}

// kindIcon is a kind of block with the icon that stands for it.
type kindIcon struct {
	Kind       doc.Kind
	Name, Icon string
}

func blockKinds() (out []kindIcon) {
	for _, k := range doc.Kinds {
		out = append(out, kindIcon{k, element.Of(k).Name, element.Of(k).Icon})
	}
	return out
}

// drawing gives the drawing of an icon that somebody chose, or of a missing one.
func drawing(name string) (template.HTML, error) {
	if _, ok := icons.Drawing(name); !ok {
		name = "question-square"
	}
	return icon(name)
}

// sides names the sides of a picture that can be cut off.
func sides() []string { return []string{"left", "right", "top", "bottom"} }

// pair hands a part the screen's view beside the item it is for.
func pair(view, item any) map[string]any { return map[string]any{"View": view, "Item": item} }

// input names what a command on the house style fills in.
func input(op, token, name string) string {
	return edit.HouseCommand{Op: op, Token: token, Name: name}.Input()
}

// command writes a command as JSON from names and values by turns.
func command(pairs ...any) (string, error) {
	m := map[string]any{}
	for i := 0; i+1 < len(pairs); i += 2 {
		m[fmt.Sprint(pairs[i])] = pairs[i+1]
	}
	b, err := json.Marshal(m)
	return string(b), err
}

// framed is a screen that stands in a frame.
type framed struct {
	Frame
	View any
}

// Screen answers with a whole page. Screens that say what their main part is stand in the frame.
func (s *Shell) Screen(c *gin.Context, status int, name string, data any) {
	t, document := s.files.templates[name], name+".html"
	if t.Lookup("main") != nil {
		f, err := s.Around(c)
		if err != nil {
			s.Fail(c, err)
			return
		}
		data, document = framed{f, data}, "frame.html"
	}
	var b bytes.Buffer
	if err := t.ExecuteTemplate(&b, document, data); err != nil {
		s.Log.Error("template", "id", origin.RequestID(c), "name", name, "error", err)
		c.String(
			http.StatusInternalServerError,
			"Something went wrong on our side. Your edits are kept; load the page again.",
		)
		return
	}
	c.Data(status, "text/html; charset=utf-8", b.Bytes())
}

// Part renders a part for htmx.
func (s *Shell) Part(b *bytes.Buffer, name string, data any) error {
	if err := s.files.templates["parts"].ExecuteTemplate(b, name+".html", data); err != nil {
		return fmt.Errorf("rendering part %s: %w", name, err)
	}
	return nil
}

// Parted answers with a part.
func (s *Shell) Parted(c *gin.Context, status int, name string, data any) {
	var b bytes.Buffer
	if err := s.Part(&b, name, data); err != nil {
		s.Fail(c, err)
		return
	}
	c.Data(status, "text/html; charset=utf-8", b.Bytes())
}

// ProblemPage answers with a page that says what went wrong and where to go.
func (s *Shell) ProblemPage(c *gin.Context, status int) {
	words := map[int][2]string{
		http.StatusNotFound:              {"There is nothing here", "The address is wrong, or it belongs to a site you aren't a member of."},
		http.StatusForbidden:             {"You can’t do that here", "Your role on this site doesn’t allow it. Ask the site’s owner."},
		http.StatusRequestEntityTooLarge: {"That was too much at once", "Nothing of it was kept. Go back, make it shorter and send it again."},
		http.StatusServiceUnavailable: {
			"Open Plot can’t reach its database just now",
			"Your edits are kept. Load the page again in a moment.",
		},
		http.StatusInternalServerError: {
			"Something went wrong on our side",
			"Your edits are kept. Load the page again; if it keeps happening, tell whoever runs Open Plot the number below.",
		},
	}[status]
	s.sayProblem(c, status, words[0], words[1])
}

func (s *Shell) sayProblem(c *gin.Context, status int, title, words string) {
	data := map[string]string{"Title": title, "Words": words}
	if status >= http.StatusInternalServerError { // whoever runs the program finds it by that
		data["Request"] = origin.RequestID(c)
	}
	if from, err := url.Parse(c.Request.Referer()); err == nil && from.Host == c.Request.Host &&
		from.Path != c.Request.URL.Path && !strings.HasPrefix(from.Path, "//") {
		data["Back"] = from.RequestURI()
	}
	s.Screen(c, status, "problem", data)
}
