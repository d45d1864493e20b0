package found_test

import (
	"fmt"

	"openplot/core/found"
)

// A short title is seen whole in search results.
func ExampleTitle() {
	f := found.Title("Boats to the isles")
	fmt.Println(f.Over(), f.Seen)
	// Output: false Boats to the isles
}
