// Package docs is what of the documents ships with the program: the handbook for people who compose,
// a chapter a file of Markdown (CommonMark 0.31), with its pictures.
package docs

import "embed"

// Files are handbook/*.md, and the pictures in screenshots that they show.
//
//go:embed handbook/*.md
//go:embed screenshots/new-site.png screenshots/bench-desktop.png screenshots/shelf.png screenshots/bench-dragging.png
//go:embed screenshots/bench-phone.png screenshots/writing.png screenshots/tray-heading.png screenshots/library.png
//go:embed screenshots/house-style.png screenshots/house-try.png screenshots/checks.png screenshots/pages.png
//go:embed screenshots/bench-series.png screenshots/publish.png screenshots/versions.png
var Files embed.FS
