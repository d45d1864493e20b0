package carry_test

import (
	"fmt"
	"strings"

	"openplot/core/carry"
	"openplot/core/doc"
)

// What is copied is text: a line that says what it is, and JSON.
func ExampleCopy() {
	page := &doc.Page{Sections: []*doc.Section{{ID: "s1", Name: "Fares"}}}
	text, err := carry.Copy(page, []string{"s1"})
	if err != nil {
		fmt.Println(err)
		return
	}
	head, _, _ := strings.Cut(text, "\n")
	back, err := carry.ReadClip(text)
	fmt.Println(head)
	fmt.Println(back.Sections[0].Name, err)
	// Output:
	// Open Plot blocks, format 1
	// Fares <nil>
}
