package web

import (
	"net/http"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"openplot/core/edit"
)

// The Overview draws every section to scale and says how high it is; a bar that lies over
// the next section has no height of its own, and is drawn all the same.
func TestOverviewShowsBarsThatTakeNoRoom(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	for i, preset := range []string{"bar-over", "bar", "empty"} {
		if status, body := d.edit(edit.Command{Op: "section.add", Preset: preset, Base: int64(i)}); status != http.StatusOK {
			t.Fatal(status, body)
		}
	}
	_, body, _ := d.get(benchPath + "/bench")
	items := strings.Split(body, `class="overview-item`)[1:]
	heights := map[string]string{}
	size := regexp.MustCompile(`class="drawing" viewBox="0 0 1280 (\d+)"`)
	measure := regexp.MustCompile(`class="[^"]*measure[^"]*">([^<]+)<`)
	for _, it := range items[:min(3, len(items))] {
		drawn, said := size.FindStringSubmatch(it), measure.FindStringSubmatch(it)
		if drawn == nil || said == nil {
			t.Fatalf("no drawing or measure in %.600s", it)
		}
		heights[said[1]] = drawn[1]
	}
	if h, _ := strconv.Atoi(heights["over"]); h < 40 || h > 120 {
		t.Errorf("the bar over the next section is drawn %s px high: %v", heights["over"], heights)
	}
	for said, drawn := range heights {
		if said != "over" && said != drawn {
			t.Errorf("%s px high, drawn %s", said, drawn)
		}
	}
}
