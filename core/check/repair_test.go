package check_test

import (
	"testing"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/demo"
)

// A repair is a command after which the finding is gone and nothing else is wrong.
func TestRepairs(t *testing.T) {
	lib, s := library(t), demo.Site()
	env := edit.Env{
		Site:   s,
		NewID:  func(p string) string { return p + "new" },
		Medium: func(string) doc.MediumSort { return doc.PictureMedium },
	}
	for rule, sections := range map[string][]*doc.Section{
		"contrast":     {line(words("a", long, only("phone", "color", "#222222", "#bbbbbb", "background", "#ffffff")...))},
		"small-words":  {line(words("a", long, "font-size", "10px"))},
		"small-fields": {line(withLook(form("Name"), "font-size", "14px"))},
		"alone":        {line(series("a", 3, only("tablet", "per-row", "1", "2")...))},
		"long-word":    {line(words("a", "Donaudampfschifffahrtsgesellschaft", only("phone", "width", "400px", "240px", "font-size", "20px")...))},
		"long-lines":   {line(words("a", long+long+long, "width", "1000px"))},
		"blurred":      {line(picture("a", "boat-200", "width", "280px"))},
		"tall-bar": {{ID: "s", Role: doc.RoleHeader, Arrangement: doc.LineUp, Style: element.Look(only("phone", "min-height", "60px", "300px", "stays", "sticky")...),
			Blocks: []*doc.Block{words("a", short)}}},
		"anchor-twice": {{ID: "s", Anchor: "crew", Arrangement: doc.LineUp, Blocks: []*doc.Block{words("a", short)}},
			{ID: "s2", Anchor: "crew", Arrangement: doc.LineUp, Blocks: []*doc.Block{words("b", short)}}},
		"headings":   {line(heading("a", 1, "One"), heading("b", 3, "Three"))},
		"words-over": {grid(onPhone(put(words("a", long), 1, 12, 1, 4), 1, 4, 1, 4), onPhone(put(words("b", long), 1, 12, 5, 4), 1, 4, 2, 4))},
		"order":      {grid(onPhone(put(words("a", short), 1, 6, 1, 2), 1, 4, 5, 2), onPhone(put(words("b", short), 1, 6, 3, 2), 1, 4, 1, 2))},
	} {
		p := &doc.Page{ID: "p", Name: "Test", Title: "Test", Description: "A page", Sections: sections}
		page := prepared(t, lib, s, p)
		before := check.All(page)
		mended := false
		for i := range before {
			if before[i].ID != rule {
				continue
			}
			r := page.Repair(&before[i])
			if r == nil {
				t.Errorf("%s has no repair", rule)
				continue
			}
			c := r.Command
			done, err := edit.Apply(p, c, env)
			if err != nil {
				t.Errorf("%s, %s: %v", rule, r.Label, err)
				continue
			}
			after := check.All(prepared(t, lib, s, done.Page))
			if mended = check.Mends(&before[i], before, after); !mended {
				t.Errorf("%s, %s: %s", rule, r.Label, told(after))
			}
			break
		}
		if !mended {
			t.Errorf("%s isn't found, or not mended: %s", rule, told(before))
		}
	}
}

// A repair that doesn't mend, or that breaks something else, isn't one.
func TestMends(t *testing.T) {
	f := func(rule, node string, ranges ...check.Range) check.Finding {
		return check.Finding{Rule: check.Find(rule), Node: node, Ranges: ranges}
	}
	a, b := f("contrast", "a", check.Range{From: 320, To: 639}), f("words-over", "b", check.Range{From: 320, To: 400})
	hint := f("long-lines", "c", check.Widths)
	for what, tt := range map[string]struct {
		after []check.Finding
		want  bool
	}{
		"gone":                  {nil, true},
		"gone, another stays":   {[]check.Finding{b}, true},
		"gone, with a new hint": {[]check.Finding{hint}, true},
		"still there":           {[]check.Finding{a}, false},
		"still there, less":     {[]check.Finding{f("contrast", "a", check.Range{From: 320, To: 330})}, false},
		"another one":           {[]check.Finding{f("covered", "z", check.Widths)}, false},
		"the other one grew":    {[]check.Finding{f("words-over", "b", check.Range{From: 320, To: 500})}, false},
	} {
		if got := check.Mends(&a, []check.Finding{a, b}, tt.after); got != tt.want {
			t.Errorf("%s: %v", what, got)
		}
	}
}
