package edit

import (
	"errors"
	"strings"
	"testing"

	"openplot/core/doc"
)

// grid is a page with blocks in a grid: their columns, spans, rows and heights.
func gridOf(t *testing.T, e Env, cells ...[4]int) (*doc.Page, []string) {
	t.Helper()
	p := &doc.Page{ID: "p", Name: "Home"}
	do := func(c Command) *Result {
		r, err := Apply(p, c, e)
		if err != nil {
			t.Fatal(err)
		}
		p = r.Page
		return r
	}
	sec := do(Command{Op: "section.add", Preset: "empty"}).Select
	if p.Sections[0].Arrangement != doc.Placed {
		do(Command{Op: "arrange", Node: sec, Value: "placed"})
	}
	var ids []string
	for i, c := range cells {
		ids = append(
			ids,
			do(
				Command{
					Op:    "block.add",
					Node:  sec,
					Kind:  doc.Text,
					Zone:  "desktop",
					Place: &doc.Place{Column: c[0], Span: c[1], Row: c[2], Rows: c[3], Layer: i},
				},
			).Select,
		)
	}
	return p, ids
}

func placesIn(p *doc.Page, ids []string) (out []doc.Place) {
	for _, id := range ids {
		_, b := p.Block(id)
		out = append(out, b.Place["desktop"])
	}
	return out
}

// Several blocks are aligned, spread, made alike and moved in one edit, which one undo takes
// back; blocks that weren't chosen stay.
func TestSeveralAtOnce(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{2, 3, 1, 2}, [4]int{4, 2, 5, 4}, [4]int{8, 4, 12, 1}, [4]int{1, 1, 20, 3})
	was := placesIn(p, ids)
	for _, c := range []struct {
		command Command
		check   func(ps []doc.Place) bool
	}{
		{Command{Op: "blocks.align", Value: "left"}, func(ps []doc.Place) bool { return ps[0].Column == 2 && ps[1].Column == 2 && ps[2].Column == 2 }},
		{Command{Op: "blocks.align", Value: "left", Setting: "section"}, func(ps []doc.Place) bool { return ps[0].Column == 1 && ps[1].Column == 1 && ps[2].Column == 1 }},
		{Command{Op: "blocks.align", Value: "bottom"}, func(ps []doc.Place) bool { return ps[0].Row == 11 && ps[1].Row == 9 && ps[2].Row == 12 }},
		{Command{Op: "blocks.spread", Value: "down"}, func(ps []doc.Place) bool { return ps[1].Row == 6 }},
		{Command{Op: "blocks.same", Value: "width"}, func(ps []doc.Place) bool { return ps[1].Span == 3 && ps[2].Span == 3 }},
		{Command{Op: "blocks.nudge", DX: 9, DY: 1}, func(ps []doc.Place) bool { return ps[0].Column == 3 && ps[2].Column == 9 && ps[2].Row == 13 }},
		{Command{Op: "blocks.order", Value: "front"}, func(ps []doc.Place) bool { return ps[0].Layer > 3 && ps[1].Layer == ps[0].Layer+1 }},
		{Command{Op: "blocks.tidy"}, func(ps []doc.Place) bool { return ps[0].Column == 2 }},
	} {
		c.command.Node, c.command.With, c.command.Zone = ids[0], ids[1:3], "desktop"
		r, err := Apply(p, c.command, e)
		if err != nil {
			t.Errorf("%s %s: %v", c.command.Op, c.command.Value, err)
			continue
		}
		ps := placesIn(r.Page, ids)
		if !c.check(ps) {
			t.Errorf("%s %s: %v", c.command.Op, c.command.Value, ps)
		}
		if ps[3] != was[3] {
			t.Errorf("%s %s moved what wasn't chosen", c.command.Op, c.command.Value)
		}
		back, _, err := Run(r.Page, r.Inverse)
		if err != nil || encoded(t, back) != encoded(t, p) {
			t.Errorf("%s %s isn't taken back: %v", c.command.Op, c.command.Value, err)
		}
	}
	// To the back of everything the others make room below.
	r, err := Apply(p, Command{Op: "blocks.order", Node: ids[2], With: ids[3:], Zone: "desktop", Value: "back"}, e)
	if err != nil {
		t.Fatal(err)
	}
	if ps := placesIn(r.Page, ids); ps[2].Layer >= ps[0].Layer || ps[3].Layer >= ps[0].Layer ||
		ps[3].Layer <= ps[2].Layer {
		t.Errorf("to the back: %v", ps)
	}
}

func TestSeveralThatCantBe(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{2, 3, 1, 2}, [4]int{4, 2, 5, 4})
	other, err := Apply(p, Command{Op: "section.add", Preset: "features"}, e)
	if err != nil {
		t.Fatal(err)
	}
	elsewhere := other.Page.Sections[0].Blocks[0].ID
	for _, c := range []struct {
		command     Command
		field, says string
	}{
		{Command{Op: "blocks.align", Node: ids[0], Value: "askew"}, "Align", "choose left"},
		{Command{Op: "blocks.spread", Node: ids[0], With: ids[1:], Value: "down"}, "Spread", "three"},
		{Command{Op: "blocks.spread", Node: ids[0], With: ids[1:], Value: "about"}, "Spread", "across or down"},
		{Command{Op: "blocks.same", Node: ids[0], With: ids[1:], Value: "colour"}, "Same", "width or height"},
		{Command{Op: "blocks.order", Node: ids[0], Value: "up"}, "Order", "front or back"},
		{Command{Op: "blocks.align", Node: ids[0], With: []string{elsewhere}, Value: "left"}, "Selection", "all in one grid"},
		{Command{Op: "blocks.align", Node: ids[0], With: []string{"gone"}, Value: "left"}, "Selection", "all in one grid"},
		{Command{Op: "blocks.align", Node: elsewhere, Value: "left"}, "Position", "no cells"},
	} {
		c.command.Zone = "desktop"
		_, err := Apply(other.Page, c.command, e)
		var problem *doc.Problem
		if !errors.As(err, &problem) || problem.Field != c.field || !strings.Contains(problem.Message, c.says) {
			t.Errorf("%s %s: %v, want a problem of %s about %q", c.command.Op, c.command.Value, err, c.field, c.says)
		}
	}
}

// Blocks that are moved into another section together stand to one another as they did, one
// over the other too, above what is there.
func TestSeveralIntoAnotherSection(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{2, 6, 3, 4}, [4]int{3, 4, 4, 1}, [4]int{7, 3, 5, 3})
	other := apply(t, p, Command{Op: "section.add", After: p.Sections[0].ID, Preset: "empty"}, e)
	p = other.Page
	there := apply(
		t,
		p,
		Command{
			Op:    "block.add",
			Node:  other.Select,
			Kind:  doc.Text,
			Zone:  "desktop",
			Place: &doc.Place{Column: 1, Span: 12, Row: 1, Rows: 9, Layer: 2},
		},
		e,
	)
	p = there.Page
	was := placesIn(p, ids)
	p = apply(
		t,
		p,
		Command{
			Op:    "blocks.move",
			Node:  ids[1],
			With:  []string{ids[0], ids[2]},
			Into:  other.Select,
			Zone:  "desktop",
			Place: &doc.Place{Column: 4, Span: 4, Row: 2, Rows: 1},
		},
		e,
	).Page
	if sec, _ := p.Section(other.Select); len(sec.Blocks) != 4 || len(p.Sections[0].Blocks) != 0 {
		t.Fatalf("%d blocks came along", len(sec.Blocks)-1)
	}
	for i, at := range placesIn(p, ids) {
		want := was[i]
		want.Column, want.Row, want.Layer = want.Column+1, want.Row-2, i+3
		if at != want {
			t.Errorf("block %d stands in %+v, want %+v", i, at, want)
		}
	}
	p = apply(t, p, Command{Op: "arrange", Node: p.Sections[0].ID, Value: "columns"}, e).Page
	sec := apply(t, p, Command{Op: "blocks.move", Node: ids[1], With: []string{ids[0]}, Into: p.Sections[0].ID, After: "first"}, e).Page.Sections[0]
	if len(sec.Blocks) != 2 || sec.Blocks[0].ID != ids[1] || sec.Blocks[1].ID != ids[0] {
		t.Errorf("in columns they stand as %v", sec.Blocks)
	}
	if _, err := Apply(p, Command{Op: "blocks.move", Node: ids[1], With: []string{"gone"}, Into: p.Sections[0].ID}, e); err == nil {
		t.Error("a block that is gone was moved")
	}
}
