package emit_test

import (
	"fmt"
	"strings"

	"openplot/core/doc"
	"openplot/core/element"
	"openplot/core/emit"
)

// The elements of a button as HTML and CSS.
func ExampleSheet() {
	site := &doc.Site{House: doc.StandardHouse(), Zones: doc.StandardZones()}
	body := (&element.Builder{Site: site}).Page(
		&doc.Page{Sections: []*doc.Section{{ID: "s", Arrangement: doc.LineUp, Blocks: []*doc.Block{{
			ID: "b", Kind: doc.Button, Content: doc.Content{Link: "/fares", Words: doc.PlainWords("See the fares")},
		}}}}},
	)
	sheet := emit.NewSheet(site.Zones)
	var html strings.Builder
	sheet.Write(&html, body)
	from := strings.Index(html.String(), "<a ")
	fmt.Println(html.String()[from : strings.Index(html.String(), "</a>")+4])
	fmt.Println(strings.Contains(sheet.CSS(), "background:#1d5f6b"))
	// Output:
	// <a class="button t-button at" data-button="" href="/fares">See the fares</a>
	// true
}
