// Package mail writes mails and hands them to a mail server (RFC 5321, RFC 5322), or to one that ships
// with the program, hands nothing on and keeps what it gets.
//
// Whatever stands in a letter may have come from a stranger. It is shown as text, and no part of it
// reaches a header but on one line.
package mail

import (
	"bytes"
	_ "embed"
	"fmt"
	"html/template"
	"strings"
	"unicode"
)

// Letter is what a mail says, apart from who gets it.
type Letter struct {
	Subject string   `json:"subject"`
	Lead    []string `json:"lead,omitempty"`   // paragraphs
	Fields  []Field  `json:"fields,omitempty"` // such as what somebody entered
	Link    *Link    `json:"link,omitempty"`
	Foot    string   `json:"foot,omitempty"` // in small: why one gets it
}

// Field is a value by its name; the value may have several lines.
type Field struct {
	Label string `json:"label"`
	Value string `json:"value"`
}

// Link leads somewhere.
type Link struct {
	Words string `json:"words"`
	URL   string `json:"url"`
}

// Text gives the letter as plain text, with line feeds.
func (l *Letter) Text() string {
	var b strings.Builder
	for _, p := range l.Lead {
		b.WriteString(printed(p) + "\n\n")
	}
	for _, f := range l.Fields {
		value := printed(f.Value)
		if strings.Contains(value, "\n") {
			value = "\n  " + strings.ReplaceAll(value, "\n", "\n  ")
		} else {
			value = " " + value
		}
		b.WriteString(oneLine(f.Label) + ":" + value + "\n")
	}
	if len(l.Fields) > 0 {
		b.WriteByte('\n')
	}
	if l.Link != nil {
		b.WriteString(oneLine(l.Link.Words) + ":\n" + l.Link.URL + "\n\n")
	}
	if l.Foot != "" {
		b.WriteString("-- \n" + printed(l.Foot) + "\n") // a signature's separator (RFC 3676 §4.3)
	}
	return b.String()
}

//go:embed letter.html
var page string

var letter = template.Must(template.New("letter").Funcs(template.FuncMap{"printed": printed}).Parse(page))

// HTML gives the letter as a page that says the same. Mail programs show styles that stand on the
// elements (common practice), and nothing is loaded by it.
func (l *Letter) HTML() (string, error) {
	var b bytes.Buffer
	if err := letter.Execute(&b, l); err != nil {
		return "", fmt.Errorf("writing a letter: %w", err)
	}
	return b.String(), nil
}

// printed is text without what isn't to be seen, but for its lines.
func printed(s string) string {
	s = strings.ReplaceAll(strings.ReplaceAll(s, "\r\n", "\n"), "\r", "\n")
	return strings.TrimSpace(strings.Map(func(r rune) rune {
		if r != '\n' && r != '\t' && unicode.IsControl(r) {
			return -1
		}
		return r
	}, s))
}

// oneLine is text on one line, as headers have to be (RFC 5322 §2.2).
func oneLine(s string) string {
	return strings.Join(strings.FieldsFunc(s, func(r rune) bool {
		return unicode.IsSpace(r) || unicode.IsControl(r) || r == '\u2028' || r == '\u2029'
	}), " ")
}
