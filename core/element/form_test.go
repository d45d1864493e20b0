package element

import (
	"testing"

	"openplot/core/doc"
)

// Browsers fill in what they know by the names of HTML §4.10.19.7 (WCAG 2.2, 1.3.5), and what they
// can't know isn't guessed.
func TestFieldsSayWhatTheyTake(t *testing.T) {
	for _, c := range []struct{ takes, label, want string }{
		{"email", "Where to answer", "email"}, {"tel", "Phone", "tel"}, {"text", "Your name", "name"}, {"text", "Town ", "address-level2"},
		{"text", "Name of the boat", ""}, {"textarea", "Address", ""}, {"number", "Name", ""},
	} {
		if got := autofill(c.takes, c.label); got != c.want {
			t.Errorf("%s %q: %q, want %q", c.takes, c.label, got, c.want)
		}
	}
}

// Choices of one question are a group that says the question first (WCAG 2.2, 1.3.1, technique
// H71), numbers aren't whole ones alone, and what has to be ticked says so.
func TestFormsAreWellFormed(t *testing.T) {
	b := builder()
	n := b.Section(section(&doc.Block{ID: "f", Kind: doc.Form, Content: doc.Content{
		Values: map[string]string{"consent": "I agree"},
		Entries: []doc.Entry{
			{
				Values: map[string]string{
					"label":   "Which boat",
					"type":    "radio",
					"choices": "One\nTwo",
					"hint":    "The small ones",
				},
			},
			{Values: map[string]string{"label": "How heavy", "type": "number"}},
		},
	}}))
	group := n.find("fieldset")
	if group == nil || group.Children[0].Tag != "legend" || len(group.all("input")) != 2 ||
		group.value("aria-describedby") != "field-b1-1-hint" {
		t.Fatalf("the choices are no group: %+v", group)
	}
	inputs := n.all("input")
	if got := inputs[2].value("step"); got != "any" {
		t.Errorf("a number goes by steps of %q", got)
	}
	words := ""
	for _, l := range n.all("label") {
		l.Walk(func(m *Node) { words += m.Text })
	}
	if want := "OneTwoHow heavyI agree (required)"; words != want {
		t.Errorf("labels say %q, want %q", words, want)
	}
}
