// Package check finds what is wrong with a page, at every width: from its boxes, from its
// elements, and from what the site around it holds.
//
// In come sections that are ready to be laid out, and a page; out come Findings, each with the
// widths that it holds for. A rule is one file; rules.go lists them. Start at Section and Whole.
package check

import (
	"cmp"
	"slices"

	"openplot/core/finding"
)

// What findings are apart from how they are found.
type (
	Severity = finding.Severity
	Key      = finding.Key
	Range    = finding.Range
	Other    = finding.Other
)

// The severities.
const (
	Hint     = finding.Hint
	Doubtful = finding.Doubtful
	Broken   = finding.Broken
)

// Widths are all that are checked.
var Widths = finding.Widths

// Family is what a rule is about.
type Family string

// The families.
const (
	Layout  Family = "layout"
	Reading Family = "reading"
	Content Family = "content"
	Weight  Family = "weight"
)

// Families are all of them, in their order.
var Families = []Family{Layout, Reading, Content, Weight}

// Rule is what a finding offends against.
type Rule struct {
	ID       string
	Name     string // what it is called, such as "Words over words"
	Family   Family
	Severity Severity
	What     string // what it finds, in a line (docs/checks.md)
	Why      string // why it matters, a sentence or two
	Standard string // such as "WCAG 2.2, 1.4.10", or ""
	// Least has less be worse: what By counts is to be at least something.
	Least bool
	// say gives a sentence with figures about a finding; name gives what people call a node.
	say func(f *Finding, name func(id string) string) string
	// title says it in a few words with a figure.
	title func(f *Finding, name func(id string) string) string

	// short says it in a few words beside the bar of what it is about.
	short func(f *Finding, name func(id string) string) string

	at    func(s *sight)           // looks at a section at a width
	zone  func(s *zoned)           // looks at a section's elements in a zone
	whole func(p *Page, r *report) // looks at all of a page
	// repair gives what may mend it, or nil; it may be nil.
	repair func(p *Page, f *Finding) *Repair
	least  int // how many px of width it has to hold for
	// viewport tells that what it finds at a width depends on that beside what is laid out.
	viewport bool
}

// Finding is one thing that is wrong.
type Finding struct {
	*Rule
	// Node is the section or block that it is about, and Other a second one or "".
	Node, Other string
	// Ranges are the widths that it holds for, from narrow to wide, each apart from the next;
	// Worst is one at which it is worst.
	Ranges []Range
	Worst  int
	// By says how much, in the rule's own unit: px too wide, a contrast ratio; the worst of the
	// widths. Of is what that is measured against, or 0.
	By, Of float64
	// Words are those that it is about, or "".
	Words string
	// Part tells findings of one rule about one node apart, such as the link that leads nowhere.
	Part string
}

// Holds reports whether a finding holds at a width in px.
func (f *Finding) Holds(px int) bool {
	return slices.ContainsFunc(f.Ranges, func(r Range) bool { return r.Holds(px) })
}

// Reach is how many px of width a finding holds for.
func (f *Finding) Reach() (n int) {
	for _, r := range f.Ranges {
		n += r.To - r.From + 1
	}
	return n
}

// Title says in a few words what is wrong; name gives what people call a section or block.
func (f *Finding) Title(name func(id string) string) string {
	if f.title == nil {
		return f.Name
	}
	return f.title(f, name)
}

// Short says it in a few words for where it is seen what it is about.
func (f *Finding) Short(name func(id string) string) string {
	if f.short == nil {
		return f.Title(name)
	}
	return f.short(f, name)
}

// Say says what is wrong in a sentence with figures, or "".
func (f *Finding) Say(name func(id string) string) string {
	if f.say == nil {
		return ""
	}
	return f.say(f, name)
}

// Key tells findings apart but for their widths and how much; the same one after an edit has the
// same.
func (f *Finding) Key() Key { return Key{Rule: f.ID, Node: f.Node, Other: f.Other, Part: f.Part} }

// Sort puts findings in order: the worst first, then by rule and by how far they reach.
func Sort(fs []Finding) {
	slices.SortStableFunc(fs, func(a, b Finding) int {
		return cmp.Or(
			cmp.Compare(
				b.Severity,
				a.Severity,
			),
			cmp.Compare(slices.Index(Rules, a.Rule), slices.Index(Rules, b.Rule)),
			cmp.Compare(b.Reach(), a.Reach()),
			cmp.Compare(a.Node, b.Node),
		)
	})
}

// report gathers findings that aren't about single widths.
type report struct {
	rule *Rule
	out  *[]Finding
}

// add notes a finding at all widths.
func (r *report) add(f Finding) {
	f.Rule = r.rule
	if f.Ranges == nil {
		f.Ranges = []Range{Widths}
	}
	if f.Worst == 0 {
		f.Worst = f.Ranges[0].From
	}
	*r.out = append(*r.out, f)
}
