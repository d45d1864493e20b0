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
