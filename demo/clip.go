package demo

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"

	"github.com/at-wat/ebml-go/webm"
	"github.com/gen2brain/webp"

	"openplot/stock"
)

const (
	clipName          = "the-crossing.webm"
	clipWidth         = 640
	clipHeight        = 360
	clipFrames        = 36
	clipFrameDuration = 111 // ms
)

// clip draws a few seconds of the boat crossing the sound, as WebM: every frame is a
// VP8 key frame, which is what a lossy WebP has in it (RFC 9649 §2.5).
func clip() ([]byte, error) {
	out := &closing{}
	ws, err := webm.NewSimpleBlockWriter(out, []webm.TrackEntry{{
		Name: "Picture", TrackNumber: 1, TrackUID: 1, CodecID: "V_VP8", TrackType: 1, DefaultDuration: clipFrameDuration * 1_000_000,
		Video: &webm.Video{PixelWidth: clipWidth, PixelHeight: clipHeight},
	}})
	if err != nil {
		return nil, fmt.Errorf("beginning the clip: %w", err)
	}
	for i := range clipFrames {
		frame, err := vp8(crossing(float64(i) / clipFrames))
		if err != nil {
			return nil, err
		}
		if _, err := ws[0].Write(true, int64(i*clipFrameDuration), frame); err != nil {
			return nil, fmt.Errorf("writing the clip: %w", err)
		}
	}
	if err := ws[0].Close(); err != nil {
		return nil, fmt.Errorf("ending the clip: %w", err)
	}
	return out.Bytes(), nil
}

type closing struct{ bytes.Buffer }

func (*closing) Close() error { return nil }

// crossing is the clip at t, from 0 to 1: the last moment leads into the first.
func crossing(t float64) *stock.Drawing {
	d := stock.New(clipWidth, clipHeight)
	d.Gradient(0, 0.55, stock.Hex(0x6fa3b4, 1), stock.Hex(0xbcd6d2, 1), stock.Hex(0xf4e8cf, 1))
	d.Disc(stock.Hex(0xfff8e2, 0.9), 0.74, 0.33, 0.06)
	d.Ridge(stock.Hex(0x86a9ae, 1), 0.4, 1.2, 0.55, 0.2, 2.2)
	d.Ridge(stock.Hex(0x4f7f8a, 1), -0.3, 0.6, 0.552, 0.24, 5.1)
	d.Gradient(0.548, 1, stock.Hex(0x5a98a1, 1), stock.Hex(0x1c5866, 1))
	d.Waves(stock.Hex(0xf6ecd4, 0.45), 0.57, 1, 3+float64(int(t*12)%4), 60)
	d.Boat(-0.15+1.3*t, 0.76, 0.2, stock.Hex(0xb4392a, 1), stock.Hex(0xf6f0e2, 1), stock.Hex(0xf0c067, 1))
	return d
}

// vp8 gives a drawing as a VP8 key frame.
func vp8(d *stock.Drawing) ([]byte, error) {
	var b bytes.Buffer
	if err := webp.Encode(&b, d.Image(), webp.Options{Quality: 70, Method: 2}); err != nil {
		return nil, fmt.Errorf("encoding a frame: %w", err)
	}
	chunks := b.Bytes()
	for at := 12; at+8 <= len(chunks); {
		size := int(binary.LittleEndian.Uint32(chunks[at+4:]))
		if string(chunks[at:at+4]) == "VP8 " && at+8+size <= len(chunks) {
			return chunks[at+8 : at+8+size], nil
		}
		at += 8 + size + size%2
	}
	return nil, errors.New("a frame has no picture in it")
}
