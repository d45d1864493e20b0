// Package doc is the page as data: sites, pages, sections, blocks and the values
// that may differ by zone.
//
// What comes in is JSON (from the store, from an import); what goes out is the
// same tree, checked. Nothing here knows CSS or HTML: values of style are kept
// as the text a person entered in its canonical form, and package style gives
// them their meaning.
//
// Start reading at Page, then Zoned.
package doc

import (
	"fmt"
	"strings"
)

// Problem is a mistake in what somebody entered: the field it stands in, in the
// words of the interface, and what would be right. The message says something of the
// field ("is missing: …"), or stands on its own ("there is no …").
type Problem struct {
	Field   string `json:"field"`
	Message string `json:"message"`
}

func (p *Problem) Error() string {
	switch verb, _, _ := strings.Cut(p.Message, " "); verb {
	case "is",
		"isn't",
		"are",
		"was",
		"has",
		"have",
		"holds",
		"lack",
		"lacks",
		"can't",
		"did",
		"would",
		"names",
		"reach",
		"begin",
		"stands":
		return p.Field + " " + p.Message
	}
	return p.Field + ": " + p.Message
}

// Sentence is the problem as people read it.
func (p *Problem) Sentence() string { return p.Error() + "." }

// Problemf makes a Problem for a field.
func Problemf(field, format string, args ...any) *Problem {
	return &Problem{Field: field, Message: fmt.Sprintf(format, args...)}
}

// The widths of a viewport, in px, that pages are laid out and checked for.
const (
	MinViewport = 320
	MaxViewport = 1920
)

// Limits keep one page within what a browser and a person can handle. They are
// our own choices, not a standard's.
const (
	MaxSections   = 100
	MaxBlocks     = 1000 // on a page
	MaxRow        = 400  // last row of a grid
	MaxColumns    = 24
	MaxNameRunes  = 120
	MaxWordsRunes = 60000 // in one block
	MaxLayer      = 50
	MaxAddress    = 2000     // runes of a link
	MaxDepth      = 12       // containers within each other
	MaxItems      = 200      // of a Series, or entries of a block
	MaxCells      = 1200     // of a table
	MaxMarkup     = 50 << 10 // bytes of own HTML
)
