package fonts

import (
	"bytes"
	"testing"
)

// Numbers of a DICT, from Adobe Technical Note #5176: the examples of table 4 and of the
// real numbers below it (§4), each before the operator CharStrings. From memory.
func TestDictNumbers(t *testing.T) {
	for _, c := range []struct {
		bytes []byte
		want  int
	}{
		{[]byte{0x8b}, 0}, {[]byte{0xef}, 100}, {[]byte{0x27}, -100}, {[]byte{0xfa, 0x7c}, 1000}, {[]byte{0xfe, 0x7c}, -1000},
		{[]byte{0x1c, 0x27, 0x10}, 10000}, {[]byte{0x1c, 0xd8, 0xf0}, -10000},
		{[]byte{0x1d, 0x00, 0x01, 0x86, 0xa0}, 100000}, {[]byte{0x1d, 0xff, 0xfe, 0x79, 0x60}, -100000},
	} {
		for name, before := range map[string][]byte{
			"alone":                  nil,
			"after another operator": {0xef, 5},
			"after an escaped one":   {0xef, opEscape, opCharStrings},
			"after -2.25":            {0x1e, 0xe2, 0xa2, 0x5f, 18},
			"after 0.140541E-3":      {0x1e, 0x0a, 0x14, 0x05, 0x41, 0xc3, 0xff, 18},
		} {
			if got, ok := dictNumber(append(append(before, c.bytes...), opCharStrings), opCharStrings); !ok ||
				got != c.want {
				t.Errorf("% x %s: %d, %v; want %d", c.bytes, name, got, ok, c.want)
			}
		}
	}
	if _, ok := dictNumber([]byte{0xef, 15, 0xef, 16}, opCharStrings); ok {
		t.Error("a DICT without CharStrings has some")
	}
}

// cff makes a table of three glyphs: the shortest that there can be around their
// charstrings.
func cff(glyphs ...string) []byte {
	b := []byte{1, 0, 4, 1, // header
		0, 1, 1, 1, 2, 'N', // names
		0, 1, 1, 1, 3, 0, opCharStrings, // the Top DICT; its operand follows
		0, 0, 0, 0} // strings, global subroutines
	b[15] = byte(139 + len(b))
	b = append(b, 0, byte(len(glyphs)), 1, 1)
	at := 1
	for _, g := range glyphs {
		at += len(g)
		b = append(b, byte(at))
	}
	for _, g := range glyphs {
		b = append(b, g...)
	}
	return append(b, "after"...)
}

func TestCharStringsAreEmptied(t *testing.T) {
	whole := cff("first\x0e", "second\x0e", "third\x0e")
	for _, wanted := range [][]bool{{true, true, true}, {true, false, true}, {false, false, true}, {false, false, false}} {
		part, err := emptyCharStrings(whole, wanted)
		if err != nil || len(part) != len(whole) || !bytes.HasSuffix(part, []byte("after")) {
			t.Fatalf("%v: %v, %q", wanted, err, part)
		}
		at := int(whole[15]) - 139
		was, is := readIndex(whole, at), readIndex(part, at)
		for i, w := range wanted {
			want := []byte{opEndChar}
			if w {
				want = was.item(i)
			}
			if got := is.item(i); !bytes.Equal(got, want) {
				t.Errorf("%v: glyph %d is %q, want %q", wanted, i, got, want)
			}
		}
		if rest := bytes.TrimSuffix(part[is.end:], []byte("after")); len(bytes.Trim(rest, "\x00")) > 0 {
			t.Errorf("%v: %q is left", wanted, rest)
		}
	}
	if _, err := emptyCharStrings(whole, []bool{true}); err == nil {
		t.Error("a table of three glyphs in a font of one")
	}
}
