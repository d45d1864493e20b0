// Package media turns uploaded files into pictures that pages can use.
//
// In come the bytes of a file; out come the copies to keep: resized WebP and AVIF for
// photographs and drawings, a cleaned SVG as it is, or a doc.Problem that says
// what is wrong with the file. Whatever the file carried beside its pixels
// (position, camera, thumbnails) is gone. Files are opened in processes of their own, with
// limits (child.go). One copy is made at once, the others in the background. Start at
// Keeper.Keep.
package media

import (
	"bytes"
	"fmt"
	"image"
	_ "image/gif" // decoders register themselves
	_ "image/jpeg"
	_ "image/png"
	"net/http"
	"slices"

	"github.com/gen2brain/avif"
	"github.com/gen2brain/webp"
	xwebp "golang.org/x/image/webp"

	"openplot/core/doc"
)

// Limits of an upload.
const (
	MaxBytes  = 20 << 20
	MaxPixels = 50_000_000
)

// Widths are those that copies are made at, in px; none is wider than the
// original.
var Widths = []int{160, 240, 320, 480, 720, 960, 1440, 1920}

// Picture is a file that was checked.
type Picture struct {
	Type          string // of the upload, as sniffed
	Width, Height int    // px, upright
	Copies        []Copy `json:"-"` // those that are the file itself; narrow to wide
	img           image.Image
}

// Copy is one file to keep.
type Copy struct {
	Width int
	Ext   string // with the dot
	Data  []byte
}

const field = "Picture"

// Open reads an upload. Its type is told from its bytes, never from its name. Errors
// are *doc.Problem.
func Open(data []byte) (*Picture, error) {
	if other, err := openOther(data); (other != nil || err != nil) && !looksLikeSVG(data) {
		return other, err
	}
	kind := sniff(data)
	if isVideo(kind) {
		return openVideo(kind, data)
	}
	if len(data) > MaxBytes {
		return nil, doc.Problemf(field, "has %.1f MB; upload at most %d MB", float64(len(data))/(1<<20), MaxBytes>>20)
	}
	if len(data) == 0 {
		return nil, doc.Problemf(field, "is an empty file")
	}
	switch kind {
	case "image/jpeg", "image/png", "image/gif", "image/webp", avifType:
		return raster(kind, data)
	}
	if looksLikeSVG(data) {
		clean, w, h, err := CleanSVG(data)
		if err != nil {
			return nil, err
		}
		return &Picture{Type: "image/svg+xml", Width: w, Height: h, Copies: []Copy{{w, ".svg", clean}}}, nil
	}
	return nil, doc.Problemf(
		field,
		"isn't an image that browsers can show (it looks like %s): upload JPEG, PNG, WebP, AVIF, GIF or SVG, a video as WebM or MP4, audio as MP3, M4A, Ogg, WAV or FLAC, or a file such as PDF",
		kind,
	)
}

const avifType = "image/avif"

// sniff is http.DetectContentType that knows AVIF (AV1 Image File Format 1.1 §9.1.1).
func sniff(data []byte) string {
	if len(data) > 12 && string(data[4:8]) == "ftyp" && (string(data[8:12]) == "avif" || string(data[8:12]) == "avis") {
		return avifType
	}
	return http.DetectContentType(data)
}

func raster(kind string, data []byte) (*Picture, error) {
	config, err := decodeConfig(kind, data)
	if err != nil {
		return nil, doc.Problemf(field, "is damaged and can't be opened (%v): save it again and upload that", err)
	}
	if config.Width <= 0 || config.Height <= 0 {
		return nil, doc.Problemf(field, "has no pixels")
	}
	if px := int64(config.Width) * int64(config.Height); px > MaxPixels {
		return nil, doc.Problemf(
			field, "has %d × %d pixels, %d million; make it smaller than %d million", config.Width, config.Height,
			px/1_000_000, MaxPixels/1_000_000,
		)
	}
	if kind == "image/gif" { // moving pictures keep their frames as they are
		if frames, moving := framesOf(data); moving {
			return &Picture{
				Type:   kind,
				Width:  config.Width,
				Height: config.Height,
				Copies: []Copy{{config.Width, ".gif", frames}},
			}, nil
		}
	}
	if n := scans(kind, data); n > maxScans {
		return nil, doc.Problemf(
			field,
			"is drawn in %d passes, which takes very long: save it again as a plain JPEG and upload that",
			n,
		)
	}
	img, err := decode(kind, data)
	if err != nil {
		return nil, doc.Problemf(field, "is damaged and can't be opened (%v): save it again and upload that", err)
	}
	img = upright(narrowed(img), orientation(kind, data))
	b := img.Bounds()
	if ws := widths(b.Dx(), b.Dy()); ws[0] < min(minSide, b.Dx()) || scaledHeight(b.Dx(), b.Dy(), ws[0]) < 1 {
		return nil, doc.Problemf(
			field,
			"has %d × %d pixels, which is too long and narrow to be shown: crop it to at most %d times as high as wide",
			b.Dx(),
			b.Dy(),
			maxSide/minSide,
		)
	}
	return &Picture{Type: kind, Width: b.Dx(), Height: b.Dy(), img: img}, nil
}

// Want is a copy to be made of a picture.
type Want struct {
	Width int
	Ext   string // with the dot
}

// modern reports whether the copy is in a format that not every browser reads.
func (w Want) modern() bool { return w.Ext == ".avif" }

// Wants lists the copies to be made, in the order in which they are useful: WebP, which every
// browser reads, beginning with the one that is shown small, then AVIF, each from narrow to wide.
func (p *Picture) Wants() (ws []Want) {
	if p.img == nil {
		return nil
	}
	return wantsOf(p.Width, p.Height)
}

func wantsOf(width, height int) (ws []Want) {
	all := widths(width, height)
	first := slices.IndexFunc(all, func(w int) bool { return w >= doc.ThumbWidth })
	if first < 0 {
		first = len(all) - 1
	}
	ws = append(ws, Want{all[first], ".webp"})
	for _, w := range slices.Delete(slices.Clone(all), first, first+1) {
		ws = append(ws, Want{w, ".webp"})
	}
	for _, w := range all {
		ws = append(ws, Want{w, ".avif"})
	}
	return ws
}

// maxSide is how high or wide a copy can be: WebP has 14 bits for each (RFC 9649 §2.5).
const maxSide = 16383

// minSide is how narrow a copy may become for that.
const minSide = 16

// Make makes a copy.
func (p *Picture) Make(w Want) (Copy, error) {
	var out bytes.Buffer
	var err error
	if img := scale(p.img, w.Width); w.Ext == ".avif" {
		err = avif.Encode(
			&out,
			img,
			avif.Options{Quality: 65, Speed: 7, ChromaSubsampling: image.YCbCrSubsampleRatio420},
		)
	} else {
		err = webp.Encode(&out, img, webp.Options{Quality: 82, Method: 4})
	}
	if err != nil {
		return Copy{}, fmt.Errorf("encoding a copy %d px wide: %w", w.Width, err)
	}
	return Copy{w.Width, w.Ext, out.Bytes()}, nil
}

// worthIt reports whether a copy in AVIF is kept beside one in WebP: it has to be a tenth
// smaller. At their qualities both are as near to the picture (docs/performance.md).
func worthIt(avif, webp int64) bool { return avif*10 <= webp*9 }

// widths are the standard ones below the original's, and the original's own when it is no
// wider than the widest; none so wide that a copy would be higher than it can be.
func widths(width, height int) []int {
	widest := width
	if scaledHeight(width, height, widest) > maxSide {
		widest = max(maxSide*width/height, 1)
	}
	var ws []int
	for _, w := range Widths {
		if w < widest {
			ws = append(ws, w)
		}
	}
	if widest <= Widths[len(Widths)-1] {
		ws = append(ws, widest)
	}
	return ws
}

// scaledHeight is the height of a copy of some width.
func scaledHeight(width, height, w int) int { return max(1, (height*w+width/2)/width) }

func decodeConfig(kind string, data []byte) (image.Config, error) {
	switch kind {
	case "image/webp":
		return xwebp.DecodeConfig(bytes.NewReader(data))
	case avifType:
		return avif.DecodeConfig(bytes.NewReader(data))
	}
	c, _, err := image.DecodeConfig(bytes.NewReader(data))
	return c, err
}

func decode(kind string, data []byte) (image.Image, error) {
	if kind == avifType {
		return avif.Decode(bytes.NewReader(data))
	}
	if kind != "image/webp" {
		img, _, err := image.Decode(bytes.NewReader(data))
		return img, err
	}
	img, err := xwebp.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, err
	}
	return fullRange(img), nil
}

// fullRange converts a lossy WebP's planes: they are limited-range BT.601 (RFC
// 9649 §2.5 and RFC 6386 §9.2: black is 16, white 235), which the decoder's own
// types read as full range.
func fullRange(img image.Image) image.Image {
	var y *image.YCbCr
	var alpha *image.NYCbCrA
	switch t := img.(type) {
	case *image.YCbCr:
		y = t
	case *image.NYCbCrA:
		y, alpha = &t.YCbCr, t
	default:
		return img
	}
	b := y.Bounds()
	out := image.NewNRGBA(image.Rect(0, 0, b.Dx(), b.Dy()))
	clamp := func(v int) uint8 { return uint8(min(max((v+32768)>>16, 0), 255)) }
	for j := range b.Dy() {
		for i := range b.Dx() {
			x0, y0 := b.Min.X+i, b.Min.Y+j
			c := y.COffset(x0, y0)
			yy := 76309 * (int(y.Y[y.YOffset(x0, y0)]) - 16) // 255/219 in 1/65536
			cb, cr := int(y.Cb[c])-128, int(y.Cr[c])-128
			p := out.Pix[out.PixOffset(i, j):]
			p[0] = clamp(yy + 104597*cr)
			p[1] = clamp(yy - 25675*cb - 53279*cr)
			p[2] = clamp(yy + 132201*cb)
			p[3] = 255
			if alpha != nil {
				p[3] = alpha.A[alpha.AOffset(x0, y0)]
			}
		}
	}
	return out
}
