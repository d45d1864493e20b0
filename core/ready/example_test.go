package ready_test

import (
	"fmt"

	"openplot/core/ready"
)

// A ready-made page is sections under ids of the caller's.
func ExampleNewPage() {
	n := 0
	id := func(prefix string) string { n++; return fmt.Sprint(prefix, n) }
	p, err := ready.NewPage("prices", "Fares", nil, id, nil)
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, s := range p.Sections {
		fmt.Println(s.Made)
	}
	// Output:
	// bar
	// prices
	// prices-table
	// questions
	// footer
}
