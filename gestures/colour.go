//go:build js && wasm

package main

import (
	"fmt"
	"strings"
	"syscall/js"

	"openplot/core/colour"
	"openplot/core/style"
)

// plane(into, width, height, hue) fills a Uint8ClampedArray with the colours of a hue; see
// colour.Plane.
func plane(_ js.Value, args []js.Value) any {
	w, h := args[1].Int(), args[2].Int()
	b := make([]byte, 4*w*h)
	colour.Plane(b, w, h, args[3].Float())
	js.CopyBytesToJS(args[0], b)
	return nil
}

// readColour(text) gives what is known of a colour in any CSS notation, or null: its
// hexadecimal notation, lightness, chroma, hue and opacity from 0 to 1.
func readColour(_ js.Value, args []js.Value) any {
	c, err := colour.Parse(args[0].String())
	if err != nil {
		return nil
	}
	o := c.OKLCH()
	return map[string]any{"hex": c.String(), "l": o.L, "c": o.C, "h": o.H, "a": float64(c.A) / 255}
}

// lch(lightness, chroma, hue, opacity) gives the colour in hexadecimal notation, with as much
// of the chroma as sRGB has.
func lch(_ js.Value, args []js.Value) any {
	c := colour.OKLCH{L: args[0].Float(), C: args[1].Float(), H: args[2].Float()}.SRGB()
	c.A = uint8(min(max(args[3].Float(), 0), 1)*255 + 0.5)
	return c.String()
}

// chroma(hue) gives the greatest chroma that a plane of the hue shows.
func chroma(_ js.Value, args []js.Value) any { return colour.MostChroma(args[0].Float()) }

// scale(hex, n) gives n tints and shades, parted by spaces.
func scale(_ js.Value, args []js.Value) any {
	c, err := colour.ParseHex(args[0].String())
	if err != nil {
		return ""
	}
	var out []string
	for _, step := range c.Scale(args[1].Int()) {
		out = append(out, step.String())
	}
	return strings.Join(out, " ")
}

// contrast(words, ground, behind) gives the contrast ratio of words on a ground that may be
// see-through, and what it is good for, or "".
func contrast(_ js.Value, args []js.Value) any {
	ground, err := colour.ParseHex(style.Over(args[1].String(), args[2].String()))
	if err != nil {
		return ""
	}
	words, err := colour.ParseHex(style.Over(args[0].String(), ground.String()))
	if err != nil {
		return ""
	}
	r := colour.Contrast(words, ground)
	return fmt.Sprintf("%.1f : 1, %s", r, colour.Passes(r))
}

// convert(text, unit, base, viewport width, viewport height) gives a length in another unit,
// or "".
func convert(_ js.Value, args []js.Value) any {
	text, ok := style.Convert(
		args[0].String(),
		args[1].String(),
		args[2].Float(),
		style.Viewport{Width: args[3].Float(), Height: args[4].Float()},
	)
	if !ok {
		return ""
	}
	return text
}
