package element

import (
	"cmp"
	"fmt"
	"math"
	"strings"
	"unicode"
	"unicode/utf8"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// A table is a <table> whose rows are grids of the same columns, so that its widths
// don't hang on every cell. On the narrowest zone it scrolls, or each row becomes a
// card. Its elements keep their roles in Chromium and Firefox whatever their display;
// written out, the roles would be invalid HTML.
var table = Anatomy{
	Name: "Table", Hint: "rows and columns, pasted from a spreadsheet", Icon: "table", Find: "spreadsheet rows columns fares prices",
	Shelf: Listing, Span: 12, Rows: 8,
	Fields: []Field{
		{Name: "caption", Label: "Caption", Type: Line, Default: "none"},
		{
			Name: "head", Label: "Header cells", Type: Choice,
			Choices: value.Is(value.Row, "First row", value.Both, "First row and column", value.None, "None"),
		},
		{
			Name:    "narrow",
			Label:   "On phones",
			Type:    Choice,
			Choices: value.Is(value.Scroll, "Scrolls", value.Cards, "Cards"),
		},
		{Name: "cells", Label: "Cells, separated by tabs", Type: Cells},
	},
	Settings: []string{"cell-padding"},
	start: func() *doc.Block {
		return &doc.Block{Content: doc.Content{Values: map[string]string{
			"cells": "\tOnce\tBoth days\nGrown-ups\t6.40\t11.20\nChildren to 14\t3.20\t5.60\nUnder three\tfree\tfree",
			"head":  "both",
		}}}
	},
	build: as(wordBlocks.table),
}

// Rows gives a table's cells, each row as long as the longest.
func Rows(cells string) [][]string {
	var rows [][]string
	widest := 0
	for _, line := range strings.Split(cells, "\n") {
		row := strings.Split(line, "\t")
		rows = append(rows, row)
		widest = max(widest, len(row))
	}
	for i, row := range rows {
		for len(row) < widest {
			row = append(row, "")
		}
		rows[i] = row
	}
	return rows
}

// columnShares gives the columns' parts of the width: by the square root of the longest
// cell, so that long ones get more room but not all of it, and in halves.
func columnShares(rows [][]string) []style.Track {
	tracks := make([]style.Track, len(rows[0]))
	for c := range tracks {
		longest := 4
		for _, row := range rows {
			longest = max(longest, utf8.RuneCountInString(row[c]))
		}
		tracks[c] = style.Track{Min: style.Pixels(0), Fr: math.Round(math.Sqrt(float64(min(longest, 100)))*2) / 2}
	}
	return tracks
}

func (b wordBlocks) table(in *Node, bl *doc.Block) *Node {
	rows := Rows(bl.Content.Values["cells"])
	cards := bl.Content.Values["narrow"] == value.Cards
	narrow := func(z int) bool { return z == len(b.Site.Zones)-1 && z > 0 }
	tracks := columnShares(rows)
	n := &Node{Tag: "div"}
	n.Styles = b.styles(in, func(z int, st *style.Style) {
		words(st, b.sheet(bl.Style, z), "body")
		if !cards {
			st.Overflow, st.BackgroundTop = style.Scroll, moreBeside(st)
		}
	})
	if !cards {
		n.attr("tabindex", "0") // what scrolls is reached by keyboard too (WCAG 2.2, 2.1.1)
		n.attr("role", "group")
		n.attr("aria-label", cmp.Or(bl.Content.Values["caption"], "Table"))
	}
	// Roles aren't said: a table's parts may not have any (ARIA in HTML §4), and Chromium and Firefox
	// keep them whatever display is.
	t := b.child(n, "table", func(z int, st *style.Style) {
		if st.Display = style.Block; cards && narrow(z) {
			st.Position = style.Relative
		}
		if !cards && narrow(z) {
			st.MinWidth = style.Pixels(float64(112 * len(tracks)))
		}
	})
	if c := bl.Content.Values["caption"]; c != "" {
		say(b.child(t, "caption", func(_ int, st *style.Style) {
			st.Display, st.FontWeight = style.Block, 600
			st.Padding.Bottom = style.Pixels(8)
		}), c).Part = ".caption"
	}
	header := bl.Content.Values["head"] != value.None
	columns := bl.Content.Values["head"] == value.Both
	figures := figureColumns(rows, header)
	section := func(tag string) *Node {
		s := b.child(t, tag, func(z int, st *style.Style) {
			if st.Display = style.Block; tag == "thead" && cards && narrow(z) { // heard, not seen
				st.Position, st.Width, st.Height = style.Absolute, style.Pixels(1), style.Pixels(1)
				st.Inset.Top, st.Inset.Left = style.Pixels(0), style.Pixels(0)
				st.Overflow, st.ClipPath = style.Hidden, "inset(50%)"
			}
		})
		return s
	}
	var body *Node
	for r, row := range rows {
		heading := header && r == 0
		var in *Node
		if heading {
			in = section("thead")
		} else {
			if body == nil {
				body = section("tbody")
			}
			in = body
		}
		b.tableRow(
			in,
			bl,
			row,
			rows[0],
			tracks,
			tableRow{
				figures: figures,
				heading: heading,
				columns: columns,
				labels:  header && cards,
				cards:   cards,
				narrow:  narrow,
				first:   r == 0,
			},
		)
	}
	return n
}

// moreBeside shades the sides on which there is more to scroll to: a shade stays at each,
// and what scrolls with the content hides it at the end (CSS Backgrounds 3 §2.5, local).
// Where the ground isn't one colour there is none.
func moreBeside(st *style.Style) string {
	ground, err1 := colour.ParseHex(st.Behind)
	words, err2 := colour.ParseHex(st.Color)
	if err1 != nil || err2 != nil || st.Pictured {
		return ""
	}
	from := func(c colour.Colour, alpha string) string {
		return fmt.Sprintf("rgba(%d, %d, %d, %s)", c.R, c.G, c.B, alpha)
	}
	side := func(to, at string, c colour.Colour, alpha, solid, width, moves string) string {
		return fmt.Sprintf(
			"linear-gradient(to %s, %s, %s) %s/%s 100%% no-repeat %s",
			to,
			from(c, alpha)+" "+solid,
			from(c, "0"),
			at,
			width,
			moves,
		)
	}
	return strings.Join([]string{
		side(
			"right",
			"0 0",
			ground,
			"1",
			"14px",
			"48px",
			"local",
		), side("left", "100% 0", ground, "1", "14px", "48px", "local"),
		side(
			"right",
			"0 0",
			words,
			"0.3",
			"0",
			"12px",
			"scroll",
		), side("left", "100% 0", words, "0.3", "0", "12px", "scroll"),
	}, ", ")
}

// figureColumns tells which columns hold figures alone, which are read by their ends.
func figureColumns(rows [][]string, header bool) []bool {
	figures := make([]bool, len(rows[0]))
	for c := range figures {
		for r, row := range rows {
			if header && r == 0 || strings.TrimSpace(row[c]) == "" {
				continue
			}
			if figures[c] = figure(row[c]); !figures[c] {
				break
			}
		}
	}
	return figures
}

// figure reports whether a cell holds a number, with the signs that go with one.
func figure(cell string) bool {
	digits := false
	for _, r := range cell {
		switch {
		case r >= '0' && r <= '9':
			digits = true
		case !strings.ContainsRune(" .,'’+-−–%\u00a0\u202f", r) && !unicode.Is(unicode.Sc, r):
			return false
		}
	}
	return digits
}

type tableRow struct {
	figures                                []bool
	heading, columns, labels, cards, first bool
	narrow                                 func(zone int) bool
}

func (b wordBlocks) tableRow(in *Node, bl *doc.Block, row, labels []string, tracks []style.Track, k tableRow) {
	tr := b.child(in, "tr", func(z int, st *style.Style) {
		sh := b.sheet(bl.Style, z)
		st.Display, st.GridColumns = style.Grid, tracks
		st.Border.Bottom, st.BorderColor = 1, sh.Swatch("line", "#d9d4c8")
		if k.heading {
			st.Border.Bottom, st.FontWeight = 2, 600
		}
		if k.cards && k.narrow(z) {
			st.GridColumns = style.EqualColumns(1)
			st.Padding.Top, st.Padding.Bottom = style.Pixels(8), style.Pixels(8)
		}
	})
	for c, text := range row {
		tag := "td"
		if (k.heading || k.columns && c == 0) && strings.TrimSpace(text) != "" { // a corner heads nothing
			tag = "th"
		}
		cell := b.child(tr, tag, func(z int, st *style.Style) {
			sh := b.sheet(bl.Style, z)
			st.Display = style.Block
			p := sh.Length("cell-padding", style.Pixels(10))
			st.Padding = style.Edges{Top: p, Right: style.Pixels(12), Bottom: p, Left: style.Pixels(0)}
			if tag == "th" {
				st.FontWeight = 600
			}
			if k.figures[c] {
				st.TextAlign, st.Tabular = style.TextEnd, true
			}
			if k.cards && k.narrow(z) {
				st.TextAlign = tr.Styles[z].TextAlign
				st.Padding.Top, st.Padding.Bottom = style.Pixels(2), style.Pixels(2)
				if k.labels && !k.heading && c > 0 {
					st.Display, st.GridColumns = style.Grid, style.EqualColumns(2)
				}
			}
		})
		if tag == "th" {
			cell.attr("scope", map[bool]string{true: "col", false: "row"}[k.heading])
		}
		if k.labels && !k.heading && c > 0 { // what the column is, where its heading isn't shown
			label := b.child(cell, "span", func(z int, st *style.Style) {
				if st.Display = style.None; k.narrow(z) {
					st.Display = style.Block
				}
			})
			label.attr("aria-hidden", "true")
			say(label, cmp.Or(labels[c], " "))
			say(b.child(cell, "span", inlineBlock), cmp.Or(text, "\u00a0"))
			continue
		}
		say(cell, cmp.Or(text, "\u00a0"))
	}
}
