package site

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/emit"
	"openplot/fonts"
	"openplot/store"
)

// OwnFontFace gives the rule for a font file of a site's own at an address.
func OwnFontFace(f *store.Font, address string) emit.FontFace {
	weights := strconv.Itoa(f.Least)
	if f.Most != f.Least {
		weights += " " + strconv.Itoa(f.Most)
	}
	return emit.FontFace{Family: f.Family, URL: address, Italic: f.Italic, Weights: weights}
}

// Needed gives the site's own font files that words need which are set in families and
// styles as used tells. Where a family has no italic, its upright files stand in.
func (src Source) Needed(used func(family string, italic bool) bool) (out []*store.Font) {
	italics := map[string]bool{}
	for _, f := range src.Fonts {
		italics[f.Family] = italics[f.Family] || f.Italic
	}
	for _, f := range src.Fonts {
		if used(f.Family, f.Italic) || !italics[f.Family] && used(f.Family, true) {
			out = append(out, f)
		}
	}
	return out
}

// words are all that can be read on a page, what the site says everywhere included.
func (src Source) words(p *doc.Page) string {
	var b strings.Builder
	f := src.Site.Facts
	for _, s := range []string{p.Plain(), src.Site.Name, f.Address, f.Hours, f.Phone, f.Mail} {
		b.WriteString(s)
	}
	for _, i := range src.Pages {
		b.WriteString(i.Name + i.Description)
	}
	return b.String()
}

// ownFonts writes the site's own fonts into a folder, each with the scripts that a page
// needs, and gives the files' names by the fonts' ids.
func (p *Publisher) ownFonts(src Source, page *doc.Page, dir string) (map[string]string, error) {
	if len(src.Fonts) == 0 {
		return nil, nil
	}
	keep, key := fonts.Scripts(src.words(page))
	names := map[string]string{}
	for _, f := range src.Fonts {
		sum := sha256.Sum256([]byte(f.Original + " " + key))
		name := "own-" + hex.EncodeToString(sum[:8]) + ".woff2"
		names[f.ID] = name
		to := filepath.Join(dir, name)
		if _, err := os.Stat(to); err == nil {
			continue
		}
		whole, err := os.ReadFile(filepath.Join(p.MediaDir, f.Original))
		if err != nil {
			return nil, fmt.Errorf("publishing the font %s: %w", f.Family, err)
		}
		part, err := fonts.Subset(whole, keep)
		if err != nil { // then all of it
			part = whole
		}
		packed, err := fonts.Pack(part, fonts.Small)
		if err != nil {
			return nil, fmt.Errorf("publishing the font %s: %w", f.Family, err)
		}
		if err := write(to, packed); err != nil {
			return nil, err
		}
	}
	return names, nil
}
