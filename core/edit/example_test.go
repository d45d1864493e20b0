package edit_test

import (
	"fmt"

	"openplot/core/doc"
	"openplot/core/edit"
)

// Several commands made as one: a section, and a block in it, named by the command that
// makes it. The inverse takes both back.
func ExampleApply() {
	n := 0
	env := edit.Env{
		Site:  &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()},
		NewID: func(prefix string) string { n++; return fmt.Sprint(prefix, n) },
	}
	page := &doc.Page{Name: "Fares"}
	r, err := edit.Apply(page, edit.Command{Op: edit.Many, Parts: []edit.Command{
		{Op: "section.add", Preset: "empty"},
		{Op: "block.add", Node: "@1", Kind: doc.Heading, Zone: "desktop"},
	}}, env)
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(len(page.Sections), len(r.Page.Sections), r.Page.Sections[0].Blocks[0].Kind)

	before, _, err := edit.Run(r.Page, r.Inverse)
	fmt.Println(len(before.Sections), err)

	_, err = edit.Apply(
		r.Page,
		edit.Command{Op: "set", Node: r.Select, Zone: "desktop", Setting: "padding-top", Value: "lots"},
		env,
	)
	fmt.Println(err)
	// Output:
	// 0 1 heading
	// 0 <nil>
	// Padding top can't be "lots": write a number from 0 to 1000 px
}
