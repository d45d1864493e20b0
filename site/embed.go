package site

import (
	"crypto/sha256"
	"encoding/hex"
)

// EmbedPrefix begins the names of files that hold own HTML. They are served so that
// they can't reach anything of the site.
const EmbedPrefix = "own-"

// embedFile names a file of own HTML after what is in it.
func embedFile(markup string) string {
	sum := sha256.Sum256([]byte(markup))
	return EmbedPrefix + hex.EncodeToString(sum[:6]) + ".html"
}

// EmbedDocument is the page that own HTML is in.
func EmbedDocument(markup string) string {
	return "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>Embedded content</title></head><body>\n" + markup + "\n</body></html>\n"
}
