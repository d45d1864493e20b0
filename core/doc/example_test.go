package doc_test

import (
	"fmt"

	"openplot/core/doc"
)

// A value that isn't set in a zone follows the next wider one that has it.
func ExampleZoned() {
	zones := doc.StandardZones()
	columns := doc.Zoned[int]{"desktop": 3}.With("phone", 1)
	for z, zone := range zones {
		n, from, _ := columns.Resolve(zones, z)
		fmt.Println(zone.Name, n, from)
	}
	// Output:
	// Desktop 3 desktop
	// Tablet 3 desktop
	// Phone 1 phone
}
