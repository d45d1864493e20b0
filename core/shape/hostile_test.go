package shape_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"openplot/core/shape"
	"openplot/fonts"
)

// FuzzFont holds loading and shaping against truncated and hostile files: an error,
// or a face with which text still ends and has finite widths.
func FuzzFont(f *testing.F) {
	for _, name := range []string{"caveat-latin-wght-normal.woff2", "dm-serif-display-latin-400-normal.woff2"} {
		b, err := fonts.Files.ReadFile("files/" + name)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(b)
		sfnt, err := fonts.MetricsSFNT(b)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(sfnt)
		for _, at := range []int{4, 12, 60, 200, len(sfnt) / 2} { // truncated, and with a byte changed
			f.Add(sfnt[:at])
			c := append([]byte(nil), sfnt...)
			c[at] ^= 0xff
			f.Add(c)
		}
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		if sfnt, err := fonts.MetricsSFNT(b); err == nil {
			b = sfnt
		}
		lib := shape.NewLibrary()
		if err := lib.Add("Hostile", false, [2]int{400, 400}, b); err != nil {
			return
		}
		r := shape.Run{
			Text:       "AVATAR fi, 08:10 Größe",
			Faces:      lib.Faces("Hostile", 400, false),
			Size:       16,
			LineHeight: math.NaN(),
		}
		p := lib.Paragraph([]shape.Run{r})
		above, below := r.Faces[0].LineMetrics(16, math.NaN())
		for _, l := range p.Wrap(shape.Wrapping{Width: 60, Above: above, Below: below}, nil, nil) {
			for _, v := range []float64{l.Width, l.Above, l.Below} {
				if math.IsNaN(v) || math.IsInf(v, 0) {
					t.Fatalf("a line is %+v", l)
				}
			}
		}
	})
}

// Ten thousand words are wrapped at all widths without a line lost.
func TestVeryLongParagraph(t *testing.T) {
	text := strings.Repeat("boats sail all year whatever the weather says ", 1250)
	r := run(t, text, "Hanken Grotesk", 400, 16)
	p := paragraph(t, r)
	for _, w := range []float64{1, 320, 1920, 1e7} {
		ls := p.Wrap(wrapping(w, r), nil, nil)
		if ls[len(ls)-1].End != len([]rune(text)) {
			t.Errorf("at %v px the lines end at %d", w, ls[len(ls)-1].End)
		}
	}
}

// Lines stay the same over the range that Wrap gives, and no longer outside it.
func TestRangeOfAWrapping(t *testing.T) {
	for _, family := range []string{"Hanken Grotesk", "DM Serif Display", "Caveat"} {
		r := run(
			t,
			"Boats leave from the north steps — AVATAR To You; be there ten minutes before, soft\u00adhyphen\u00adation.",
			family,
			400,
			17,
		)
		p := paragraph(t, r)
		for w := 30.0; w < 700; w += 0.4 {
			same := shape.Range{Below: math.Inf(1)}
			ls := p.Wrap(wrapping(w, r), nil, &same)
			if !same.Holds(w) {
				t.Fatalf("%s at %v px: its own range %v doesn't hold it", family, w, same)
			}
			for v := w - 9; v < w+9; v += 0.3 {
				if !same.Holds(v) {
					continue
				}
				for i, l := range p.Wrap(wrapping(v, r), nil, nil) {
					if i >= len(ls) || l != ls[i] {
						t.Fatalf(
							"%s: line %d at %v px isn't that at %v px, though in its range %v",
							family,
							i+1,
							v,
							w,
							same,
						)
					}
				}
			}
		}
	}
}

// Words are broken where they are wider than a line, between graphemes only.
func TestBreakingWords(t *testing.T) {
	r := run(t, "Rechtsschutzversicherung e\u0301e\u0301e\u0301 👩‍👩‍👧👩‍👩‍👧", "Hanken Grotesk", 400, 16)
	r.NoLigatures = true
	p := paragraph(t, r)
	for w := 0.0; w < 250; w += 3.7 {
		wr := wrapping(w, r)
		wr.BreakWords = true
		at := 0
		for _, l := range p.Wrap(wr, nil, nil) {
			if l.Start != at || l.End <= at {
				t.Fatalf("at %v px a line goes from %d to %d, the last ended at %d", w, l.Start, l.End, at)
			}
			if first := []rune(p.Text(l.Start, l.End))[0]; first == '\u0301' || first == '\u200d' {
				t.Errorf("at %v px a line begins in the midst of a grapheme", w)
			}
			at = l.End
		}
	}
	if least, anywhere := p.MinContent(false), p.MinContent(true); anywhere >= least {
		t.Errorf("min-content is %v, %v with overflow-wrap: anywhere", least, anywhere)
	}
}

// CSS Text 4 §6.4: balancing takes no more lines, and none is wider.
func TestBalanced(t *testing.T) {
	r := run(t, "Small boats to three islands, all year round and in any weather", "Bricolage Grotesque", 700, 40)
	p := paragraph(t, r)
	for w := 250.0; w < 1300; w += 13 {
		plain, even := p.Wrap(wrapping(w, r), nil, nil), p.WrapBalanced(wrapping(w, r), nil, nil)
		if len(plain) != len(even) {
			t.Errorf("at %v px %d lines, %d balanced", w, len(plain), len(even))
		}
		if k := len(even) - 1; even[k].Width < plain[k].Width-0.02 {
			t.Errorf("at %v px the last line is %v wide, %v balanced", w, plain[k].Width, even[k].Width)
		}
		for _, l := range even {
			if l.Width > w+0.02 {
				t.Errorf("at %v px a balanced line is %v wide", w, l.Width)
			}
		}
	}
}

// At all widths of the range that is told, the lines are the same.
func TestBalancedAlikeOverItsRange(t *testing.T) {
	r := run(t, "Small boats to three islands, all year round and in any weather", "Bricolage Grotesque", 700, 40)
	p := paragraph(t, r)
	held, spans := 0, 0
	for w := 200.0; w < 1400; {
		same := shape.Range{Below: math.Inf(1)}
		want := p.WrapBalanced(wrapping(w, r), nil, &same)
		if !same.Holds(w) {
			t.Fatalf("%v px isn't in its own range %v", w, same)
		}
		for spans++; w < 1400 && same.Holds(w); w += 0.5 {
			held++
			if got := p.WrapBalanced(wrapping(w, r), nil, nil); !slices.Equal(got, want) {
				t.Fatalf("at %v px, within %v, %v instead of %v", w, same, got, want)
			}
		}
	}
	if held < 20*spans {
		t.Errorf("ranges of %d widths in %d: they hold for little", held, spans)
	}
}
