package edit

import (
	"reflect"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/place"
)

// seenIn are the placements of blocks on a page as the section's own grid has them, whatever
// containers they stand in.
func seenIn(p *doc.Page, e Env, z int, ids []string) (out []doc.Place) {
	sec := p.Sections[0]
	for _, id := range ids {
		path := sec.Path(id)
		h := sec.Holder()
		at := place.Resolve(h, e.Site.Zones)[z][h.Index(path[0].ID)].Place
		for k := 1; k < len(path); k++ {
			in := path[k-1].Holder()
			at = place.Outside(
				place.Resolve(in, e.Site.Zones)[z][in.Index(path[k].ID)].Place,
				at,
				in.Columns(e.Site.Zones, z),
			)
		}
		at.Layer = 0
		out = append(out, at)
	}
	return out
}

func apply(t *testing.T, p *doc.Page, c Command, e Env) *Result {
	t.Helper()
	r, err := Apply(p, c, e)
	if err != nil {
		t.Fatalf("%s: %v", c.Op, err)
	}
	return r
}

// Blocks stand in the cells they stood in when they are put into a group, and when that is
// taken apart again, in every zone in which one was put by hand.
func TestGroupKeepsWhatIsSeen(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{2, 3, 3, 2}, [4]int{4, 5, 4, 4}, [4]int{8, 4, 12, 1}, [4]int{1, 1, 20, 3})
	p = apply(
		t,
		p,
		Command{
			Op:    "block.place",
			Node:  ids[1],
			Zone:  "tablet",
			Place: &doc.Place{Column: 3, Span: 4, Row: 9, Rows: 3},
		},
		e,
	).Page
	was := [][]doc.Place{seenIn(p, e, 0, ids), seenIn(p, e, 1, ids)}
	r := apply(t, p, Command{Op: "blocks.group", Node: ids[0], With: ids[1:3]}, e)
	sec := r.Page.Sections[0]
	_, group := r.Page.Block(r.Select)
	if len(sec.Blocks) != 2 || len(group.Blocks) != 3 {
		t.Fatalf("the section has %d blocks and the group %d", len(sec.Blocks), len(group.Blocks))
	}
	if want := (doc.Place{Column: 2, Span: 10, Row: 3, Rows: 10, Layer: 2}); group.Place["desktop"] != want {
		t.Errorf("the group stands in %+v, want %+v", group.Place["desktop"], want)
	}
	for z := range was {
		if got := seenIn(r.Page, e, z, ids[:3]); !reflect.DeepEqual(got, was[z][:3]) {
			t.Errorf("grouped, zone %d shows %+v, before %+v", z, got, was[z][:3])
		}
	}
	back := apply(t, r.Page, Command{Op: "block.ungroup", Node: r.Select}, e).Page
	if got := seenIn(back, e, 0, ids); !reflect.DeepEqual(got, was[0]) || len(back.Sections[0].Blocks) != 4 {
		t.Errorf("taken apart it shows %+v, before %+v", got, was[0])
	}
	if got := seenIn(back, e, 1, ids[:3]); !reflect.DeepEqual(got, was[1][:3]) {
		t.Errorf("taken apart the tablet shows %+v, before %+v", got, was[1][:3])
	}
}

// What is beside one another becomes a line across, as wide as it was; what is below, a line
// down.
func TestLineUpFromASelection(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{1, 3, 1, 2}, [4]int{4, 3, 1, 2}, [4]int{7, 6, 1, 2}, [4]int{1, 4, 6, 2})
	r := apply(t, p, Command{Op: "blocks.group", Value: "line-up", Node: ids[1], With: []string{ids[2], ids[0]}}, e)
	_, line := r.Page.Block(r.Select)
	if line.Arrangement != doc.LineUp || line.Style["direction"]["desktop"] != "row" || line.Blocks[0].ID != ids[0] {
		t.Fatalf("the line is %+v", line)
	}
	if got := line.Blocks[2].Style["width"]; got["desktop"] != "calc(50% - 12px)" || got["phone"] != "100%" {
		t.Errorf("half of the line is as wide as %v", got)
	}
	r = apply(t, p, Command{Op: "blocks.group", Value: "line-up", Node: ids[0], With: []string{ids[3]}}, e)
	if _, line = r.Page.Block(r.Select); line.Style["direction"] != nil {
		t.Errorf("what stands below one another became a line across")
	}
}

func TestFlip(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{1, 4, 1, 2}, [4]int{6, 7, 1, 2})
	r := apply(t, p, Command{Op: "flip", Node: p.Sections[0].ID}, e)
	if got := placesIn(r.Page, ids); got[0].Column != 9 || got[1].Column != 1 {
		t.Errorf("flipped they stand at columns %d and %d, want 9 and 1", got[0].Column, got[1].Column)
	}
	p = apply(t, p, Command{Op: "arrange", Node: p.Sections[0].ID, Value: "columns"}, e).Page
	sec := apply(t, p, Command{Op: "flip", Node: ids[0]}, e).Page.Sections[0]
	if sec.Blocks[0].ID != ids[1] || sec.Style["shares"]["desktop"] != "7 5" {
		t.Errorf("flipped columns are %s with %v", sec.Blocks[0].ID, sec.Style["shares"])
	}
}

// A block and its copies become a Series, what they say otherwise its contents; what it shows
// is what they showed, and so it is when it is taken apart.
func TestCopiesBecomeASeriesAndBack(t *testing.T) {
	e := env()
	p, ids := gridOf(
		t,
		e,
		[4]int{1, 3, 1, 4},
		[4]int{4, 3, 1, 4},
		[4]int{7, 3, 1, 4},
		[4]int{10, 3, 1, 4},
		[4]int{1, 12, 8, 2},
	)
	for i, words := range []string{"One", "Two", "Two", "Four", "Words below"} {
		p = apply(t, p, Command{Op: "block.write", Node: ids[i], Value: "<p>" + words + "</p>"}, e).Page
	}
	p = apply(t, p, Command{Op: "set", Node: ids[4], Zone: "desktop", Setting: "text-style", Value: "$small"}, e).Page
	r := apply(t, p, Command{Op: "blocks.series", Node: ids[1]}, e)
	_, s := r.Page.Block(r.Select)
	if s.Kind != doc.Series || len(s.Items) != 4 || s.Style["per-row"]["desktop"] != "4" ||
		len(r.Page.Sections[0].Blocks) != 2 {
		t.Fatalf("made %+v of %d items", s, len(s.Items))
	}
	said := func(bs ...*doc.Block) (out []string) {
		for _, b := range bs {
			out = append(out, b.Content.Words.Plain())
		}
		return out
	}
	var shown []*doc.Block
	for _, it := range s.Items {
		shown = append(shown, it.Shows(s.Blocks[0]))
	}
	want := []string{"One", "Two", "Two", "Four"}
	if got := said(shown...); !reflect.DeepEqual(got, want) {
		t.Errorf("the Series says %q, want %q", got, want)
	}
	if s.Items[0].Contents != nil || len(s.Items[1].Contents) != 1 {
		t.Errorf("the first item says %v of its own, the second %v", s.Items[0].Contents, s.Items[1].Contents)
	}
	r = apply(t, r.Page, Command{Op: "block.loose", Node: doc.ItemID(s.Blocks[0].ID, s.Items[2].ID)}, e)
	_, c := r.Page.Block(r.Select)
	if got := said(c.Blocks...); !reflect.DeepEqual(got, want) || c.Arrangement != doc.Columns ||
		c.Style["shares"]["desktop"] != "3" {
		t.Errorf("taken apart it is %q in %v with %v", got, c.Arrangement, c.Style["shares"])
	}
}

func TestMakeRoom(t *testing.T) {
	e := env()
	p, ids := gridOf(
		t,
		e,
		[4]int{1, 6, 3, 4},
		[4]int{1, 4, 1, 3},
		[4]int{4, 6, 5, 2},
		[4]int{9, 2, 6, 2},
		[4]int{9, 2, 4, 1},
	)
	p = apply(t, p, Command{Op: "block.room", Node: ids[0], Zone: "desktop"}, e).Page
	rows := []int{}
	for _, at := range placesIn(p, ids) {
		rows = append(rows, at.Row)
	}
	// The one that begins above is left, and what is beside it above the one that it covered.
	if want := []int{3, 1, 7, 8, 4}; !reflect.DeepEqual(rows, want) {
		t.Errorf("rows are %v, want %v", rows, want)
	}
	if _, err := Apply(p, Command{Op: "block.room", Node: ids[0], Zone: "desktop"}, e); err == nil {
		t.Error("room was made where there is some")
	}
}

// A locked block can't be changed by a command of its own or with others, until it is unlocked.
func TestLock(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{1, 6, 3, 4}, [4]int{1, 4, 8, 3})
	p = apply(t, p, Command{Op: "block.lock", Node: ids[0], Hide: true}, e).Page
	for _, c := range []Command{
		{Op: "delete", Node: ids[0]},
		{Op: "block.nudge", Node: ids[0], Zone: "desktop", DX: 1},
		{Op: "set", Node: ids[0], Zone: "desktop", Setting: "opacity", Value: "50%"},
		{Op: "blocks.nudge", Node: ids[1], With: ids[:1], Zone: "desktop", DX: 1},
		{Op: "block.write", Node: ids[0], Value: "<p>New</p>"},
	} {
		if _, err := Apply(p, c, e); err == nil || !strings.Contains(err.Error(), "locked") {
			t.Errorf("%s on a locked block: %v", c.Op, err)
		}
	}
	p = apply(t, p, Command{Op: "block.lock", Node: ids[0]}, e).Page
	apply(t, p, Command{Op: "delete", Node: ids[0]}, e)
}

// All titles of a page become like one, in what they look like and not where they stand; other
// levels stay.
func TestAllAlike(t *testing.T) {
	e := env()
	p, _ := gridOf(t, e)
	var ids []string
	for i := range 3 {
		id := apply(t, p, Command{Op: "block.add", Node: p.Sections[0].ID, Kind: doc.Heading, Zone: "desktop"}, e)
		p, ids = id.Page, append(ids, id.Select)
		level := "2"
		if i == 2 {
			level = "3"
		}
		p = apply(t, p, Command{Op: "block.content", Node: id.Select, Setting: "level", Value: level}, e).Page
	}
	p = apply(
		t,
		p,
		Command{Op: "set", Node: ids[0], Zone: "phone", Setting: "text-transform", Value: "uppercase"},
		e,
	).Page
	p = apply(t, p, Command{Op: "set", Node: ids[1], Zone: "desktop", Setting: "width", Value: "50%"}, e).Page
	r := apply(t, p, Command{Op: "block.alike", Node: ids[0]}, e)
	_, second := r.Page.Block(ids[1])
	_, third := r.Page.Block(ids[2])
	_, first := r.Page.Block(ids[0])
	if !reflect.DeepEqual(second.Style["text-transform"], first.Style["text-transform"]) ||
		second.Style["width"]["desktop"] != "50%" ||
		third.Style["text-transform"] != nil {
		t.Errorf("the second has %v, the third %v", second.Style, third.Style)
	}
	if r.Note != "1 of 1 others changed." {
		t.Errorf("says %q", r.Note)
	}
}
