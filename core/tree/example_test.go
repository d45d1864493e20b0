package tree_test

import (
	"fmt"

	"openplot/core/tree"
)

// A page below another one has an address below its.
func ExampleTree_Add() {
	t := tree.Tree{{ID: "p1", Name: "Home"}}
	t, _ = t.Add(tree.Page{ID: "p2", Name: "Isles"}, "isles")
	t, err := t.Add(tree.Page{ID: "p3", Name: "North", Parent: "p2"}, "north")
	for _, p := range t {
		fmt.Printf("/%s\n", p.Address)
	}
	fmt.Println(err)
	// Output:
	// /
	// /isles
	// /isles/north
	// <nil>
}
