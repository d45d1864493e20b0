// Package finding is what is kept and told of findings, apart from how they are found: what one is
// about, at which widths it holds, and how bad it is.
//
// It knows no layout, so that what stores findings and what reads pictures for them needs none.
// Package check finds them.
package finding

import "openplot/core/doc"

// Severity is how bad a finding is.
type Severity int

// The severities.
const (
	Hint     Severity = iota // somebody may want to know
	Doubtful                 // most designers would change it
	Broken                   // visitors can't read it, use it or see it
)

// String is the severity in a word.
func (s Severity) String() string { return [...]string{"hint", "doubtful", "broken"}[s] }

// Key is what a finding is about: it tells findings apart but for their widths and how much they
// offend. The same one after an edit has the same.
type Key struct{ Rule, Node, Other, Part string }

// Range is widths of a viewport in px, both ends included.
type Range struct{ From, To int }

// Widths are all that are checked.
var Widths = Range{doc.MinViewport, doc.MaxViewport}

// Holds reports whether a width is in the range.
func (r Range) Holds(px int) bool { return r.From <= px && px <= r.To }

// Other is a page of the site as other pages know it.
type Other struct {
	Address, Name, Title, Description string
	Anchors                           []string
}
