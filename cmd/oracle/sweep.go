package main

import (
	"encoding/json"
	"fmt"
	"runtime"
	"slices"
	"time"

	"openplot/core/layout"
	"openplot/demo"
	"openplot/fonts"
)

// sweep measures how long core and the browser take for a page of a number of
// blocks at every width from 320 to 1920 px. Core shapes its text within the time;
// the browser has loaded the page before, and is asked in the cheapest way known:
// one call that resizes the frame and reads every element's box.
func (j *judge) sweep(blocks int) error {
	s := demo.Site()
	c := pageCase("sweep", s, demo.Sample(blocks))
	ws := make([]int, 0, 1601)
	for w := 320; w <= 1920; w++ {
		ws = append(ws, w)
	}
	at := j.publish(c)
	line, err := j.request(map[string]any{"url": at, "widths": ws, "time": true})
	if err != nil {
		return err
	}
	var theirs struct {
		Ms       float64
		Elements int
		Error    string
	}
	if err := json.Unmarshal(line, &theirs); err != nil || theirs.Error != "" {
		return fmt.Errorf("in the browser: %s %w", theirs.Error, err)
	}
	// Then core, when the browser has come to rest.
	var ours []time.Duration
	for range 5 {
		lib, err := fonts.Load()
		if err != nil {
			return err
		}
		runtime.GC() // what loading left
		start := time.Now()
		layout.New(lib, c.zones, c.root).Sweep(320, 1920)
		ours = append(ours, time.Since(start))
	}
	slices.Sort(ours)
	core := float64(ours[len(ours)/2].Microseconds()) / 1000
	fmt.Printf(
		"%d blocks, %d elements, 1601 widths: core %.0f ms (median of 5), Chromium %.0f ms (median of 3): %.1f times\n",
		blocks, theirs.Elements, core, theirs.Ms, theirs.Ms/core,
	)
	return nil
}
