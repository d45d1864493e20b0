package edit

import (
	"testing"

	"openplot/core/doc"
)

// Menus follow pages that move, and leave other sites alone.
func TestRelinkMenus(t *testing.T) {
	menus := map[string][]doc.MenuItem{
		"legal": {{Label: "Crew", Link: "/crew#ann"}, {Label: "Away", Link: "https://example.org/crew"}},
	}
	if !RelinkMenus(menus, map[string]string{"crew": "us/crew"}) || menus["legal"][0].Link != "/us/crew#ann" ||
		menus["legal"][1].Link != "https://example.org/crew" {
		t.Errorf("%+v", menus)
	}
	if RelinkMenus(menus, map[string]string{"crew": "x"}) {
		t.Error("nothing leads there any more")
	}
}
