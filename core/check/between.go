package check

import (
	"context"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/layout"
	"openplot/core/style"
)

// between are the rules by which one section is held against the next.
var between = []*Rule{&covered, &wordsOver, &contrast}

// Between gives what is wrong where a section and the one below it overlap, at every width: one is
// pulled over the other, a bar lies over what comes after it, or a block hangs out. It ends when ctx does.
func Between(ctx context.Context, above, below Part) ([]Finding, error) {
	if !Overlap(above.Section, below.Section) {
		return nil, nil
	}
	body := &element.Node{
		Tag:      "body",
		Styles:   make([]style.Style, len(above.Zones)),
		Children: []*element.Node{above.Root, below.Root},
	}
	for z := range body.Styles {
		body.Styles[z].Display, body.Styles[z].FlexDirection = style.Flex, style.Column
	}
	p := above
	next := above.Tree().Next(body)
	p.Root, p.Tree = body, func() *layout.Tree { return next }
	g := p.gather()
	below.Section.Walk(func(b *doc.Block) { g.kinds[b.ID] = b })
	g.pair, g.flat = true, make([]map[*element.Node]faint, len(p.Zones))
	return g.sweep(ctx, between)
}

// Overlap reports whether something of a section may lie over the one below it, or be under it.
func Overlap(above, below *doc.Section) bool {
	if above == nil || below == nil {
		return false
	}
	if below.Style["pull"] != nil || above.Style["over"] != nil {
		return true
	}
	for _, b := range above.Blocks {
		if b.Style["overhang"] != nil {
			return true
		}
	}
	return false
}
