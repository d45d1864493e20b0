package fonts

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"io"

	"github.com/andybalholm/brotli"
	"github.com/go-text/typesetting/font/opentype"
)

// knownTags are the table tags by index (WOFF File Format 2.0 §5.2).
var knownTags = [...]string{
	"cmap", "head", "hhea", "hmtx", "maxp", "name", "OS/2", "post", "cvt ", "fpgm", "glyf", "loca", "prep", "CFF ", "VORG", "EBDT",
	"EBLC", "gasp", "hdmx", "kern", "LTSH", "PCLT", "VDMX", "vhea", "vmtx", "BASE", "GDEF", "GPOS", "GSUB", "EBSC", "JSTF", "MATH",
	"CBDT", "CBLC", "COLR", "CPAL", "SVG ", "sbix", "acnt", "avar", "bdat", "bloc", "bsln", "cvar", "fdsc", "feat", "fmtx", "fvar",
	"gvar", "hsty", "just", "lcar", "mort", "morx", "opbd", "prop", "trak", "Zapf", "Silf", "Glat", "Gloc", "Feat", "Sill",
}

// metricTables are those that text layout needs. Outlines are dropped; HVAR
// carries the advances of variable fonts.
var metricTables = map[string]bool{
	"cmap": true, "head": true, "hhea": true, "hmtx": true, "maxp": true, "OS/2": true, "GDEF": true, "GPOS": true,
	"GSUB": true, "kern": true, "fvar": true, "avar": true, "HVAR": true, "MVAR": true, "BASE": true,
}

// maxFontSize bounds what a compressed font may unpack to, in bytes.
const maxFontSize = 32 << 20

var errTruncated = errors.New("the font file ends too early")

// reader reads big-endian fields; past the end it sets short and gives zeros.
type reader struct {
	b     []byte
	short bool
}

func (r *reader) take(n int) []byte {
	if n < 0 || n > len(r.b) {
		r.short = true
		return make([]byte, min(max(n, 0), 8))
	}
	t := r.b[:n:n]
	r.b = r.b[n:]
	return t
}

func (r *reader) byte() byte { return r.take(1)[0] }

// base128 reads UIntBase128 (§4.1).
func (r *reader) base128() uint32 {
	var v uint32
	for range 5 {
		c := r.byte()
		v = v<<7 | uint32(c&0x7f)
		if c&0x80 == 0 {
			break
		}
	}
	return v
}

// MetricsSFNT decodes a WOFF2 file to an SFNT with only the tables that text
// layout needs.
func MetricsSFNT(file []byte) ([]byte, error) {
	if len(file) < 48 || string(file[:4]) != "wOF2" {
		return nil, errors.New("the file is not WOFF2")
	}
	count := int(binary.BigEndian.Uint16(file[12:]))
	compressed := int(binary.BigEndian.Uint32(file[20:]))
	type table struct {
		tag         string
		size        int
		transformed bool
	}
	r := &reader{b: file[48:]}
	tables := make([]table, 0, count)
	for range count {
		flags := r.byte()
		tag := ""
		if flags&63 == 63 {
			tag = string(r.take(4))
		} else {
			tag = knownTags[flags&63]
		}
		transformed := flags>>6 != 0
		if tag == "glyf" || tag == "loca" { // for these, version 0 is the transform (§5.1)
			transformed = flags>>6 == 0
		}
		size := r.base128()
		if transformed {
			size = r.base128()
		}
		if r.short || size > maxFontSize {
			return nil, errTruncated
		}
		tables = append(tables, table{tag, int(size), transformed})
	}
	data := r.take(compressed)
	if r.short {
		return nil, errTruncated
	}
	raw, err := io.ReadAll(io.LimitReader(brotli.NewReader(bytes.NewReader(data)), maxFontSize+1))
	if err != nil {
		return nil, fmt.Errorf("unpacking the font: %w", err)
	}
	if len(raw) > maxFontSize {
		return nil, errors.New("the font unpacks to more than 32 MB")
	}
	contents := map[string][]byte{}
	r = &reader{b: raw}
	for _, t := range tables {
		contents[t.tag] = r.take(t.size)
	}
	if r.short {
		return nil, errTruncated
	}
	var out []opentype.Table
	for _, t := range tables {
		if !metricTables[t.tag] {
			continue
		}
		c := contents[t.tag]
		if t.tag == "hmtx" && t.transformed {
			if c, err = advances(c, contents["hhea"], contents["maxp"]); err != nil {
				return nil, err
			}
		}
		out = append(out, opentype.Table{Tag: opentype.MustNewTag(t.tag), Content: c})
	}
	return opentype.WriteTTF(out), nil
}

// advances rebuilds a transformed hmtx (§5.4) with side bearings of 0: the
// advances are stored plainly and the bearings aren't needed.
func advances(hmtx, hhea, maxp []byte) ([]byte, error) {
	if len(hhea) < 36 || len(maxp) < 6 {
		return nil, errTruncated
	}
	metrics := int(binary.BigEndian.Uint16(hhea[34:]))
	glyphs := int(binary.BigEndian.Uint16(maxp[4:]))
	if glyphs < metrics || len(hmtx) < 1+2*metrics {
		return nil, errTruncated
	}
	out := make([]byte, metrics*4+(glyphs-metrics)*2)
	for i := range metrics {
		copy(out[i*4:], hmtx[1+i*2:3+i*2])
	}
	return out, nil
}
