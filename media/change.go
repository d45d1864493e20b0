package media

import (
	"bytes"
	"fmt"
	"image"
	"image/png"

	"golang.org/x/image/draw"

	"openplot/core/doc"
)

// Change is what can be done to the pixels of a picture: quarter turns to the right,
// then a crop in per cent of what is seen then.
type Change struct {
	Turns         int
	Left, Top     float64
	Right, Bottom float64 // from the right and the bottom edge
}

// check gives a *doc.Problem when a change can't be made.
func (c Change) check() error {
	if !(c.Left >= 0 && c.Top >= 0 && c.Right >= 0 && c.Bottom >= 0 && c.Left+c.Right <= 95 && c.Top+c.Bottom <= 95) {
		return doc.Problemf(
			"Crop",
			"would leave next to nothing: what is cut off on both sides is at most 95 %% together",
		)
	}
	return nil
}

// apply changes an upload and gives it as PNG.
func (c Change) apply(data []byte) ([]byte, error) {
	if err := c.check(); err != nil {
		return nil, err
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
