package edit

import (
	"slices"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

// A value is taken from another block: a token as the token, nothing where there is none.
func TestSameAs(t *testing.T) {
	e := env()
	text := func(id string, pairs ...string) *doc.Block {
		b := element.Start(doc.Text)
		b.ID, b.Style = id, element.Look(pairs...)
		return b
	}
	p := &doc.Page{Sections: []*doc.Section{{ID: "s", Style: element.Look("padding-top", "$vast"), Blocks: []*doc.Block{
		text(
			"a",
			"padding-top",
			"$room",
			"font-size",
			"21px",
		), text("b", "font-size", "12px", "padding-top", "3px"), {ID: "c", Kind: doc.Divider},
	}}}}
	take := func(setting, from string) (string, error) {
		r, err := Apply(p, Command{Op: "same", Node: "b", Zone: "desktop", Setting: setting, After: from}, e)
		if err != nil {
			return "", err
		}
		_, b := r.Page.Block("b")
		return b.Style[setting]["desktop"], nil
	}
	for _, tt := range []struct{ setting, from, want string }{
		{"padding-top", "a", "$room"}, {"font-size", "a", "21px"}, {"padding-top", "s", "$vast"}, {"line-height", "a", ""}, {"margin-top", "c", ""},
	} {
		if got, err := take(tt.setting, tt.from); err != nil || got != tt.want {
			t.Errorf("%s as %s: %q, %v; want %q", tt.setting, tt.from, got, err, tt.want)
		}
	}
	for setting, from := range map[string]string{"font-size": "c", "padding-top": "gone", "nothing": "a"} {
		if got, err := take(setting, from); err == nil {
			t.Errorf("%s as %s: %q, want a problem", setting, from, got)
		}
	}
}

func TestRestyle(t *testing.T) {
	h := doc.StandardHouse()
	own := element.Look(
		"font-weight",
		"300",
		style.LetterSpacing,
		"0.2em",
		"line-height",
		"1.05",
		"text-transform",
		"uppercase",
		"font-size",
		"1.5rem",
		"font",
		h.Fonts.Body,
	)
	next, done, err := Restyle(h, "h2", "desktop", own)
	if err != nil {
		t.Fatal(err)
	}
	s := next.Text["h2"]
	if s.Weight != 300 || s.LetterSpacing != 0.2 || s.LineHeight != 1.05 || s.Case != "upper" ||
		s.Size["desktop"] != 24 ||
		s.Family != "body" ||
		len(done) != 6 {
		t.Errorf("%+v, %v", s, done)
	}
	if h.Text["h2"].Weight == 300 {
		t.Error("the house style that was given is another one now")
	}
	for _, own := range []doc.Style{element.Look("font", "Caveat"), element.Look("font-size", "3vw"), element.Look("color", "$words"), {}} {
		if _, _, err := Restyle(h, "h2", "desktop", own); err == nil {
			t.Errorf("%v became the style's", own)
		}
	}
	if _, _, err := Restyle(h, "none", "desktop", own); err == nil {
		t.Error("a style that isn't there")
	}
}

// Entries are moved any way along their list, and duplicated beside themselves.
func TestMovedEntries(t *testing.T) {
	e := env()
	b := element.Start(doc.Timetable)
	b.ID = "t"
	b.Content.Entries = nil
	for _, name := range []string{"a", "b", "c", "d"} {
		b.Content.Entries = append(b.Content.Entries, doc.Entry{Values: map[string]string{"title": name}})
	}
	p := &doc.Page{Sections: []*doc.Section{{ID: "s", Blocks: []*doc.Block{b}}}}
	titles := func(c Command) (out []string) {
		c.Node = "t"
		r, err := Apply(p, c, e)
		if err != nil {
			t.Fatal(err)
		}
		_, b := r.Page.Block("t")
		for _, e := range b.Content.Entries {
			out = append(out, e.Values["title"])
		}
		return out
	}
	for _, tt := range []struct {
		c    Command
		want []string
	}{
		{Command{Op: "entry.shift", At: 0, DY: 2}, []string{"b", "c", "a", "d"}},
		{Command{Op: "entry.shift", At: 3, DY: -3}, []string{"d", "a", "b", "c"}},
		{Command{Op: "entry.shift", At: 1, DY: 99}, []string{"a", "c", "d", "b"}},
		{Command{Op: "entry.duplicate", At: 1}, []string{"a", "b", "b", "c", "d"}},
	} {
		if got := titles(tt.c); !slices.Equal(got, tt.want) {
			t.Errorf("%s %d by %d: %v, want %v", tt.c.Op, tt.c.At, tt.c.DY, got, tt.want)
		}
	}
}

// The page's ground is a colour of the palette; with it all sections look different.
func TestPageGround(t *testing.T) {
	e := env()
	p := page(e)
	r, err := Apply(p, Command{Op: "page.set", Setting: "ground", Value: "Quiet ground"}, e)
	if err != nil || r.Page.Ground != "quiet-ground" || len(r.Sections) != len(p.Sections) {
		t.Fatalf("%v %+v", err, r)
	}
	back, _, err := Run(r.Page, r.Inverse)
	if err != nil || back.Ground != "" {
		t.Errorf("taken back: %q, %v", back.Ground, err)
	}
	if r, err = Apply(r.Page, Command{Op: "page.set", Setting: "ground"}, e); err != nil || r.Page.Ground != "" {
		t.Errorf("as the house style has it: %v", err)
	}
	if _, err := Apply(p, Command{Op: "page.set", Setting: "ground", Value: "#123456"}, e); err == nil {
		t.Error("a colour that isn't in the palette")
	}
}
