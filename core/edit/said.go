package edit

import (
	"cmp"
	"fmt"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

// inWords is what operations do, in words that go on from "Undo: ". "%s" is what is set, added or
// put in, where the command says so.
var inWords = map[string]string{
	"page.set": "page settings", "page.guide": "guide", "section.add": "add a section", "section.move": "move a section", "section.shift": "move a section", "section.hide": "hide a section",
	"section.redesign": "change the layout", "section.role": "landmark", "section.anchor": "anchor", "section.picture": "background picture", "section.video": "background video",
	"section.view": "view", "section.fold": "folding", "section.share": "share a section", "section.own": "make a section the page’s own", "block.add": "add %s", "block.move": "move", "block.place": "move", "block.nudge": "move", "block.resize": "resize",
	"block.place.set": "place", "block.place.reset": "reset the place", "block.layer": "layer", "block.hide": "hide", "block.write": "write", "block.words": "words of the zone", "block.content": "%s",
	"entry.add": "add to the list", "entry.fill": "fill the list", "entry.duplicate": "duplicate in the list", "entry.remove": "remove from the list", "entry.shift": "reorder the list",
	"entry.write": "write", "entry.set": "%s", "item.add": "add an item", "item.remove": "remove an item", "item.move": "move an item", "item.shift": "move an item",
	"arrange": "arrangement", "rename": "rename", "restore": "take back from a version", "set": "%s", "follow": "reset %s", "zone.follow": "reset a zone", "same": "same %s", "duplicate": "duplicate", "delete": "delete", "paste": "paste", "look": "paste the look",
	"blocks.align": "align", "blocks.spread": "equal gaps", "blocks.same": "same size", "blocks.nudge": "move together", "blocks.tidy": "tidy", "blocks.order": "order",
	"blocks.move": "move together", "blocks.scale": "resize together", "blocks.group": "group", "blocks.series": "make a series", "block.ungroup": "ungroup", "block.loose": "take a series apart", "block.room": "make room", "block.alike": "all alike",
	"block.lock": "lock", "flip": "flip", "order": "order",
}

// Said is what a command did, in a few words that go on from "Undo: ".
func Said(c Command) string {
	if c.Op == Many {
		if len(c.Parts) == 0 {
			return "edit"
		}
		first := Said(c.Parts[0])
		for _, p := range c.Parts[1:] {
			if Said(p) != first {
				return first + ", and more"
			}
		}
		return first
	}
	words := cmp.Or(inWords[c.Op], "edit")
	if !strings.Contains(words, "%s") {
		return words
	}
	what := strings.ReplaceAll(c.Setting, "-", " ")
	switch {
	case c.Op == "block.add":
		if a := element.Of(c.Kind); a != nil {
			what = strings.ToLower(a.Name)
		}
	case c.Op == "block.content" || c.Op == "entry.set":
	default:
		what = labelOf(c.Setting)
	}
	return fmt.Sprintf(words, cmp.Or(what, "edit"))
}

// labelOf is what people call a setting, within a sentence.
func labelOf(name string) string {
	for _, kind := range append([]doc.Kind{style.OnSection}, doc.Kinds...) {
		if s := style.Find(name, kind); s != nil {
			return strings.ToLower(s.Label)
		}
	}
	return strings.ReplaceAll(name, "-", " ")
}
