package number_test

import (
	"fmt"

	"openplot/core/number"
)

// What isn't finite is no number here, whatever strconv makes of it.
func ExampleReal() {
	for _, text := range []string{"12.5", "NaN", "1e309"} {
		n, err := number.Real(text)
		fmt.Println(n, err != nil)
	}
	// Output:
	// 12.5 false
	// 0 true
	// 0 true
}
