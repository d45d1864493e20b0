package bench

import (
	"slices"
	"testing"
)

// Commands have ids and keys of their own, and a need that the Bench knows.
func TestCommands(t *testing.T) {
	ids, keys := map[string]bool{}, map[string]string{}
	for _, c := range Commands {
		if c.ID == "" || c.Name == "" || ids[c.ID] {
			t.Errorf("%q is no id of its own, or has no name", c.ID)
		}
		ids[c.ID] = true
		for _, k := range c.Keys {
			if other := keys[k]; other != "" {
				t.Errorf("%s does %s and %s", k, other, c.ID)
			}
			keys[k] = c.ID
		}
		if !slices.Contains([]string{"", "any", "block", "cells", "several", "container", "series"}, c.Needs) {
			t.Errorf("%s needs %q", c.ID, c.Needs)
		}
	}
}
