package model

import (
	"encoding/json"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// effectsCluster is how the block comes into sight and moves.
func (v clusters) effectsCluster(b *doc.Block) cluster {
	c := cluster{ID: "effects", Title: "Effects", Fields: named(
		fields(
			v,
		).settings(b.Style, b.Kind, "entrance", "entrance-by", "entrance-length", "entrance-delay", "sway", "sway-by", "sway-period", "picture-parallax"),
		"entrance-by",
		"Distance",
		"entrance-length",
		"Length",
		"entrance-delay",
		"Delay",
		"sway-by",
		"Distance",
		"sway-period",
		"Period",
	)}
	sh := style.Sheet{House: &v.Site.House, Zones: v.Site.Zones, Zone: v.Zone, Style: b.Style}
	c.Play = played(sh)
	return c
}

// played gives the movements of a block as the canvas plays them: keyframes and their
// duration in ms, as JSON, or "" where there are none.
func played(sh style.Sheet) string {
	type move struct {
		Frames   []map[string]string `json:"frames"`
		Duration float64             `json:"duration"`
		Turns    int                 `json:"turns"`
	}
	var moves []move
	px := func(setting string, usual float64) string { return sh.Length(setting, style.Pixels(usual)).String() }
	if kind := sh.Word("entrance", value.None); kind != value.None {
		from := map[string]string{"opacity": "0"}
		switch by := px("entrance-by", 40); kind {
		case value.Rise:
			from["transform"] = "translateY(" + by + ")"
		case value.FromLeft:
			from["transform"] = "translateX(-" + by + ")"
		case value.FromRight:
			from["transform"] = "translateX(" + by + ")"
		case value.Grow:
			from["transform"] = "scale(.85)"
		}
		moves = append(moves, move{[]map[string]string{from, {}}, 700, 1})
	}
	if kind := sh.Word("sway", value.None); kind != value.None {
		by := px("sway-by", 12)
		from, to := "-"+by, by
		if kind == value.Vertical {
			from, to = "0 "+from, "0 "+to
		}
		period := 1000 * sh.Seconds("sway-period", 8)
		moves = append(
			moves,
			move{
				[]map[string]string{{"translate": "0"}, {"translate": from}, {"translate": to}, {"translate": "0"}},
				period,
				1,
			},
		)
	}
	if len(moves) == 0 {
		return ""
	}
	text, err := json.Marshal(moves)
	if err != nil {
		return ""
	}
	return string(text)
}
