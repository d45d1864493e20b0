package icons

import (
	"encoding/xml"
	"io"
	"slices"
	"strings"
	"testing"
)

// Every drawing is well-formed and holds nothing but shapes (SVG 2 §9, §10).
func TestDrawingsAreShapes(t *testing.T) {
	if n := len(load().names); n < 1900 {
		t.Fatalf("%d icons, want nearly two thousand", n)
	}
	for name, svg := range load().drawings {
		d := xml.NewDecoder(strings.NewReader("<g>" + svg + "</g>"))
		for {
			token, err := d.Token()
			if err == io.EOF {
				break
			}
			if err != nil {
				t.Fatalf("%s: %v", name, err)
			}
			if e, ok := token.(xml.StartElement); ok && !slices.Contains(
				[]string{"g", "path", "circle", "rect", "ellipse", "polygon"},
				e.Name.Local,
			) {
				t.Errorf("%s holds <%s>", name, e.Name.Local)
			}
		}
	}
}

func TestFind(t *testing.T) {
	if got := Find("geo alt", 2); !slices.Equal(got, []string{"geo-alt", "geo-alt-fill"}) {
		t.Errorf("geo alt: %v", got)
	}
	if got := Find("no such thing at all", 9); len(got) != 0 {
		t.Errorf("nothing: %v", got)
	}
	if _, ok := Drawing("telephone"); !ok {
		t.Error("telephone is missing")
	}
	if _, ok := Drawing("../telephone"); ok {
		t.Error("a path is an icon")
	}
}
