package edit

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"openplot/core/doc"
)

// what gives a page's sections and blocks by id, those in others in brackets.
func shapeOf(p *doc.Page) string {
	var b strings.Builder
	var blocks func([]*doc.Block)
	blocks = func(bs []*doc.Block) {
		for _, x := range bs {
			b.WriteString(" " + x.ID)
			if t := x.Content.Words.Plain(); t != "" {
				b.WriteString("=" + t)
			}
			if len(x.Blocks) > 0 {
				b.WriteString("(")
				blocks(x.Blocks)
				b.WriteString(" )")
			}
		}
	}
	for _, s := range p.Sections {
		b.WriteString(" [" + s.ID)
		blocks(s.Blocks)
		b.WriteString("]")
	}
	return strings.TrimSpace(b.String())
}

func TestRestore(t *testing.T) {
	text := func(id, words string) *doc.Block {
		return &doc.Block{ID: id, Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords(words)}}
	}
	then := func() *doc.Page {
		return &doc.Page{ID: "p", Name: "Fares", Title: "Fares", Sections: []*doc.Section{
			{
				ID: "s1",
				Blocks: []*doc.Block{
					text("a", "1"),
					text("b", "2"),
					{ID: "c", Kind: doc.Container, Arrangement: doc.LineUp, Blocks: []*doc.Block{text("d", "3")}},
				},
			},
			{ID: "s2", Blocks: []*doc.Block{text("e", "4")}},
			{ID: "s3"},
		}}
	}
	none := func(string) *doc.Section { return nil }
	for _, tt := range []struct {
		name string
		do   []Command
		node string
		want string
	}{
		{"a block's words", []Command{{Op: "block.write", Node: "a", Value: "<p>new</p>"}, {Op: "block.write", Node: "b", Value: "<p>new</p>"}}, "a", "[s1 a=1 b=new c( d=3 )] [s2 e=4] [s3]"},
		{"a block that is gone", []Command{{Op: "delete", Node: "b"}}, "b", "[s1 a=1 b=2 c( d=3 )] [s2 e=4] [s3]"},
		{"the first block", []Command{{Op: "delete", Node: "a"}}, "a", "[s1 a=1 b=2 c( d=3 )] [s2 e=4] [s3]"},
		{"a container with what was in it", []Command{{Op: "delete", Node: "c"}}, "c", "[s1 a=1 b=2 c( d=3 )] [s2 e=4] [s3]"},
		{"a section", []Command{{Op: "block.write", Node: "e", Value: "<p>new</p>"}, {Op: "block.write", Node: "a", Value: "<p>new</p>"}}, "s1", "[s1 a=1 b=2 c( d=3 )] [s2 e=new] [s3]"},
		{"a section that is gone", []Command{{Op: "delete", Node: "s2"}}, "s2", "[s1 a=1 b=2 c( d=3 )] [s2 e=4] [s3]"},
		{"a section that was moved", []Command{{Op: "section.move", Node: "s3"}}, "s3", "[s1 a=1 b=2 c( d=3 )] [s2 e=4] [s3]"},
		{"all", []Command{{Op: "section.move", Node: "s3"}, {Op: "delete", Node: "s1"}, {Op: "page.set", Setting: "title", Value: "Prices"}}, "", "[s1 a=1 b=2 c( d=3 )] [s2 e=4] [s3]"},
		{"a block whose container is gone", []Command{{Op: "delete", Node: "c"}}, "d", "what it stood in is gone"},
		{"what never was", nil, "x", "doesn't have"},
		{"a container of which a block stands elsewhere", []Command{{Op: "block.move", Node: "d", Into: "s2"}}, "c", "take the whole section back"},
	} {
		now := then()
		for _, c := range tt.do {
			r, err := Apply(now, c, env())
			if err != nil {
				t.Fatalf("%s: %v", tt.name, err)
			}
			now = r.Page
		}
		r, err := Restore(now, then(), tt.node, none)
		if err != nil {
			var p *doc.Problem
			if !errors.As(err, &p) || !strings.Contains(p.Message, tt.want) {
				t.Errorf("%s: %v", tt.name, err)
			}
			continue
		}
		if got := shapeOf(r.Page); got != tt.want || tt.node == "" && r.Page.Title != "Fares" {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
		back, _, err := Run(r.Page, r.Inverse)
		x, _ := json.Marshal(back)
		y, _ := json.Marshal(now)
		if err != nil || string(x) != string(y) {
			t.Errorf("%s: taking that back: %v", tt.name, err)
		}
	}
	// What stands between two that stayed, with something new before it, stays there.
	now := then()
	now.Sections = append([]*doc.Section{now.Sections[0], {ID: "new"}}, now.Sections[1:]...)
	if r, err := Restore(now, then(), "s2", none); err != nil || !strings.Contains(shapeOf(r.Page), "[new] [s2") {
		t.Errorf("%s, %v", shapeOf(r.Page), err)
	}
	// A shared section is what it is on other pages now.
	was := then()
	was.Sections[2].Shared = true
	other := &doc.Section{ID: "s3", Name: "Footer of today", Shared: true}
	r, err := Restore(
		&doc.Page{ID: "p"},
		was,
		"",
		func(id string) *doc.Section { return map[string]*doc.Section{"s3": other}[id] },
	)
	if err != nil || r.Page.Sections[2].Name != "Footer of today" {
		t.Errorf("%+v, %v", r, err)
	}
}
