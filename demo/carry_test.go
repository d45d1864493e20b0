package demo

import (
	"encoding/json"
	"strconv"
	"testing"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/icons"
)

// What is read from a site's file is what was written: all pages of the demo, and all that there
// can be on one.
func TestPagesAreCarriedWhole(t *testing.T) {
	st := Site()
	ids := map[string]string{clipName: SpecimenVideo}
	sorts := map[string]doc.MediumSort{SpecimenVideo: doc.VideoMedium, SpecimenSound: doc.AudioMedium}
	for _, name := range []string{"one", "two", "three", "four", "five", "six"} {
		sorts[name] = doc.PictureMedium
	}
	for _, name := range PictureNames() {
		ids[name] = "m-" + name
		sorts["m-"+name] = doc.PictureMedium
	}
	n := 0
	env := edit.Env{
		Site: st, NewID: func(p string) string { n++; return p + strconv.Itoa(n) },
		HasIcon: func(name string) bool { _, ok := icons.Drawing(name); return ok },
		Medium:  func(id string) doc.MediumSort { return sorts[id] },
	}
	pages := []*doc.Page{}
	for _, p := range Pages(ids) {
		pages = append(pages, p.Page)
	}
	specimens, err := Specimens(st, []string{ids[PictureNames()[0]], ids[PictureNames()[1]]})
	if err != nil {
		t.Fatal(err)
	}
	for _, was := range append(pages, specimens...) {
		if was.Title == "" {
			was.Title = was.Name
		}
		got, err := edit.TakePage(was, was.ID, env)
		if err != nil {
			t.Errorf("%s: %v", was.Name, err)
			continue
		}
		a, err := json.MarshalIndent(was, "", " ")
		if err != nil {
			t.Fatal(err)
		}
		b, err := json.MarshalIndent(got, "", " ")
		if err != nil {
			t.Fatal(err)
		}
		if x, y := differs(string(a), string(b)); x != y {
			t.Errorf("%s isn't what it was: %q became %q", was.Name, x, y)
		}
	}
}

// differs gives what is about where two texts part.
func differs(a, b string) (string, string) {
	for i := range min(len(a), len(b)) {
		if a[i] != b[i] {
			return a[max(0, i-200):min(len(a), i+80)], b[max(0, i-200):min(len(b), i+80)]
		}
	}
	if len(a) != len(b) {
		return a[min(len(a), len(b)):], b[min(len(a), len(b)):]
	}
	return "", ""
}
