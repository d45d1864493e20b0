package style

import (
	"openplot/core/doc"
	"openplot/core/value"
)

// Pick is a choice of a house style among its own values.
type Pick struct {
	Name   string // such as "links.colour"
	Group  string // that of the Measures it stands with
	Label  string
	Value  string // a token, or ""
	Usual  string // what "" stands for, in words; "" where it can't be
	Offers []Offer
	Set    func(h *doc.House, token string)
}

// Picks lists the choices of a house style.
func Picks(h *doc.House) []Pick {
	b := h.ButtonLook()
	var colours, corners []Offer
	for _, w := range h.Palette {
		colours = append(colours, Offer{Name: w.Name, Value: w.Token, Colour: w.Value})
	}
	for _, s := range h.Corners {
		corners = append(corners, Offer{Name: s.Name, Value: s.Token})
	}
	return []Pick{
		{
			Name: "page.ground", Group: "Page", Label: "Page background", Value: h.PageGround, Usual: "Ground", Offers: colours,
			Set: func(h *doc.House, t string) { h.PageGround = t },
		},
		{
			Name: "buttons.corners", Group: "Buttons", Label: "Corner radius", Value: b.Corners, Offers: corners,
			Set: func(h *doc.House, t string) { h.Buttons = h.ButtonLook(); h.Buttons.Corners = t },
		},
		{
			Name: "links.colour", Group: "Links", Label: "Colour", Value: h.Links.Colour, Usual: "Inherit", Offers: colours,
			Set: func(h *doc.House, t string) { h.Links.Colour = t },
		},
		{
			Name: "links.hover", Group: "Links", Label: "Hover colour", Value: h.Links.Hover, Usual: "Inherit", Offers: colours,
			Set: func(h *doc.House, t string) { h.Links.Hover = t },
		},
		{
			Name: "forms.look", Group: "Form fields", Label: "Look", Value: h.Forms.Look, Usual: "Box", Offers: []Offer{
				{Name: "Filled", Value: value.Filled}, {Name: "Line below", Value: value.Below},
			},
			Set: func(h *doc.House, v string) { h.Forms.Look = v },
		},
		{
			Name: "forms.corners", Group: "Form fields", Label: "Corner radius", Value: h.Forms.Corners, Usual: "4 px", Offers: corners,
			Set: func(h *doc.House, t string) { h.Forms.Corners = t },
		},
		{
			Name: "forms.labels", Group: "Form fields", Label: "Labels", Value: h.Forms.Labels, Usual: "Above",
			Offers: []Offer{{Name: "In the field", Value: value.Inside}},
			Set:    func(h *doc.House, v string) { h.Forms.Labels = v },
		},
	}
}
