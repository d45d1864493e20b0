package edit

import (
	"math/rand/v2"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/place"
)

// Whatever is done and taken back, something that is on the page stands for what was selected, and
// the selection stays itself for as long as it is there.
func TestStanding(t *testing.T) {
	e := env()
	gone := 0
	for seed := range uint64(400) {
		r := rand.New(rand.NewPCG(seed, 25))
		p := someOf(r, e)
		selected := p.Sections[r.IntN(len(p.Sections))].ID
		var inverses [][]Step
		step := func(after *doc.Page) {
			before := p
			if p = after; selected == "" {
				return
			}
			now := Standing(before, p, selected)
			id, item := doc.SplitItem(now)
			switch is, itemOf := doc.SplitItem(selected); {
			case on(p, is, itemOf) && now != selected:
				t.Fatalf("%d: %s is there, and %s stands for it", seed, selected, now)
			case now == "" && len(p.Sections) > 0, now != "" && !on(p, id, item):
				t.Fatalf("%d: %q stands for %s", seed, now, selected)
			case now != selected:
				gone++
			}
			selected = now
		}
		for range 12 {
			if len(inverses) > 0 && r.IntN(3) == 0 {
				back, _, err := Run(p, inverses[len(inverses)-1])
				if err != nil {
					t.Fatal(err)
				}
				inverses = inverses[:len(inverses)-1]
				step(back)
				continue
			}
			c := command(r, p, e)
			if r.IntN(3) == 0 {
				c = Command{Op: []string{"delete", "duplicate"}[r.IntN(2)], Node: selected}
			}
			if res, err := Apply(p, c, e); err == nil && len(res.Steps) > 0 {
				inverses = append(inverses, res.Inverse)
				if res.Select != "" {
					selected = res.Select
					p = res.Page
					if r.IntN(2) == 0 { // and something else is chosen
						sec := p.Sections[r.IntN(len(p.Sections))]
						selected = sec.ID
						sec.Walk(func(b *doc.Block) { selected = b.ID })
					}
					continue
				}
				step(res.Page)
			}
			if selected == "" && len(p.Sections) > 0 {
				selected = p.Sections[0].ID
			}
		}
	}
	if gone < 100 {
		t.Errorf("what was selected went %d times alone", gone)
	}
}

// What comes back is found.
func TestCame(t *testing.T) {
	e := env()
	p := page(e)
	section, block := p.Sections[1].ID, p.Sections[1].Blocks[0].ID
	for _, node := range []string{section, block} {
		res, err := Apply(p, Command{Op: "delete", Node: node}, e)
		if err != nil {
			t.Fatal(err)
		}
		if got := Came(res.Page, p); got != node {
			t.Errorf("%q came back, want %s", got, node)
		}
		if got := Came(p, res.Page); got != "" {
			t.Errorf("%q came by deleting", got)
		}
	}
}

// Nobody is told an id: it says nothing to them.
func TestProblemsNameNoIDs(t *testing.T) {
	const gone = "bh85k2m4n6p8r0"
	e := env()
	p := page(e)
	there := p.Sections[1].Blocks[0].ID
	for _, op := range Operations() {
		for _, c := range []Command{
			{Op: op, Node: gone, Zone: "desktop", Value: "x"},
			{Op: op, Node: there, Zone: "desktop", With: []string{gone}, After: gone, Into: gone, Value: "x"},
			{Op: op, Node: p.Sections[0].ID, Zone: "desktop", With: []string{gone}, After: gone, Into: gone},
			{Op: op, Node: there, Zone: "desktop", Value: gone, Setting: "picture"},
		} {
			if _, err := Apply(p, c, e); err != nil && strings.Contains(err.Error(), gone) && c.Value != gone {
				t.Errorf("%s: %v", op, err)
			}
		}
	}
}

// What is placed by hand in a narrower zone moves nothing else there: 2,000 changes, after each of
// which every other block has the place that it had.
func TestByHandMovesNothingElse(t *testing.T) {
	e := env()
	changes := 0
	for seed := uint64(0); changes < 2000 && seed < 12000; seed++ {
		r := rand.New(rand.NewPCG(seed, 26))
		p := someOf(r, e)
		for range 10 {
			c := command(r, p, e)
			c.Op = []string{"block.place", "block.nudge", "block.resize"}[r.IntN(3)]
			c.Zone = []string{"tablet", "phone"}[r.IntN(2)]
			c.DX, c.DY = r.IntN(3)-1, r.IntN(3)-1
			if r.IntN(4) == 0 { // what was in another order by hand before is moved with its neighbours
				c.Op, c.After = "order", ""
				if res, err := Apply(p, c, e); err == nil {
					p = res.Page
				}
				continue
			}
			res, err := Apply(p, c, e)
			if err != nil || len(res.Steps) == 0 {
				continue
			}
			id, _ := doc.SplitItem(c.Node)
			sec, _ := p.Block(id)
			if sec == nil {
				continue
			}
			h := sec.HolderOf(id)
			if h.Arrangement != doc.Placed {
				continue
			}
			changes++
			now, _ := res.Page.Section(sec.ID)
			z := e.Site.Zones.Index(c.Zone)
			was, is := place.Resolve(h, e.Site.Zones)[z], place.Resolve(now.HolderOf(id), e.Site.Zones)[z]
			for i, b := range h.Blocks {
				if b.ID != id && was[i].Place != is[i].Place {
					t.Fatalf("%d: %s of %s in %s puts %s to %+v from %+v", seed, c.Op, id, c.Zone, b.ID, is[i], was[i])
				}
			}
			p = res.Page
		}
	}
	if changes < 2000 {
		t.Errorf("only %d changes", changes)
	}
}
