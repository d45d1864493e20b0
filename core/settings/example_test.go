package settings_test

import (
	"fmt"

	"openplot/core/settings"
)

// A link is one that visitors can follow; what is wrong with another one names the field.
func ExampleCheckLink() {
	fmt.Println(settings.CheckLink("/fares"))
	_, err := settings.CheckLink("javascript:alert(1)")
	fmt.Println(err != nil)
	// Output:
	// /fares <nil>
	// true
}
