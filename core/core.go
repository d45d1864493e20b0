// Package core is the job of Open Plot: pages as data, edits, style, layout,
// placing and the HTML and CSS that come of them. Its packages know no HTTP, no
// SQL, no files and no clock, and build for WebAssembly; docs/architecture.md
// says how they hang together.
package core
