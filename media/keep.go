package media

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/png"
	"os"
	"path"
	"path/filepath"
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/image/draw"

	"openplot/core/doc"
	"openplot/store"
)

// OriginalMark is in the names of files that hold what was uploaded. They are never
// served.
const OriginalMark = "-original"

// Keep checks an upload, makes its first copy and keeps it as a medium of the site. The
// other copies are made in the background, by Run.
func Keep(ctx context.Context, st *store.Store, dir, site, name, alt string, data []byte) (*store.Medium, error) {
	m := &store.Medium{ID: store.NewID("m"), SiteID: site, Name: fileName(name), Alt: alt}
	if err := begin(dir, m, data); err != nil {
		return nil, err
	}
	if err := st.AddMedium(ctx, m); err != nil {
		return nil, err
	}
	return m, nil
}

// Replace puts another upload in a medium's place, wherever it is shown.
func Replace(ctx context.Context, st *store.Store, dir string, m *store.Medium, data []byte) error {
	if err := begin(dir, m, data); err != nil {
		return err
	}
	return st.ReplaceMedium(ctx, m)
}

// begin checks an upload and writes its first files, under names that were never used,
// since browsers keep what they had.
func begin(dir string, m *store.Medium, data []byte) error {
	p, err := Open(data)
	if err != nil {
		return err
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return fmt.Errorf("making the media folder: %w", err)
	}
	wants := p.Wants()
	if len(wants) > 0 {
		first, err := p.Make(wants[0])
		if err != nil {
			return err
		}
		p.Copies = []Copy{first}
	}
	base := store.NewID("f")
	m.Type, m.Width, m.Height, m.Variants = p.Type, p.Width, p.Height, nil
	m.CopiesLeft = max(len(wants)-1, 0)
	m.Original = base + OriginalMark
	for _, c := range p.Copies {
		kept, err := writeCopy(dir, m.Original, c)
		if err != nil {
			return err
		}
		m.Variants = append(m.Variants, kept)
	}
	return writeFile(dir, m.Original, data)
}

// writeCopy writes a copy of an original and gives its entry.
func writeCopy(dir, original string, c Copy) (store.MediumCopy, error) {
	kept := store.MediumCopy{File: copyName(original, Want{c.Width, c.Ext}), Width: c.Width}
	return kept, writeFile(dir, kept.File, c.Data)
}

func copyName(original string, w Want) string {
	return fmt.Sprintf("%s-%d%s", strings.TrimSuffix(original, OriginalMark), w.Width, w.Ext)
}

func writeFile(dir, name string, data []byte) error {
	if err := os.WriteFile(filepath.Join(dir, name), data, 0o644); err != nil {
		return fmt.Errorf("keeping a picture: %w", err)
	}
	return nil
}

// Change is what can be done to the pixels of a picture: quarter turns to the right,
// then a crop in per cent of what is seen then.
type Change struct {
	Turns         int
	Left, Top     float64
	Right, Bottom float64 // from the right and the bottom edge
}

// Edit turns and crops what was uploaded, and makes its copies anew.
func Edit(ctx context.Context, st *store.Store, dir string, m *store.Medium, c Change) error {
	if m.Type == "image/svg+xml" || m.Video() || m.Original == "" {
		return doc.Problemf(field, "can't be turned or cropped: it is a drawing that scales or a video, or what was uploaded isn't there any more")
	}
	data, err := os.ReadFile(filepath.Join(dir, m.Original))
	if err != nil {
		if errors.Is(err, os.ErrNotExist) {
			return doc.Problemf(field, "can't be changed: what was uploaded isn't there any more; upload it again")
		}
		return fmt.Errorf("reading a picture: %w", err)
	}
	if data, err = c.apply(data); err != nil {
		return err
	}
	return Replace(ctx, st, dir, m, data)
}

// apply changes an upload and gives it as PNG.
func (c Change) apply(data []byte) ([]byte, error) {
	if !(c.Left >= 0 && c.Top >= 0 && c.Right >= 0 && c.Bottom >= 0 && c.Left+c.Right <= 95 && c.Top+c.Bottom <= 95) {
		return nil, doc.Problemf("Crop", "would leave next to nothing: what is cut off on both sides is at most 95 %% together")
	}
	if len(data) > MaxBytes {
		return nil, doc.Problemf(field, "is too large to be changed")
	}
	kind := sniff(data)
	if config, err := decodeConfig(kind, data); err != nil || int64(config.Width)*int64(config.Height) > MaxPixels {
		return nil, doc.Problemf(field, "is damaged or too large to be changed")
	}
	img, err := decode(kind, data)
	if err != nil {
		return nil, doc.Problemf(field, "is damaged and can't be opened (%v)", err)
	}
	img = upright(img, orientation(kind, data))
	for range ((c.Turns % 4) + 4) % 4 {
		img = upright(img, 6) // Exif's orientation 6: a quarter turn to the right
	}
	b := img.Bounds()
	cut := image.Rect(
		b.Min.X+int(float64(b.Dx())*c.Left/100),
		b.Min.Y+int(float64(b.Dy())*c.Top/100),
		b.Max.X-int(float64(b.Dx())*c.Right/100),
		b.Max.Y-int(float64(b.Dy())*c.Bottom/100),
	)
	out := image.NewRGBA(image.Rect(0, 0, max(cut.Dx(), 1), max(cut.Dy(), 1)))
	draw.Draw(out, out.Bounds(), img, cut.Min, draw.Src)
	var buf bytes.Buffer
	if err := (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&buf, out); err != nil {
		return nil, fmt.Errorf("writing a picture: %w", err)
	}
	return buf.Bytes(), nil
}

// fileName is what people see of an upload's name.
func fileName(name string) string {
	name = path.Base(strings.ReplaceAll(name, `\`, "/"))
	name = strings.Map(func(r rune) rune {
		if r == utf8.RuneError || unicode.IsControl(r) {
			return -1
		}
		return r
	}, name)
	if r := []rune(name); len(r) > 120 {
		name = string(r[:120])
	}
	if name == "" || name == "." || name == "/" {
		return "Picture"
	}
	return name
}
