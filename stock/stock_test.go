package stock

import (
	"bytes"
	"image"
	"image/png"
	"slices"
	"testing"
)

// Each picture that ships has words, is drawn at the width asked for, the same each time,
// leaves nothing see-through, and is no other one.
func TestPictures(t *testing.T) {
	seen := map[string]string{}
	for i := range Pictures {
		p := &Pictures[i]
		if Find(p.ID) != p || p.Name == "" || len(p.Alt) < 10 {
			t.Errorf("%s: %q, %q", p.ID, p.Name, p.Alt)
		}
		d := p.Draw(96)
		img := d.Image()
		if img.Bounds().Dx() != 96 || img.Bounds().Dy() < 40 || img.Bounds().Dy() > 200 {
			t.Errorf("%s is %v", p.ID, img.Bounds())
		}
		if o, ok := img.(interface{ Opaque() bool }); ok && !o.Opaque() {
			t.Errorf("%s is see-through", p.ID)
		}
		b := d.PNG()
		if !bytes.Equal(b, p.Draw(96).PNG()) {
			t.Errorf("%s is drawn otherwise the second time", p.ID)
		}
		if other := seen[string(b)]; other != "" {
			t.Errorf("%s is %s", p.ID, other)
		}
		seen[string(b)] = p.ID
		back, err := png.Decode(bytes.NewReader(b))
		if err != nil || back.Bounds() != img.Bounds() {
			t.Errorf("%s: %v", p.ID, err)
		}
		if n := colours(back); n < 3 {
			t.Errorf("%s has %d colours", p.ID, n)
		}
	}
	if Find("no-such") != nil {
		t.Error("what doesn't ship is found")
	}
	ids := make([]string, len(Pictures))
	for i, p := range Pictures {
		ids[i] = p.ID
	}
	slices.Sort(ids)
	if len(slices.Compact(ids)) != len(Pictures) {
		t.Error("an id is there twice")
	}
}

func colours(img image.Image) int {
	seen := map[[3]uint32]bool{}
	for y := range img.Bounds().Dy() {
		for x := range img.Bounds().Dx() {
			r, g, b, _ := img.At(x, y).RGBA()
			seen[[3]uint32{r >> 12, g >> 12, b >> 12}] = true
		}
	}
	return len(seen)
}

// A polygon covers as much as its area, edges smoothed.
func TestFillCoversTheArea(t *testing.T) {
	white, black := Hex(0xffffff, 1), Hex(0, 1)
	for name, c := range map[string]struct {
		points []Point // in px
		area   float64
	}{
		"a rectangle": {[]Point{P(10, 10), P(50, 10), P(50, 30), P(10, 30)}, 800},
		"a triangle":  {[]Point{P(10, 10), P(60, 10), P(10, 50)}, 1000},
		"a diamond":   {[]Point{P(40, 5), P(70, 35), P(40, 65), P(10, 35)}, 1800},
	} {
		d := New(80, 80)
		d.Gradient(0, 80, white, white)
		for i := range c.points {
			c.points[i] = P(c.points[i].X/80, c.points[i].Y/80)
		}
		d.Fill(black, c.points...)
		covered := 0.0
		img := d.Image()
		for y := range 80 {
			for x := range 80 {
				r, _, _, _ := img.At(x, y).RGBA()
				covered += 1 - float64(r)/0xffff
			}
		}
		if covered < c.area*0.98 || covered > c.area*1.02 {
			t.Errorf("%s covers %.1f, its area is %.0f", name, covered, c.area)
		}
	}
}

func TestMix(t *testing.T) {
	a, b := Hex(0x204060, 1), Hex(0x6080a0, 1)
	if Mix(a, b, 0) != a || Mix(a, b, 1) != b {
		t.Error("the ends")
	}
	if m := Mix(a, b, 0.5); m.R != 0x40 || m.G != 0x60 || m.B != 0x80 || m.A != 255 {
		t.Errorf("the middle is %v", m)
	}
}
