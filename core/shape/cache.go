package shape

import (
	"strconv"
	"strings"
)

// recent keeps what was shaped last, since most of a page is the same text
// after an edit, and often in several zones. Two generations make it forget what
// is no longer asked for.
type recent struct {
	young, old map[string]*glyphs
	runes      int // in young
}

// generationRunes bounds one generation: about 16 MB of glyphs.
const generationRunes = 300_000

func (c *recent) get(key string) *glyphs {
	if p := c.young[key]; p != nil {
		return p
	}
	p := c.old[key]
	if p != nil {
		c.put(key, p)
	}
	return p
}

func (c *recent) put(key string, p *glyphs) {
	if c.young == nil || c.runes > generationRunes {
		c.old, c.young, c.runes = c.young, map[string]*glyphs{}, 0
	}
	c.young[key] = p
	c.runes += len(p.text)
}

// key tells runs apart by all that shaping depends on.
func key(runs []Run) string {
	var b strings.Builder
	for i := range runs {
		r := &runs[i]
		b.WriteString(r.Text)
		b.WriteByte(0)
		flags := byte('0')
		if r.plain() {
			flags |= 1
		}
		if i > 0 && r.Size == runs[i-1].Size {
			flags |= 2
		}
		if r.NoWrap {
			flags |= 4
		}
		b.WriteByte(flags)
		// A fallback list is known by its first face.
		b.WriteString(strconv.FormatUint(uint64(r.Faces[0].id), 36))
		b.WriteByte(0)
	}
	return b.String()
}
