package site

import (
	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/ready"
	"openplot/stock"
)

// ScenesPath is where stand-in pictures are found, with their name below it.
const ScenesPath = "/scenes/"

// scenesOf are the stand-in pictures for a site, the most fitting first.
func scenesOf(s *doc.Site) []string {
	if b := ready.FindBusiness(s.Business); b != nil {
		return b.Scenes
	}
	return stock.Scenes[:len(stock.Scenes)-1] // all but the single person
}

// inkRoles are the palette's colours that scenes are drawn in, each before what stands in for
// it, in the order of stock.Inks.
var inkRoles = [6][2]string{
	{
		"ground",
		"",
	}, {"quiet-ground", "ground"}, {"accent", "words"}, {"second-accent", "accent"}, {"deep", "words"}, {"words", ""},
}

// standIn gives a function that names stand-in pictures in a house style's colours.
func standIn(h *doc.House, a Addresses) func(scene, crop string, n int) element.Medium {
	var k stock.Inks
	for i, ink := range []*colour.Colour{&k.Ground, &k.Quiet, &k.Accent, &k.Second, &k.Deep, &k.Words} {
		for _, token := range []string{inkRoles[i][1], inkRoles[i][0]} {
			if w := h.Swatch(token); w != nil {
				if c, err := colour.ParseHex(w.Value); err == nil {
					c.A = 255
					*ink = c
				}
			}
		}
	}
	return func(scene, crop string, n int) element.Medium {
		name := stock.SceneName(scene, crop, n, k)
		size := stock.Crops[crop]
		return element.Medium{
			Width:    size[0],
			Height:   size[1],
			Variants: []element.Variant{{URL: a.Scenes + name, StyleURL: a.StyleScenes + name, Width: size[0]}},
		}
	}
}

// SceneFor gives the address of a scene in a house style's colours.
func SceneFor(h *doc.House, scene string) string {
	return standIn(h, Addresses{Scenes: ScenesPath})(scene, "square", 0).Variants[0].URL
}
