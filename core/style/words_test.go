package style_test

import (
	"testing"

	"openplot/core/doc"
	"openplot/core/style"
)

// TestValuesInWords says what is written in notation as somebody would who reads it out.
func TestValuesInWords(t *testing.T) {
	house := &doc.House{
		Palette: []doc.Swatch{
			{Token: "deep", Name: "Deep", Value: "#123a44"},
			{Token: "accent", Name: "Accent", Value: "#1d5f6b"},
		},
	}
	sheet := style.Sheet{House: house, Zones: doc.StandardZones(), Style: doc.Style{
		"gradient":        {"desktop": "linear 135deg $deep 0%, $accent/50% 100%"},
		"filter-gradient": {"desktop": "radial #ff0000 0%, $deep 40%, #000000 100%"},
		"box-shadow":      {"desktop": "2px 4px 12px 0px #00000033 inset"},
	}}
	for _, one := range [][2]string{
		{style.GradientWords(sheet, "gradient"), "linear gradient, from Deep to Accent at 50%, 135 degrees"},
		{style.GradientWords(sheet, "filter-gradient"), "radial gradient, from #ff0000 to #000000 over Deep"},
		{style.GradientWords(sheet, "none"), ""},
		{style.ShadowWords(sheet, "box-shadow"), "inner shadow 4 px down, 2 px to the right, blurred by 12 px"},
		{style.ShadowWords(sheet, "none"), ""},
	} {
		if one[0] != one[1] {
			t.Errorf("%q, want %q", one[0], one[1])
		}
	}
}
