package edit

import (
	"errors"
	"slices"
	"testing"

	"openplot/core/doc"
)

// A page gets the site's footer in the place of its own, or at its end, once; what it has besides stays as
// it is, and undoing gives back what was.
func TestEverywhere(t *testing.T) {
	section := func(id string, role doc.Role) *doc.Section { return &doc.Section{ID: id, Name: id, Role: role} }
	for name, c := range map[string]struct {
		role      doc.Role
		has, want []string
		parts     []string // which of those that it has play the part
	}{
		"none":            {doc.RoleFooter, []string{"a", "b"}, []string{"a", "b", "new"}, nil},
		"its own":         {doc.RoleFooter, []string{"a", "own", "b"}, []string{"a", "new", "b"}, []string{"own"}},
		"two":             {doc.RoleFooter, []string{"a", "own", "b", "too"}, []string{"a", "new", "b"}, []string{"own", "too"}},
		"itself, amid":    {doc.RoleFooter, []string{"a", "new", "b"}, []string{"a", "b", "new"}, nil},
		"itself, a part":  {doc.RoleFooter, []string{"a", "new", "b"}, []string{"a", "new", "b"}, []string{"new"}},
		"a bar, none":     {doc.RoleHeader, []string{"a", "b"}, []string{"new", "a", "b"}, nil},
		"a bar, itself":   {doc.RoleHeader, []string{"a", "new"}, []string{"new", "a"}, nil},
		"a bar, its own":  {doc.RoleHeader, []string{"skip", "own", "b"}, []string{"skip", "new", "b"}, []string{"own"}},
		"nothing":         {doc.RoleHeader, nil, []string{"new"}, nil},
		"a bar, both own": {doc.RoleHeader, []string{"own", "new", "b"}, []string{"new", "b"}, []string{"own", "new"}},
	} {
		p := &doc.Page{ID: "p1", Name: "P", Title: "P"}
		for _, id := range c.has {
			role := doc.RoleMain
			if slices.Contains(c.parts, id) {
				role = c.role
			}
			p.Sections = append(p.Sections, section(id, role))
		}
		s, err := AsPart(section("new", doc.RoleMain), c.role)
		if err != nil {
			t.Fatal(err)
		}
		r, err := Everywhere(p, s)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		var got []string
		for _, s := range r.Page.Sections {
			got = append(got, s.ID)
		}
		if !slices.Equal(got, c.want) {
			t.Errorf("%s: %v, want %v", name, got, c.want)
		}
		if again, err := Everywhere(r.Page, s); again != nil || err != nil {
			t.Errorf("%s: once more it does %v, %v", name, again, err)
		}
		back, _, err := Run(r.Page, r.Inverse)
		if err != nil || len(back.Sections) != len(p.Sections) {
			t.Fatalf("%s: taken back: %v", name, err)
		}
		for i := range p.Sections {
			if !sameSection(back.Sections[i], p.Sections[i]) {
				t.Errorf("%s: taken back: %+v", name, back.Sections[i])
			}
		}
	}
	var problem *doc.Problem
	if _, err := AsPart(section("x", ""), "main"); !errors.As(err, &problem) || problem.Field != "Landmark" {
		t.Error(err)
	}
	if _, err := AsPart(&doc.Section{ID: "x", Name: "X", View: &doc.View{}}, doc.RoleFooter); !errors.As(
		err,
		&problem,
	) ||
		problem.Field != "Section" {
		t.Error(err)
	}
}
