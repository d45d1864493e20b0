package media

import (
	"fmt"
	"image/color"
	"os"

	"openplot/core/colour"
)

// pixelsWide is how many pixels a picture has across that is looked at for its colours.
const pixelsWide = 64

// ReadPixels reads a copy that was made of a picture, small as it is needed to tell what colours
// lie where.
func ReadPixels(file string) (*colour.Pixels, error) {
	data, err := os.ReadFile(file)
	if err != nil {
		return nil, fmt.Errorf("reading a picture: %w", err)
	}
	img, err := decode(sniff(data), data)
	if err != nil {
		return nil, fmt.Errorf("reading a picture: %w", err)
	}
	if img.Bounds().Dx() > pixelsWide {
		img = scale(img, pixelsWide)
	}
	b := img.Bounds()
	p := &colour.Pixels{W: b.Dx(), H: b.Dy(), RGBA: make([]colour.Colour, 0, b.Dx()*b.Dy())}
	for y := b.Min.Y; y < b.Max.Y; y++ {
		for x := b.Min.X; x < b.Max.X; x++ {
			c := color.NRGBAModel.Convert(img.At(x, y)).(color.NRGBA)
			p.RGBA = append(p.RGBA, colour.Colour{R: c.R, G: c.G, B: c.B, A: c.A})
		}
	}
	return p, nil
}
