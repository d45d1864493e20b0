package ready

import (
	"errors"
	"strings"
	"testing"

	"openplot/core/doc"
)

// A site's address and name are checked, and its first page is valid.
func TestNewSite(t *testing.T) {
	id := func(prefix string) string { return prefix + "1" }
	s, err := NewSite("skerry-line", " Skerry Line ", id)
	if err != nil || s.Slug != "skerry-line" || s.Name != "Skerry Line" || len(s.Zones) == 0 {
		t.Errorf("%+v, %v", s, err)
	}
	for _, tt := range []struct{ address, name, field string }{
		{"", "x", "Address"}, {"Skerry", "x", "Address"}, {"a--b", "x", "Address"}, {"media", "x", "Address"}, {"try", "x", "Address"},
		{strings.Repeat("a", 56), "x", "Address"}, {"a.b", "x", "Address"}, {"skerry", " ", "Name"}, {"skerry", strings.Repeat("x", 200), "Name"},
	} {
		var p *doc.Problem
		if _, err := NewSite(tt.address, tt.name, id); !errors.As(err, &p) || p.Field != tt.field {
			t.Errorf("%v: %v", tt, err)
		}
	}
	home, err := NewHome("Skerry Line", id)
	if err != nil || home.Title != "Skerry Line" || len(home.Sections) != 1 {
		t.Errorf("%+v, %v", home, err)
	}

}

// A new page gets the bars and footers that the site shares, in place of its own; what isn't shared, is
// of a view, or is in the midst of a page stays where it is.
func TestNewPagesGetTheSharedBars(t *testing.T) {
	sec := func(id string, role doc.Role, shared bool) *doc.Section {
		return &doc.Section{ID: id, Role: role, Shared: shared}
	}
	home := &doc.Page{Sections: []*doc.Section{
		sec("bar", doc.RoleHeader, true), sec("notice", doc.RoleHeader, false), sec("words", doc.RoleMain, true),
		sec("foot", doc.RoleFooter, true), sec("end", doc.RoleFooter, true),
	}}
	for _, c := range []struct {
		with *doc.Page
		want string
	}{
		{home, "bar a b foot end"},
		{&doc.Page{Sections: home.Sections[:2]}, "bar a b own-foot"},
		{&doc.Page{Sections: home.Sections[1:3]}, "own-bar a b own-foot"},
	} {
		p := &doc.Page{Sections: []*doc.Section{
			sec("own-bar", doc.RoleHeader, false), sec("a", doc.RoleMain, false), sec("b", doc.RoleMain, false),
			sec("own-foot", doc.RoleFooter, false),
		}}
		Around(p, c.with)
		var got []string
		for _, s := range p.Sections {
			got = append(got, s.ID)
		}
		if s := strings.Join(got, " "); s != c.want {
			t.Errorf("the page has %s, want %s", s, c.want)
		}
	}
}
