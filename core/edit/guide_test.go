package edit

import (
	"reflect"
	"testing"

	"openplot/core/doc"
)

func TestGuides(t *testing.T) {
	e := env()
	p := page(e)
	for _, c := range []Command{
		{Setting: "x", Value: "240"}, {Setting: "x", Value: "120"}, {Setting: "y", Value: "600"},
		{Setting: "x", Value: "120"},               // there is one already
		{Setting: "x", After: "240", Value: "300"}, // moved
		{Setting: "y", After: "600"},               // taken away
	} {
		c.Op, c.Zone = "page.guide", "tablet"
		p = apply(t, p, c, e).Page
	}
	if want := (doc.Zoned[doc.Guides]{"tablet": {X: []int{120, 300}}}); !reflect.DeepEqual(p.Guides, want) {
		t.Errorf("guides are %v, want %v", p.Guides, want)
	}
	for _, c := range []Command{
		{Setting: "z", Value: "1"}, {Setting: "x", Value: "-1"}, {Setting: "x", Value: "half"}, {Setting: "x", Value: "1000000"}, {Setting: "x", After: "7", Value: "8"},
	} {
		c.Op, c.Zone = "page.guide", "tablet"
		if _, err := Apply(p, c, e); err == nil {
			t.Errorf("%+v was taken", c)
		}
	}
}
