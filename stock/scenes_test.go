package stock

import (
	"encoding/xml"
	"errors"
	"io"
	"strings"
	"testing"

	"openplot/core/colour"
)

func inks(t *testing.T, hex ...string) (k Inks) {
	t.Helper()
	for i, to := range []*colour.Colour{&k.Ground, &k.Quiet, &k.Accent, &k.Second, &k.Deep, &k.Words} {
		c, err := colour.ParseHex(hex[i])
		if err != nil {
			t.Fatal(err)
		}
		*to = c
	}
	return k
}

// Every scene is well-formed SVG in every crop, small enough to be sent by the dozen, and
// differs with its number where people or grounds are to differ.
func TestScenes(t *testing.T) {
	k := inks(t, "#ffffff", "#f6f1e8", "#1d5f6b", "#aa4d26", "#123a44", "#1f2a2c")
	for _, id := range Scenes {
		for crop := range Crops {
			svg, ok := Scene(id, crop, 3, k)
			if !ok {
				t.Fatalf("there is no %s, %s", id, crop)
			}
			d := xml.NewDecoder(strings.NewReader(svg))
			shapes := 0
			for {
				tok, err := d.Token()
				if errors.Is(err, io.EOF) {
					break
				}
				if err != nil {
					t.Fatalf("%s, %s: %v", id, crop, err)
				}
				if _, ok := tok.(xml.StartElement); ok {
					shapes++
				}
			}
			if shapes < 10 || len(svg) > 12_000 || strings.Contains(svg, "NaN") {
				t.Errorf("%s, %s has %d shapes in %d bytes", id, crop, shapes, len(svg))
			}
		}
	}
	one, _ := Scene("person", "square", 1, k)
	for n := 2; n < 9; n++ {
		if other, _ := Scene("person", "square", n, k); other == one {
			t.Errorf("person %d is person 1", n)
		}
	}
	if _, ok := Scene("kitchen", "wide", 0, k); ok {
		t.Error("a scene that isn't there is drawn")
	}
	if _, ok := Scene("room", "long", 0, k); ok {
		t.Error("a crop that isn't there is drawn")
	}
}

// Scenes follow the site's palette.
func TestScenesFollowThePalette(t *testing.T) {
	a, _ := Scene("room", "wide", 0, inks(t, "#ffffff", "#f6f1e8", "#1d5f6b", "#aa4d26", "#123a44", "#1f2a2c"))
	b, _ := Scene("room", "wide", 0, inks(t, "#ffffff", "#f2f2f2", "#7a1f3d", "#c8961e", "#2a0f1a", "#1f1a1c"))
	if a == b || !strings.Contains(b, "#7a1f3d") || strings.Contains(b, "#1d5f6b") {
		t.Error("the room isn't in the palette's colours")
	}
}

// A scene's file name has all that it is drawn from; other names have nothing.
func TestSceneNames(t *testing.T) {
	k := inks(t, "#ffffff", "#f6f1e8", "#1d5f6b", "#aa4d26", "#123a44", "#1f2a2c")
	want, _ := Scene("plan", "tall", 5, k)
	if got, ok := SceneNamed(SceneName("plan", "tall", 5, k)); !ok || got != want {
		t.Error("the scene named isn't the scene")
	}
	for _, name := range []string{
		"", "plan.svg", "plan-tall-5-ffffff-f6f1e8-1d5f6b-aa4d26-123a44.svg", "plan-tall-5-ffffff-f6f1e8-1d5f6b-aa4d26-123a44-zzzzzz.svg",
		"plan-tall-500-ffffff-f6f1e8-1d5f6b-aa4d26-123a44-1f2a2c.svg", "cave-tall-5-ffffff-f6f1e8-1d5f6b-aa4d26-123a44-1f2a2c.svg",
		"plan-tall-5-ffffff-f6f1e8-1d5f6b-aa4d26-123a44-fff.svg", "plan-tall--1-ffffff-f6f1e8-1d5f6b-aa4d26-123a44-1f2a2c.svg",
	} {
		if _, ok := SceneNamed(name); ok {
			t.Errorf("%q is drawn", name)
		}
	}
}
