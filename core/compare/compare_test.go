package compare

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
)

func page() *doc.Page {
	text := func(id, words string) *doc.Block {
		return &doc.Block{ID: id, Kind: doc.Text, Content: doc.Content{Words: doc.PlainWords(words)}}
	}
	return &doc.Page{ID: "p", Name: "Fares", Title: "Fares", Sections: []*doc.Section{
		{ID: "s1", Name: "Welcome", Arrangement: doc.Columns, Blocks: []*doc.Block{text("a", "One"), text("b", "Two"), {
			ID: "c", Kind: doc.Container, Arrangement: doc.LineUp, Blocks: []*doc.Block{text("d", "Three")},
		}}},
		{ID: "s2", Name: "Prices", Blocks: []*doc.Block{text("e", "Four")}},
		{ID: "s3", Name: "Footer"},
	}}
}

func TestPages(t *testing.T) {
	env := edit.Env{Site: &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}}
	ids := 0
	env.NewID = func(p string) string { ids++; return p + "new" + string(rune('0'+ids)) }
	for _, tt := range []struct {
		name string
		do   []edit.Command
		want string // of Say, and the nodes
	}{
		{"nothing", nil, ""},
		{"words", []edit.Command{{Op: "block.write", Node: "a", Value: "<p>Other</p>"}}, "“Welcome”: words of 1 block [a]"},
		{"look", []edit.Command{{Op: "set", Node: "b", Setting: "opacity", Value: "0.5", Zone: "desktop"}}, "“Welcome”: 1 block changed [b]"},
		{"a block of another section", []edit.Command{{Op: "block.move", Node: "d", Into: "s2"}}, "“Prices”: 1 block moved [d]"},
		{"a section", []edit.Command{{Op: "section.move", Node: "s3", After: ""}}, "“Footer” moved [s3]"},
		{"a block with what is in it", []edit.Command{{Op: "delete", Node: "c"}}, "“Welcome”: 1 block removed [c]"},
		{"a section gone", []edit.Command{{Op: "delete", Node: "s2"}}, "“Prices” removed [s2]"},
		{"the page", []edit.Command{{Op: "page.set", Setting: "title", Value: "Prices"}}, "Page settings changed []"},
		{"a name", []edit.Command{{Op: "rename", Node: "s2", Value: "Costs"}}, "“Costs”: its look changed [s2]"},
	} {
		was := page()
		now := was
		for _, c := range tt.do {
			r, err := edit.Apply(now, c, env)
			if err != nil {
				t.Fatalf("%s: %v", tt.name, err)
			}
			now = r.Page
		}
		changes := Pages(was, now)
		got := strings.Join(Say(changes), "; ")
		if len(changes) > 0 {
			var nodes []string
			for _, c := range changes {
				if c.Node != "" {
					nodes = append(nodes, c.Node)
				}
			}
			got += " [" + strings.Join(nodes, " ") + "]"
		}
		if got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
	added := page()
	added.Sections = append(
		added.Sections,
		&doc.Section{ID: "s4", Name: "Map", Blocks: []*doc.Block{{ID: "m", Kind: doc.Text}}},
	)
	if got := Say(Pages(page(), added)); !slices.Equal(got, []string{"“Map” added"}) {
		t.Errorf("added: %v", got)
	}
	// What was added the one way was removed the other.
	if got := Say(Pages(added, page())); !slices.Equal(got, []string{"“Map” removed"}) {
		t.Errorf("removed: %v", got)
	}
}

// As few as can be count as moved: those that aren't in the longest run that kept its order, by
// trying every run.
func TestFewestMoved(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 3))
	for range 200 {
		was := []string{"a", "b", "c", "d", "e", "f", "g"}
		now := slices.Clone(was)
		r.Shuffle(len(now), func(i, j int) { now[i], now[j] = now[j], now[i] })
		best := 0
		for mask := range 1 << len(now) {
			var run []string
			for i, id := range now {
				if mask>>i&1 == 1 {
					run = append(run, id)
				}
			}
			if slices.IsSorted(run) {
				best = max(best, len(run))
			}
		}
		if got := len(inOrder(was, now)); got != best {
			t.Fatalf("%v: %d kept, want %d", now, got, best)
		}
	}
}
