package ready

import (
	"strings"

	"openplot/core/compose"
	"openplot/core/doc"
	"openplot/core/element"
)

// topBar is a name, the menu and a button on one line.
func topBar(style doc.Style, colour string) *doc.Section {
	for name, v := range compose.Look(
		"padding-top", "$snug", "padding-bottom", "$snug", "direction", "row", "wrap", "nowrap", "spread",
		"space-between", "align-items", "center", "column-gap", "$room",
	) {
		style[name] = v
	}
	ask := compose.Button("Ask us", "#", "button-look", "outlined", "button-size", "$small")
	ask.Hidden = doc.Zoned[bool]{"phone": true}
	if colour != "" {
		compose.With(ask, "color", colour)
	}
	s := compose.Section(doc.LineUp, style,
		&doc.Block{Kind: doc.Logo, Content: doc.Content{Link: "/"}},
		compose.Row("$room", &doc.Block{Kind: doc.Menu}, ask))
	s.Blocks[1].Style = compose.Look(
		"direction",
		"row",
		"wrap",
		"nowrap",
		"align-items",
		"center",
		"column-gap",
		"$room",
		"column-gap@phone",
		"12px",
	)
	s.Role = doc.RoleHeader
	return s
}

// onCard holds blocks below one another on a card.
func onCard(gap string, blocks ...*doc.Block) *doc.Block {
	b := element.Start(doc.Card)
	b.Blocks = blocks
	return compose.With(b, "row-gap", gap)
}

// at gives a block cells on desktop and phone: column, span, row, rows. What is between follows.
func at(b *doc.Block, desktop, phone [4]int) *doc.Block {
	for zone, c := range map[string][4]int{"desktop": desktop, "phone": phone} {
		p := doc.Place{Column: c[0], Span: c[1], Row: c[2], Rows: c[3]}
		if len(b.Blocks) > 0 { // what holds words lies over pictures
			p.Layer = 1
		}
		b.Place = b.Place.With(zone, p)
	}
	return b
}

// listed says what a Series is a list of.
func listed(as string, series *doc.Block) *doc.Block {
	series.Content = element.With(series.Content, "list", as)
	return series
}

func gallery(pairs ...string) *doc.Block { return compose.With(element.Start(doc.Gallery), pairs...) }

func portrait() *doc.Block { return element.Start(doc.Person) }

func voice() *doc.Block { return element.Start(doc.Testimonial) }

func priceCard() *doc.Block { return element.Start(doc.PriceCard) }

func chart() *doc.Block { return compose.With(element.Start(doc.Map), "border-radius", "$card") }

func social() *doc.Block { return element.Start(doc.Social) }

func contactForm() *doc.Block { return element.Start(doc.Form) }

func questions() *doc.Block { return element.Start(doc.Accordion) }

func table(head string, rows ...string) *doc.Block {
	return &doc.Block{
		Kind:    doc.Table,
		Content: doc.Content{Values: map[string]string{"head": head, "cells": strings.Join(rows, "\n")}},
	}
}
