package site

import (
	"bytes"
	"compress/gzip"
	"context"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strings"

	"openplot/core/check"
	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/shape"
	"openplot/core/style"
	"openplot/fonts"
	"openplot/stock"
	"openplot/store"
)

// Weigh gives what a visitor's browser loads of a page, by zone, at its typical width and on a
// screen with one pixel a px, once all of it was seen: text packed with gzip, pictures as they are,
// shipped fonts cut as for this page alone, fonts of the site's own with all their characters. Videos and what others serve
// don't count. families are those that the page has browsers fetch before they are needed.
func (src Source) Weigh(
	ctx context.Context,
	slug string,
	p *doc.Page,
	mediaDir string,
) (by []check.Bytes, families []string) {
	const media, scenes = "m/", "s/"
	r := src.Render(
		slug,
		p,
		Addresses{
			MediaDir:    mediaDir,
			Media:       media,
			StyleMedia:  media,
			Scenes:      scenes,
			StyleScenes: scenes,
			Fonts:       "f/",
			StyleFonts:  "f/",
			Script:      func(name string) string { return name },
			OwnFont:     func(f *store.Font) string { return f.File },
		},
	)
	css := packed([]byte(r.CSS))
	text := check.Bytes{CSS: css, HTML: max(packed([]byte(r.HTML))-css, 0)}
	for _, name := range r.Scripts {
		if b, err := Script(name); err == nil {
			text.Scripts += packed(b)
		}
	}
	needs := src.fontNeeds(p, r.Body)
	if needs.letters != "" { // not cut anew for each letter that is written
		needs.letters = fonts.Western
	}
	for z, zone := range src.Site.Zones {
		w := text
		seen := map[string]bool{}
		add := func(address string) {
			if file, ours := strings.CutPrefix(address, media); ours && !seen[file] {
				seen[file] = true
				w.Pictures += size(filepath.Join(mediaDir, path.Base(file)))
			}
			if name, ours := strings.CutPrefix(address, scenes); ours && !seen[name] {
				seen[name] = true
				svg, _ := stock.SceneNamed(name)
				w.Pictures += packed([]byte(svg))
			}
		}
		type face struct {
			family string
			italic bool
		}
		used, beyond := map[face]map[int]bool{}, map[face]bool{} // weights, and whether extended characters are in it
		var walk func(n *element.Node)
		walk = func(n *element.Node) {
			st := &n.Styles[z]
			if n.Tag == "" {
				f := face{st.FontFamily, st.FontItalic}
				if used[f] == nil {
					used[f] = map[int]bool{}
				}
				used[f][st.FontWeight] = true
				beyond[f] = beyond[f] || strings.ContainsFunc(n.Text, fonts.Face{Extended: true}.Holds)
				return
			}
			if st.Display == style.None || n.Folded {
				return
			}
			if n.Tag == "img" {
				address, _ := check.Loads(n, float64(zone.Typical))
				add(address)
			}
			add(st.BackgroundURL)
			for _, a := range n.Attrs {
				if a.Name == "poster" {
					add(a.Value)
				}
			}
			for _, c := range n.Children {
				walk(c)
			}
		}
		walk(r.Body)
		is := func(family string, italic bool) bool { return used[face{family, italic}] != nil }
		for _, f := range fonts.Needed(is) {
			of := face{f.Family, f.Italic}
			if f.Extended && !beyond[of] || !takes(f, used[of]) {
				continue
			}
			if f.Extended {
				b, _ := fonts.Files.ReadFile("files/" + f.File)
				w.Fonts += len(b)
			} else if b, err := f.Cut(ctx, needs.of(f.Family, f.Italic, f.Holds)); err == nil {
				w.Fonts += len(b)
			}
		}
		for _, f := range src.Needed(is) {
			w.Fonts += size(filepath.Join(mediaDir, f.File))
		}
		by = append(by, w)
	}
	for _, family := range []string{src.Site.House.Fonts.Heading, src.Site.House.Fonts.Body} {
		if emitted := strings.Contains(r.CSS, `font-family:"`+family+`"`); emitted &&
			(len(families) == 0 || families[0] != family) {
			families = append(families, family)
		}
	}
	return by, families
}

// takes reports whether words of some weights are set in a shipped file rather than in another one of
// its family (CSS Fonts 4 §5.2): of a family with files of one weight each, in the one that matches.
func takes(f fonts.Face, weights map[int]bool) bool {
	if weights == nil { // an italic stands in
		return true
	}
	for w := range weights {
		far := func(of fonts.Face) int { return shape.WeightDistance(of.Weights[0], of.Weights[1], w) }
		if !slices.ContainsFunc(fonts.Faces, func(other fonts.Face) bool {
			return other.Family == f.Family && other.Italic == f.Italic && far(other) < far(f)
		}) {
			return true
		}
	}
	return false
}

// packed is how many bytes are sent of a text.
func packed(b []byte) int {
	var out bytes.Buffer
	w := gzip.NewWriter(&out)
	if _, err := w.Write(b); err != nil || w.Close() != nil {
		return len(b)
	}
	return out.Len()
}

// size is a file's in bytes, or 0 where there is none.
func size(file string) int {
	info, err := os.Stat(file)
	if err != nil {
		return 0
	}
	return int(info.Size())
}
