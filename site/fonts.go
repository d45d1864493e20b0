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
	"openplot/durable"
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
	for _, s := range []string{p.Plain(), src.Site.Name, f.Address, f.InWords(), f.Phone, f.Mail} {
		b.WriteString(s)
	}
	for _, i := range src.Pages {
		b.WriteString(i.Name + i.Description)
	}
	return b.String()
}

// subsets are the site's own fonts with the scripts that a page needs, as far as they are
// asked for.
type subsets struct {
	mediaDir string
	keep     func(rune) bool
	key      string                 // of the scripts
	asked    map[string]*store.Font // by the files' names
}

func (p *Publisher) subsets(src Source, page *doc.Page) *subsets {
	s := &subsets{mediaDir: p.MediaDir, asked: map[string]*store.Font{}}
	s.keep, s.key = fonts.Scripts(src.words(page))
	return s
}

// name asks for a font and gives its file's name.
func (s *subsets) name(f *store.Font) string {
	sum := sha256.Sum256([]byte(f.Original + " " + s.key))
	name := "own-" + hex.EncodeToString(sum[:8]) + ".woff2"
	s.asked[name] = f
	return name
}

// write writes those that were asked for into a folder, unless they are there.
func (s *subsets) write(dir string) error {
	for name, f := range s.asked {
		to := filepath.Join(dir, name)
		if _, err := os.Stat(to); err == nil {
			if err := durable.Touch(to); err != nil {
				return err
			}
			continue
		}
		whole, err := os.ReadFile(filepath.Join(s.mediaDir, f.Original))
		if err != nil {
			return fmt.Errorf("publishing the font %s: %w", f.Family, err)
		}
		part, err := fonts.Subset(whole, s.keep)
		if err != nil { // then all of it
			part = whole
		}
		packed, err := fonts.Pack(part, fonts.Small)
		if err != nil {
			return fmt.Errorf("publishing the font %s: %w", f.Family, err)
		}
		if err := durable.Write(to, packed); err != nil {
			return err
		}
	}
	return nil
}
