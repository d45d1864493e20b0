package shape

import (
	"fmt"
	"strconv"
	"strings"
)

// paragraphs keeps what was shaped last, since most of a page is the same text
// after an edit, and often in several zones. Two generations make it forget what
// is no longer asked for.
type paragraphs struct {
	young, old map[string]*Paragraph
	runes      int // in young
}

// generationRunes bounds one generation: about 16 MB of paragraphs.
const generationRunes = 300_000

func (c *paragraphs) get(key string) *Paragraph {
	if p := c.young[key]; p != nil {
		return p
	}
	p := c.old[key]
	if p != nil {
		c.put(key, p)
	}
	return p
}

func (c *paragraphs) put(key string, p *Paragraph) {
	if c.young == nil || c.runes > generationRunes {
		c.old, c.young, c.runes = c.young, map[string]*Paragraph{}, 0
	}
	c.young[key] = p
	c.runes += len(p.text)
}

// key tells runs apart by all that a paragraph depends on.
func key(runs []Run) string {
	var b strings.Builder
	for i := range runs {
		r := &runs[i]
		b.WriteString(r.Text)
		b.WriteByte(0)
		for _, v := range []float64{r.Size, r.LetterSpacing, r.LineHeight} {
			b.WriteString(strconv.FormatFloat(v, 'g', -1, 64))
			b.WriteByte(0)
		}
		fmt.Fprintf(&b, "%p", r.Faces[0]) // a fallback list is known by its first face
		b.WriteByte(0)
	}
	return b.String()
}
