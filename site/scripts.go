package site

import (
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"fmt"
)

//go:embed scripts/*.js
var scripts embed.FS

// Script gives the text of a script that published pages may need, by its name.
func Script(name string) ([]byte, error) {
	b, err := scripts.ReadFile("scripts/" + name + ".js")
	if err != nil {
		return nil, fmt.Errorf("there is no script %q: %w", name, err)
	}
	return b, nil
}

// scriptFile names a script's file after what is in it, so that it can be kept by
// browsers for good.
func scriptFile(name string) string {
	b, _ := Script(name) // what isn't there isn't written either
	sum := sha256.Sum256(b)
	return name + "-" + hex.EncodeToString(sum[:4]) + ".js"
}
