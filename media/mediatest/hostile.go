// Package mediatest makes files that are hostile to what opens them, for tests and trials.
package mediatest

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"slices"
	"strings"

	"github.com/gen2brain/webp"
)

// Hostile is a file that is made to cost much, or to break what opens it.
type Hostile struct {
	Name string
	Data []byte
}

// HostileFiles gives ten kinds of such files, or those that are named, for tests and trials. seed
// makes each time others, so that none is known already.
func HostileFiles(seed byte, names ...string) (files []Hostile) {
	all := []struct {
		name string
		data func() []byte
	}{
		{"hundreds-of-scans.jpg", func() []byte { return manyScans(400, seed) }},
		{"49-megapixels-16-bit.png", func() []byte { return flatPNG(7000, 7000, 16, seed) }},
		{"49-megapixels.png", func() []byte { return flatPNG(7000, 7000, 8, seed) }},
		{"tall.png", func() []byte { return flatPNG(100, 20000, 8, seed) }},
		{"very-tall.png", func() []byte { return flatPNG(3, 900_000, 8, seed) }},
		{"says-it-is-huge.png", func() []byte { return flatPNG(60_000, 60_000, 1, seed)[:200] }},
		{"cut-off.jpg", func() []byte { return cut(plainJPEG(3000, 2000, seed)) }},
		{"nested.svg", func() []byte {
			return []byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">` +
				strings.Repeat("<g>", 300_000) + string('a'+seed%26))
		}},
		{"thousands-of-frames.gif", func() []byte { return manyFrames(3000, seed) }},
		{"noise.webp", func() []byte { return noiseWebP(3000, 3000, seed) }},
	}
	for _, f := range all {
		if len(names) == 0 || slices.Contains(names, f.name) {
			files = append(files, Hostile{f.name, f.data()})
		}
	}
	return files
}

// flatPNG is a PNG of one colour, which is small for any size; written by hand, so that its
// size needs no memory here.
func flatPNG(w, h, depth int, seed byte) []byte {
	chunk := func(out *bytes.Buffer, kind string, data []byte) {
		_ = binary.Write(out, binary.BigEndian, uint32(len(data)))
		body := append([]byte(kind), data...)
		out.Write(body)
		_ = binary.Write(out, binary.BigEndian, crc32.ChecksumIEEE(body))
	}
	var out bytes.Buffer
	out.WriteString("\x89PNG\r\n\x1a\n")
	colour, pixel := byte(2), 3*depth/8 // RGB
	if depth < 8 {
		colour, pixel = 0, 1 // grey, bits
	}
	header := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(w)), uint32(h))
	chunk(&out, "IHDR", append(header, byte(depth), colour, 0, 0, 0))
	var packed bytes.Buffer
	z, _ := zlib.NewWriterLevel(&packed, zlib.BestSpeed)
	row := bytes.Repeat([]byte{seed}, 1+w*pixel)
	if depth < 8 {
		row = row[:1+(w+7)/8]
	}
	row[0] = 0 // no filter
	for range h {
		_, _ = z.Write(row)
	}
	_ = z.Close()
	chunk(&out, "IDAT", packed.Bytes())
	chunk(&out, "IEND", nil)
	return out.Bytes()
}

func plainJPEG(w, h int, seed byte) []byte {
	img := image.NewYCbCr(image.Rect(0, 0, w, h), image.YCbCrSubsampleRatio420)
	for i := range img.Y {
		img.Y[i] = byte(i/w) ^ seed
	}
	var b bytes.Buffer
	_ = jpeg.Encode(&b, img, nil) // into memory
	return b.Bytes()
}

func cut(b []byte) []byte { return b[:2*len(b)/3] }

// manyScans is a JPEG whose frame says that it is progressive and that has many scans, each
// with next to nothing in it, which a decoder all the same goes through.
func manyScans(n int, seed byte) []byte {
	b := plainJPEG(4000, 4000, seed)
	if i := bytes.Index(b, []byte{0xff, 0xc0}); i >= 0 {
		b[i+1] = 0xc2 // SOF2
	}
	sos := bytes.Index(b, []byte{0xff, 0xda})
	out := append([]byte{}, b[:sos]...)
	for i := range n {
		low := byte(i % 13)
		out = append(out, 0xff, 0xda, 0, 8, 1, 1, 0, 1+low, 63, low<<4|low, 0x2a, 0x2a)
	}
	return append(out, 0xff, 0xd9)
}

func manyFrames(n int, seed byte) []byte {
	g := &gif.GIF{}
	frame := image.NewPaletted(image.Rect(0, 0, 400, 400), color.Palette{color.Black, color.Gray{seed}})
	for range n {
		g.Image, g.Delay = append(g.Image, frame), append(g.Delay, 1)
	}
	var b bytes.Buffer
	_ = gif.EncodeAll(&b, g) // into memory
	return b.Bytes()
}

func noiseWebP(w, h int, seed byte) []byte {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	x := uint32(seed) + 1
	for i := range img.Pix {
		x ^= x << 13
		x ^= x >> 17
		x ^= x << 5
		img.Pix[i] = byte(x)
	}
	var b bytes.Buffer
	_ = webp.Encode(&b, img, webp.Options{Quality: 60, Method: 0}) // into memory
	return b.Bytes()
}

// Tall is a PNG that is higher than a WebP can be.
func Tall() []byte { return flatPNG(100, 20000, 8, 9) }

// Moving is a GIF of a few frames.
func Moving() []byte { return manyFrames(3, 9) }
