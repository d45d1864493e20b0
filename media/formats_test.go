package media

import (
	"image"
	"math"
	"testing"

	"openplot/stock"
)

// BenchmarkFormats weighs the two formats that copies are made in: their bytes, and how
// near they are to the picture by its luma (PSNR in dB; Rec. ITU-T BT.601's weights).
func BenchmarkFormats(b *testing.B) {
	for _, id := range []string{"first-light", "meadow", "breakfast", "town-at-night", "person-una"} {
		p := stock.Find(id)
		src := scale(p.Draw(p.Width).Image(), 960)
		pic := &Picture{Type: "image/png", Width: src.Bounds().Dx(), Height: src.Bounds().Dy(), img: src}
		for _, ext := range []string{".webp", ".avif"} {
			b.Run(id+ext, func(b *testing.B) {
				var c Copy
				for b.Loop() {
					var err error
					if c, err = pic.Make(Want{src.Bounds().Dx(), ext}); err != nil {
						b.Fatal(err)
					}
				}
				got, err := decode("image/"+ext[1:], c.Data)
				if err != nil {
					b.Fatal(err)
				}
				b.ReportMetric(float64(len(c.Data)), "bytes")
				b.ReportMetric(psnr(src, got), "dB")
			})
		}
	}
}

func psnr(a, b image.Image) float64 {
	luma := func(img image.Image, x, y int) float64 {
		r, g, bl, _ := img.At(img.Bounds().Min.X+x, img.Bounds().Min.Y+y).RGBA()
		return (0.299*float64(r) + 0.587*float64(g) + 0.114*float64(bl)) / 257
	}
	sum, n := 0.0, 0
	for y := range a.Bounds().Dy() {
		for x := range a.Bounds().Dx() {
			d := luma(a, x, y) - luma(b, x, y)
			sum, n = sum+d*d, n+1
		}
	}
	return 10 * math.Log10(255*255*float64(n)/sum)
}
