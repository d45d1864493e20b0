package media

import "bytes"

// Blocks of a GIF (GIF89a §12 to §27).
const (
	gifExtension   = 0x21
	gifImage       = 0x2c
	gifTrailer     = 0x3b
	gifControl     = 0xf9 // label of an extension: how the next image is shown
	gifApplication = 0xff
	gifHeader      = 13 // bytes, with the logical screen's description
	gifTable       = 0x80
)

// loops begins the application extension that says how often a GIF is repeated, which all browsers
// follow.
var loops = []byte("\x0bNETSCAPE2.0")

// framesOf gives a GIF with nothing but its frames: what a program wrote beside them, and what
// comes after its end, is left out. moving reports whether there are several. Nothing is decoded.
func framesOf(data []byte) (frames []byte, moving bool) {
	if len(data) < gifHeader {
		return nil, false
	}
	at := gifHeader
	table := func(flags byte) {
		if flags&gifTable != 0 {
			at += 3 << (flags&7 + 1)
		}
	}
	subBlocks := func() {
		for at < len(data) && data[at] != 0 {
			at += int(data[at]) + 1
		}
		at++
	}
	table(data[10])
	if at > len(data) {
		return nil, false
	}
	out, images := bytes.NewBuffer(bytes.Clone(data[:at])), 0
	for at < len(data) {
		from, keep := at, false
		switch data[at] {
		case gifExtension:
			if at+2 > len(data) {
				return nil, false
			}
			keep = data[at+1] == gifControl || data[at+1] == gifApplication && bytes.HasPrefix(data[at+2:], loops)
			at += 2
			subBlocks()
		case gifImage:
			if at+10 > len(data) {
				return nil, false
			}
			images++
			keep = true
			flags := data[at+9]
			at += 10
			table(flags)
			at++ // minimum code size
			subBlocks()
		default: // the trailer, or nothing that is known
			out.WriteByte(gifTrailer)
			return out.Bytes(), images > 1
		}
		if at > len(data) { // cut off amid a frame
			break
		}
		if keep {
			out.Write(data[from:at])
		}
	}
	out.WriteByte(gifTrailer)
	return out.Bytes(), images > 1
}
