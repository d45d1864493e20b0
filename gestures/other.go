//go:build !(js && wasm)

// Command gestures runs in the browser only; see main.go.
package main

import "fmt"

func main() {
	fmt.Println("gestures is built for the browser: GOOS=js GOARCH=wasm go build ./gestures")
}
