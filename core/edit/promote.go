package edit

import (
	"maps"
	"math"
	"slices"

	"openplot/core/doc"
	"openplot/core/style"
	"openplot/core/value"
)

// Promotable reports whether a value of a setting can become one of the house style's:
// a colour, a length that there are steps for, or a size of type.
func Promotable(s *style.Setting, v string) bool {
	if v == "" || v[0] == '$' || slices.ContainsFunc(s.Choices, func(c value.Choice) bool { return c.Value == v }) {
		return false
	}
	if s.Type == style.TypeColour {
		return true
	}
	_, fixed := fixedPx(v)
	return s.Type == style.TypeLength && fixed && (s.Steps != nil || s.Name == "font-size")
}

// fixedPx gives a length that is the same on every screen in px.
func fixedPx(value string) (float64, bool) {
	l := style.ParseLength(value, style.Length{})
	if l.Unit != style.Px && l.Unit != style.Rem {
		return 0, false
	}
	return l.Resolve(0, style.Viewport{})
}

// Promote makes a block's own value of a setting one of the house style's under a name,
// and gives the house style with the token to set in its place; a value that the house
// style has already isn't added again. A size of type becomes a text style like the one
// named by base. Errors are *doc.Problem.
func Promote(h doc.House, zones doc.Zones, s *style.Setting, value, name, base string) (doc.House, string, error) {
	if !Promotable(s, value) {
		return h, "", doc.Problemf(
			s.Label,
			"can't become the house style's: it isn't a value of its own that is the same on every screen",
		)
	}
	if s.Type == style.TypeColour {
		for _, w := range h.Palette {
			if w.Value == value {
				return h, w.Token, nil
			}
		}
		h, err := addColour(h, zones, HouseCommand{Name: name, Value: value})
		if err != nil {
			return h, "", err
		}
		return h, h.Palette[len(h.Palette)-1].Token, nil
	}
	if s.Name == "font-size" {
		return addTextStyle(h, zones, value, name, base)
	}
	px, _ := fixedPx(value)
	list := stepList(s)
	for _, st := range s.Steps(&h) {
		if st.Px == px {
			return h, st.Token, nil
		}
	}
	return addStep(h, list, name, style.Number(px))
}

// stepLists names the lists of steps.
var stepLists = []string{"space", "corners", "lines"}

func steps(h *doc.House, list string) *[]doc.Step {
	switch list {
	case "space":
		return &h.Space
	case "corners":
		return &h.Corners
	case "lines":
		return &h.Lines
	}
	return nil
}

// stepList names the list that a setting's steps are of.
func stepList(s *style.Setting) string {
	switch s.Name {
	case "border-radius":
		return "corners"
	case "border-width":
		return "lines"
	}
	return "space"
}

// addStep adds a step to a list, in the order of size, and gives its token, which is
// that of no step of another list.
func addStep(h doc.House, list, name, value string) (doc.House, string, error) {
	name, err := doc.Line("Name", name, 40)
	if err != nil {
		return h, "", err
	}
	if name == "" {
		return h, "", doc.Problemf("Name", "is missing: say what the step is for, such as Card’s padding")
	}
	h.Lines = slices.Clone(h.LineSteps())
	to := steps(&h, list)
	if to == nil {
		return h, "", doc.Problemf("House style", "has no steps %.40q; spacing, corners and lines have", list)
	}
	if len(*to) >= doc.MaxSteps {
		return h, "", doc.Problemf("House style", "has %d steps of that already, the most there can be", doc.MaxSteps)
	}
	px, err := style.Evaluate(value)
	if err != nil || px < 0 || px > 1000 {
		return h, "", doc.Problemf(name, "can't be %.40q: write 0 to 1000 px, or a sum", value)
	}
	token := freshToken(name, "step", func(t string) bool {
		return slices.ContainsFunc(
			stepLists,
			func(l string) bool { _, ok := doc.FindStep(*steps(&h, l), t); return ok },
		)
	})
	at, _ := slices.BinarySearchFunc(*to, px, func(s doc.Step, px float64) int {
		if s.Px <= px {
			return -1
		}
		return 1
	})
	*to = slices.Insert(slices.Clone(*to), at, doc.Step{Token: token, Name: name, Px: px})
	return h, token, nil
}

// addTextStyle adds a text style that is like another one but for its size.
func addTextStyle(h doc.House, zones doc.Zones, value, name, base string) (doc.House, string, error) {
	name, err := doc.Line("Name", name, 40)
	if err != nil {
		return h, "", err
	}
	if name == "" {
		return h, "", doc.Problemf("Name", "is missing: say what the text style is for, such as Caption")
	}
	if len(h.Text) >= doc.MaxSteps {
		return h, "", doc.Problemf("House style", "has %d text styles already, the most there can be", doc.MaxSteps)
	}
	like, ok := h.Text[base]
	if !ok {
		like = h.Text["body"]
	}
	px, _ := fixedPx(value)
	like.Size, like.Fluid = doc.Zoned[float64]{zones.Widest(): math.Round(px*64) / 64}, false
	h.Text = maps.Clone(h.Text)
	token := freshToken(name, "style", func(t string) bool { _, ok := h.Text[t]; return ok })
	h.Text[token] = like
	return h, token, nil
}
