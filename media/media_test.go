package media

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"hash/crc32"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"math"
	"strings"
	"testing"

	"github.com/gen2brain/webp"

	"openplot/core/doc"
)

// quarters is an image with red, green, blue and white quarters.
func quarters(w, h int) *image.NRGBA {
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	colours := [2][2]color.NRGBA{{{220, 20, 20, 255}, {20, 200, 20, 255}}, {{20, 20, 220, 255}, {255, 255, 255, 255}}}
	for y := range h {
		for x := range w {
			img.Set(x, y, colours[2*y/h][2*x/w])
		}
	}
	return img
}

func pngOf(t testing.TB, img image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func jpegOf(t testing.TB, img image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// withOrientation puts an EXIF segment into a JPEG.
func withOrientation(b []byte, o uint16) []byte {
	tiff := []byte("II*\x00\x08\x00\x00\x00\x01\x00\x12\x01\x03\x00\x01\x00\x00\x00")
	tiff = binary.LittleEndian.AppendUint16(tiff, o)
	tiff = append(tiff, 0, 0, 0, 0, 0, 0)
	segment := append([]byte("Exif\x00\x00"), tiff...)
	out := append([]byte{}, b[:2]...)
	out = append(out, 0xff, 0xe1)
	out = binary.BigEndian.AppendUint16(out, uint16(len(segment)+2))
	out = append(out, segment...)
	return append(out, b[2:]...)
}

func near(a, b color.Color, by int) bool {
	p, q := color.NRGBAModel.Convert(a).(color.NRGBA), color.NRGBAModel.Convert(b).(color.NRGBA)
	d := func(x, y uint8) bool { return max(int(x)-int(y), int(y)-int(x)) <= by }
	return d(p.R, q.R) && d(p.G, q.G) && d(p.B, q.B)
}

func TestVariantsAreNeverWiderThanTheOriginal(t *testing.T) {
	for _, tt := range []struct {
		width int
		want  string
	}{
		{100, "[100]"}, {300, "[160 240 300]"}, {480, "[160 240 320 480]"}, {1000, "[160 240 320 480 720 960 1000]"},
		{1920, "[160 240 320 480 720 960 1440 1920]"}, {2500, "[160 240 320 480 720 960 1440 1920]"},
	} {
		if got := fmt.Sprint(widths(tt.width, 100)); got != tt.want {
			t.Errorf("%d px: %s, want %s", tt.width, got, tt.want)
		}
	}
	p, err := Open(pngOf(t, quarters(1000, 500)))
	if err != nil {
		t.Fatal(err)
	}
	if p.Type != "image/png" || p.Width != 1000 || p.Height != 500 ||
		fmt.Sprint(
			p.Wants(),
		) != "[{480 .webp} {160 .webp} {240 .webp} {320 .webp} {720 .webp} {960 .webp} {1000 .webp} "+
			"{160 .avif} {240 .avif} {320 .avif} {480 .avif} {720 .avif} {960 .avif} {1000 .avif}]" {
		t.Errorf("%s %d × %d, %v", p.Type, p.Width, p.Height, p.Wants())
	}
	for _, w := range p.Wants() {
		c, err := p.Make(w)
		if err != nil {
			t.Fatal(err)
		}
		kind := "image/" + w.Ext[1:]
		config, err := decodeConfig(kind, c.Data)
		if err != nil || sniff(c.Data) != kind || config.Width != w.Width || config.Height != w.Width/2 {
			t.Errorf("the copy %v is %d × %d, %v", w, config.Width, config.Height, err)
		}
		img, err := decode(kind, c.Data)
		if err != nil || !near(img.At(3*w.Width/4, 3*w.Width/8), color.White, 6) || !near(
			img.At(w.Width/4, w.Width/8),
			color.NRGBA{220, 20, 20, 255},
			8,
		) {
			t.Errorf("the copy %v has other colours: %v", w, err)
		}
	}
}

// Where the red quarter stands after each of the eight orientations (Exif 2.32
// §4.6.4 A): the stored picture has it at the top left.
func TestOrientation(t *testing.T) {
	red := color.NRGBA{220, 20, 20, 255}
	corners := []string{
		"",
		"top left",
		"top right",
		"bottom right",
		"bottom left",
		"top left",
		"top right",
		"bottom right",
		"bottom left",
	}
	for o := 1; o <= 8; o++ {
		data := withOrientation(jpegOf(t, quarters(200, 100)), uint16(o))
		if got := orientation("image/jpeg", data); got != o {
			t.Fatalf("orientation %d is read as %d", o, got)
		}
		img, err := decode("image/jpeg", data)
		if err != nil {
			t.Fatal(err)
		}
		up := upright(img, o)
		w, h := up.Bounds().Dx(), up.Bounds().Dy()
		if (o >= 5) != (h > w) {
			t.Errorf("orientation %d gives %d × %d", o, w, h)
		}
		at := map[string]image.Point{
			"top left":     {w / 4, h / 4},
			"top right":    {3 * w / 4, h / 4},
			"bottom left":  {w / 4, 3 * h / 4},
			"bottom right": {3 * w / 4, 3 * h / 4},
		}
		p := at[corners[o]]
		if !near(up.At(p.X, p.Y), red, 30) {
			t.Errorf("orientation %d: the red quarter isn't at the %s", o, corners[o])
		}
	}
	p, err := Open(withOrientation(jpegOf(t, quarters(200, 100)), 6))
	if err != nil || p.Width != 100 || p.Height != 200 {
		t.Errorf("turned: %+v, %v", p, err)
	}
}

// A lossy WebP has limited-range colours; read as full range, white would come out
// as 235.
func TestLossyWebPKeepsWhiteWhite(t *testing.T) {
	var b bytes.Buffer
	if err := webp.Encode(&b, quarters(64, 64), webp.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	img, err := decode("image/webp", b.Bytes())
	if err != nil {
		t.Fatal(err)
	}
	for p, want := range map[image.Point]color.NRGBA{
		{48, 48}: {255, 255, 255, 255},
		{16, 16}: {220, 20, 20, 255},
		{48, 16}: {20, 200, 20, 255},
		{16, 48}: {20, 20, 220, 255},
	} {
		if got := img.At(p.X, p.Y); !near(got, want, 6) {
			t.Errorf("at %v: %v, want %v", p, got, want)
		}
	}
}

func TestMetadataIsDropped(t *testing.T) {
	data := withOrientation(jpegOf(t, quarters(100, 100)), 1)
	p, err := Open(data)
	if err != nil {
		t.Fatal(err)
	}
	for _, w := range p.Wants() {
		c, err := p.Make(w)
		if err != nil || bytes.Contains(c.Data, []byte("Exif")) || bytes.Contains(c.Data, []byte("EXIF")) {
			t.Errorf("the copy %v carries EXIF, or %v", w, err)
		}
	}
}

func TestAnimatedGIFKeepsItsFrames(t *testing.T) {
	frame := func() *image.Paletted {
		return image.NewPaletted(image.Rect(0, 0, 20, 10), color.Palette{color.Black, color.White})
	}
	encode := func(frames int) []byte {
		g := &gif.GIF{}
		for range frames {
			g.Image = append(g.Image, frame())
			g.Delay = append(g.Delay, 10)
		}
		var b bytes.Buffer
		if err := gif.EncodeAll(&b, g); err != nil {
			t.Fatal(err)
		}
		return b.Bytes()
	}
	moving := encode(3)
	p, err := Open(moving)
	if err != nil || len(p.Copies) != 1 || p.Copies[0].Ext != ".gif" || !bytes.Equal(p.Copies[0].Data, moving) {
		t.Errorf("moving: %v", err)
	}
	// What a program wrote beside the frames, or behind them, isn't kept.
	head := gifHeader
	if moving[10]&gifTable != 0 {
		head += 3 << (moving[10]&7 + 1)
	}
	said := append(bytes.Clone(moving[:head]), "\x21\xfe\x06secret\x00\x21\xff\x0bXMP DataXMP\x06secret\x00"...)
	said = append(append(said, moving[head:]...), "secret"...)
	if p, err = Open(said); err != nil {
		t.Fatal(err)
	}
	if bytes.Contains(p.Copies[0].Data, []byte("secret")) || !bytes.Equal(p.Copies[0].Data, moving) {
		t.Errorf("with words in it: %q", p.Copies[0].Data)
	}
	p, err = Open(encode(1))
	if err != nil || len(p.Copies) > 0 || len(p.Wants()) != 2 {
		t.Errorf("still: %v", err)
	}
}

// bomb is a PNG of 65,000 × 65,000 pixels in under 1 kB.
func bomb() []byte {
	b := []byte("\x89PNG\r\n\x1a\n")
	chunk := func(kind string, data []byte) {
		b = binary.BigEndian.AppendUint32(b, uint32(len(data)))
		body := append([]byte(kind), data...)
		b = append(b, body...)
		b = binary.BigEndian.AppendUint32(b, crc32.ChecksumIEEE(body))
	}
	head := binary.BigEndian.AppendUint32(nil, 65000)
	head = binary.BigEndian.AppendUint32(head, 65000)
	chunk("IHDR", append(head, 8, 2, 0, 0, 0))
	chunk("IDAT", []byte{0x78, 0x9c, 0x03, 0x00})
	return b
}

func TestBadFiles(t *testing.T) {
	good := pngOf(t, quarters(50, 50))
	for name, data := range map[string][]byte{
		"empty":              {},
		"nothing known":      {0, 1, 2, 3, 4, 5, 6, 7},
		"a page":             []byte("<!DOCTYPE html><script>alert(1)</script>"),
		"21 MB":              make([]byte, 21<<20),
		"truncated PNG":      good[:len(good)/2],
		"a PNG's name only":  []byte("\x89PNG\r\n\x1a\n"),
		"4 gigapixels":       bomb(),
		"truncated JPEG":     jpegOf(t, quarters(50, 50))[:200],
		"broken SVG":         []byte(`<svg xmlns="http://www.w3.org/2000/svg"><g></svg>`),
		"SVG with an entity": []byte(`<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg"><text>&a;</text></svg>`),
		"SVG nested too deep": []byte(
			`<svg xmlns="http://www.w3.org/2000/svg">` + strings.Repeat("<g>", 5000) + strings.Repeat("</g>", 5000) + `</svg>`,
		),
		"SVG elsewhere": []byte(`<html><svg xmlns="http://www.w3.org/2000/svg"/></html>`),
	} {
		_, err := Open(data)
		var problem *doc.Problem
		if !errors.As(err, &problem) || len(problem.Message) < 10 {
			t.Errorf("%s: %v, want a problem", name, err)
		}
	}
}

// Drawings that draw themselves over and over are refused, however they do; those that refer to much
// once aren't.
func TestSVGThatDrawsItself(t *testing.T) {
	nested := func(refer string) string {
		var b strings.Builder
		b.WriteString(
			`<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 9 9"><defs><g id="a0"><rect width="1" height="1"/></g>`,
		)
		for i := range 8 {
			b.WriteString(fmt.Sprintf(`<g id="a%d">`, i+1))
			for range 10 {
				b.WriteString(fmt.Sprintf(refer, i))
			}
			b.WriteString(`</g>`)
		}
		return b.String() + fmt.Sprintf(refer, 8) + `</defs></svg>`
	}
	for name, refer := range map[string]string{
		"use": `<use href="#a%d"/>`, "xlink": `<use xlink:href=" #a%d "/>`, "a mask": `<rect mask="url(#a%d)"/>`, "a style": `<rect style="fill: URL( '#a%d' )"/>`,
	} {
		_, _, _, err := CleanSVG([]byte(nested(refer)))
		var p *doc.Problem
		if !errors.As(err, &p) || !strings.Contains(p.Message, "times over") {
			t.Errorf("%s: %v", name, err)
		}
	}
	for name, in := range map[string]string{
		"itself":    `<g id="a"><use href="#a"/><use href="#a"/></g>`,
		"a circle":  `<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>`,
		"much once": `<g id="a">` + strings.Repeat(`<rect/>`, 1000) + `</g>` + strings.Repeat(`<use href="#a"/>`, 100),
	} {
		if _, _, _, err := CleanSVG([]byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">` + in + `</svg>`)); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

func TestCleanSVG(t *testing.T) {
	in := `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 40 20" onload="alert(1)">
<script>alert(2)</script><style>*{fill:url(http://evil.example)}</style><foreignObject><body xmlns="http://www.w3.org/1999/xhtml">x</body></foreignObject>
<a xlink:href="javascript:alert(3)"><rect id="r" width="10" height="10" onclick="alert(4)" fill="red" style="fill:#00ff00;background:url(javascript:1);stroke:url(http://evil.example/x)"/></a>
<use xlink:href="#r"/><use href="http://evil.example/#r"/><image href="http://evil.example/x.png"/><animate attributeName="href" to="javascript:1"/>
<rect fill="url(#g)" filter="URL( 'http://evil.example' )"/><text>a &lt; b</text></svg>`
	out, w, h, err := CleanSVG([]byte(in))
	if err != nil {
		t.Fatal(err)
	}
	if w != 40 || h != 20 {
		t.Errorf("size %d × %d, want 40 × 20", w, h)
	}
	for _, bad := range []string{
		"script", "alert", "evil", "onload", "onclick", "foreignObject", "javascript", "<a", "<image", "animate",
		"<style", "fill=\"red\"",
	} {
		if strings.Contains(string(out), bad) {
			t.Errorf("%q is left in %s", bad, out)
		}
	}
	for _, good := range []string{`fill="#00ff00"`, `href="#r"`, `fill="url(#g)"`, "a &lt; b", `width="40"`} {
		if !strings.Contains(string(out), good) {
			t.Errorf("%q is gone from %s", good, out)
		}
	}
	if again, _, _, err := CleanSVG(out); err != nil || !bytes.Equal(again, out) {
		t.Errorf("cleaning twice gives another file: %v\n%s\n%s", err, out, again)
	}
}

func FuzzOpen(f *testing.F) {
	small := image.NewNRGBA(image.Rect(0, 0, 4, 4))
	f.Add(pngOf(f, small))
	f.Add(withOrientation(jpegOf(f, small), 6))
	f.Add([]byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1"><path d="M0 0"/></svg>`))
	f.Fuzz(func(t *testing.T, b []byte) {
		p, err := Open(b)
		if err != nil {
			var problem *doc.Problem
			if !errors.As(err, &problem) {
				t.Fatal(err)
			}
			return
		}
		if p.Width < 1 || p.Height < 1 || len(p.Copies)+len(p.Wants()) == 0 {
			t.Errorf("%+v", p)
		}
	})
}

// Turning and cropping begin with what was uploaded, so that nothing is lost by doing
// it twice.
func TestChange(t *testing.T) {
	for _, tt := range []struct {
		change        Change
		width, height int
		topLeft       color.Color
	}{
		{Change{Turns: 1}, 80, 120, quarters(120, 80).At(10, 70)},          // the bottom left comes to the top left
		{Change{Turns: 3}, 80, 120, quarters(120, 80).At(110, 10)},         // the top right does
		{Change{Turns: -1}, 80, 120, quarters(120, 80).At(110, 10)},        //
		{Change{Left: 50}, 60, 80, quarters(120, 80).At(70, 10)},           //
		{Change{Top: 50, Right: 50}, 60, 40, quarters(120, 80).At(10, 50)}, //
	} {
		out, err := tt.change.apply(pngOf(t, quarters(120, 80)))
		if err != nil {
			t.Errorf("%+v: %v", tt.change, err)
			continue
		}
		img, err := png.Decode(bytes.NewReader(out))
		if err != nil {
			t.Fatal(err)
		}
		if b := img.Bounds(); b.Dx() != tt.width || b.Dy() != tt.height ||
			!near(img.At(b.Min.X+5, b.Min.Y+5), tt.topLeft, 2) {
			t.Errorf(
				"%+v gives %v with %v at its top left; want %d × %d with %v",
				tt.change,
				b,
				img.At(5, 5),
				tt.width,
				tt.height,
				tt.topLeft,
			)
		}
	}
	for _, bad := range []Change{{Left: 60, Right: 60}, {Top: -1}, {Bottom: math.NaN()}} {
		var p *doc.Problem
		if _, err := bad.apply(pngOf(t, quarters(12, 8))); !errors.As(err, &p) {
			t.Errorf("%+v gives %v", bad, err)
		}
	}
}
