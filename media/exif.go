package media

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
)

// orientation gives the EXIF orientation of a JPEG, 1 to 8 (Exif 2.32 §4.6.4 A,
// tag 0x0112); 1, upright, when there is none.
func orientation(kind string, data []byte) int {
	if kind != "image/jpeg" {
		return 1
	}
	for i := 2; i+4 <= len(data) && data[i] == 0xff; {
		size := int(binary.BigEndian.Uint16(data[i+2:]))
		end := i + 2 + size
		if size < 2 || end > len(data) || data[i+1] == 0xda {
			break
		}
		if data[i+1] == 0xe1 {
			if tiff, ok := bytes.CutPrefix(data[i+4:end], []byte("Exif\x00\x00")); ok {
				return tiffOrientation(tiff)
			}
		}
		i = end
	}
	return 1
}

func tiffOrientation(t []byte) int {
	if len(t) < 8 {
		return 1
	}
	var order binary.ByteOrder = binary.BigEndian
	if t[0] == 'I' {
		order = binary.LittleEndian
	}
	at := int(order.Uint32(t[4:]))
	if at < 8 || at+2 > len(t) {
		return 1
	}
	for n := int(order.Uint16(t[at:])); n > 0; n-- {
		e := at + 2 + 12*(n-1)
		if e+12 > len(t) {
			continue
		}
		if order.Uint16(t[e:]) == 0x0112 {
			if o := int(order.Uint16(t[e+8:])); o >= 1 && o <= 8 {
				return o
			}
		}
	}
	return 1
}

// upright turns and mirrors an image so that it is seen as orientation says.
func upright(img image.Image, orientation int) image.Image {
	if orientation == 1 {
		return img
	}
	b := img.Bounds()
	w, h := b.Dx(), b.Dy()
	if orientation >= 5 {
		w, h = h, w
	}
	out := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			sx, sy := x, y
			switch orientation {
			case 2:
				sx = w - 1 - x
			case 3:
				sx, sy = w-1-x, h-1-y
			case 4:
				sy = h - 1 - y
			case 5:
				sx, sy = y, x
			case 6:
				sx, sy = y, w-1-x
			case 7:
				sx, sy = h-1-y, w-1-x
			case 8:
				sx, sy = h-1-y, x
			}
			out.Set(x, y, color.NRGBAModel.Convert(img.At(b.Min.X+sx, b.Min.Y+sy)))
		}
	}
	return out
}
