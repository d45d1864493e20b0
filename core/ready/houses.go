package ready

import (
	"openplot/core/doc"
	"openplot/core/style"
)

// House is a house style that ships, to be tried on and taken.
type House struct {
	ID, Name, Hint string
	colours        [7]string // by doc.Roles
	deep, onDeep   string
	pairing        string
	corners        [4]float64 // soft, card and round in px, and the buttons' step by number
	shadow         float64    // strength of the card's
}

// Houses lists those that ship. Their colours of words pass WCAG 2.2's AA on both
// grounds.
var Houses = []House{
	{
		"ready:harbour-light", "Harbour light", "clear, teal and rust",
		[7]string{"#ffffff", "#f6f1e8", "#1f2a2c", "#56615f", "#1d5f6b", "#aa4d26", "#d9d4c8"},
		"#123a44", "#f3f7f6", "harbour", [4]float64{4, 8, 20, 1}, 0.14,
	},
	{
		"ready:night-watch", "Night watch", "light words on dark",
		[7]string{"#11181d", "#1b252c", "#eef2f1", "#b3c0c2", "#7fd0c4", "#f0b36a", "#3a4952"},
		"#070c10", "#eef2f1", "signal", [4]float64{2, 4, 12, 0}, 0.5,
	},
	{
		"ready:meadow", "Meadow", "soft greens, rounded",
		[7]string{"#fdfcf7", "#eef3e4", "#24301f", "#526049", "#3b6b2e", "#95501f", "#d5dcc6"},
		"#203a1b", "#f2f7ea", "brochure", [4]float64{10, 18, 32, 4}, 0.1,
	},
	{
		"ready:printshop", "Printshop", "black, paper and one red",
		[7]string{"#fbf9f4", "#efeae0", "#161412", "#57514a", "#b3261e", "#161412", "#c9c1b2"},
		"#161412", "#fbf9f4", "ledger", [4]float64{0, 0, 0, 0}, 0,
	},
	{
		"ready:apricot", "Apricot", "warm and friendly",
		[7]string{"#fffaf5", "#fdeedd", "#3a241c", "#75564a", "#a3401a", "#6a3d7c", "#eed6c0"},
		"#5a2a1c", "#fff5ea", "almanac", [4]float64{8, 14, 28, 4}, 0.12,
	},
	{
		"ready:fjord", "Fjord", "cool blues, plain letters",
		[7]string{"#ffffff", "#edf2f8", "#16243a", "#4d5d75", "#1f4fa3", "#7a3f8f", "#cdd8e6"},
		"#12264a", "#f1f5fb", "clinic", [4]float64{6, 10, 20, 1}, 0.12,
	},
	{
		"ready:postcard", "Postcard", "handwriting over a serif",
		[7]string{"#fffdf8", "#f3eee2", "#2b2a33", "#5d5b69", "#36528a", "#9c3d4f", "#d8d1c0"},
		"#2a355a", "#fbf8ef", "letter", [4]float64{3, 6, 18, 1}, 0.16,
	},
}

// FindHouse gives one that ships by id, or nil.
func FindHouse(id string) *House {
	for i := range Houses {
		if Houses[i].ID == id {
			return &Houses[i]
		}
	}
	return nil
}

// House gives the house style: the standard one in other colours, fonts and corners.
func (r *House) House() doc.House {
	h := doc.StandardHouse()
	for i, token := range doc.Roles {
		h.Swatch(token).Value = r.colours[i]
	}
	h.Swatch("deep").Value, h.Swatch("on-deep").Value = r.deep, r.onDeep
	if p := style.FindPairing(r.pairing); p != nil {
		h.Fonts.Heading, h.Fonts.Body = p.Heading, p.Body
	}
	for i := range 3 {
		h.Corners[i+1].Px = r.corners[i]
	}
	h.Buttons.Corners = h.Corners[int(r.corners[3])].Token
	for i := range h.Shadows {
		h.Shadows[i].Opacity = r.shadow
	}
	return h
}

// HouseName reads the name that a house style is kept under. Errors are *doc.Problem.
func HouseName(name string) (string, error) {
	name, err := doc.Line("Name", name, 40)
	if err == nil && name == "" {
		err = doc.Problemf("Name", "is missing: write what the house style is called, such as Winter")
	}
	return name, err
}
