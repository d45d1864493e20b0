// Package place is the arithmetic of the grid: where a block stands in each zone,
// where a drag would put it, what a key moves it to.
//
// In come placements (whole columns, rows and layers) and, for gestures, the
// measured edges of the tracks in px; out come placements and guides. It knows
// no CSS and no fonts, so that it also runs in the browser as WebAssembly and
// answers there while the pointer moves. Start at Resolve and Metrics.
package place
