package fonts

import "encoding/binary"

// Operators of a Top DICT and of charstrings (Adobe Technical Notes #5176 §9 and #5177
// §4.1).
const (
	opEscape      = 12
	opCharStrings = 17
	opEndChar     = 14
)

// accents are characters whose glyphs others may be made of in a CFF font, beside letters
// of ASCII (#5177, appendix C: endchar with the arguments of seac).
const accents = "`´ˆ˜¯˘˙¨˚¸˝˛ˇ"

// emptyCharStrings gives a CFF table in which the glyphs that aren't wanted draw
// nothing. All else stays where it is, so that no offset changes; what becomes free is
// zeros, which compress to next to nothing. It panics where the table is damaged.
func emptyCharStrings(cff []byte, wanted []bool) ([]byte, error) {
	names := readIndex(cff, int(cff[2]))
	top := readIndex(cff, names.end).item(0)
	at, ok := dictNumber(top, opCharStrings)
	if !ok {
		return nil, errNotSubset
	}
	glyphs := readIndex(cff, at)
	if glyphs.count != len(wanted) {
		return nil, errNotSubset
	}
	var data []byte
	out := append([]byte(nil), cff...)
	offsets := out[glyphs.offsets:]
	for i, w := range wanted {
		if w {
			data = append(data, glyphs.item(i)...)
		} else {
			data = append(data, opEndChar)
		}
		putOffset(offsets[(i+1)*glyphs.offSize:], glyphs.offSize, len(data)+1)
	}
	room := out[glyphs.data:glyphs.end]
	if len(data) > len(room) {
		return nil, errNotSubset
	}
	clear(room[copy(room, data):])
	return out, nil
}

// index is an INDEX (#5176 §5).
type index struct {
	table              []byte
	count, offSize     int
	offsets, data, end int // places in the table; data is that of offset 1
}

func readIndex(table []byte, at int) index {
	x := index{table: table, count: int(binary.BigEndian.Uint16(table[at:]))}
	if x.count == 0 {
		x.end = at + 2
		return x
	}
	x.offSize, x.offsets = int(table[at+2]), at+3
	x.data = x.offsets + (x.count+1)*x.offSize
	x.end = x.place(x.count)
	return x
}

// place is where an item begins; that of the count is where the last one ends.
func (x index) place(i int) int {
	return x.data - 1 + readOffset(x.table[x.offsets+i*x.offSize:], x.offSize)
}

func (x index) item(i int) []byte { return x.table[x.place(i):x.place(i+1)] }

func readOffset(b []byte, size int) (v int) {
	for _, c := range b[:size] {
		v = v<<8 | int(c)
	}
	return v
}

func putOffset(b []byte, size, v int) {
	for i := size - 1; i >= 0; i-- {
		b[i], v = byte(v), v>>8
	}
}

// dictNumber gives the last operand of an operator in a DICT (#5176 §4).
func dictNumber(dict []byte, operator byte) (v int, ok bool) {
	for i := 0; i < len(dict); {
		b := dict[i]
		i++
		switch {
		case b == opEscape:
			i++
			v = 0
		case b <= 21:
			if b == operator {
				return v, true
			}
			v = 0
		case b == 28:
			v = int(int16(binary.BigEndian.Uint16(dict[i:])))
			i += 2
		case b == 29:
			v = int(int32(binary.BigEndian.Uint32(dict[i:])))
			i += 4
		case b == 30: // a real number: nibbles up to one that is 15
			for dict[i]&0xf != 0xf && dict[i]>>4 != 0xf {
				i++
			}
			i++
		case b <= 246:
			v = int(b) - 139
		case b <= 250:
			v = (int(b)-247)*256 + int(dict[i]) + 108
			i++
		case b <= 254:
			v = -(int(b)-251)*256 - int(dict[i]) - 108
			i++
		}
	}
	return 0, false
}
