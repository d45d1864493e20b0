//go:build !(js && wasm)

// Command bench runs in the browser only; see main.go.
package main

import "fmt"

func main() { fmt.Println("bench is built for the browser: GOOS=js GOARCH=wasm go build ./bench") }
