package style_test

import (
	"flag"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/style"
)

var update = flag.Bool("update", false, "write docs/settings.md anew")

const reference = "../../docs/settings.md"

// takes says in words what a setting takes.
func takes(s *style.Setting) string {
	var out []string
	number := func(unit string) { out = append(out, style.Number(s.Min)+" to "+style.Number(s.Max)+unit) }
	switch s.Type {
	case style.TypeLength:
		units := []string{"px"}
		for _, u := range s.Units {
			units = append(units, style.Length{N: 1, Unit: u}.String()[1:])
		}
		number(" px")
		if len(units) > 1 {
			out = append(out, "in "+strings.Join(units, ", ")+", or a sum of them")
		}
		if s.Steps != nil {
			out = append(out, "a step of the house style")
		}
	case style.TypeWhole, style.TypeNumber:
		number("")
	case style.TypePercent:
		number(" %")
	case style.TypeEm:
		number(" em")
	case style.TypeAngle:
		number("°")
	case style.TypeSeconds:
		number(" s")
	case style.TypeRatio:
		out = append(out, "width : height")
	case style.TypeColour:
		out = append(out, "a colour of the palette or its own, with an opacity")
	case style.TypeTextStyle:
		out = append(out, "a text style")
	case style.TypeShadow:
		out = append(out, "a shadow of the house style, or x y blur spread colour [inset]")
	case style.TypeShares:
		out = append(out, "twelfths for each column")
	case style.TypeGradient:
		out = append(out, "linear, radial or conic, with 2 to 12 stops")
	case style.TypePoint:
		out = append(out, "a point, x % y %")
	case style.TypeButtonSize:
		out = append(out, "a size of buttons")
	case style.TypeFamily:
		out = append(out, "a shipped family or one of the site's own")
	}
	for i, c := range s.Choices {
		if i < 8 && !strings.HasPrefix(c.Value, c.Label) {
			out = append(out, strings.ToLower(c.Label))
		}
	}
	return strings.Join(out, "; ")
}

// on names what has a setting.
func on(s *style.Setting) string {
	var kinds []string
	for _, k := range doc.Kinds {
		if s.On(k) {
			kinds = append(kinds, strings.ToLower(element.Of(k).Name))
		}
	}
	var out []string
	if s.On(style.OnSection) {
		out = append(out, "sections")
	}
	switch {
	case len(kinds) == len(doc.Kinds):
		out = append(out, "all blocks")
	case len(kinds) > 8:
		out = append(out, fmt.Sprintf("%d kinds of block", len(kinds)))
	case len(kinds) > 0:
		slices.Sort(kinds)
		out = append(out, strings.Join(kinds, ", "))
	}
	return strings.Join(out, "; ")
}

// docs/settings.md lists every setting with what it takes; -update writes it anew.
func TestReference(t *testing.T) {
	var b strings.Builder
	b.WriteString(
		"# What can be set\n\nEvery setting of a section or a block, in each zone. Written by a test of core/style (`go test ./core/style -run Reference -update`);\ncore/style/table.go is where they are.\n\n| setting | key | on | takes |\n|---|---|---|---|\n",
	)
	for _, s := range style.Settings {
		fmt.Fprintf(&b, "| %s | `%s` | %s | %s |\n", s.Label, s.Name, on(s), takes(s))
	}
	if *update {
		if err := os.WriteFile(reference, []byte(b.String()), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	want, err := os.ReadFile(reference)
	if err != nil {
		t.Fatal(err)
	}
	if string(want) != b.String() {
		t.Error("docs/settings.md isn't what the settings are; run go test ./core/style -run Reference -update")
	}
}
