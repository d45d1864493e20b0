package model

import (
	"slices"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
	"openplot/core/place"
	"openplot/core/style"
	"openplot/store"
	"openplot/web/paths"
)

// The parts of a View that make the Tray.
type (
	trayParts struct{ *View } // the Tray as a whole, for one and for several
	clusters  struct{ *View } // clusters of settings
	fields    struct{ *View } // fields and the controls in them
)

// View is what a person sees on the Bench: the page at a width, with a node selected.
type View struct {
	*Stage
	Page     *doc.Page
	Slug     paths.Segment // as addresses have it
	Seq      int64
	History  store.History
	Width    float64 // px
	Zone     int
	Selected string   // a section, a block, or "" for the page
	Also     []string // further blocks that are selected

	// holds is what is in force where a setting of the selection isn't set.
	holds map[string]string
}

// Alongside gives changed sections with those that look different because of them: dividers
// pass into the section beside them. With all, any section may have another neighbour.
func (v *View) Alongside(changed []string, all bool) []string {
	out := append([]string{}, changed...)
	neighbours := place.Neighbours(v.Page, v.Site.Zones)
	for _, sec := range v.Page.Sections {
		if !sec.Divided() || slices.Contains(out, sec.ID) {
			continue
		}
		beside := all
		for z := range v.Site.Zones {
			above, below := neighbours(sec, z)
			beside = beside || above != nil && slices.Contains(changed, above.ID) ||
				below != nil && slices.Contains(changed, below.ID)
		}
		if beside {
			out = append(out, sec.ID)
		}
	}
	return out
}

// Current is the zone that the width falls in.
func (v *View) Current() doc.Zone { return v.Site.Zones[v.Zone] }

// Stand has what stands for the selection selected, where the page was another one before.
func Stand(v *View, before *doc.Page) {
	v.Selected = edit.Standing(before, v.Page, v.Selected)
	v.Also = slices.DeleteFunc(v.Also, func(id string) bool {
		return edit.Standing(v.Page, v.Page, id) == "" || id == v.Selected
	})
}

// SelectedStyle gives the values of what is selected, its kind, and the text style that
// it is set in.
func (v *View) SelectedStyle() (doc.Style, doc.Kind, string) {
	if sec, _ := v.Page.Section(v.Selected); sec != nil {
		return sec.Style, style.OnSection, ""
	}
	id, _ := doc.SplitItem(v.Selected)
	_, b := v.Page.Block(id)
	if b == nil {
		return nil, "", ""
	}
	base, _, _ := b.Style["text-style"].Resolve(v.Site.Zones, v.Zone)
	if base == "" && b.Kind == doc.Heading {
		base = "$h" + strconv.Itoa(b.Content.Level)
	}
	if base != "" {
		base = base[1:]
	}
	return b.Style, b.Kind, base
}

// NameOf is what people call a section or block of a page.
func NameOf(p *doc.Page, id string) string {
	of, _ := doc.SplitItem(id)
	if s, _ := p.Section(of); s != nil {
		return s.Name
	}
	if _, b := p.Block(of); b != nil {
		return blockName(b)
	}
	return ""
}

// blockName is the name given, or the kind with its first words.
func blockName(b *doc.Block) string {
	if b.Name != "" {
		return b.Name
	}
	kind := string(b.Kind)
	if a := element.Of(b.Kind); a != nil {
		kind = a.Name
	}
	words := strings.Join(strings.Fields(b.Content.Words.Plain()), " ")
	if b.Kind == doc.Picture {
		words = b.Content.Alt
	}
	if r := []rune(words); len(r) > 28 {
		words = strings.TrimSpace(string(r[:27])) + "…"
	}
	if words == "" {
		return kind
	}
	return kind + ": " + words
}
