package rights_test

import (
	"fmt"

	"openplot/core/rights"
)

// A writer changes words and pictures, and composes nothing.
func ExampleRole_May() {
	fmt.Println(rights.Writer.May(rights.Write), rights.Writer.May(rights.Compose))
	// Output: true false
}
