package media

import (
	"bytes"
	"encoding/binary"
	"errors"
	"math"

	"github.com/at-wat/ebml-go"
	"github.com/at-wat/ebml-go/webm"

	"openplot/core/doc"
)

// MaxVideoBytes is the greatest size of an uploaded video. Videos are kept as they are.
const MaxVideoBytes = 60 << 20

// isVideo reports whether a sniffed type is a video's.
func isVideo(kind string) bool { return kind == "video/webm" || kind == "video/mp4" }

// openVideo reads the size of a video's picture; nothing of it is decoded.
func openVideo(kind string, data []byte) (*Picture, error) {
	if len(data) > MaxVideoBytes {
		return nil, doc.Problemf(
			"Video",
			"has %.1f MB; upload at most %d MB",
			float64(len(data))/(1<<20),
			MaxVideoBytes>>20,
		)
	}
	size, ext := mp4Size, ".mp4"
	if kind == "video/webm" {
		size, ext = webmSize, ".webm"
	}
	w, h, err := size(data)
	if err != nil {
		return nil, doc.Problemf("Video", "is damaged or has no picture (%v): save it again and upload that", err)
	}
	if w < 1 || h < 1 || w > 8192 || h > 8192 {
		return nil, doc.Problemf("Video", "has a picture of %d × %d; 1 to 8192 px can be", w, h)
	}
	return &Picture{Type: kind, Width: w, Height: h, Copies: []Copy{{w, ext, data}}}, nil
}

var errNoTrack = errors.New("there is no track with a picture")

// webmSize reads the first video track of a WebM file (Matroska, RFC 9559 §5.1.4.1.28).
func webmSize(data []byte) (w, h int, err error) {
	var file struct {
		Header  webm.EBMLHeader `ebml:"EBML"`
		Segment struct {
			Tracks webm.Tracks `ebml:"Tracks,stop"`
		} `ebml:"Segment"`
	}
	err = ebml.Unmarshal(bytes.NewReader(data), &file, ebml.WithIgnoreUnknown(true), ebml.WithMaxLeafElementSize(1<<20))
	if err != nil && !errors.Is(err, ebml.ErrReadStopped) {
		return 0, 0, err
	}
	for _, t := range file.Segment.Tracks.TrackEntry {
		if t.Video != nil {
			return int(min(t.Video.PixelWidth, math.MaxInt32)), int(min(t.Video.PixelHeight, math.MaxInt32)), nil
		}
	}
	return 0, 0, errNoTrack
}

// mp4Size reads the first track with a picture of an MP4 file: the width and height of
// its track header, as it is turned (ISO/IEC 14496-12 §8.3.2).
func mp4Size(data []byte) (w, h int, err error) {
	moov, ok := box(data, "moov")
	if !ok {
		return 0, 0, errors.New("it has no movie header")
	}
	err = errNoTrack
	eachBox(moov, func(kind string, trak []byte) bool {
		tkhd, ok := box(trak, "tkhd")
		if kind != "trak" || !ok || len(tkhd) < 84 {
			return true
		}
		at := 76 // of width, behind version, times, id, duration, reserved, layer, group, volume and matrix
		if tkhd[0] == 1 {
			at = 88
		}
		if len(tkhd) < at+8 {
			return true
		}
		w, h = int(binary.BigEndian.Uint32(tkhd[at:])>>16), int(binary.BigEndian.Uint32(tkhd[at+4:])>>16)
		if w == 0 || h == 0 { // sound
			return true
		}
		if b := int32(binary.BigEndian.Uint32(tkhd[at-32:])); b != 0 { // turned by a quarter: the matrix's b isn't 0
			w, h = h, w
		}
		err = nil
		return false
	})
	if err != nil {
		return 0, 0, err
	}
	return w, h, nil
}

// box finds a box's content by its type.
func box(data []byte, kind string) (content []byte, ok bool) {
	eachBox(data, func(k string, c []byte) bool {
		if k == kind {
			content, ok = c, true
		}
		return !ok
	})
	return content, ok
}

// eachBox goes through the boxes in data (§4.2) until f says no.
func eachBox(data []byte, f func(kind string, content []byte) bool) {
	for len(data) >= 8 {
		size, head := uint64(binary.BigEndian.Uint32(data)), uint64(8)
		switch size {
		case 0: // to the end
			size = uint64(len(data))
		case 1:
			if len(data) < 16 {
				return
			}
			size, head = binary.BigEndian.Uint64(data[8:]), 16
		}
		if size < head || size > uint64(len(data)) {
			return
		}
		if !f(string(data[4:8]), data[head:size]) {
			return
		}
		data = data[size:]
	}
}
