// Package style gives values of style their meaning.
//
// It has two halves. Settings (settings.go) are what a person can set on a block
// or a section: their names, the values each takes, and how an entry is read.
// Style (computed.go) is the CSS that an element ends up with in one zone: typed,
// and read both by emit, which writes it, and by layout, which computes boxes
// from it. Properties (properties.go) is the list of every CSS property that can
// be emitted, and says of each whether it can move a box.
package style
