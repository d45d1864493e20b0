package site

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"github.com/srwiley/oksvg"
	"github.com/srwiley/rasterx"
	"golang.org/x/image/draw"
	"golang.org/x/image/webp"

	"openplot/core/colour"
	"openplot/core/doc"
	"openplot/core/emit"
	"openplot/core/number"
	"openplot/fonts"
	"openplot/icons"
)

// Files of a site's icon, by their addresses: what browsers ask for by themselves, and what
// phones put on their screens.
const (
	icoFile      = "favicon.ico"
	svgFile      = "favicon.svg"
	touchFile    = "apple-touch-icon.png"
	manifestFile = "site.webmanifest"
)

// iconSizes are the sizes in px of the PNG files, by address: that of favicon.ico is in it.
var iconSizes = map[string]int{touchFile: 180, "icon-192.png": 192, "icon-512.png": 512}

const icoSize = 32

// iconLinks are the links to a site's icon from a page.
func iconLinks(s *doc.Site, up string) []emit.Icon {
	links := []emit.Icon{{Rel: "icon", Sizes: "32x32", Href: up + icoFile}}
	if s.Icon.Medium == "" {
		links = append(links, emit.Icon{Rel: "icon", Type: "image/svg+xml", Href: up + svgFile})
	}
	return append(
		links,
		emit.Icon{Rel: "apple-touch-icon", Href: up + touchFile},
		emit.Icon{Rel: "manifest", Href: up + manifestFile},
	)
}

// drawnIcon is what was made of a site's icon last.
type drawnIcon struct {
	of    string
	files map[string][]byte
}

// iconFiles gives the files of a site's icon, by their addresses. They are drawn once for as long
// as nothing of them changes.
func (p siteIcons) iconFiles(src Source) (map[string][]byte, error) {
	of := src.Site.Name + DrawIcon(src.Site)
	for _, m := range src.Media {
		if m.ID == src.Site.Icon.Medium {
			of += fmt.Sprint(m.Focal, m.Variants)
		}
	}
	if last, ok := p.icons.Load(src.Site.ID); ok && last.(drawnIcon).of == of {
		return last.(drawnIcon).files, nil
	}
	files, err := p.drawIcon(src)
	if err == nil {
		p.icons.Store(src.Site.ID, drawnIcon{of, files})
	}
	return files, err
}

// drawIcon makes them.
func (p siteIcons) drawIcon(src Source) (map[string][]byte, error) {
	files := map[string][]byte{}
	var draw func(px int) (image.Image, error)
	if picture, err := p.iconPicture(src); err != nil {
		return nil, err
	} else if picture != nil {
		draw = func(px int) (image.Image, error) { return square(picture, src.focal(), px), nil }
	} else {
		drawn := DrawIcon(src.Site)
		files[svgFile] = []byte(drawn)
		draw = func(px int) (image.Image, error) { return raster(drawn, px) }
	}
	encode := func(px int) ([]byte, error) {
		img, err := draw(px)
		if err != nil {
			return nil, err
		}
		var b bytes.Buffer
		if err := png.Encode(&b, img); err != nil {
			return nil, fmt.Errorf("writing the site's icon: %w", err)
		}
		return b.Bytes(), nil
	}
	for name, px := range iconSizes {
		b, err := encode(px)
		if err != nil {
			return nil, err
		}
		files[name] = b
	}
	small, err := encode(icoSize)
	if err != nil {
		return nil, err
	}
	files[icoFile] = ico(small, icoSize)
	_, ground := iconColours(src.Site)
	manifest, err := json.Marshal(map[string]any{
		"name": src.Site.Name, "icons": []map[string]string{
			{
				"src":   "icon-192.png",
				"sizes": "192x192",
				"type":  "image/png",
			}, {"src": "icon-512.png", "sizes": "512x512", "type": "image/png"},
		},
		"start_url": "./", "display": "browser", "theme_color": ground, "background_color": ground,
	})
	if err != nil {
		return nil, fmt.Errorf("writing the manifest: %w", err)
	}
	files[manifestFile] = manifest
	return files, nil
}

// ico puts a PNG into the container of favicon.ico (ICONDIR and ICONDIRENTRY of Windows icons,
// which have had PNG in them since Vista).
func ico(b []byte, px int) []byte {
	out := make([]byte, 22, 22+len(b))
	binary.LittleEndian.PutUint16(out[2:], 1) // an icon
	binary.LittleEndian.PutUint16(out[4:], 1) // of one size
	out[6], out[7] = byte(px), byte(px)
	binary.LittleEndian.PutUint16(out[10:], 1)
	binary.LittleEndian.PutUint16(out[12:], 32) // bits a pixel
	binary.LittleEndian.PutUint32(out[14:], uint32(len(b)))
	binary.LittleEndian.PutUint32(out[18:], 22)
	return append(out, b...)
}

// iconColours are the colour that the icon is drawn in, black or white, and the one under it.
func iconColours(s *doc.Site) (fore, ground string) {
	ground = "#1f2a2c"
	token := s.Icon.Colour
	if token == "" {
		token = "accent"
	}
	for _, w := range s.House.Palette {
		if w.Token == token {
			ground = w.Value
		}
	}
	fore = "#ffffff"
	c, err := colour.Parse(ground)
	white, _ := colour.ParseHex("#ffffff")
	black, _ := colour.ParseHex("#000000")
	if err == nil && colour.Contrast(c, white) < colour.Contrast(c, black) {
		fore = "#000000"
	}
	return fore, ground
}

// DrawIcon draws a site's icon that isn't a picture: an icon of the set or a letter on a colour.
func DrawIcon(s *doc.Site) string {
	fore, ground := iconColours(s)
	var b strings.Builder
	fmt.Fprintf(
		&b,
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><rect width="64" height="64" rx="10" fill="%s"/>`,
		ground,
	)
	if drawing, ok := icons.Drawing(s.Icon.Icon); ok && s.Icon.Icon != "" {
		fmt.Fprintf(&b, `<g fill="%s" transform="translate(14 14) scale(2.25 2.25)">%s</g>`, fore, drawing)
	} else {
		letter := s.Icon.Letter
		if letter == "" {
			r, _ := utf8.DecodeRuneInString(strings.TrimSpace(s.Name))
			letter = string(unicode.ToUpper(r))
		}
		b.WriteString(lettering(s, []rune(letter), fore))
	}
	b.WriteString("</svg>")
	return b.String()
}

// lettering draws one letter or two in the middle of the icon.
func lettering(s *doc.Site, letters []rune, fore string) string {
	var outlines []fonts.Outline
	for _, r := range letters {
		for _, family := range []string{s.House.Fonts.Heading, "Hanken Grotesk"} {
			if o, ok := fonts.Letter(family, r); ok {
				outlines = append(outlines, o)
				break
			}
		}
	}
	const gap = 60
	width, top, bottom := float64(-gap), float64(0), float64(-1e9)
	for i, o := range outlines {
		width += o.Width + gap
		if i == 0 || o.Top < top {
			top = o.Top
		}
		bottom = max(bottom, o.Top+o.Height)
	}
	if len(outlines) == 0 { // no font has it
		return `<circle cx="32" cy="32" r="14" fill="` + fore + `"/>`
	}
	scale := min(44/width, 40/(bottom-top))
	x, y := 32-width*scale/2, 32-(top+bottom)/2*scale
	var b strings.Builder
	for _, o := range outlines {
		fmt.Fprintf(
			&b,
			`<path fill="%[1]s" stroke="%[1]s" stroke-width="30" stroke-linejoin="round" transform="translate(%[2]s %[3]s) scale(%[4]s %[4]s)" d="%[5]s"/>`,
			fore,
			short(x-o.Left*scale),
			short(y),
			short(scale),
			o.Path,
		)
		x += (o.Width + gap) * scale
	}
	return b.String()
}

func short(v float64) string { return strconv.FormatFloat(v, 'f', 4, 64) }

// raster draws an SVG of 64 units at a size in px.
func raster(svg string, px int) (image.Image, error) {
	fore := "#ffffff" // what names no colour, in icons of the set, has that of the words around it
	if i := strings.Index(svg, `<g fill="`); i >= 0 {
		fore = svg[i+9 : i+16]
	}
	icon, err := oksvg.ReadIconStream(strings.NewReader(strings.ReplaceAll(svg, "currentColor", fore)))
	if err != nil {
		return nil, fmt.Errorf("drawing the site's icon: %w", err)
	}
	img := image.NewRGBA(image.Rect(0, 0, px, px))
	icon.SetTarget(0, 0, float64(px), float64(px))
	icon.Draw(rasterx.NewDasher(px, px, rasterx.NewScannerGV(px, px, img, img.Bounds())), 1)
	return img, nil
}

// iconPicture gives the picture that is the site's icon, or nil.
func (p siteIcons) iconPicture(src Source) (image.Image, error) {
	for _, m := range src.Media {
		if src.Site.Icon.Medium == "" || m.ID != src.Site.Icon.Medium {
			continue
		}
		for _, v := range m.Variants {
			if filepath.Ext(v.File) != ".webp" ||
				v.Width < 320 && len(m.Variants) > 1 && v != m.Variants[len(m.Variants)-1] {
				continue
			}
			f, err := os.Open(filepath.Join(p.MediaDir, v.File))
			if err != nil {
				return nil, fmt.Errorf("opening the site's icon: %w", err)
			}
			defer f.Close()
			img, err := webp.Decode(f)
			if err != nil {
				return nil, fmt.Errorf("reading the site's icon: %w", err)
			}
			return img, nil
		}
	}
	return nil, nil
}

// focal is the point of the icon's picture that is kept in sight, in shares of it.
func (src Source) focal() [2]float64 {
	at := [2]float64{0.5, 0.5}
	for _, m := range src.Media {
		if m.ID != src.Site.Icon.Medium {
			continue
		}
		for i, part := range strings.Fields(m.Focal) {
			if v, err := number.Real(strings.TrimSuffix(part, "%")); err == nil && i < 2 {
				at[i] = v / 100
			}
		}
	}
	return at
}

// square cuts the largest square out of a picture, as near to its focal point as can be, and
// brings it to a size in px.
func square(img image.Image, focal [2]float64, px int) image.Image {
	b := img.Bounds()
	side := min(b.Dx(), b.Dy())
	place := func(room int, at float64) int {
		return int(math.Round(min(max(at*float64(room)-float64(side)/2, 0), float64(room-side))))
	}
	x, y := b.Min.X+place(b.Dx(), focal[0]), b.Min.Y+place(b.Dy(), focal[1])
	out := image.NewRGBA(image.Rect(0, 0, px, px))
	draw.Draw(out, out.Bounds(), image.NewUniform(color.White), image.Point{}, draw.Src)
	draw.CatmullRom.Scale(out, out.Bounds(), img, image.Rect(x, y, x+side, y+side), draw.Over, nil)
	return out
}
