package element

import (
	"strings"

	"openplot/core/doc"
	"openplot/core/style"
)

// A button row is a line of buttons that wraps.
var buttons = Anatomy{
	Name: "Button row", Hint: "buttons side by side", Icon: "menu-button", Find: "links actions",
	Shelf: Wording, Span: 6, Rows: 2,
	start: func() *doc.Block {
		first, second := Start(doc.Button), Start(doc.Button)
		first.Content.Words, second.Content.Words = doc.PlainWords("Begin here"), doc.PlainWords("Ask first")
		second.Style = Look("button-look", "outlined")
		return &doc.Block{
			Arrangement: doc.LineUp,
			Style:       Look("direction", "row", "column-gap", "$snug", "row-gap", "$small"),
			Blocks:      []*doc.Block{first, second},
		}
	},
	build: func(b *Builder, in *Node, bl *doc.Block) *Node {
		return holderBlocks{b}.container("div", in, bl, style.Edges{}, "")
	},
}

// Look makes a look that holds in all zones, from names and values by turns; a
// name may end in "@" and the zone that the value begins to hold in.
func Look(pairs ...string) doc.Style {
	s := doc.Style{}
	for i := 0; i+1 < len(pairs); i += 2 {
		name, zone := pairs[i], "desktop"
		if at := strings.IndexByte(name, '@'); at >= 0 {
			name, zone = name[:at], name[at+1:]
		}
		s[name] = s[name].With(zone, pairs[i+1])
	}
	return s
}

// padded adds equal padding on all sides to a look.
func padded(step string, s doc.Style) doc.Style {
	for _, side := range []string{"top", "right", "bottom", "left"} {
		s["padding-"+side] = doc.Zoned[string]{"desktop": step}
	}
	return s
}
