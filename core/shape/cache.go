package shape

import (
	"strconv"
	"strings"

	"github.com/hashicorp/golang-lru/v2/simplelru"
)

// recent keeps what was shaped last, since most of a page is the same text after an edit,
// and often in several zones. It is bounded by how much text that is and not by how many
// pieces; what was asked for longest ago goes first.
type recent struct {
	lru   *simplelru.LRU[string, *glyphs]
	runes int
}

// maxRunes bounds what is kept: about 32 MB of glyphs. There are fewer pieces than that.
const maxRunes = 600_000

func (c *recent) get(key string) *glyphs {
	if c.lru == nil {
		return nil
	}
	p, _ := c.lru.Get(key)
	return p
}

func (c *recent) put(key string, p *glyphs) {
	if c.lru == nil {
		lru, err := simplelru.NewLRU(maxRunes, func(_ string, gone *glyphs) { c.runes -= len(gone.text) })
		if err != nil {
			panic(err) // only for a size below 1
		}
		c.lru = lru
	}
	c.lru.Remove(key)
	c.lru.Add(key, p)
	for c.runes += len(p.text); c.runes > maxRunes && c.lru.Len() > 1; {
		c.lru.RemoveOldest()
	}
}

// key tells runs apart by all that shaping depends on.
func key(runs []Run) string {
	var b strings.Builder
	for i := range runs {
		r := &runs[i]
		b.WriteString(r.Text)
		b.WriteByte(0)
		flags := 0x40 | byte(r.lettering())<<3
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
