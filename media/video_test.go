package media

import (
	"bytes"
	"encoding/binary"
	"errors"
	"testing"

	"github.com/at-wat/ebml-go"
	"github.com/at-wat/ebml-go/webm"

	"openplot/core/doc"
)

func webmOf(t testing.TB, w, h uint64) []byte {
	t.Helper()
	var b bytes.Buffer
	type segment struct {
		Info   webm.Info   `ebml:"Info"`
		Tracks webm.Tracks `ebml:"Tracks"`
	}
	tracks := []webm.TrackEntry{
		{
			TrackNumber: 1,
			TrackUID:    1,
			CodecID:     "A_OPUS",
			TrackType:   2,
			Audio:       &webm.Audio{SamplingFrequency: 48000, Channels: 1},
		},
	}
	if w > 0 {
		tracks = append(
			tracks,
			webm.TrackEntry{
				TrackNumber: 2,
				TrackUID:    2,
				CodecID:     "V_VP8",
				TrackType:   1,
				Video:       &webm.Video{PixelWidth: w, PixelHeight: h},
			},
		)
	}
	file := struct {
		Header  webm.EBMLHeader `ebml:"EBML"`
		Segment segment         `ebml:"Segment"`
	}{*webm.DefaultEBMLHeader, segment{*webm.DefaultSegmentInfo, webm.Tracks{TrackEntry: tracks}}}
	if err := ebml.Marshal(&file, &b); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func boxOf(kind string, content ...[]byte) []byte {
	body := bytes.Join(content, nil)
	b := binary.BigEndian.AppendUint32(nil, uint32(8+len(body)))
	return append(append(b, kind...), body...)
}

// mp4Of makes the part of an MP4 file that says how large its picture is, after ISO/IEC
// 14496-12 §8.3.2: a track of sound, and one of pictures, turned or not.
func mp4Of(version byte, w, h uint32, turned bool) []byte {
	tkhd := func(w, h uint32) []byte {
		b := make([]byte, 84)
		at := 76
		if version == 1 {
			b, at = make([]byte, 96), 88
		}
		b[0] = version
		one, matrix := uint32(1<<16), b[at-36:]
		if turned { // by a quarter: 0 1 0 / -1 0 0
			binary.BigEndian.PutUint32(matrix[4:], one)
			binary.BigEndian.PutUint32(matrix[12:], -one)
		} else {
			binary.BigEndian.PutUint32(matrix, one)
			binary.BigEndian.PutUint32(matrix[16:], one)
		}
		binary.BigEndian.PutUint32(b[at:], w<<16)
		binary.BigEndian.PutUint32(b[at+4:], h<<16)
		return boxOf("trak", boxOf("tkhd", b))
	}
	return bytes.Join(
		[][]byte{
			boxOf("ftyp", []byte("isom\x00\x00\x02\x00isomiso2mp41")),
			boxOf("free"),
			boxOf("moov", tkhd(0, 0), tkhd(w, h)),
			boxOf("mdat", make([]byte, 40)),
		},
		nil,
	)
}

func TestVideosSize(t *testing.T) {
	for name, c := range map[string]struct {
		data []byte
		kind string
		w, h int
	}{
		"WebM":           {webmOf(t, 640, 360), "video/webm", 640, 360},
		"MP4":            {mp4Of(0, 1280, 720, false), "video/mp4", 1280, 720},
		"MP4, version 1": {mp4Of(1, 1920, 1080, false), "video/mp4", 1920, 1080},
		"MP4, turned":    {mp4Of(0, 1280, 720, true), "video/mp4", 720, 1280},
	} {
		p, err := Open(c.data)
		if err != nil || p.Type != c.kind || p.Width != c.w || p.Height != c.h || len(p.Copies) != 1 ||
			len(p.Wants()) != 0 {
			t.Errorf("%s: %+v, %v", name, p, err)
		}
	}
	whole := mp4Of(0, 1280, 720, false)
	for name, data := range map[string][]byte{
		"sound alone":            webmOf(t, 0, 0),
		"no size":                mp4Of(0, 0, 0, false),
		"far too large":          mp4Of(0, 30000, 30000, false),
		"cut off":                whole[:60],
		"a box longer than all":  append(append([]byte{}, whole[:28]...), 0xff, 0xff, 0xff, 0xff, 'm', 'o', 'o', 'v'),
		"WebM cut off":           webmOf(t, 640, 360)[:50],
		"more than can be taken": append(webmOf(t, 640, 360), make([]byte, MaxVideoBytes)...),
		"a box of 2^64 − 1 bytes": append(
			append([]byte{}, whole[:28]...),
			0, 0, 0, 1, 'm', 'o', 'o', 'v', 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff,
		),
	} {
		_, err := Open(data)
		var p *doc.Problem
		if !errors.As(err, &p) || p.Field != "Video" {
			t.Errorf("%s: %v", name, err)
		}
	}
}

func FuzzVideo(f *testing.F) {
	f.Add(webmOf(f, 640, 360))
	f.Add(mp4Of(0, 1280, 720, false))
	f.Fuzz(func(t *testing.T, b []byte) {
		for _, kind := range []string{"video/webm", "video/mp4"} {
			if p, err := openVideo(kind, b); err == nil &&
				(p.Width < 1 || p.Height < 1 || p.Width > 8192 || p.Height > 8192) {
				t.Errorf("%+v", p)
			}
		}
	})
}
