package edit

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/ready"
)

// What is copied and pasted is the same but for its ids, beside what is selected, whatever
// kind it is and wherever it comes from.
func TestCopyAndPaste(t *testing.T) {
	for i := range ready.Presets {
		e := env()
		e.HasIcon = func(string) bool { return true }
		r, err := Apply(&doc.Page{ID: "p"}, Command{Op: "section.add", Preset: ready.Presets[i].ID}, e)
		if err != nil {
			t.Fatal(err)
		}
		page := r.Page
		sec := page.Sections[0]
		text, err := carry.Copy(page, []string{sec.ID})
		if err != nil || !strings.HasPrefix(text, carry.ClipHead+"\n") {
			t.Fatal(err)
		}
		r, err = Apply(page, Command{Op: "paste", Node: sec.ID, Value: text}, e)
		if err != nil {
			t.Errorf("%s: %v", ready.Presets[i].ID, err)
			continue
		}
		if len(r.Page.Sections) != 2 || r.Select != r.Page.Sections[1].ID {
			t.Fatalf("%s: %d sections", ready.Presets[i].ID, len(r.Page.Sections))
		}
		if a, b := unnamed(t, sec), unnamed(t, r.Page.Sections[1]); a != b {
			t.Errorf("%s is pasted as\n%s\nwant\n%s", ready.Presets[i].ID, b, a)
		}
		ids := map[string]bool{}
		for _, s := range r.Page.Sections {
			s.Walk(func(b *doc.Block) {
				if ids[b.ID] {
					t.Errorf("%s: two blocks are %s", ready.Presets[i].ID, b.ID)
				}
				ids[b.ID] = true
			})
		}
	}
}

// unnamed is a section as JSON without ids, of which items' contents go by number.
func unnamed(t *testing.T, s *doc.Section) string {
	t.Helper()
	n := 0
	ids := []string{s.ID, "s"}
	s.Walk(func(b *doc.Block) {
		n++
		ids = append(ids, b.ID, "b"+strings.Repeat("I", n))
		for _, it := range b.Items {
			ids = append(ids, it.ID, "i")
		}
	})
	b, err := json.Marshal(s)
	if err != nil {
		t.Fatal(err)
	}
	for i := range ids {
		ids[i] = `"` + ids[i] + `"`
	}
	var sorted any
	if err := json.Unmarshal([]byte(strings.NewReplacer(ids...).Replace(string(b))), &sorted); err != nil {
		t.Fatal(err)
	}
	if b, err = json.Marshal(sorted); err != nil {
		t.Fatal(err)
	}
	return string(b)
}

// Blocks go where they stood to one another, below what is there, and into a container that
// is selected.
func TestBlocksArePastedInPlace(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{2, 3, 4, 2}, [4]int{6, 4, 6, 3}, [4]int{1, 12, 1, 2})
	text, err := carry.Copy(p, ids[:2])
	if err != nil {
		t.Fatal(err)
	}
	r, err := Apply(p, Command{Op: "paste", Node: ids[0], Value: text}, e)
	if err != nil {
		t.Fatal(err)
	}
	bs := r.Page.Sections[0].Blocks
	if len(bs) != 5 || bs[1].ID != r.Select {
		t.Fatalf("%d blocks, %s is selected", len(bs), r.Select)
	}
	a, b := bs[1].Place["desktop"], bs[2].Place["desktop"]
	if a.Column != 2 || a.Row != 9 || b.Column != 6 || b.Row != 11 || b.Rows != 3 {
		t.Errorf("%+v and %+v", a, b)
	}
	added, err := Apply(p, Command{Op: "block.add", Node: p.Sections[0].ID, Kind: doc.Container, Zone: "desktop"}, e)
	if err != nil {
		t.Fatal(err)
	}
	if r, err = Apply(added.Page, Command{Op: "paste", Node: added.Select, Value: text}, e); err != nil {
		t.Fatal(err)
	}
	if _, holder := r.Page.Block(added.Select); len(holder.Blocks) < 2 {
		t.Errorf("%d blocks in the container", len(holder.Blocks))
	}
}

// Whatever comes from the clipboard is read as if somebody had entered it.
func TestHostileClipboards(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{1, 3, 1, 2})
	deep := `{"id":"b","kind":"text","content":{}}`
	for range 40 {
		deep = `{"id":"b","kind":"container","content":{},"blocks":[` + deep + `]}`
	}
	for _, c := range []struct{ name, text, says string }{
		{"nothing", "", "copy some first"},
		{"other text", "Dear all,\nthe boat", "copy some first"},
		{"another version", "Open Plot blocks, format 9\n{}", "another version"},
		{"cut off", carry.ClipHead + "\n{\"blocks\":[{\"id\":\"b1\",\"ki", "can't be read"},
		{"no blocks", carry.ClipHead + "\n{}", "copy some first"},
		{"null", carry.ClipHead + "\n{\"blocks\":[null]}", "doesn't know"},
		{"a kind of its own", carry.ClipHead + "\n{\"blocks\":[{\"id\":\"b\",\"kind\":\"hologram\",\"content\":{}}]}", "hologram"},
		{"too deep", carry.ClipHead + "\n{\"blocks\":[" + deep + "]}", "deep"},
		{"a Series without a design", carry.ClipHead + "\n{\"blocks\":[{\"id\":\"b\",\"kind\":\"series\",\"content\":{}}]}", "designs"},
	} {
		_, err := Apply(p, Command{Op: "paste", Node: ids[0], Value: c.text}, e)
		var problem *doc.Problem
		if !errors.As(err, &problem) || problem.Field != "Clipboard" || !strings.Contains(problem.Message, c.says) {
			t.Errorf("%s: %v", c.name, err)
		}
	}
	text := carry.ClipHead + `
{"blocks":[{"id":"` + ids[0] + `","kind":"button","style":{"background":{"desktop":"url(javascript:x)","nowhere":"#fff"},"nonsense":{"desktop":"1"},"color":{"desktop":"$no-such-token"}},
 "place":{"desktop":{"column":99,"span":99,"row":-5,"rows":9999,"layer":400},"nowhere":{"column":1}},"hidden":{"nowhere":true},
 "content":{"link":"javascript:alert(1)","picture":"of-another-site","words":[[{"text":"go\u0000","link":"javascript:x","colour":"url(x)","item":"square","depth":9,"as":"script"}]],"values":{"icon":"../../etc"}}}]}`
	r, err := Apply(p, Command{Op: "paste", Node: ids[0], Value: text}, e)
	if err != nil {
		t.Fatal(err)
	}
	_, b := r.Page.Block(r.Select)
	if b.ID == ids[0] || len(b.Style) != 0 || b.Content.Link != "" || b.Content.Picture != "" || b.Hidden != nil ||
		len(b.Content.Values) != 0 {
		t.Errorf("%+v", b)
	}
	if run := b.Content.Words[0][0]; run.Text != "go" || run.Link != "" || run.Colour != "" || run.Item != "" ||
		run.Depth != 0 ||
		run.As != "" {
		t.Errorf("%+v", run)
	}
	if at := b.Place["desktop"]; checkPlace(at, 12) != nil {
		t.Errorf("%+v", at)
	}
	if _, err := carry.Copy(p, []string{"gone"}); err == nil {
		t.Error("what is gone was copied")
	}
}

// A look goes from one kind to another as far as both have it; where a block stands stays.
func TestLooksAreTaken(t *testing.T) {
	e := env()
	p, ids := gridOf(t, e, [4]int{1, 3, 1, 2}, [4]int{4, 3, 1, 2})
	set := func(node, setting, v string) {
		r, err := Apply(p, Command{Op: "set", Node: node, Zone: "desktop", Setting: setting, Value: v}, e)
		if err != nil {
			t.Fatal(err)
		}
		p = r.Page
	}
	set(ids[0], "background", "$deep")
	set(ids[0], "font-size", "22px")
	set(ids[0], "margin-top", "40px")
	set(ids[1], "border-radius", "8px")
	look, err := carry.CopyLook(p, ids[0], e.Site.Zones, 0)
	if err != nil {
		t.Fatal(err)
	}
	button, err := Apply(p, Command{Op: "block.add", Node: p.Sections[0].ID, Kind: doc.Picture, Zone: "desktop"}, e)
	if err != nil {
		t.Fatal(err)
	}
	p = button.Page
	for _, node := range []string{ids[1], button.Select} {
		r, err := Apply(p, Command{Op: "look", Node: node, Zone: "desktop", Value: look}, e)
		if err != nil {
			t.Fatal(err)
		}
		p = r.Page
	}
	_, b := p.Block(ids[1])
	if b.Style["background"]["desktop"] != "$deep" || b.Style["font-size"]["desktop"] != "22px" ||
		b.Style["margin-top"] != nil ||
		b.Style["border-radius"] != nil {
		t.Errorf("%v", b.Style)
	}
	if _, b = p.Block(button.Select); b.Style["font-size"] != nil {
		t.Errorf("a picture got a type: %v", b.Style)
	}
	for _, bad := range []string{"", "{", "[1]", `{"background":3}`} {
		var problem *doc.Problem
		if _, err := Apply(p, Command{Op: "look", Node: ids[1], Zone: "desktop", Value: bad}, e); !errors.As(
			err,
			&problem,
		) {
			t.Errorf("%q: %v", bad, err)
		}
	}
}
