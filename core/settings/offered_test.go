package settings

import (
	"testing"
	"time"
	_ "time/tzdata"
)

// Every time zone that is offered is one that Go's own copy of the tz database has, once, by its area.
func TestTimeZonesAreKnown(t *testing.T) {
	seen := map[string]bool{}
	for _, a := range TimeZones() {
		if seen[a.Name] {
			t.Errorf("%s is there twice", a.Name)
		}
		seen[a.Name] = true
		for _, z := range a.Zones {
			if _, err := time.LoadLocation(z.ID); err != nil || seen[z.ID] {
				t.Errorf("%s: %v, twice: %v", z.ID, err, seen[z.ID])
			}
			seen[z.ID] = true
		}
	}
	if len(seen) < 300 || !seen["Europe/Vienna"] || !seen["Pacific/Auckland"] {
		t.Errorf("%d zones and areas", len(seen))
	}
}

// Every language that is offered can be kept as it is; one that isn't among them is offered too.
func TestLanguagesCanBeKept(t *testing.T) {
	all := Languages("gsw")
	if len(all) != len(offered)+1 || len(Languages("de")) != len(offered) {
		t.Errorf("%d languages", len(all))
	}
	names := map[string]bool{}
	for _, l := range all {
		if tag, err := ReadLanguage(l.Tag); err != nil || tag != l.Tag {
			t.Errorf("%s is kept as %q, %v", l.Tag, tag, err)
		}
		if names[l.Name] || l.Name == "" {
			t.Errorf("%s is called %q", l.Tag, l.Name)
		}
		names[l.Name] = true
	}
	for _, want := range []Language{{"de", "Deutsch"}, {"en-GB", "British English"}, {"fr", "Français"}} { // CLDR's names
		if !names[want.Name] {
			t.Errorf("%s isn't called %s", want.Tag, want.Name)
		}
	}
}
