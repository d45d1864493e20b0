package media

import (
	"image"

	"golang.org/x/image/draw"
)

// band is how many rows or columns are scaled at a time: the kernel scaler holds 32 bytes for
// every row of the source and column of the destination at once.
const band = 256

// scale resizes to a width, keeping the shape. What is much larger is averaged down first to
// between two and four times the size; then it is scaled across, band of rows by band, and down,
// band of columns by band. Catmull–Rom's kernel is separable, and in the direction that doesn't
// change it gives what was there.
func scale(img image.Image, w int) image.Image {
	b := img.Bounds()
	if b.Dx() == w {
		return img
	}
	h := scaledHeight(b.Dx(), b.Dy(), w)
	if k := min(b.Dx()/(2*w), b.Dy()/(2*h)); k > 1 {
		img = averaged(img, k)
		b = img.Bounds()
	}
	across := image.NewRGBA(image.Rect(0, 0, w, b.Dy())) // the type that x/image/draw is fast for
	for y := 0; y < b.Dy(); y += band {
		end := min(y+band, b.Dy())
		draw.CatmullRom.Scale(
			across,
			image.Rect(0, y, w, end),
			img,
			image.Rect(b.Min.X, b.Min.Y+y, b.Max.X, b.Min.Y+end),
			draw.Src,
			nil,
		)
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	for x := 0; x < w; x += band {
		end := min(x+band, w)
		draw.CatmullRom.Scale(out, image.Rect(x, 0, end, h), across, image.Rect(x, 0, end, b.Dy()), draw.Src, nil)
	}
	return out
}

// boxKernel is the one that averages.
var boxKernel = draw.Kernel{Support: 0.5, At: func(float64) float64 { return 1 }}

// averaged makes one pixel of every k × k; what is over at the right and the bottom, less than
// k, is left out.
func averaged(img image.Image, k int) image.Image {
	b := img.Bounds()
	w, h := b.Dx()/k, b.Dy()/k
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	step := max(band/k, 1)
	for y := 0; y < h; y += step {
		end := min(y+step, h)
		boxKernel.Scale(
			out,
			image.Rect(0, y, w, end),
			img,
			image.Rect(b.Min.X, b.Min.Y+y*k, b.Min.X+w*k, b.Min.Y+end*k),
			draw.Src,
			nil,
		)
	}
	return out
}

// maxScans is how many passes a progressive JPEG may be drawn in: common programs make about
// ten, and each goes through the whole picture again.
const maxScans = 32

// scans counts the passes of a JPEG by its markers, without decoding anything (ITU-T T.81
// B.1.1: within a scan a byte FF is followed by 00 or a restart marker).
func scans(kind string, data []byte) (n int) {
	if kind != "image/jpeg" {
		return 0
	}
	const startOfScan, restart0, restart7 = 0xda, 0xd0, 0xd7
	for i := 2; i+4 <= len(data); {
		if data[i] != 0xff || data[i+1] == 0xff {
			i++
			continue
		}
		marker := data[i+1]
		if marker == 0 || marker >= restart0 && marker <= restart7+2 { // no segment: stuffing, restarts, begin and end
			i += 2
			continue
		}
		if marker == startOfScan {
			n++
		}
		i += 2 + (int(data[i+2])<<8 | int(data[i+3]))
	}
	return n
}

// narrowed gives an image of 16 bits a channel as one of 8, which is all that copies have, by
// the upper byte of each; scaling is several times as fast for it.
func narrowed(img image.Image) image.Image {
	upper := func(wide []uint8) []uint8 {
		for i := range len(wide) / 2 { // in place, since pictures are large
			wide[i] = wide[2*i]
		}
		return wide[:len(wide)/2]
	}
	switch t := img.(type) {
	case *image.NRGBA64:
		return &image.NRGBA{Pix: upper(t.Pix), Stride: t.Stride / 2, Rect: t.Rect}
	case *image.RGBA64:
		return &image.RGBA{Pix: upper(t.Pix), Stride: t.Stride / 2, Rect: t.Rect}
	case *image.Gray16:
		return &image.Gray{Pix: upper(t.Pix), Stride: t.Stride / 2, Rect: t.Rect}
	}
	return img
}
