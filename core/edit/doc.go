// Package edit changes pages.
//
// Everything a person does is a Command, a small JSON object. Apply checks it,
// compiles it to Steps, which are insertions, removals and replacements of whole
// nodes, and gives the new page with the steps that take it back; or it gives a
// doc.Problem that names the field, and changes nothing. Pages are values: the
// old one stays as it was and shares what did not change. Start at Apply.
package edit
