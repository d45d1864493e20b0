package carry

import (
	"encoding/json"
	"fmt"
	"strings"

	"openplot/core/doc"
)

// ClipHead is the first line of blocks and sections as text, as the clipboard has them; what
// follows it is JSON (docs/clipboard.md).
const ClipHead = "Open Plot blocks, format 1"

// Clip is what is copied: blocks of one holder, or sections, in their order.
type Clip struct {
	Blocks   []*doc.Block   `json:"blocks,omitempty"`
	Sections []*doc.Section `json:"sections,omitempty"`
}

// Copy writes nodes of a page as text. Blocks of an item of a Series say what they say there.
// Errors are *doc.Problem.
func Copy(p *doc.Page, nodes []string) (string, error) {
	var c Clip
	for _, node := range nodes {
		if s, _ := p.Section(node); s != nil {
			c.Sections = append(c.Sections, s)
			continue
		}
		id, item := doc.SplitItem(node)
		s, b := p.Block(id)
		if b == nil {
			return "", doc.Problemf("Selection", "isn't on this page any more")
		}
		for _, around := range s.Path(id) {
			if it, i := around.FindItem(item); item != "" && i >= 0 {
				b = saying(b, it)
			}
		}
		c.Blocks = append(c.Blocks, b)
	}
	if len(c.Sections) > 0 {
		c.Blocks = nil // they can't be put in one place
	}
	b, err := json.MarshalIndent(c, "", " ")
	if err != nil {
		return "", fmt.Errorf("writing what is copied: %w", err)
	}
	return ClipHead + "\n" + string(b) + "\n", nil
}

// saying gives a copy of a block that says what an item of a Series does.
func saying(b *doc.Block, it doc.Item) *doc.Block {
	c := b.Clone()
	if own, ok := it.Contents[b.ID]; ok {
		c.Content = own
	}
	for i, in := range c.Blocks {
		c.Blocks[i] = saying(in, it)
	}
	return c
}

// ReadClip reads what Copy wrote. What it holds is still to be checked. Errors are *doc.Problem.
func ReadClip(text string) (c Clip, err error) {
	head, rest, _ := strings.Cut(text, "\n")
	if strings.TrimSpace(head) != ClipHead {
		if strings.HasPrefix(head, "Open Plot blocks") {
			return c, doc.Problemf(
				"Clipboard",
				"has blocks of another version (%.40q); this one reads %q",
				strings.TrimSpace(head),
				ClipHead,
			)
		}
		return c, doc.Problemf("Clipboard", "has no blocks: copy some first")
	}
	if err := Unpack([]byte(rest), &c, FewValues, "Clipboard"); err != nil {
		return c, doc.Problemf(
			"Clipboard",
			"has blocks that can't be read (%s): copy them again",
			strings.TrimPrefix(err.Error(), "json: "),
		)
	}
	return c, nil
}

// ClipValues gives everything in copied text that may be the id of a medium; nil when it isn't
// what Copy wrote.
func ClipValues(text string) (out []string) {
	c, err := ReadClip(text)
	if err != nil {
		return nil
	}
	seen := map[string]bool{}
	add := func(v string) {
		if doc.IsID(v) && !seen[v] && len(out) < maxClipValues {
			seen[v] = true
			out = append(out, v)
		}
	}
	for _, s := range append(c.Sections, &doc.Section{Blocks: c.Blocks}) {
		if s != nil {
			s.EachValue(add)
		}
	}
	return out
}

// maxClipValues is how many of them there are at most.
const maxClipValues = 5000

// CopyLook writes what holds for a node of what it, or a wider zone for it, sets in a zone, as
// JSON: values by the settings' names. Errors are *doc.Problem.
func CopyLook(p *doc.Page, node string, zones doc.Zones, zone int) (string, error) {
	var from doc.Style
	id, _ := doc.SplitItem(node)
	if s, _ := p.Section(id); s != nil {
		from = s.Style
	} else if _, b := p.Block(id); b != nil {
		from = b.Style
	} else {
		return "", doc.Problemf("Selection", "isn't on this page any more")
	}
	look := map[string]string{}
	for name, zoned := range from {
		if v, _, ok := zoned.Resolve(zones, zone); ok {
			look[name] = v
		}
	}
	b, err := json.Marshal(look)
	return string(b), err
}
