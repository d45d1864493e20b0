package colour_test

import (
	"fmt"

	"openplot/core/colour"
)

// The grey that WCAG 2.2 is often told by: on white it passes 4.5 to 1 by a hair (Understanding
// 1.4.3).
func ExampleContrast() {
	grey, _ := colour.ParseHex("#767676")
	white, _ := colour.ParseHex("#ffffff")
	fmt.Printf("%.2f\n", colour.Contrast(grey, white))
	// Output: 4.54
}
