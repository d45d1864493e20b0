package carry

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"openplot/core/doc"
)

func TestHouseFileThereAndBack(t *testing.T) {
	want := doc.StandardHouse()
	b, err := WriteHouse(House{Name: "Skerry Line", House: want})
	if err != nil {
		t.Fatal(err)
	}
	got, err := ReadHouse(b, doc.StandardZones())
	if err != nil || got.Name != "Skerry Line" || !reflect.DeepEqual(got.House, want) {
		t.Errorf("%v: %+v", err, got)
	}
	// A site with fewer zones leaves out what the others had.
	zones := doc.StandardZones()[:2]
	if got, err = ReadHouse(b, zones); err != nil || len(got.House.Text["h4"].Size) != 2 || len(got.House.Gutter) != 2 {
		t.Errorf("%v: %+v", err, got.House.Text["h4"])
	}
}

func TestBadHouseFiles(t *testing.T) {
	good, err := WriteHouse(House{House: doc.StandardHouse()})
	if err != nil {
		t.Fatal(err)
	}
	change := func(f func(m map[string]any)) []byte {
		var m map[string]any
		if err := json.Unmarshal(good, &m); err != nil {
			t.Fatal(err)
		}
		f(m["house"].(map[string]any))
		b, err := json.Marshal(m)
		if err != nil {
			t.Fatal(err)
		}
		return b
	}
	for name, b := range map[string][]byte{
		"empty":      nil,
		"not JSON":   []byte("palette: none"),
		"other":      []byte(`{"format":"other","version":1}`),
		"too large":  []byte(strings.Repeat(" ", MaxHouseFile+1)),
		"no colours": change(func(h map[string]any) { h["palette"] = []any{} }),
		"a bad one":  change(func(h map[string]any) { h["palette"].([]any)[0].(map[string]any)["value"] = "red;}" }),
		"twice":      change(func(h map[string]any) { h["palette"] = append(h["palette"].([]any), h["palette"].([]any)[0]) }),
		"a font":     change(func(h map[string]any) { h["fonts"].(map[string]any)["body"] = `"; } body {` }),
		"no style":   change(func(h map[string]any) { delete(h["text"].(map[string]any), "body") }),
		"a huge size": change(func(h map[string]any) {
			h["text"].(map[string]any)["h1"].(map[string]any)["size"] = map[string]any{"desktop": 1e9}
		}),
		"no size": change(func(h map[string]any) {
			h["text"].(map[string]any)["h1"].(map[string]any)["size"] = map[string]any{"watch": 20}
		}),
		"a token":  change(func(h map[string]any) { h["space"].([]any)[0].(map[string]any)["token"] = "a b" }),
		"a step":   change(func(h map[string]any) { h["corners"].([]any)[0].(map[string]any)["px"] = -1 }),
		"a narrow": change(func(h map[string]any) { h["space"].([]any)[3].(map[string]any)["narrow"] = 1e5 }),
		"a height": change(func(h map[string]any) { h["viewHeight"] = map[string]any{"phone": 7} }),
		"a width":  change(func(h map[string]any) { h["contentWidth"] = 1 }),
		"a gutter": change(func(h map[string]any) { h["gutter"] = map[string]any{"desktop": 1e6} }),
	} {
		h, err := ReadHouse(b, doc.StandardZones())
		problem, ok := err.(*doc.Problem)
		if !ok || problem.Field == "" || problem.Message == "" || len(h.House.Palette) > 0 {
			t.Errorf("%s: %v", name, err)
		}
	}
}

func FuzzReadHouse(f *testing.F) {
	good, err := WriteHouse(House{House: doc.StandardHouse()})
	if err != nil {
		f.Fatal(err)
	}
	f.Add(good)
	f.Add([]byte(`{"format":"open-plot-house-style","version":1,"house":{}}`))
	f.Fuzz(func(t *testing.T, b []byte) {
		h, err := ReadHouse(b, doc.StandardZones())
		if err != nil {
			return
		}
		again, err := WriteHouse(h)
		if err != nil {
			t.Fatal(err)
		}
		if back, err := ReadHouse(again, doc.StandardZones()); err != nil || !reflect.DeepEqual(back, h) {
			t.Errorf("what was read can't be read again: %v", err)
		}
	})
}

// What pages of the receiving site may refer to outlives a file that lacks it.
func TestTakeHouseLosesNothingInUse(t *testing.T) {
	was, taken := doc.StandardHouse(), doc.StandardHouse()
	was.Palette = append(was.Palette, doc.Swatch{Token: "buoy", Name: "Buoy", Value: "#cc2222"})
	was.Space = append(was.Space, doc.Step{Token: "quay", Name: "Quay", Px: 77})
	was.Text["hull"] = doc.TextStyle{Family: "mono", Weight: 400}
	taken.Swatch("accent").Value = "#224466"
	taken.Shadows, taken.Gutter = nil, nil
	h, err := TakeHouse(was, taken)
	if err != nil {
		t.Fatal(err)
	}
	if h.Swatch("buoy") == nil || h.Swatch("accent").Value != "#224466" || h.Space[len(h.Space)-1].Px != 77 ||
		h.Text["hull"].Family != "mono" ||
		len(h.Shadows) != len(was.Shadows) ||
		len(h.Gutter) != len(was.Gutter) {
		t.Errorf("%+v", h)
	}
	if len(taken.Palette) != len(was.Palette)-1 || taken.Text["hull"].Family != "" {
		t.Error("the file's own was changed")
	}
	for i := range doc.MaxColours {
		taken.Palette = append(taken.Palette, doc.Swatch{Token: fmt.Sprintf("c%d", i), Name: "C", Value: "#000000"})
	}
	if _, err := TakeHouse(was, taken); err == nil {
		t.Error("more colours than there can be")
	}
}
