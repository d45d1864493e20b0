package migrate

// Format 2 keeps stable values where format 1 kept what people read: "cover" for "fill",
// "space-between" for "apart". The values stand here as they were and as they became,
// and not as package value has them now.

// stableStyles says what values of settings became, by setting.
var stableStyles = map[string]map[string]string{
	"align-items":        {"fill": "stretch", "middle": "center"},
	"align-self":         {"fill": "stretch", "top": "start", "middle": "center", "bottom": "end"},
	"aspect-ratio":       {"own": "auto"},
	"bar-colour":         {"usual": "default"},
	"below":              {"first on top": "first", "last on top": "last"},
	"border-color":       {"usual": "default"},
	"border-radius":      {"none": "0px", "$none": "0px"},
	"button-size":        {"small": "$small", "medium": "$medium", "large": "$large"},
	"cell-padding":       {"usual": "default"},
	"color":              {"usual": "default"},
	"column-gap":         {"usual": "default"},
	"columns":            {"usual": "default"},
	"content-at":         {"top": "start", "middle": "center", "bottom": "end"},
	"direction":          {"down": "column", "across": "row"},
	"edge-bottom":        {"straight": "none"},
	"edge-bottom-colour": {"usual": "default"},
	"edge-bottom-height": {"usual": "default"},
	"edge-top":           {"straight": "none"},
	"edge-top-colour":    {"usual": "default"},
	"edge-top-height":    {"usual": "default"},
	"figure-colour":      {"usual": "default"},
	"font-size":          {"as style": "default"},
	"gallery-as":         {"rows of equal height": "rows"},
	"gallery-height":     {"usual": "default"},
	"height":             {"usual": "default"},
	"icon-size":          {"usual": "default"},
	"justify-self":       {"fill": "stretch", "left": "start", "middle": "center", "right": "end"},
	"layer":              {"as it comes": "auto"},
	"list-marks":         {"dots": "disc", "numbers": "decimal", "squares": "square", "ticks": "check"},
	"logo-height":        {"usual": "default"},
	"margin-bottom":      {"none": "0px"},
	"margin-left":        {"as the sides": "default", "none": "0px"},
	"margin-right":       {"as the sides": "default", "none": "0px"},
	"margin-sides":       {"none": "0px"},
	"margin-top":         {"none": "0px"},
	"menu-folds":         {"on phones": "narrowest", "on tablets and phones": "narrower", "everywhere": "always"},
	"min-height":         {"none": "auto"},
	"object-fit":         {"fill": "cover", "whole": "contain"},
	"over":               {"over the first section": "yes"},
	"padding-bottom":     {"none": "0px"},
	"padding-left":       {"none": "0px"},
	"padding-right":      {"none": "0px"},
	"padding-top":        {"none": "0px"},
	"per-row":            {"usual": "default"},
	"picture-fit":        {"tile": "repeat"},
	"picture-scroll":     {"with the page": "scroll", "more slowly": "parallax", "stays": "fixed"},
	"pull":               {"none": "0px"},
	"row-gap":            {"usual": "default"},
	"shape-colour":       {"usual": "default"},
	"spread": {
		"middle": "center",
		"apart":  "space-between",
		"around": "space-around",
		"even":   "space-evenly",
	},
	"stays":      {"goes": "static", "stays": "sticky", "stays after the first section": "sticky-after"},
	"text-align": {"left": "start", "middle": "center", "right": "end"},
	"text-style": {"usual": "default"},
	"time-width": {"usual": "default"},
	"width":      {"columns": "auto"},
	"wrap":       {"wraps": "wrap", "one line": "nowrap"},
}

// stableContents says what values of fields became, by the field of a block or of one of
// its entries. A field's name meant the same in every kind of block that had these values.
var stableContents = map[string]map[string]string{
	"address": {"left out": "hidden"},
	"from":    {"the site’s pages": "pages", "its own list": "own"},
	"head":    {"first row": "row", "first row and column": "both"},
	"hours":   {"left out": "hidden"},
	"large":   {"does nothing": "none", "shows it large": "large"},
	"mail":    {"left out": "hidden"},
	"mark":    {"left out": "hidden"},
	"narrow":  {"scrolls": "scroll"},
	"opens":   {"opens large": "large", "nothing": "none"},
	"phone":   {"left out": "hidden"},
	"plays":   {"when pressed": "click", "silently, over and over": "loop"},
	"type": {
		"a line": "text", "mail address": "email", "telephone": "tel", "several lines": "textarea",
		"one of a list": "select", "one of these": "radio", "any of these": "checkbox",
	},
	"under": {"by itself": "no", "under the one before": "yes"},
	"with":  {"names and descriptions": "descriptions"},
}

// stableMarkers says what became of the lists that paragraphs are items of.
var stableMarkers = map[string]string{"dots": "disc", "numbers": "decimal"}

func stablePage(p object) {
	each(p["sections"], stableSection)
	p["format"] = 2
}

func stableSection(s object) {
	stableStyle(s["style"])
	each(s["blocks"], stableBlock)
}

func stableBlock(b object) {
	stableStyle(b["style"])
	stableContent(b["content"])
	each(b["items"], func(item object) {
		contents, _ := item["contents"].(object)
		for _, c := range contents {
			stableContent(c)
		}
	})
	each(b["blocks"], stableBlock)
}

func stableStyle(style any) {
	settings, _ := style.(object)
	for name, zones := range settings {
		values, _ := zones.(object)
		for zone, v := range values {
			if stable, ok := stableStyles[name][text(v)]; ok {
				values[zone] = stable
			}
		}
	}
}

func stableContent(content any) {
	c, _ := content.(object)
	stableWords(c["words"])
	stableValues(c["values"])
	each(c["entries"], func(e object) {
		stableWords(e["words"])
		stableValues(e["values"])
	})
}

func stableValues(values any) {
	fields, _ := values.(object)
	for name, v := range fields {
		if stable, ok := stableContents[name][text(v)]; ok {
			fields[name] = stable
		}
	}
}

func stableWords(words any) {
	paragraphs, _ := words.([]any)
	for _, p := range paragraphs {
		each(p, func(run object) {
			if stable, ok := stableMarkers[text(run["item"])]; ok {
				run["item"] = stable
			}
		})
	}
}

func stableCommand(c object) {
	tables := map[string]map[string]map[string]string{
		"set":           stableStyles,
		"block.content": stableContents,
		"entry.set":     stableContents,
	}
	if stable, ok := tables[text(c["op"])][text(c["setting"])][text(c["value"])]; ok {
		c["value"] = stable
	}
}

func text(v any) string {
	s, _ := v.(string)
	return s
}
