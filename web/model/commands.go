package model

import (
	"cmp"
	"maps"
	"regexp"
	"slices"
	"strings"

	"openplot/core/doc"
)

// Command is something that can be done on the Bench, by a key, from the list of all commands
// or from the menu of what is selected. The table of them is what those are drawn from, and
// the help; what each does is in web/bench/does.js, by its id.
type Command struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Find are further words that it is found by.
	Find string `json:"find,omitempty"`
	// Keys do it, such as "Ctrl+D"; on a Mac the command key does for Ctrl.
	Keys []string `json:"keys,omitempty"`
	// Caps is what stands on those keys, such as Ctrl and D.
	Caps [][]string `json:"caps,omitempty"`
	// Needs is what has to be selected: "any", "block", "cells" (a block in a grid), "several",
	// "container", "series" or nothing.
	Needs string `json:"needs,omitempty"`
	// OnCanvas tells that its keys work on the canvas alone.
	OnCanvas bool `json:"onCanvas,omitempty"`
	// Menu tells that it is in the menu of what is selected, Composes that writers can't do it.
	Menu     bool `json:"menu,omitempty"`
	Composes bool `json:"composes,omitempty"`
	// Changes tells that it changes what is selected, which can't be while that is locked.
	Changes bool `json:"changes,omitempty"`
}

// CommandsFor lists the commands with the keys that somebody gave them, by their ids.
func CommandsFor(own map[string]string) []Command {
	out := slices.Clone(Commands)
	for i, c := range out {
		if key, ok := own[c.ID]; ok {
			if out[i].Keys = nil; key != "" {
				out[i].Keys = []string{key}
			}
		}
		out[i].Caps = keycaps(out[i].Keys)
	}
	return out
}

// keyPattern is what a key is called: with Ctrl or Shift before it or not, as the browser names
// it (UI Events KeyboardEvent key values).
var keyPattern = regexp.MustCompile(`^(Ctrl\+)?(Shift\+)?(\S|[A-Z][A-Za-z0-9]{1,20})$`)

// WithKey gives a command another key, "" for none, or with usual the one that it had, and gives
// the keys that somebody has then. Errors are *doc.Problem.
func WithKey(own map[string]string, id, key string, usual bool) (map[string]string, error) {
	next := maps.Clone(own)
	if next == nil {
		next = map[string]string{}
	}
	at := slices.IndexFunc(Commands, func(c Command) bool { return c.ID == id })
	if at < 0 {
		return nil, doc.Problemf("Command", "%.40q isn't one", id)
	}
	if key != "" && !keyPattern.MatchString(key) {
		return nil, doc.Problemf("Key", "can't be %.40q: press a key, with Ctrl or Shift or without", key)
	}
	if next[id] = key; usual {
		delete(next, id)
	}
	all := CommandsFor(next)
	for _, k := range all[at].Keys {
		for i, c := range all {
			if i != at && slices.ContainsFunc(c.Keys, func(other string) bool { return strings.EqualFold(other, k) }) {
				return nil, doc.Problemf("Key", "%s does “%s” already; give that another one first", k, c.Name)
			}
		}
	}
	return next, nil
}

// Commands lists them, as the help does.
var Commands = []Command{
	{ID: "commands", Name: "All commands", Find: "list palette search find do", Keys: []string{"Ctrl+K"}},
	{ID: "shelf", Name: "Insert from the Shelf", Find: "add new block section", Keys: []string{"/"}, Composes: true},
	{ID: "next", Name: "Next block", Find: "forward", Keys: []string{"Tab"}, OnCanvas: true},
	{ID: "previous", Name: "Previous block", Find: "back", Keys: []string{"Shift+Tab"}, OnCanvas: true},
	{
		ID:       "in",
		Name:     "Go in, or write",
		Find:     "edit words text enter",
		Keys:     []string{"Enter"},
		Needs:    "any",
		OnCanvas: true,
		Menu:     true,
	},
	{
		ID:       "out",
		Name:     "Go out",
		Find:     "parent container up",
		Keys:     []string{"Escape"},
		Needs:    "any",
		OnCanvas: true,
		Menu:     true,
	},
	{ID: "beside", Name: "Select all beside it", Find: "select all", Keys: []string{"Ctrl+A"}},

	{ID: "next-pane", Name: "Next pane: Overview, canvas, Tray", Find: "focus go keyboard", Keys: []string{"F6"}},
	{ID: "previous-pane", Name: "Previous pane", Find: "focus go keyboard", Keys: []string{"Shift+F6"}},

	{ID: "undo", Name: "Undo", Find: "back revert", Keys: []string{"Ctrl+Z"}},
	{ID: "redo", Name: "Redo", Find: "again", Keys: []string{"Ctrl+Shift+Z"}},
	{ID: "copy", Name: "Copy", Keys: []string{"Ctrl+C"}, Needs: "any", Menu: true},
	{ID: "cut", Name: "Cut", Keys: []string{"Ctrl+X"}, Needs: "any", Menu: true, Composes: true, Changes: true},
	{ID: "paste", Name: "Paste", Keys: []string{"Ctrl+V"}, Menu: true, Composes: true},
	{
		ID:    "copy-look",
		Name:  "Copy the look",
		Find:  "style format",
		Keys:  []string{"Ctrl+Shift+C"},
		Needs: "any",
		Menu:  true,
	},
	{
		ID:       "paste-look",
		Name:     "Paste the look",
		Find:     "style format",
		Keys:     []string{"Ctrl+Shift+V"},
		Needs:    "any",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "duplicate",
		Name:     "Duplicate",
		Find:     "copy again",
		Keys:     []string{"Ctrl+D"},
		Needs:    "any",
		Menu:     true,
		Composes: true,
	},
	{
		ID:       "delete",
		Name:     "Delete",
		Find:     "remove",
		Keys:     []string{"Delete", "Backspace"},
		Needs:    "any",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "share",
		Name:     "Share the section on several pages",
		Find:     "global reuse everywhere header footer",
		Needs:    "any",
		Menu:     true,
		Composes: true,
	},
	{
		ID:       "site-bar",
		Name:     "Make the section the site’s top bar…",
		Find:     "global everywhere all pages header join copies",
		Needs:    "any",
		Menu:     true,
		Composes: true,
	},
	{
		ID:       "site-footer",
		Name:     "Make the section the site’s footer…",
		Find:     "global everywhere all pages join copies",
		Needs:    "any",
		Menu:     true,
		Composes: true,
	},
	{
		ID:       "own",
		Name:     "Make the section this page’s own",
		Find:     "unlink detach separate shared",
		Needs:    "any",
		Menu:     true,
		Composes: true,
	},
	{
		ID:       "hide",
		Name:     "Hide on this zone and narrower ones",
		Find:     "invisible phone desktop",
		Needs:    "block",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},

	{
		ID:       "group",
		Name:     "Group",
		Find:     "container wrap together",
		Keys:     []string{"Ctrl+G"},
		Needs:    "block",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "ungroup",
		Name:     "Ungroup",
		Find:     "container unwrap apart",
		Keys:     []string{"Ctrl+Shift+G"},
		Needs:    "container",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "line",
		Name:     "Line-up of these",
		Find:     "container row stack flex",
		Needs:    "several",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "series",
		Name:     "Series of it and its copies",
		Find:     "repeat cards slider alike",
		Needs:    "block",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},
	{ID: "loose", Name: "Series to single blocks", Find: "apart detach", Needs: "series", Menu: true, Composes: true},
	{ID: "flip", Name: "Flip sides", Find: "mirror left right swap turn", Needs: "any", Menu: true, Composes: true},
	{ID: "room", Name: "Make room below", Find: "push down space", Needs: "cells", Menu: true, Composes: true},
	{
		ID:       "alike",
		Name:     "All of this kind like this one",
		Find:     "same look style titles headings",
		Needs:    "block",
		Menu:     true,
		Composes: true,
	},
	{
		ID:       "lock",
		Name:     "Lock or unlock",
		Find:     "protect fix free",
		Keys:     []string{"Ctrl+Shift+L"},
		Needs:    "block",
		Menu:     true,
		Composes: true,
	},

	{
		ID:       "left",
		Name:     "Move left",
		Find:     "earlier nudge",
		Keys:     []string{"ArrowLeft"},
		Needs:    "block",
		OnCanvas: true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "right",
		Name:     "Move right",
		Find:     "later nudge",
		Keys:     []string{"ArrowRight"},
		Needs:    "block",
		OnCanvas: true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "up",
		Name:     "Move up",
		Find:     "earlier nudge",
		Keys:     []string{"ArrowUp"},
		Needs:    "block",
		OnCanvas: true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "down",
		Name:     "Move down",
		Find:     "later nudge",
		Keys:     []string{"ArrowDown"},
		Needs:    "block",
		OnCanvas: true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "wider",
		Name:     "Wider",
		Find:     "resize",
		Keys:     []string{"Shift+ArrowRight"},
		Needs:    "cells",
		OnCanvas: true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "narrower",
		Name:     "Narrower",
		Find:     "resize",
		Keys:     []string{"Shift+ArrowLeft"},
		Needs:    "cells",
		OnCanvas: true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "taller",
		Name:     "Taller",
		Find:     "resize higher",
		Keys:     []string{"Shift+ArrowDown"},
		Needs:    "cells",
		OnCanvas: true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "less-tall",
		Name:     "Less tall",
		Find:     "resize lower",
		Keys:     []string{"Shift+ArrowUp"},
		Needs:    "cells",
		OnCanvas: true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "earlier",
		Name:     "Section earlier",
		Find:     "move up",
		Keys:     []string{"Ctrl+Shift+ArrowUp"},
		Needs:    "any",
		Composes: true,
	},
	{
		ID:       "later",
		Name:     "Section later",
		Find:     "move down",
		Keys:     []string{"Ctrl+Shift+ArrowDown"},
		Needs:    "any",
		Composes: true,
	},
	{
		ID:       "sooner",
		Name:     "Earlier in this zone",
		Find:     "order before move up reading phone block section",
		Keys:     []string{"Ctrl+ArrowUp"},
		Needs:    "any",
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "after",
		Name:     "Later in this zone",
		Find:     "order behind move down reading phone block section",
		Keys:     []string{"Ctrl+ArrowDown"},
		Needs:    "any",
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "forward",
		Name:     "Bring forward",
		Find:     "layer above",
		Keys:     []string{"Ctrl+PageUp"},
		Needs:    "cells",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "backward",
		Name:     "Send backward",
		Find:     "layer below",
		Keys:     []string{"Ctrl+PageDown"},
		Needs:    "cells",
		Menu:     true,
		Composes: true,
		Changes:  true,
	},
	{ID: "front", Name: "To front", Find: "layer top", Needs: "cells", Menu: true, Composes: true, Changes: true},
	{ID: "back", Name: "To back", Find: "layer bottom", Needs: "cells", Menu: true, Composes: true, Changes: true},
	{ID: "align-left", Name: "Align left", Find: "arrange edges", Needs: "cells", Composes: true, Changes: true},
	{ID: "align-center", Name: "Align center", Find: "arrange middle", Needs: "cells", Composes: true, Changes: true},
	{ID: "align-right", Name: "Align right", Find: "arrange edges", Needs: "cells", Composes: true, Changes: true},
	{ID: "align-top", Name: "Align top", Find: "arrange edges", Needs: "cells", Composes: true, Changes: true},
	{ID: "align-middle", Name: "Align middle", Find: "arrange vertical", Needs: "cells", Composes: true, Changes: true},
	{ID: "align-bottom", Name: "Align bottom", Find: "arrange edges", Needs: "cells", Composes: true, Changes: true},
	{
		ID:       "spread-across",
		Name:     "Equal gaps across",
		Find:     "distribute space",
		Needs:    "several",
		Composes: true,
		Changes:  true,
	},
	{
		ID:       "spread-down",
		Name:     "Equal gaps down",
		Find:     "distribute space",
		Needs:    "several",
		Composes: true,
		Changes:  true,
	},
	{ID: "same-width", Name: "Same width", Find: "equal size", Needs: "several", Composes: true, Changes: true},
	{ID: "same-height", Name: "Same height", Find: "equal size", Needs: "several", Composes: true, Changes: true},
	{
		ID:       "tidy",
		Name:     "Tidy: fewest edges, equal gaps",
		Find:     "align clean snap",
		Needs:    "several",
		Composes: true,
		Changes:  true,
	},

	{ID: "zone-1", Name: "Widest zone’s typical width", Find: "desktop", Keys: []string{"1"}},
	{ID: "zone-2", Name: "Second zone’s typical width", Find: "tablet", Keys: []string{"2"}},
	{ID: "zone-3", Name: "Third zone’s typical width", Find: "phone mobile", Keys: []string{"3"}},
	{ID: "zoom-in", Name: "Zoom in", Find: "larger magnify scale", Keys: []string{"+", "="}, OnCanvas: true},
	{ID: "zoom-out", Name: "Zoom out", Find: "smaller scale", Keys: []string{"-"}, OnCanvas: true},
	{ID: "zoom-fit", Name: "Zoom to fit", Find: "scale width", Keys: []string{"0"}, OnCanvas: true},
	{ID: "zoom-full", Name: "Zoom to 100 %", Find: "actual size scale", OnCanvas: true},
	{ID: "zoom-page", Name: "Zoom to the whole page", Find: "all overview scale", OnCanvas: true},
	{ID: "rulers", Name: "Rulers", Find: "px guides measure", Keys: []string{"r"}},
	{ID: "guide", Name: "Guides", Find: "guide line ruler new remove", Composes: true},
	{ID: "marks", Name: "Grid marks", Find: "crosses guides", Keys: []string{"#"}},
	{ID: "fold", Name: "Fold the Tray", Find: "properties panel", Keys: []string{"t"}},
	{ID: "next-finding", Name: "Next finding on the Reach", Find: "checks problem wrong", Keys: []string{"]"}},
	{ID: "previous-finding", Name: "Previous finding on the Reach", Find: "checks problem wrong", Keys: []string{"["}},
	{ID: "mend", Name: "Mend what Checks found here", Find: "repair fix all problems", Composes: true},
	{ID: "checks", Name: "Checks", Find: "problems findings errors accessibility"},
	{
		ID:   "companion",
		Name: "Companion: another width beside",
		Find: "phone second canvas split pane",
		Keys: []string{"c"},
	},
	{ID: "film", Name: "Play all widths", Find: "film animate responsive widths", Keys: []string{"p"}},
	{
		ID:       "again",
		Name:     "Arrange the section again in this zone",
		Find:     "reset places order phone rule automatic derive",
		Needs:    "any",
		Menu:     true,
		Composes: true,
	},
	{ID: "zones", Name: "Zones", Find: "breakpoints devices widths boundaries add remove", Composes: true},
	{ID: "house", Name: "House style", Find: "colours fonts theme design"},
	{ID: "library", Name: "Library", Find: "pictures videos files media"},
	{ID: "versions", Name: "Versions of this page", Find: "history restore earlier before", Composes: true},
	{ID: "pages", Name: "All pages", Find: "site list"},
	{ID: "try", Name: "Try it", Find: "preview"},
	{ID: "publish", Name: "Publish", Find: "live put online"},
	{ID: "help", Name: "All keys", Find: "shortcuts keyboard", Keys: []string{"?"}},
}

// keycaps parts keys such as "Ctrl+D" into what stands on them.
func keycaps(keys []string) (out [][]string) {
	on := map[string]string{"ArrowLeft": "←", "ArrowRight": "→", "ArrowUp": "↑", "ArrowDown": "↓", "Escape": "Esc"}
	for _, k := range keys {
		caps := strings.Split(k, "+")
		if k == "+" {
			caps = []string{k}
		}
		for i, c := range caps {
			caps[i] = cmp.Or(on[c], c)
		}
		out = append(out, caps)
	}
	return out
}
