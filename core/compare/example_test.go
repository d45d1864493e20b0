package compare_test

import (
	"fmt"

	"openplot/core/compare"
	"openplot/core/doc"
)

// What differs between two states of a page, in words.
func ExampleSay() {
	was := &doc.Page{Name: "Fares", Title: "Fares"}
	now := &doc.Page{Name: "Fares", Title: "What it costs"}
	for _, line := range compare.Say(compare.Pages(was, now)) {
		fmt.Println(line)
	}
	// Output: Page settings changed
}
