package model

import (
	"slices"
	"strings"
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

// Somebody's own keys take the place of the usual ones, and no key does two things.
func TestKeysOfOnesOwn(t *testing.T) {
	keysOf := func(own map[string]string, id string) []string {
		for _, c := range CommandsFor(own) {
			if c.ID == id {
				return c.Keys
			}
		}
		return nil
	}
	own, err := WithKey(nil, "duplicate", "Ctrl+J", false)
	if err != nil || !slices.Equal(keysOf(own, "duplicate"), []string{"Ctrl+J"}) {
		t.Fatalf("own keys are %v: %v", keysOf(own, "duplicate"), err)
	}
	if own, err = WithKey(own, "flip", "Ctrl+Shift+", false); err == nil {
		t.Errorf("%v was taken", own)
	}
	own = map[string]string{"duplicate": "Ctrl+J"}
	if own, err = WithKey(own, "flip", "Ctrl+D", false); err != nil { // it is free now
		t.Fatal(err)
	}
	if _, err = WithKey(own, "duplicate", "", true); err == nil || !strings.Contains(err.Error(), "Flip sides") {
		t.Errorf("the usual key was given back while another command has it: %v", err)
	}
	if own, err = WithKey(own, "flip", "", false); err != nil || keysOf(own, "flip") != nil {
		t.Errorf("a key isn't taken away: %v", err)
	}
	if own, err = WithKey(own, "duplicate", "", true); err != nil ||
		!slices.Equal(keysOf(own, "duplicate"), []string{"Ctrl+D"}) {
		t.Errorf("the usual key doesn't come back: %v", err)
	}
	for _, bad := range [][2]string{{"nothing", "x"}, {"flip", "Ctrl+"}, {"flip", "two keys"}, {"flip", "Alt+X"}} {
		if _, err := WithKey(nil, bad[0], bad[1], false); err == nil {
			t.Errorf("%v was taken", bad)
		}
	}
}
