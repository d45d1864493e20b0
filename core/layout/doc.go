// Package layout computes boxes: what the page does at a width.
//
// In comes an element tree (package element) and a viewport width in px; out come
// boxes with positions, sizes and lines. It implements CSS as far as emit writes
// it: block flow (block.go), lines of text (inline.go), grid (grid.go,
// tracks.go) and replaced elements, each function named after the
// specification's step. Chromium is the judge of it. Start at Tree.
package layout
