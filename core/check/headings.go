package check

import (
	"fmt"
	"strconv"
	"strings"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/core/element"
)

var headings = Rule{
	repair: mendHeading,
	ID:     "headings", Name: "Headings skip a level", Family: Reading, Severity: Doubtful, Standard: "WCAG 2.2, 1.3.1",
	What: "a level is skipped; none, or more than one, of level 1",
	Why:  "Who hears the page goes from heading to heading, and finds its parts by their levels.",
	title: func(f *Finding, name func(string) string) string {
		switch f.Part {
		case "none":
			return "The page has no heading of level 1"
		case "two":
			return fmt.Sprintf("The page has %.0f headings of level 1", f.By)
		}
		return fmt.Sprintf("%s goes from level %.0f to %.0f", name(f.Node), f.Of, f.By)
	},
	say: func(f *Finding, _ func(string) string) string {
		switch f.Part {
		case "none":
			return "It says what the page is about; give it to the main title."
		case "two":
			return fmt.Sprintf("“%s” is another one; one says what the page is about.", f.Words)
		}
		return fmt.Sprintf("“%s” needs level %.0f, or one in between before it.", f.Words, f.Of+1)
	},
	whole: func(p *Page, r *report) {
		p.inZones(r, func(z int, note func(Finding)) {
			last, firsts, blocks := 0, 0, 0
			var second Finding
			p.each(z, func(n *element.Node, node string, hidden bool) {
				if n.Block != "" {
					blocks++
				}
				if hidden || len(n.Tag) != 2 || n.Tag[0] != 'h' || n.Tag[1] < '1' || n.Tag[1] > '6' ||
					strings.TrimSpace(spoken(n)) == "" {
					return
				}
				level := int(n.Tag[1] - '0')
				if level == 1 {
					if firsts++; firsts == 2 {
						second = Finding{Node: node, Words: start(textOf(n))}
					}
				}
				if last > 0 && level > last+1 {
					note(Finding{Node: node, By: float64(level), Of: float64(last), Words: start(textOf(n))})
				}
				last = level
			})
			if firsts == 0 && blocks > 0 {
				note(Finding{Part: "none"})
			}
			if firsts > 1 {
				second.Part, second.By = "two", float64(firsts)
				note(second)
			}
		})
	},
}

func mendHeading(p *Page, f *Finding) *Repair {
	b := p.block(f.Node)
	if b == nil || b.Kind != doc.Heading || f.Part != "" && f.Part != "two" {
		return nil
	}
	level := int(f.Of) + 1
	if f.Part == "two" {
		level = 2
	}
	return &Repair{
		fmt.Sprintf("Level %d", level),
		edit.Command{Op: "block.content", Node: b.ID, Setting: "level", Value: strconv.Itoa(level)},
	}
}
