// Package layout computes boxes: what the page does at a width.
//
// In comes an element tree (package element) and a viewport width in px; out come
// boxes with positions, sizes and lines. It implements CSS as far as emit writes
// it, a file per formatting context: block flow (block.go), lines of text
// (inline.go), flexbox (flex.go, flexlines.go), grid (grid.go, placement.go,
// tracks.go), replaced elements (replaced.go), positioned ones (positioned.go) and
// intrinsic sizes (intrinsic.go). Functions are named after the specifications'
// steps. Chromium is the judge of it. Start at Tree, then at context.layout.
package layout
