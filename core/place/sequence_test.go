package place

import (
	"fmt"
	"slices"
	"testing"

	"openplot/core/doc"
)

func TestSequence(t *testing.T) {
	zs := doc.StandardZones()
	with := func(id string, phone string) *doc.Block {
		b := &doc.Block{ID: id, Kind: doc.Text}
		if phone != "" {
			b.Style = doc.Style{"order": {"phone": phone}}
		}
		return b
	}
	h := doc.Holder{
		Arrangement: doc.LineUp,
		Blocks:      []*doc.Block{with("a", "2"), with("b", ""), with("c", "1"), with("d", "3")},
	}
	for z, want := range [][]int{{0, 1, 2, 3}, {0, 1, 2, 3}, {2, 0, 1, 3}} { // b goes along with a
		seq, byHand := Sequence(h, zs, z)
		if !slices.Equal(seq, want) || byHand != (z == 2) {
			t.Errorf("%s: %v, %v; want %v", zs[z].ID, seq, byHand, want)
		}
	}
	// CSS orders by number too: 10 comes after 9.
	h.Blocks = []*doc.Block{with("a", "10"), with("b", "9")}
	if seq, _ := Sequence(h, zs, 2); !slices.Equal(seq, []int{1, 0}) {
		t.Errorf("%v", seq)
	}
}

func TestSectionsInOrder(t *testing.T) {
	zs := doc.StandardZones()
	sec := func(id string, role doc.Role, order string) *doc.Section {
		s := &doc.Section{ID: id, Role: role}
		if order != "" {
			s.Style = doc.Style{"order": {"tablet": order}}
		}
		return s
	}
	p := &doc.Page{
		Sections: []*doc.Section{
			sec("bar", doc.RoleHeader, "9"),
			sec("a", "", "2"),
			sec("b", "", "1"),
			sec("foot", doc.RoleFooter, "1"),
		},
	}
	for z, want := range []string{"bar a b foot", "bar b a foot", "bar b a foot"} {
		got := ""
		all, byHand := Sections(p, zs, z)
		for _, s := range all {
			got += s.ID + " "
		}
		if got != want+" " || byHand != (z > 0) {
			t.Errorf("%s: %s; want %s", zs[z].ID, got, want)
		}
	}
	p.Sections[2].Shared = true // what comes before it elsewhere is something else
	if all, _ := Sections(p, zs, 1); all[2].ID != "b" {
		t.Error("a shared section has moved")
	}
}

// TestOrderInAGrid has two cards beside each other come in the other order on phones: what stands
// on one level stays together, what was apart stays as far apart.
func TestOrderInAGrid(t *testing.T) {
	zs := doc.StandardZones()
	at := func(id string, column, row int, order string) *doc.Block {
		b := &doc.Block{
			ID:    id,
			Kind:  doc.Text,
			Place: doc.Zoned[doc.Place]{"desktop": {Column: column, Span: 6, Row: row, Rows: 4}},
		}
		if order != "" {
			b.Style = doc.Style{"order": {"phone": order}}
		}
		return b
	}
	rows := func(blocks ...*doc.Block) string {
		out := ""
		for i, p := range Resolve(doc.Holder{Blocks: blocks}, zs)[2] {
			out += fmt.Sprintf("%s%d ", blocks[i].ID, p.Row)
		}
		return out
	}
	if got := rows(at("a", 1, 1, ""), at("b", 7, 1, ""), at("c", 1, 6, "")); got != "a1 b2 c4 " {
		t.Errorf("by rule: %s", got)
	}
	if got := rows(at("a", 1, 1, "2"), at("b", 7, 1, "1"), at("c", 1, 6, "3")); got != "a2 b1 c4 " {
		t.Errorf("two changed over: %s", got)
	}
	if got := rows(at("a", 1, 1, "2"), at("b", 7, 1, "3"), at("c", 1, 6, "1")); got != "a2 b4 c1 " {
		t.Errorf("the last first: %s", got)
	}
}
