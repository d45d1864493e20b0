package edit

import (
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/place"
)

// TestOrderByZone moves sections and blocks in a narrow zone: the document stays as it is, and
// what is moved back follows again.
func TestOrderByZone(t *testing.T) {
	env := Env{Site: &doc.Site{Zones: doc.StandardZones()}, NewID: func(p string) string { return p + "new" }}
	zs := env.Site.Zones
	block := func(id string, row int) *doc.Block {
		return &doc.Block{
			ID:    id,
			Kind:  doc.Text,
			Place: doc.Zoned[doc.Place]{"desktop": {Column: 1, Span: 12, Row: row, Rows: 2}},
		}
	}
	p := &doc.Page{Sections: []*doc.Section{
		{ID: "bar", Name: "Bar", Role: doc.RoleHeader},
		{ID: "s1", Name: "One", Blocks: []*doc.Block{block("a", 1), block("b", 3), block("c", 5)}},
		{ID: "s2", Name: "Two", Arrangement: doc.LineUp, Blocks: []*doc.Block{block("d", 1), block("e", 1)}},
		{ID: "s3", Name: "Three"},
	}}
	sections := func(z int) string {
		var ids []string
		all, _ := place.Sections(p, zs, z)
		for _, s := range all {
			ids = append(ids, s.ID)
		}
		return strings.Join(ids, " ")
	}
	do := func(c Command) *Result {
		t.Helper()
		c.Op = "order"
		r, err := Apply(p, c, env)
		if err != nil {
			t.Fatal(err)
		}
		p = r.Page
		return r
	}
	do(Command{Node: "s3", Zone: "phone", After: "bar"})
	if got := sections(2); got != "bar s3 s1 s2" {
		t.Errorf("on phones: %s", got)
	}
	if got := sections(1); got != "bar s1 s2 s3" || p.Sections[1].ID != "s1" {
		t.Errorf("on tablets: %s", got)
	}
	r := do(Command{Node: "s3", Zone: "phone", DY: 2})
	if got := sections(2); got != "bar s1 s2 s3" || p.Sections[3].Style != nil {
		t.Errorf("moved back: %s, %v", got, p.Sections[3].Style)
	}
	if before, _, err := Run(p, r.Inverse); err != nil || before.Sections[3].Style["order"]["phone"] != "1" {
		t.Errorf("taken back: %v", err)
	}
	rows := func() (out [3]int) {
		s, _ := p.Section("s1")
		for i, pl := range place.Resolve(s.Holder(), zs)[2] {
			out[i] = pl.Row
		}
		return out
	}
	do(Command{Node: "c", Zone: "phone", DY: -2})
	if rows() != [3]int{2, 3, 1} {
		t.Errorf("a block of a grid: %v", rows())
	}
	do(Command{Node: "c", Zone: "phone", After: "b"})
	if _, c := p.Block("c"); rows() != [3]int{1, 2, 3} || c.Style != nil {
		t.Errorf("moved back: %v, %v", rows(), c.Style)
	}
	// Arrows and rows that are dragged in the Overview do the same in a line-up.
	for _, c := range []Command{{Op: "block.nudge", Node: "e", Zone: "phone", DY: -1}, {Op: "block.move", Node: "d", Into: "s2", After: "e", Zone: "phone"}} {
		r, err := Apply(p, c, env)
		if err != nil {
			t.Fatal(err)
		}
		s, _ := r.Page.Section("s2")
		if seq, byHand := place.Sequence(s.Holder(), zs, 2); !byHand || seq[0] != 1 || s.Blocks[0].ID != "d" {
			t.Errorf("%s: %v, %v", c.Op, seq, byHand)
		}
	}
	for what, c := range map[string]Command{
		"a top bar":               {Node: "bar", Zone: "phone", DY: 1},
		"a block in cells, wide":  {Node: "a", Zone: "desktop", DY: 1},
		"behind what isn't there": {Node: "e", Zone: "phone", After: "gone"},
	} {
		c.Op = "order"
		if _, err := Apply(p, c, env); err == nil {
			t.Errorf("%s: no problem", what)
		}
	}
}
