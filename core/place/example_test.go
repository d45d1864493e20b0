package place_test

import (
	"fmt"

	"openplot/core/doc"
	"openplot/core/place"
)

// A place that reaches out of a grid of four columns is moved and cut into it.
func ExampleFit() {
	p := place.Fit(doc.Place{Column: 9, Span: 6, Row: 1, Rows: 2}, 4)
	fmt.Println(p.Column, p.Span, p.Row, p.Rows)
	// Output: 1 4 1 2
}
