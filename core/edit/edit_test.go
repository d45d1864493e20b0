package edit

import (
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"strings"
	"testing"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/edit/edittest"
	"openplot/core/element"
	"openplot/core/ready"
	"openplot/core/settings"
	"openplot/core/style"
)

func env() Env {
	n := 0
	site := &doc.Site{ID: "w", House: doc.StandardHouse(), Zones: doc.StandardZones()}
	return Env{
		Site:  site,
		NewID: func(prefix string) string { n++; return fmt.Sprintf("%snew%d", prefix, n) },
		Medium: func(id string) doc.MediumSort {
			return map[string]doc.MediumSort{"m1": doc.PictureMedium, "v1": doc.VideoMedium, "a1": doc.AudioMedium, "f1": doc.FileMedium}[id]
		},
		HasIcon: func(name string) bool { return name == "clock" },
	}
}

func page(e Env) *doc.Page {
	sections := edittest.Sections(e.NewID)
	return &doc.Page{
		ID:       "p1",
		Name:     "Home",
		Title:    "Home",
		Sections: append([]*doc.Section{ready.Presets[0].Make(e.NewID, nil)}, sections...),
	}
}

// someOf gives a page with two ready-made sections and one that holds blocks of some
// kinds.
func someOf(r *rand.Rand, e Env) *doc.Page {
	p := &doc.Page{ID: "p1", Name: "Home", Title: "Home"}
	p.Sections = append(
		p.Sections,
		ready.Presets[r.IntN(len(ready.Presets))].Make(e.NewID, nil),
		edittest.Sections(e.NewID)[r.IntN(3)],
	)
	s := &doc.Section{
		ID:          e.NewID("s"),
		Name:        "Kinds",
		Arrangement: []doc.Arrangement{doc.Placed, doc.Columns, doc.LineUp}[r.IntN(3)],
	}
	for i := range 4 {
		b := element.Start(doc.Kinds[r.IntN(len(doc.Kinds))]).Anew(e.NewID)
		b.Place = doc.Zoned[doc.Place]{"desktop": {Column: 1 + 3*i, Span: 3, Row: 1 + r.IntN(4), Rows: 1 + r.IntN(4)}}
		s.Blocks = append(s.Blocks, b)
	}
	p.Sections = append(p.Sections, s)
	return p
}

func encoded(t testing.TB, p *doc.Page) string {
	t.Helper()
	b, err := p.MarshalJSON() // json.Marshal would go through it once more
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

// command makes a random command, mostly a possible one.
func command(r *rand.Rand, p *doc.Page, e Env) Command {
	ops := make([]string, 0, len(operations))
	for op := range operations {
		ops = append(ops, op)
	}
	slices.Sort(ops)
	pick := func(from ...string) string { return from[r.IntN(len(from))] }
	c := Command{
		Op:   ops[r.IntN(len(ops))],
		Zone: e.Site.Zones[r.IntN(3)].ID,
		DX:   r.IntN(7) - 3, DY: r.IntN(7) - 3, Hide: r.IntN(2) == 0,
		Preset: ready.Presets[r.IntN(len(ready.Presets))].ID,
		Kind:   doc.Kinds[r.IntN(len(doc.Kinds))],
	}
	nodes := []string{"nothing"}
	var sections, holders []string
	for _, s := range p.Sections {
		sections = append(sections, s.ID)
		nodes = append(nodes, s.ID)
		s.Walk(func(b *doc.Block) {
			nodes = append(nodes, b.ID, b.ID)
			if b.Kind.Is(doc.Holding) {
				holders = append(holders, b.ID)
			}
			for _, it := range b.Items {
				b.Walk(func(in *doc.Block) { nodes = append(nodes, doc.ItemID(in.ID, it.ID)) })
			}
		})
	}
	holders = append(holders, sections...)
	c.Node = nodes[r.IntN(len(nodes))]
	if len(sections) > 0 && strings.HasPrefix(c.Op, "section.") {
		c.Node = sections[r.IntN(len(sections))]
	}
	if len(holders) > 0 && (c.Op == "block.add" || c.Op == "arrange") {
		c.Node = holders[r.IntN(len(holders))]
	}
	if len(sections) > 0 && r.IntN(3) > 0 {
		c.After = sections[r.IntN(len(sections))]
		if c.Op == "block.add" || c.Op == "block.move" {
			c.After = nodes[r.IntN(len(nodes))]
		}
	}
	if len(holders) > 0 {
		c.Into = holders[r.IntN(len(holders))]
	}
	c.At = r.IntN(4)
	if r.IntN(2) == 0 {
		c.Place = &doc.Place{Column: r.IntN(14), Span: r.IntN(6), Row: r.IntN(9), Rows: r.IntN(6), Layer: r.IntN(4)}
	}
	s := style.Settings[r.IntN(len(style.Settings))]
	c.Setting = pick(
		s.Name, "columns", "rows", "layer", "title", "name", "level", "alt", "link", "picture", "number", "icon",
		"shares", "label", "cells",
	)
	c.Value = pick(
		"12", "columns", "line-up", "placed", "4 8", "clock", "a\tb\nc", "24px", "1 – 3", "$accent", "m1", "Words",
		"<p>Some <b>bold</b><br>words</p>", "/fares", "4:3", "", s.Unset(), "header", "anchor",
	)
	if strings.HasPrefix(c.Op, "blocks.") {
		c.Value, c.Setting = pick(
			"left",
			"center",
			"right",
			"top",
			"middle",
			"bottom",
			"across",
			"down",
			"width",
			"height",
			"front",
			"back",
			"",
			"line-up",
		), pick(
			"",
			"",
			"section",
			"2",
		)
		for _, sec := range p.Sections { // mostly of one grid
			if _, b := p.Block(c.Node); b != nil && sec.Path(c.Node) != nil {
				for _, beside := range sec.HolderOf(b.ID).Blocks {
					c.With = append(c.With, beside.ID)
				}
			}
		}
	}
	switch c.Op {
	case "page.guide":
		c.Setting, c.Value, c.After = pick("x", "y", "z"), pick("120", "240", "", "-1"), pick("", "120", "240")
	case "entry.set":
		c.At, c.Setting = 0, pick("label", "cells", "link", "icon", "picture")
	case "paste":
		c.Value, _ = carry.Copy(p, []string{nodes[r.IntN(len(nodes))]})
	case "look":
		c.Value, _ = carry.CopyLook(p, nodes[r.IntN(len(nodes))], e.Site.Zones, r.IntN(3))
	}
	return c
}

// run plays n random commands and takes them back in reverse; every state on the
// way back must be the one that was there on the way.
func run(t *testing.T, r *rand.Rand, n int) {
	e := env()
	p := someOf(r, e)
	before := []string{encoded(t, p)}
	var inverses [][]Step
	for range n {
		c := command(r, p, e)
		was := before[len(before)-1]
		res, err := Apply(p, c, e)
		if err != nil {
			var problem *doc.Problem
			if !errors.As(err, &problem) {
				t.Fatalf("%+v: %v is no problem a person can read", c, err)
			}
			if encoded(t, p) != was {
				t.Fatalf("%+v was refused and changed the page", c)
			}
			continue
		}
		if encoded(t, p) != was {
			t.Fatalf("%+v changed the page it was given", c)
		}
		now := encoded(t, res.Page)
		again, _, err := Run(p, res.Steps)
		if err != nil || encoded(t, again) != now {
			t.Fatalf("%+v: the steps played again give another page", c)
		}
		p = res.Page
		before = append(before, now)
		inverses = append(inverses, res.Inverse)
	}
	for i := len(inverses) - 1; i >= 0; i-- {
		b, err := json.Marshal(inverses[i]) // as the log keeps it
		if err != nil {
			t.Fatal(err)
		}
		var steps []Step
		if err := json.Unmarshal(b, &steps); err != nil {
			t.Fatal(err)
		}
		back, forth, err := Run(p, steps)
		if err != nil {
			t.Fatal(err)
		}
		redone, _, err := Run(back, forth)
		if err != nil || encoded(t, redone) != before[i+1] {
			t.Fatalf("redoing step %d gives another page", i)
		}
		p = back
		if got := encoded(t, p); got != before[i] {
			t.Fatalf("undoing step %d gives\n%s\nwant\n%s", i, got, before[i])
		}
	}
}

func TestApplyThenUndoGivesTheIdenticalPage(t *testing.T) {
	sequences := 2500
	if os.Getenv("OPENPLOT_MEASURE") != "" {
		sequences = 10_000
	}
	for seed := range uint64(sequences) {
		run(t, rand.New(rand.NewPCG(seed, 0)), 6)
	}
	run(t, rand.New(rand.NewPCG(1, 1)), 400)
}

func FuzzSequences(f *testing.F) {
	for seed := range uint64(8) {
		f.Add(seed, uint8(10))
	}
	f.Fuzz(func(t *testing.T, seed uint64, n uint8) {
		run(t, rand.New(rand.NewPCG(seed, 7)), int(n)%40)
	})
}

// The random commands must reach every operation, or the tests above show little.
func TestRandomCommandsReachEveryOperation(t *testing.T) {
	done := map[string]int{}
	e := env()
	for seed := range uint64(3000) {
		r := rand.New(rand.NewPCG(seed, 3))
		p := someOf(r, e)
		for range 8 {
			c := command(r, p, e)
			if res, err := Apply(p, c, e); err == nil && len(res.Steps) > 0 {
				done[c.Op]++
				p = res.Page
			}
		}
	}
	for op := range operations {
		if done[op] == 0 {
			t.Errorf("%s was never carried out", op)
		}
	}
}

func TestBadCommands(t *testing.T) {
	e := env()
	p := page(e)
	text, section := p.Sections[1].Blocks[1].ID, p.Sections[1].ID
	heading, picture := p.Sections[1].Blocks[0].ID, p.Sections[1].Blocks[3].ID
	place := func(column, span, row, rows, layer int) *doc.Place {
		return &doc.Place{Column: column, Span: span, Row: row, Rows: rows, Layer: layer}
	}
	const huge = 1 << 60
	tests := []struct {
		name, field string
		c           Command
	}{
		{"unknown op", "Edit", Command{Op: "explode"}},
		{"no op", "Edit", Command{}},
		{"unknown section", "Section", Command{Op: "section.hide", Node: "nope"}},
		{"a block as section", "Section", Command{Op: "section.hide", Node: text}},
		{"unknown block", "Block", Command{Op: "block.write", Node: "nope"}},
		{"unknown node", "Selection", Command{Op: "delete", Node: "nope"}},
		{"unknown zone", "Zone", Command{Op: "block.nudge", Node: text, Zone: "watch", DX: 1}},
		{"no zone", "Zone", Command{Op: "set", Node: text, Setting: "color", Value: "#fff"}},
		{"unknown kind", "Block", Command{Op: "block.add", Node: section, Zone: "desktop", Kind: "carousel"}},
		{"unknown preset", "Section", Command{Op: "section.add", Preset: "nope"}},
		{"unknown section to go after", "Position", Command{Op: "section.add", Preset: "empty", After: "nope"}},
		{
			"unknown setting",
			"Setting",
			Command{Op: "set", Node: text, Zone: "desktop", Setting: "position", Value: "fixed"},
		},
		{
			"another kind's setting",
			"Setting",
			Command{Op: "set", Node: picture, Zone: "desktop", Setting: "padding-top", Value: "3"},
		},
		{
			"unknown token",
			"Fill",
			Command{Op: "set", Node: text, Zone: "desktop", Setting: "background", Value: "$nope"},
		},
		{
			"unknown unit",
			"Padding top",
			Command{Op: "set", Node: text, Zone: "desktop", Setting: "padding-top", Value: "3furlongs"},
		},
		{"NaN", "Padding top", Command{Op: "set", Node: text, Zone: "desktop", Setting: "padding-top", Value: "NaN"}},
		{
			"infinity",
			"Padding top",
			Command{Op: "set", Node: text, Zone: "desktop", Setting: "padding-top", Value: "1/0"},
		},
		{
			"out of range",
			"Padding top",
			Command{Op: "set", Node: text, Zone: "desktop", Setting: "padding-top", Value: "1e5"},
		},
		{
			"a style that isn't one",
			"Fill",
			Command{Op: "set", Node: text, Zone: "desktop", Setting: "background", Value: "red}*{display:none"},
		},
		{"no place", "Position", Command{Op: "block.place", Node: text, Zone: "desktop"}},
		{
			"negative span",
			"Columns",
			Command{Op: "block.place", Node: text, Zone: "desktop", Place: place(1, -1, 1, 1, 0)},
		},
		{"column 0", "Columns", Command{Op: "block.place", Node: text, Zone: "desktop", Place: place(0, 1, 1, 1, 0)}},
		{
			"over the edge",
			"Columns",
			Command{Op: "block.place", Node: text, Zone: "phone", Place: place(3, 3, 1, 1, 0)},
		},
		{
			"huge span",
			"Columns",
			Command{Op: "block.place", Node: text, Zone: "desktop", Place: place(1, huge, 1, 1, 0)},
		},
		{"negative row", "Rows", Command{Op: "block.place", Node: text, Zone: "desktop", Place: place(1, 1, -4, 1, 0)}},
		{
			"huge row",
			"Rows",
			Command{Op: "block.place", Node: text, Zone: "desktop", Place: place(1, 1, huge, huge, 0)},
		},
		{
			"negative layer",
			"Layer",
			Command{Op: "block.place", Node: text, Zone: "desktop", Place: place(1, 1, 1, 1, -1)},
		},
		{
			"columns in words",
			"Columns",
			Command{Op: "block.place.set", Node: text, Zone: "desktop", Setting: "columns", Value: "all"},
		},
		{
			"columns backwards",
			"Columns",
			Command{Op: "block.place.set", Node: text, Zone: "desktop", Setting: "columns", Value: "5 – 2"},
		},
		{
			"layer in words",
			"Layer",
			Command{Op: "block.place.set", Node: text, Zone: "desktop", Setting: "layer", Value: "top"},
		},
		{"following in the widest", "Position", Command{Op: "block.place.reset", Node: text, Zone: "desktop"}},
		{
			"a picture that isn't there",
			"Picture",
			Command{Op: "block.content", Node: picture, Setting: "picture", Value: "nope"},
		},
		{"words of a picture", "Text", Command{Op: "block.write", Node: picture, Value: "x"}},
		{"10 MB of words", "Text", Command{Op: "block.write", Node: text, Value: strings.Repeat("x", 10<<20)}},
		{"bytes that are no text", "Text", Command{Op: "block.write", Node: text, Value: "a\xff\xfe"}},
		{"level 7", "Level", Command{Op: "block.content", Node: heading, Setting: "level", Value: "7"}},
		{
			"a link with a script", "Link",
			Command{
				Op:      "block.content",
				Node:    p.Sections[1].Blocks[2].ID,
				Setting: "link",
				Value:   "javascript:alert(1)",
			},
		},
		{"a name of 10 MB", "Name", Command{Op: "rename", Node: section, Value: strings.Repeat("x", 10<<20)}},
		{"an empty name", "Name", Command{Op: "rename", Node: section, Value: "  "}},
		{"a name over lines", "Name", Command{Op: "rename", Node: section, Value: "a\nb"}},
		{"an anchor with a space", "Anchor", Command{Op: "section.anchor", Node: section, Value: "a b"}},
		{"a role that isn't one", "Landmark", Command{Op: "section.role", Node: section, Value: "script"}},
		{"an empty title", "Title", Command{Op: "page.set", Setting: "title"}},
		{"no layer direction", "Layer", Command{Op: "block.layer", Node: text, Zone: "desktop"}},
	}
	was := encoded(t, p)
	for _, tt := range tests {
		_, err := Apply(p, tt.c, e)
		var problem *doc.Problem
		if !errors.As(err, &problem) {
			t.Errorf("%s: %v, want a problem", tt.name, err)
			continue
		}
		if problem.Field != tt.field || len(problem.Message) < 8 || len(problem.Message) > 400 {
			t.Errorf("%s: %q, want the field %s", tt.name, problem, tt.field)
		}
		if encoded(t, p) != was {
			t.Fatalf("%s changed the page", tt.name)
		}
	}
}

func TestParse(t *testing.T) {
	if c, err := Parse([]byte(`{"op":"delete","node":"s1","base":4}`)); err != nil || c.Node != "s1" || c.Base != 4 {
		t.Errorf("%+v, %v", c, err)
	}
	for _, in := range []string{
		``, `{`, `[]`,
		`{"op":"delete","extra":1}`,
		`{"op":1}`,
		`{"op":"delete","dx":1e99}`,
		`{"op":"delete","dx":NaN}`,
		`{"op":"a"}{"op":"b"}`,
		`{"op":"` + strings.Repeat("x", MaxCommand) + `"}`,
	} {
		var problem *doc.Problem
		if _, err := Parse([]byte(in)); !errors.As(err, &problem) {
			t.Errorf("%.40q: %v, want a problem", in, err)
		}
	}
}

func FuzzParse(f *testing.F) {
	f.Add([]byte(`{"op":"block.place","node":"bnew3","zone":"desktop","place":{"column":1,"span":2,"row":1,"rows":1}}`))
	f.Add([]byte(`{"op":"set","node":"bnew3","zone":"phone","setting":"padding-top","value":"(1000-40)/40"}`))
	f.Fuzz(func(t *testing.T, b []byte) {
		c, err := Parse(b)
		if err != nil {
			return
		}
		e := env()
		p := page(e)
		was := encoded(t, p)
		res, err := Apply(p, c, e)
		if err != nil {
			var problem *doc.Problem
			if !errors.As(err, &problem) {
				t.Fatal(err)
			}
			return
		}
		back, _, err := Run(res.Page, res.Inverse)
		if err != nil || encoded(t, back) != was {
			t.Fatalf("undoing %s: %v", b, err)
		}
	})
}

func TestParseWords(t *testing.T) {
	for in, want := range map[string]string{
		"plain":                         `[[{"text":"plain"}]]`,
		"<p>One</p><p>Two</p>":          `[[{"text":"One"}],[{"text":"Two"}]]`,
		"One<br>Two<br>":                `[[{"text":"One\nTwo"}]]`,
		"<div>One</div><div><br></div>": `[[{"text":"One"}],[]]`,
		"a <b>bold</b> <i>word</i>":     `[[{"text":"a "},{"text":"bold","bold":true},{"text":" "},{"text":"word","italic":true}]]`,
		`<a href="/fares" target="_blank">Fares</a> <a href="file:m1">Plan</a>`: `[[{"text":"Fares","link":"/fares _blank"},{"text":" "},{"text":"Plan","link":"file:m1"}]]`,
		`<a href="/fares">Fares</a>!`:                                           `[[{"text":"Fares","link":"/fares"},{"text":"!"}]]`,
		"<script>alert(1)</script>safe":                                         `[[{"text":"safe"}]]`,
		"  lots \n of\tspace  ":                                                 `[[{"text":"lots of space"}]]`,
		"<b>x</b><b>y</b>":                                                      `[[{"text":"xy","bold":true}]]`,
		`<p onclick="x" style="y">One</p>`:                                      `[[{"text":"One"}]]`,
		"":                                                                      `null`,
		"&lt;b&gt; &amp; more":                                                  `[[{"text":"\u003cb\u003e \u0026 more"}]]`,
		"<ul><li>one</li><li>two</li></ul>":                                     `[[{"text":"one","item":"disc"}],[{"text":"two","item":"disc"}]]`,
		"<ol><li><u>one</u> <s>two</s></li></ol><p><small>three</small></p>":                                           `[[{"text":"one","underline":true,"item":"decimal"},{"text":" "},{"text":"two","strike":true}],[{"text":"three","small":true}]]`,
		`<span data-size="130">a</span><span data-size="900" data-tracking="x">b</span><span data-size="100">c</span>`: `[[{"text":"a","size":130},{"text":"b","size":300},{"text":"c"}]]`,
		`<span data-tracking="8"><span data-colour="#aa3311">a</span></span><span data-colour="#aa33">b</span>`:        `[[{"text":"a","colour":"#aa3311","tracking":8},{"text":"b"}]]`,
		`<span data-colour="accent">red</span> <span data-colour="url(x)" style="color:red">no</span>`:                 `[[{"text":"red","colour":"accent"},{"text":" no"}]]`,
		"<h2>One</h2><h3>Two</h3><p>x</p><blockquote><p>said</p><p>so</p></blockquote>":                                `[[{"text":"One","as":"h2"}],[{"text":"Two","as":"h3"}],[{"text":"x"}],[{"text":"said","as":"quote"}],[{"text":"so","as":"quote"}]]`,
		"<ul><li><p>one</p><ol><li>within</li><li><ul><li>too deep</li></ul></li></ol></li></ul>":                      `[[{"text":"one","item":"disc"}],[{"text":"within","item":"decimal","depth":1}],[{"text":"too deep","item":"disc","depth":1}]]`,
		`<span lang="de-AT">Grüß Gott</span> <span lang="x&quot;y">b</span>`:                                           `[[{"text":"Grüß Gott","language":"de-AT"},{"text":" b"}]]`,
		"<h1>Top</h1><h6>Low</h6>":     `[[{"text":"Top","as":"h2"}],[{"text":"Low","as":"h4"}]]`,
		"x<sup>2</sup> <code>y</code>": `[[{"text":"x"},{"text":"2","super":true},{"text":" "},{"text":"y","code":true}]]`,
		"<li>one</li><li>two</li>":     `[[{"text":"one"}],[{"text":"two"}]]`,
	} {
		w, err := ParseWords(in)
		if err != nil {
			t.Errorf("%q: %v", in, err)
			continue
		}
		if b, _ := json.Marshal(w); string(b) != strings.ReplaceAll(want, "[]", "null") {
			t.Errorf("%q gives %s, want %s", in, b, want)
		}
	}
}

// A link that nobody can follow isn't dropped silently.
func TestParseWordsTellsOfBadLinks(t *testing.T) {
	var problem *doc.Problem
	for _, in := range []string{`<a href="javascript:x()">No</a>`, `<p>One <a href="skerry.example">two</a></p>`} {
		if w, err := ParseWords(in); !errors.As(err, &problem) || problem.Field != "Link" {
			t.Errorf("%s: %v, %v", in, w, err)
		}
	}
}

// Nothing hostile comes through: what is left is words, and links that can be followed safely
// (testdata/README.md says where the cases are from).
func TestParseWordsOfHostileHTML(t *testing.T) {
	b, err := os.ReadFile("testdata/hostile.json")
	if err != nil {
		t.Fatal(err)
	}
	var corpus map[string][]string
	if err := json.Unmarshal(b, &corpus); err != nil {
		t.Fatal(err)
	}
	cases, read := 0, 0
	for from, list := range corpus {
		for _, in := range list {
			cases++
			w, err := ParseWords(in)
			var problem *doc.Problem
			if errors.As(err, &problem) && problem.Field == "Link" {
				continue
			}
			if err != nil {
				t.Errorf("%s: %s: %v", from, in, err)
				continue
			}
			read++
			site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
			sec := &doc.Section{
				ID:          "s",
				Arrangement: doc.Columns,
				Blocks:      []*doc.Block{{ID: "b", Kind: doc.Text, Content: doc.Content{Words: w}}},
			}
			page := (&element.Builder{Site: site}).Page(&doc.Page{Sections: []*doc.Section{sec}})
			page.Walk(func(n *element.Node) {
				switch n.Tag {
				case "",
					"body",
					"main",
					"section",
					"div",
					"p",
					"h2",
					"h3",
					"h4",
					"ul",
					"ol",
					"li",
					"blockquote",
					"strong",
					"em",
					"u",
					"s",
					"small",
					"sup",
					"code",
					"span",
					"br",
					"a":
				default:
					t.Errorf("%s gives a %s", in, n.Tag)
				}
				for _, a := range n.Attrs {
					if _, err := settings.CheckLink(a.Value); a.Name == "href" && err != nil ||
						strings.HasPrefix(a.Name, "on") ||
						a.Name == "style" ||
						a.Name == "src" {
						t.Errorf("%s gives %s=%s", in, a.Name, a.Value)
					}
				}
			})
		}
	}
	if cases < 100 || read < cases/2 {
		t.Errorf("%d of %d cases were read", read, cases)
	}
}

func FuzzParseWords(f *testing.F) {
	f.Add("<p>a <b>b</b><br></p>")
	f.Add("<a href='x'><i>q</a>")
	f.Add(strings.Repeat("<b>", 500))
	f.Fuzz(func(t *testing.T, s string) {
		w, err := ParseWords(s)
		if err != nil {
			return
		}
		for _, p := range w {
			for _, r := range p {
				if r.Link != "" {
					if _, err := settings.CheckLink(r.Link); err != nil {
						t.Errorf("%q kept the link %q", s, r.Link)
					}
				}
			}
		}
	})
}

func TestZonesDoNotTouchEachOther(t *testing.T) {
	e := env()
	p := page(e)
	id := p.Sections[1].Blocks[1].ID
	do := func(c Command) {
		t.Helper()
		c.Node, c.Setting = id, "font-size"
		res, err := Apply(p, c, e)
		if err != nil {
			t.Fatal(err)
		}
		p = res.Page
	}
	value := func(zone int) string {
		_, b := p.Block(id)
		v, _, _ := b.Style["font-size"].Resolve(e.Site.Zones, zone)
		return v
	}
	do(Command{Op: "set", Zone: "phone", Value: "15"})
	if value(0) != "" || value(2) != "15px" {
		t.Errorf("set on the phone: desktop %q, phone %q", value(0), value(2))
	}
	do(Command{Op: "set", Zone: "desktop", Value: "20"})
	if value(0) != "20px" || value(1) != "20px" || value(2) != "15px" {
		t.Errorf("set on the desktop: %q %q %q", value(0), value(1), value(2))
	}
	do(Command{Op: "follow", Zone: "phone"})
	if value(2) != "20px" {
		t.Errorf("following again: %q", value(2))
	}
}

func TestAddedBlockLiesOnTopWhereItWasDropped(t *testing.T) {
	e := env()
	p := page(e)
	s := p.Sections[1]
	at := &doc.Place{Column: 8, Span: 3, Row: 2, Rows: 2}
	res, err := Apply(p, Command{Op: "block.add", Node: s.ID, Zone: "desktop", Kind: doc.Text, Place: at}, e)
	if err != nil {
		t.Fatal(err)
	}
	_, b := res.Page.Block(res.Select)
	if got := b.Place["desktop"]; got.Column != 8 || got.Row != 2 || got.Layer != 1 {
		t.Errorf("%+v", got)
	}
	if len(b.Place) != 1 {
		t.Errorf("the narrower zones aren't left to the rule: %v", b.Place)
	}
}
