package web

import (
	"encoding/json"
	"image"
	"image/color"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"golang.org/x/image/webp"

	"openplot/core/doc"
	"openplot/core/edit"
)

// halves is a picture that is red on the left and blue on the right.
func halves(t *testing.T, w, h int) []byte {
	t.Helper()
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.NRGBA{200, 30, 30, 255}
			if x >= w/2 {
				c = color.NRGBA{30, 30, 200, 255}
			}
			img.Set(x, y, c)
		}
	}
	return encoded(t, img)
}

// kept uploads a picture and gives the address of what can be done with it.
func kept(t *testing.T, d *person, name string, data []byte) string {
	t.Helper()
	if status, body := upload(t, d, libraryPath, name, data, nil); status != http.StatusOK {
		t.Fatalf("%s: %d %s", name, status, body)
	}
	return libraryPath + "/" + d.media()[0].ID
}

// first opens the copy of a picture that is made at once.
func first(t *testing.T, p *studio) image.Image {
	t.Helper()
	f, err := os.Open(filepath.Join(p.server.MediaDir, p.media()[0].Variants[0].File))
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	img, err := webp.Decode(f)
	if err != nil {
		t.Fatal(err)
	}
	return img
}

func TestPicturesAreDescribed(t *testing.T) {
	p := begin(t)
	d := p.as("writer@example.org")
	at := kept(t, d, "boat.png", halves(t, 600, 400))
	for _, c := range []struct{ name, alt, focal, problem string }{
		{name: "", alt: "A boat", focal: "50% 50%", problem: "Name"},
		{name: strings.Repeat("x", 121), focal: "50% 50%", problem: "Name"},
		{name: "boat", alt: strings.Repeat("x", 1001), focal: "50% 50%", problem: "Alternative text"},
		{name: "boat", focal: "far left", problem: "Focal point"},
		{name: "boat", focal: "", problem: "Focal point"},
		{name: "boat", focal: "leftish", problem: "Focal point"},
		{name: "boat", focal: "120% 5%", problem: "Focal point"},
		{name: "boat", focal: "1% 2% 3%", problem: "Focal point"},
		{name: "boat", focal: "url(x)", problem: "Focal point"},
		{name: "  The   boat ", alt: "A boat\nat the steps", focal: "20 80"},
	} {
		status, body, _ := d.post(at, url.Values{"name": {c.name}, "alt": {c.alt}, "focal": {c.focal}})
		if c.problem == "" && status != http.StatusOK ||
			c.problem != "" && (status != http.StatusUnprocessableEntity || !tellsOf(body, c.problem)) {
			t.Errorf("%.20q, %.20q, %s: %d", c.name, c.alt, c.focal, status)
		}
		if m := p.media()[0]; c.problem != "" && (m.Name != "boat.png" || m.Alt != "") {
			t.Errorf("refused, and changed all the same: %+v", m)
		}
	}
	if m := p.media()[0]; m.Name != "The boat" || m.Alt != "A boat at the steps" || m.Focal != "20% 80%" {
		t.Errorf("%+v", m)
	}
	if status, _, _ := d.post(libraryPath+"/none", url.Values{"name": {"x"}}); status != http.StatusNotFound {
		t.Errorf("a picture that isn't there: %d", status)
	}
}

// A quarter turn to the right puts the left on top; a crop takes what is seen after it.
func TestPicturesAreTurnedAndCropped(t *testing.T) {
	p := begin(t)
	d := p.as("writer@example.org")
	at := kept(t, d, "halves.png", halves(t, 600, 400))
	red := func(x, y float64) bool {
		img := first(t, p)
		b := img.Bounds()
		r, _, bl, _ := img.At(int(x*float64(b.Dx())), int(y*float64(b.Dy()))).RGBA()
		return r > bl
	}
	was := p.media()[0].Variants[0].File
	if !red(0.25, 0.5) || red(0.75, 0.5) {
		t.Fatal("the picture isn't what was uploaded")
	}
	if status, _, _ := d.post(at+"/shape", url.Values{"turns": {"1"}}); status != http.StatusOK {
		t.Fatal(status)
	}
	if m := p.media()[0]; m.Width != 400 || m.Height != 600 || m.Variants[0].File == was || !red(0.5, 0.25) ||
		red(0.5, 0.75) {
		t.Errorf("turned: %d × %d, %v", m.Width, m.Height, m.Variants)
	}
	if status, _, _ := d.post(at+"/shape", url.Values{"top": {"50 %"}, "right": {"25"}}); status != http.StatusOK {
		t.Fatal(status)
	}
	if m := p.media()[0]; m.Width != 300 || m.Height != 300 || red(0.5, 0.1) {
		t.Errorf("cropped: %d × %d", m.Width, m.Height)
	}
	for _, bad := range []url.Values{{"left": {"half"}}, {"left": {"-1"}}, {"left": {"96"}}, {"left": {"50"}, "right": {"50"}}, {"top": {"NaN"}}} {
		if status, body, _ := d.post(at+"/shape", bad); status != http.StatusUnprocessableEntity ||
			!strings.Contains(body, "Crop ") {
			t.Errorf("%v: %d", bad, status)
		}
	}
	if m := p.media()[0]; m.Width != 300 {
		t.Errorf("changed by what was refused: %d × %d", m.Width, m.Height)
	}
}

// Another upload takes a picture's place wherever it is shown; its words stay.
func TestPicturesAreReplacedEverywhere(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	at := kept(t, d, "old.png", halves(t, 600, 400))
	id := p.media()[0].ID
	if status, _, _ := d.post(at, url.Values{"name": {"Boat"}, "alt": {"The boat"}, "focal": {"10% 20%"}}); status != http.StatusOK {
		t.Fatal(status)
	}
	if status, body := d.edit(edit.Command{Op: "section.picture", Node: p.page.Sections[0].ID, Value: id}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	if status, body := upload(
		t, d, at+"/replace", "broken.png",
		[]byte("\x89PNG\r\n\x1a\nno more"),
		nil,
	); status != http.StatusUnprocessableEntity || !strings.Contains(body, "damaged") {
		t.Errorf("a broken one: %d", status)
	}
	if status, _, _ := d.post(at+"/replace", nil); status != http.StatusUnprocessableEntity {
		t.Errorf("none at all: %d", status)
	}
	old := p.media()[0].Variants[0].File
	status, body := upload(
		t, d, at+"/replace", "new.png", halves(t, 500, 500), nil,
	)
	if status != http.StatusOK || !strings.Contains(body, "500 × 500") || !strings.Contains(body, `class="drawing"`) {
		t.Fatalf("tried: %d", status)
	}
	if m := p.media()[0]; m.Width != 600 || m.Variants[0].File != old || len(p.media()) != 1 {
		t.Fatalf("replaced before anybody took it: %+v", m)
	}
	if status, body, _ := d.post(at+"/take", url.Values{"by": {"nothing"}}); status != http.StatusUnprocessableEntity ||
		!strings.Contains(body, "choose it again") {
		t.Errorf("one that isn't there: %d", status)
	}
	if status, body, _ := d.post(at+"/take", url.Values{"by": {proposed(t, body)}}); status != http.StatusOK ||
		!strings.Contains(body, "500 × 500") {
		t.Fatalf("taken: %d", status)
	}
	m := p.media()[0]
	if m.ID != id || m.Width != 500 || m.Name != "Boat" || m.Alt != "The boat" || m.Focal != "10% 20%" ||
		m.Variants[0].File == old {
		t.Errorf("%+v", m)
	}
	if _, canvas, _ := d.get(benchPath + "/canvas"); !strings.Contains(canvas, m.Variants[0].File) ||
		strings.Contains(canvas, old) {
		t.Error("the page shows the old one")
	}
}

// proposed finds the id of the file that an answer offers in another's place.
func proposed(t *testing.T, body string) string {
	t.Helper()
	_, rest, ok := strings.Cut(body, `name="by" value="`)
	id, _, _ := strings.Cut(rest, `"`)
	if !ok {
		t.Fatalf("nothing is offered: %.400s", body)
	}
	return id
}

// What a page shows isn't deleted unasked, and can be had back.
func TestPicturesInUseAreAskedAfter(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	kept(t, d, "boat.png", halves(t, 600, 400))
	id := p.media()[0].ID
	if status, body := d.edit(edit.Command{Op: "section.picture", Node: p.page.Sections[0].ID, Value: id}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	one := url.Values{"id": {id}}
	if status, body, _ := d.post(libraryPath+"/delete", one); status != http.StatusConflict ||
		!strings.Contains(body, "boat.png on Home") {
		t.Errorf("used on Home: %d %s", status, body)
	}
	if len(p.media()) != 1 {
		t.Fatal("deleted unasked")
	}
	if status, body, _ := d.post(libraryPath+"/delete", url.Values{"id": {id}, "sure": {"yes"}}); status != http.StatusOK ||
		body != "" {
		t.Errorf("%d %q", status, body)
	}
	if status, _, _ := d.get(benchPath + "/canvas"); status != http.StatusOK || len(p.media()) != 0 {
		t.Errorf("the page without its picture: %d", status)
	}
	if status, _, _ := d.post(libraryPath+"/restore", one); status != http.StatusOK || len(p.media()) != 1 ||
		p.media()[0].ID != id {
		t.Errorf("undone: %d", status)
	}
	at := kept(t, d, "another.png", halves(t, 60, 40))
	if status, _, _ := d.post(libraryPath+"/delete", url.Values{"id": {p.media()[0].ID}}); status != http.StatusOK ||
		len(p.media()) != 1 {
		t.Errorf("one that no page shows: %d", status)
	}
	if status, _, _ := d.get(at + "/copies"); status != http.StatusNotFound {
		t.Errorf("copies of what is gone: %d", status)
	}
}

// The library says of each picture where it is shown and how many copies it has.
func TestTheLibraryIsListed(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	kept(t, d, "shown.png", halves(t, 600, 400))
	shown := p.media()[0].ID
	kept(t, d, "not.png", halves(t, 500, 300))
	if status, body := d.edit(edit.Command{Op: "section.picture", Node: p.page.Sections[0].ID, Value: shown}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	_, list, _ := d.get(libraryPath)
	if !strings.Contains(list, `data-find="shown.png  Home"`) || !strings.Contains(list, `data-find="not.png "`) {
		t.Errorf("where they are shown isn't found: %.600s", list)
	}
	for _, m := range p.media() {
		_, side, _ := d.get(libraryPath + "/" + m.ID + "/side")
		want := map[string]string{"shown.png": "· on Home<", "not.png": "· not used<"}[m.Name]
		if !strings.Contains(side, want) || !strings.Contains(side, "copy 1 of") {
			t.Errorf("%s isn't said to be %s: %.400s", m.Name, want, side)
		}
	}
	if status, _ := upload(t, d, libraryPath, "plan.svg", []byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path d="M0 0h9v9z"/></svg>`), nil); status != http.StatusOK {
		t.Fatal(status)
	}
	for _, m := range p.media() {
		if _, side, _ := d.get(libraryPath + "/" + m.ID + "/side"); m.Name == "plan.svg" &&
			!strings.Contains(side, "<span>SVG 1 KB</span>") {
			t.Error("what copies take isn't told")
		}
	}
}

// Beside pictures there are recordings and files to be linked to, told by their bytes.
func TestFilesOfOtherSorts(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	for _, f := range []struct {
		name, data string
		sort       doc.MediumSort
		mediaType  string
		thumb      string
	}{
		{"timetable.pdf", "%PDF-1.7\n%\xe2\xe3\xcf\xd3\n1 0 obj\n<<>>\nendobj\n", doc.FileMedium, "application/pdf", "-0.pdf"},
		{"notes.exe", "Only text, whatever it is called.\n", doc.FileMedium, "text/plain; charset=utf-8", "-0.txt"},
		{"bell.mp3", "ID3\x03\x00\x00\x00\x00\x00\x00" + strings.Repeat("\xff\xfb\x90\x00", 200), doc.AudioMedium, "audio/mpeg", "-0.mp3"},
	} {
		kept(t, d, f.name, []byte(f.data))
		m := p.media()[0]
		if m.Sort() != f.sort || m.Name != f.name || !strings.HasSuffix(m.Variants[0].File, f.thumb) {
			t.Errorf("%s: %s %s %v", f.name, m.Type, m.Name, m.Variants)
		}
	}
	for name, data := range map[string]string{"page.pdf": "<!DOCTYPE html><script>alert(1)</script>", "words.png": "Only words.", "run.pdf": "MZ\x90\x00\x03\x00\x00\x00", "cut.mp3": ""} {
		if status, _ := upload(t, d, libraryPath, name, []byte(data), nil); status != http.StatusUnprocessableEntity {
			t.Errorf("%s: %d", name, status)
		}
	}
	_, body, _ := d.get("/sites/skerry/links")
	if !strings.Contains(body, `"file:`+p.media()[2].ID) || !strings.Contains(body, "timetable.pdf") {
		t.Errorf("links don't lead to files: %s", body)
	}
	page := p.page.Sections[0]
	if status, body := d.edit(edit.Command{Op: "section.picture", Node: page.ID, Value: p.media()[0].ID}); status != http.StatusUnprocessableEntity {
		t.Errorf("a recording as a picture: %d %s", status, body)
	}
	// Folders, several at once.
	var ids []string
	for _, m := range p.media() {
		ids = append(ids, m.ID)
	}
	if status, _, _ := d.post(libraryPath+"/folder", url.Values{"id": ids[:2], "folder": {" For  the crew "}}); status != http.StatusOK {
		t.Fatal(status)
	}
	for i, m := range p.media() {
		if want := map[bool]string{true: "For the crew"}[i < 2]; m.Folder != want {
			t.Errorf("%s is in %q", m.Name, m.Folder)
		}
	}
	if status, body, _ := d.post(libraryPath+"/folder", url.Values{"id": ids, "folder": {strings.Repeat("x", 61)}}); status != http.StatusUnprocessableEntity ||
		!strings.Contains(body, "at most 60") {
		t.Errorf("%d %s", status, body)
	}
	if status, _, _ := d.post(libraryPath+"/delete", url.Values{"id": ids}); status != http.StatusOK ||
		len(p.media()) != 0 {
		t.Errorf("all at once: %d", status)
	}
}

// A picture with fewer px than it is shown in is told with what it would need.
func TestPicturesThatAreTooSmall(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	kept(t, d, "tiny.png", halves(t, 60, 40))
	id := p.media()[0].ID
	if status, body := d.edit(edit.Command{Op: "section.picture", Node: p.page.Sections[0].ID, Value: id}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	_, body, _ := d.get(libraryPath + "/wants")
	var wants map[string]int
	if err := json.Unmarshal([]byte(body), &wants); err != nil || wants[id] < 1920 {
		t.Errorf("%v %s", err, body)
	}
	if _, body, _ := d.get(libraryPath + "/" + id + "/places"); !strings.Contains(body, "<svg") ||
		!strings.Contains(oneLine(body), "Home · ") {
		t.Errorf("%.300s", body)
	}
}
