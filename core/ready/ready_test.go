package ready

import (
	"regexp"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
)

// Values of a narrower zone's own keep a change on the widest one from arriving there, so
// that ready-made sections have next to none: rules and fluid steps do it.
func TestReadySectionsLeaveNarrowerZonesToRules(t *testing.T) {
	const most = 2
	widest := doc.StandardZones().Widest()
	for i := range Presets {
		sec := Presets[i].Look(nil)
		n := 0
		narrower := func(zone string) {
			if zone != widest {
				n++
			}
		}
		style := func(s doc.Style) {
			for _, values := range s {
				for zone := range values {
					narrower(zone)
				}
			}
		}
		style(sec.Style)
		sec.Walk(func(b *doc.Block) {
			style(b.Style)
			for zone := range b.Place {
				narrower(zone)
			}
			for zone := range b.Hidden {
				narrower(zone)
			}
		})
		if n > most {
			t.Errorf("%s has %d values of narrower zones, more than %d", Presets[i].ID, n, most)
		}
	}
}

// TestNoBusinessOfItsOwn holds what sections say to begin with against any kind of business: a pottery's prices are for
// no boats.
func TestNoBusinessOfItsOwn(t *testing.T) {
	one := regexp.MustCompile(
		`(?i)\b(boats?|sail(ing)?s?|ferr(y|ies)|harbours?|islands?|berths?|bicycles?|trips?|there and back)\b`,
	)
	say := func(of, words string) {
		if found := one.FindString(words); found != "" {
			t.Errorf("%s says %q: %.60q", of, found, words)
		}
	}
	all := func(of string, c *doc.Content) {
		say(of, c.Words.Plain())
		for _, v := range c.Values {
			say(of, v)
		}
		for _, e := range c.Entries {
			say(of, e.Words.Plain())
			for _, v := range e.Values {
				say(of, v)
			}
		}
	}
	for i := range Presets {
		p := &Presets[i]
		sec := p.Look(nil)
		say(p.Name, sec.Name)
		sec.Walk(func(b *doc.Block) {
			all(p.Name, &b.Content)
			for _, it := range b.Items {
				for _, c := range it.Contents {
					all(p.Name, &c)
				}
			}
		})
	}
	for _, kind := range doc.Kinds {
		if b := element.Start(kind); b != nil {
			all(string(kind), &b.Content)
		}
	}
}
