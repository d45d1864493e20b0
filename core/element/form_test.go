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
		if got := autofill(c.takes, "", c.label); got != c.want {
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

// Each field says of itself what it takes, by type, as HTML §4.10.5 names it; a limit that is none for its type
// says nothing; hidden ones are in no layout.
func TestFieldsSayTheirLimits(t *testing.T) {
	attributes := func(values map[string]string) (*Node, map[string]string) {
		values["label"] = "It"
		n := builder().Section(section(&doc.Block{ID: "f", Kind: doc.Form, Content: doc.Content{Entries: []doc.Entry{
			{Values: map[string]string{"label": "Boat", "type": "radio", "choices": "One\nTwo"}}, {Values: values},
		}}}))
		var found *Node
		n.Walk(func(m *Node) {
			if m.value("name") == "It" && found == nil {
				found = m
			}
		})
		all := map[string]string{}
		if found != nil {
			for _, a := range found.Attrs {
				all[a.Name] = a.Value
			}
		}
		return n, all
	}
	for _, c := range []struct {
		values map[string]string
		want   map[string]string // "-" where it isn't there
	}{
		{map[string]string{"min": "3", "max": "5"}, map[string]string{"minlength": "3", "maxlength": "5", "min": "-"}},
		{map[string]string{"type": "number", "min": "1.5", "max": "x"}, map[string]string{"min": "1.5", "max": "-", "step": "any", "inputmode": "decimal"}},
		{map[string]string{"type": "date", "min": "2026-12-05", "max": "2026-02-30"}, map[string]string{"min": "2026-12-05", "max": "-"}},
		{map[string]string{"type": "time", "min": "09:00", "max": "9"}, map[string]string{"min": "09:00", "max": "-"}},
		{map[string]string{"type": "email", "min": "3"}, map[string]string{"minlength": "-", "autocomplete": "email"}},
		{map[string]string{"only": "digits"}, map[string]string{"pattern": "[0-9]+", "inputmode": "numeric", "title": "Write digits alone."}},
		{map[string]string{"fills": "postal-code"}, map[string]string{"autocomplete": "postal-code"}},
		{map[string]string{"required": "yes"}, map[string]string{"required": "", "data-required": "-"}},
		{map[string]string{"required": "yes", "when": "Boat"}, map[string]string{"required": "-", "data-required": ""}},
		{map[string]string{"type": "rating", "required": "yes"}, map[string]string{"type": "radio", "value": "1", "required": ""}},
		{map[string]string{"type": "yes-no"}, map[string]string{"type": "checkbox", "value": "Yes", "required": "-"}},
		{map[string]string{"type": "hidden", "parameter": "offer", "value": "none"}, map[string]string{"type": "hidden", "data-parameter": "offer", "value": "none"}},
	} {
		_, got := attributes(c.values)
		for name, want := range c.want {
			if v, there := got[name]; there == (want == "-") || there && v != want {
				t.Errorf("%v: %s is %q, want %q", c.values, name, v, want)
			}
		}
	}
	for when, there := range map[string]bool{"Boat": true, "gone": false, "": false} {
		n, _ := attributes(map[string]string{"when": when, "is": "Two"})
		rows := 0
		n.Walk(func(m *Node) {
			if m.value("data-when") == when && m.value("data-is") == "Two" {
				rows++
			}
		})
		if (rows == 1) != there {
			t.Errorf("when %q: %d rows", when, rows)
		}
	}
}

// The fields of a form with steps are each in one of them, what is sent is in none, and what leads through them is
// there for the script alone.
func TestStepsHoldTheirFields(t *testing.T) {
	entry := func(kind, label string) doc.Entry {
		return doc.Entry{Values: map[string]string{"type": kind, "label": label}}
	}
	for _, entries := range [][]doc.Entry{
		{entry("text", "A"), entry("step", "Second"), entry("email", "B"), entry("radio", "C")},
		{entry("step", "First"), entry("text", "A"), entry("step", "Second"), entry("email", "B"), entry("between", "Words"), entry("radio", "C")},
	} {
		n := builder().Section(section(&doc.Block{ID: "f", Kind: doc.Form, Content: doc.Content{Entries: entries}}))
		var steps []*Node
		bars := 0
		n.Walk(func(m *Node) {
			if m.Tag == "div" && m.value("role") == "group" {
				steps = append(steps, m)
			}
			if _, there := attributeOf(m, "data-stepping"); there && m.Folded {
				bars++
			}
		})
		if len(steps) != 2 || bars != 1 || len(steps[0].all("input")) != 1 || len(steps[1].all("input")) != 3 ||
			len(steps[1].all("button")) != 0 {
			t.Errorf("%d steps, %d bars", len(steps), bars)
		}
	}
}

func attributeOf(n *Node, name string) (string, bool) {
	for _, a := range n.Attrs {
		if a.Name == name {
			return a.Value, true
		}
	}
	return "", false
}

// A limit is one of its type, and the least isn't more than the most.
func TestCheckField(t *testing.T) {
	for _, c := range []struct {
		values map[string]string
		name   string
		right  bool
	}{
		{map[string]string{"min": "3", "max": "3"}, "min", true}, {map[string]string{"min": "4", "max": "3"}, "min", false}, {map[string]string{"min": "4", "max": "3"}, "max", false},
		{map[string]string{"min": "0"}, "min", false}, {map[string]string{"max": "10001"}, "max", false}, {map[string]string{"max": "many"}, "max", false},
		{map[string]string{"type": "number", "min": "-2.5", "max": "1"}, "min", true}, {map[string]string{"type": "date", "min": "2026-12-31", "max": "2027-01-01"}, "max", true},
		{map[string]string{"type": "date", "min": "2027-01-01", "max": "2026-12-31"}, "max", false}, {map[string]string{"type": "time", "max": "24:00"}, "max", false},
		{map[string]string{"label": "x"}, "label", true}, {map[string]string{"min": ""}, "min", true},
	} {
		if err := CheckField(c.values, c.name); (err == nil) != c.right {
			t.Errorf("%v: %v", c.values, err)
		}
	}
}
