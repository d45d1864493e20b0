package edit

import (
	"encoding/json"
	"math/rand/v2"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/ready"
)

// What is done to a section that is shared is done to it on another page too, whatever it is,
// and it is the same on both afterwards; taking it back takes it back on both.
func TestSharedSectionsStayTheSame(t *testing.T) {
	e := env()
	a, err := ready.NewPage("about", "About", nil, e.NewID, nil)
	if err != nil {
		t.Fatal(err)
	}
	b, err := ready.NewPage("contact", "Contact", nil, e.NewID, nil)
	if err != nil {
		t.Fatal(err)
	}
	shared := a.Sections[1]
	r, err := Apply(a, Command{Op: "section.share", Node: shared.ID}, e)
	if err != nil || len(r.Spread(a)) != 0 {
		t.Fatal(err)
	}
	a = r.Page
	e.Shared = func(id string) *doc.Section { s, _ := a.Section(id); return s }
	if r, err = Apply(b, Command{Op: "section.add", Preset: SharedPrefix + shared.ID, After: b.Sections[0].ID}, e); err != nil {
		t.Fatal(err)
	}
	b = r.Page
	if _, err := Apply(b, Command{Op: "section.add", Preset: SharedPrefix + shared.ID}, e); err == nil ||
		!strings.Contains(err.Error(), "already") {
		t.Errorf("twice on a page: %v", err)
	}
	text := func(s *doc.Section) string { j, _ := json.Marshal(s); return string(j) }
	same := func(what string) {
		t.Helper()
		x, _ := a.Section(shared.ID)
		y, _ := b.Section(shared.ID)
		if text(x) != text(y) {
			t.Fatalf("%s:\n%s\n%s", what, text(x), text(y))
		}
	}
	same("at first")
	random := rand.New(rand.NewPCG(5, 13))
	ids := func() (out []string) {
		s, _ := a.Section(shared.ID)
		s.Walk(func(b *doc.Block) { out = append(out, b.ID) })
		return append(out, s.ID)
	}
	outside := func(p *doc.Page, but string) string {
		for _, s := range p.Sections {
			if s.ID != but && len(s.Blocks) > 0 {
				return s.Blocks[0].ID
			}
		}
		return ""
	}
	spread, whole := 0, 0
	for range 600 {
		all := ids()
		node, other := all[random.IntN(len(all))], all[random.IntN(len(all))]
		c := []Command{
			{Op: "rename", Node: node, Value: string(rune('a' + random.IntN(26)))}, {Op: "duplicate", Node: node}, {Op: "delete", Node: node},
			{Op: "block.move", Node: node, Into: other}, {Op: "set", Node: node, Zone: "phone", Setting: "opacity", Value: "0.5"}, {Op: "set", Node: node, Zone: "desktop", Setting: "padding-top", Value: "30px"},
			{Op: "block.move", Node: node, Into: a.Sections[0].ID}, {Op: "block.move", Node: outside(a, shared.ID), Into: shared.ID},
			{Op: "block.add", Node: node, Kind: doc.Heading, Zone: "desktop"}, {Op: "section.shift", Node: shared.ID, DY: random.IntN(3) - 1},
			{Op: "blocks.group", Node: node, With: []string{other}}, {Op: "arrange", Node: node, Value: "columns"}, {Op: "flip", Node: node},
		}[random.IntN(13)]
		if c.Op == "delete" && (node == shared.ID || len(all) < 6) ||
			c.Op == "duplicate" && (node == shared.ID || len(all) > 60) {
			continue
		}
		r, err := Apply(a, c, e)
		if err != nil {
			continue
		}
		changed := r.Spread(a)
		before, beforeB := a, b
		a = r.Page
		if len(changed) == 0 {
			same(c.Op)
			continue
		}
		spread++
		f, err := r.Follow(changed, b)
		if err != nil || f == nil {
			t.Fatalf("%+v: %v", c, err)
		}
		if len(f.Steps) == 2 && f.Steps[0].Do == RemoveSection {
			whole++
		}
		b = f.Page
		same(c.Op)
		if random.IntN(4) > 0 {
			continue
		}
		if a, _, err = Run(a, r.Inverse); err == nil {
			b, _, err = Run(b, f.Inverse)
		}
		if x, _ := json.Marshal(beforeB); err != nil || text(a.Sections[1]) != text(before.Sections[1]) {
			t.Fatalf("%+v taken back: %v", c, err)
		} else if y, _ := json.Marshal(b); string(x) != string(y) {
			t.Fatalf("%+v taken back on the other page", c)
		}
	}
	if spread < 150 || whole > spread/2 {
		t.Errorf("%d edits were shared, %d of them whole", spread, whole)
	}
	r, err = Apply(b, Command{Op: "section.own", Node: shared.ID}, e)
	if err != nil || len(r.Page.SharedSections()) != 0 || len(r.Spread(b)) != 0 {
		t.Fatalf("made its own: %v", err)
	}
	own, _ := r.Page.Section(r.Select)
	if s, _ := a.Section(shared.ID); own == nil || len(own.Blocks) != len(s.Blocks) || own.ID == s.ID {
		t.Error("it isn't as it was, or not its own")
	}
}

// A new site's pages have one bar and one footer, the same on all.
func TestPlannedPagesShare(t *testing.T) {
	for i := range ready.Businesses {
		e := env()
		pages, tr, err := ready.Planned(
			&ready.Businesses[i],
			func(name string) bool { return name == "About" },
			e.NewID,
			nil,
		)
		if err != nil || len(pages) != len(tr) || len(pages) < 3 || tr[0].Address != "" {
			t.Fatalf("%s: %d pages, %v", ready.Businesses[i].ID, len(pages), err)
		}
		for _, p := range pages[1:] {
			if got := p.SharedSections(); strings.Join(got, " ") != strings.Join(pages[0].SharedSections(), " ") ||
				len(got) != 2 {
				t.Errorf("%s, %s: shares %v", ready.Businesses[i].ID, p.Name, got)
			}
		}
	}
}
