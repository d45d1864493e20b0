package web

import (
	"bytes"
	"encoding/json"
	"image"
	"image/color"
	"image/png"
	"mime/multipart"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"testing"

	"openplot/core/carry"
	"openplot/core/doc"
	"openplot/core/edit"
)

const housePath = "/sites/skerry/house"

func (p *studio) house() (doc.House, int64) {
	p.t.Helper()
	s, err := p.store.Sites.BySlug(p.t.Context(), "skerry")
	if err != nil {
		p.t.Fatal(err)
	}
	return s.House, s.Version
}

// change posts a command against the house style as it stands.
func (d *person) change(p *studio, form url.Values) (int, string) {
	_, version := p.house()
	form.Set("base", strconv.FormatInt(version, 10))
	status, body, _ := d.post(housePath+"/edits", form)
	return status, body
}

func TestHouseEditsAnswerWithTheScreenAsItIs(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	status, body := d.change(p, url.Values{"op": {"colour.set"}, "token": {"accent"}, "value": {"oklch(45% 0.1 30)"}})
	h, version := p.house()
	if status != http.StatusOK || version != 2 || !strings.Contains(body, h.Swatch("accent").Value) ||
		h.Swatch("accent").Value == "#1d5f6b" {
		t.Errorf("%d, version %d, %s", status, version, h.Swatch("accent").Value)
	}
	// A problem names the field, keeps what was entered, and changes nothing.
	status, body = d.change(p, url.Values{"op": {"colour.set"}, "token": {"accent"}, "value": {"mauve <b>"}})
	if now, v := p.house(); status != http.StatusUnprocessableEntity || v != version ||
		now.Swatch("accent").Value != h.Swatch("accent").Value ||
		!strings.Contains(body, "Accent ") ||
		!strings.Contains(body, `value="mauve &lt;b&gt;"`) ||
		strings.Contains(body, "<b>") {
		t.Errorf("%d, version %d: %.300s", status, v, body)
	}
	// Against an old version nothing is changed either.
	if status, body, _ := d.post(
		housePath+"/edits",
		url.Values{"op": {"width.set"}, "value": {"900"}, "base": {"1"}},
	); status != http.StatusConflict || !strings.Contains(body, "at the same time") {
		t.Errorf("stale: %d", status)
	}
	for _, bad := range []url.Values{
		{"op": {"explode"}}, {"op": {"width.set"}, "value": {"NaN"}}, {"op": {"fonts.pair"}, "value": {"nothing"}}, {
			"op": {"colour.remove"}, "token": {"ground"},
		},
		{
			"op": {"type.set"}, "token": {"h1"},
			"name":  {"size nowhere"},
			"value": {"20"},
		}, {"op": {"colour.add"}, "name": {strings.Repeat("x", 41)}, "value": {"#fff"}},
	} {
		if status, body := d.change(p, bad); status != http.StatusUnprocessableEntity ||
			!strings.Contains(body, `class="problem"`) {
			t.Errorf("%v: %d", bad, status)
		}
	}
	if status, body, _ := d.post(housePath+"/undo", nil); status != http.StatusOK ||
		!strings.Contains(body, "#1d5f6b") {
		t.Errorf("undo: %d", status)
	}
	if _, body, _ := d.post(housePath+"/undo", nil); !strings.Contains(body, "nothing to undo") {
		t.Error("undo of nothing isn't said")
	}
}

// A colour that stands on a page can't be taken away.
func TestColoursInUseStay(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	if status, _ := d.change(p, url.Values{"op": {"colour.add"}, "name": {"Buoy"}, "value": {"#c22"}}); status != http.StatusOK {
		t.Fatal(status)
	}
	if status, body := d.edit(
		edit.Command{Op: "set", Node: p.page.Sections[0].ID, Zone: "desktop", Setting: "background", Value: "$buoy"},
	); status != http.StatusOK {
		t.Fatal(status, body)
	}
	if status, body := d.change(
		p,
		url.Values{"op": {"colour.remove"}, "token": {"buoy"}},
	); status != http.StatusUnprocessableEntity || !strings.Contains(body, "stands on one page") {
		t.Errorf("%d: %.200s", status, body)
	}
	if h, _ := p.house(); h.Swatch("buoy") == nil {
		t.Error("the colour is gone")
	}
}

func TestContrastsOfWhatIsTyped(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	for value, want := range map[string]string{"#767676": "4.54", "#000": "21.00", "not yet a colo": "7.24"} {
		status, body, _ := d.post(housePath+"/contrasts", url.Values{"token": {"accent"}, "value": {value}})
		if status != http.StatusOK || !strings.Contains(body, want) {
			t.Errorf("%s: %d, no %s in the table", value, status, want)
		}
	}
	if _, version := p.house(); version != 1 {
		t.Error("typing was kept")
	}
}

func upload(t *testing.T, d *person, path, name string, data []byte, fields map[string]string) (int, string) {
	t.Helper()
	status, body, _ := d.do(formWith(t, d, path, name, data, fields))
	return status, body
}

// uploaded is where one is led that uploads something.
func uploaded(t *testing.T, d *person, path, name string, data []byte, fields map[string]string) http.Header {
	t.Helper()
	status, body, h := d.do(formWith(t, d, path, name, data, fields))
	if status != http.StatusSeeOther {
		t.Fatalf("%d %.300s", status, body)
	}
	return h
}

// formWith is a form that brings a file.
func formWith(t *testing.T, d *person, path, name string, data []byte, fields map[string]string) *http.Request {
	t.Helper()
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	f, err := w.CreateFormFile("file", name)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := f.Write(data); err != nil {
		t.Fatal(err)
	}
	for k, v := range fields {
		if err := w.WriteField(k, v); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	r, err := http.NewRequest(http.MethodPost, d.app.URL+path, &b)
	if err != nil {
		t.Fatal(err)
	}
	r.Header.Set("Content-Type", w.FormDataContentType())
	return r
}

func TestPaletteFromAPicture(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	img := image.NewRGBA(image.Rect(0, 0, 60, 60))
	for i := range 60 * 60 {
		c := color.RGBA{20, 60, 120, 255}
		if i%3 == 0 {
			c = color.RGBA{220, 120, 40, 255}
		}
		img.SetRGBA(i%60, i/60, c)
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	if status, body := upload(t, d, "/sites/skerry/media", "stripes.png", b.Bytes(), nil); status != http.StatusOK {
		t.Fatal(status, body)
	}
	ms, err := p.store.Media.List(t.Context(), "w1")
	if err != nil || len(ms) != 1 {
		t.Fatal(err)
	}
	status, body, _ := d.post(housePath+"/palette", url.Values{"picture": {ms[0].ID}})
	if _, version := p.house(); status != http.StatusOK || version != 1 ||
		strings.Count(body, "<li><svg") != len(doc.Roles) {
		t.Errorf("%d, version %d, %d colours", status, version, strings.Count(body, "<li><svg"))
	}
	if status, _, _ := d.post(housePath+"/palette", url.Values{"picture": {ms[0].ID}, "take": {"1"}, "base": {"1"}}); status != http.StatusOK {
		t.Errorf("taking it: %d", status)
	}
	if h, version := p.house(); version != 2 || h.Swatch("accent").Value == doc.StandardHouse().Palette[4].Value {
		t.Errorf("version %d, accent %s", version, h.Swatch("accent").Value)
	}
	if status, _, _ := d.post(housePath+"/palette", url.Values{"picture": {"m-of-others"}}); status != http.StatusUnprocessableEntity {
		t.Errorf("another site's picture: %d", status)
	}
}

func TestHouseFiles(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	status, body, header := d.get(housePath + "/file")
	var f struct {
		Format string
		House  doc.House
	}
	if err := json.Unmarshal([]byte(body), &f); status != http.StatusOK || err != nil ||
		f.Format != carry.HouseFormat ||
		!strings.Contains(
			header.Get("Content-Disposition"),
			"skerry.house.json",
		) {
		t.Fatalf("%d, %v, %s", status, err, header.Get("Content-Disposition"))
	}
	if status, _ := d.change(p, url.Values{"op": {"colour.add"}, "name": {"Buoy"}, "value": {"#c22"}}); status != http.StatusOK {
		t.Fatal(status)
	}
	changed := strings.Replace(body, "#1d5f6b", "#224466", 1)
	if status, _ := upload(t, d, housePath+"/file", "a.house.json", []byte(changed), map[string]string{"base": "2"}); status != http.StatusOK {
		t.Errorf("taking it: %d", status)
	}
	if h, version := p.house(); version != 3 || h.Swatch("accent").Value != "#224466" || h.Swatch("buoy") == nil {
		t.Errorf("version %d, accent %s", version, h.Swatch("accent").Value)
	}
	for name, data := range map[string][]byte{"empty": {}, "a picture": []byte("\x89PNG"), "huge": bytes.Repeat([]byte(" "), 2*carry.MaxHouseFile)} {
		status, body := upload(t, d, housePath+"/file", "x.json", data, map[string]string{"base": "3"})
		if status != http.StatusUnprocessableEntity || !tellsOf(body, "File") {
			t.Errorf("%s: %d", name, status)
		}
	}
	if _, version := p.house(); version != 3 {
		t.Errorf("version %d after refused files", version)
	}
}

// What a fluid size comes to between the widest and the narrowest zone is said as it is there.
func TestFluidSizesAreSaidAsTheyAre(t *testing.T) {
	p := begin(t)
	_, body, _ := p.as("designer@example.org").get("/sites/skerry/house")
	for label, want := range map[string]string{"H1, size on Desktop": "46", "H1, size on Tablet": "39.6", "H1, size on Phone": "34"} {
		i := strings.Index(body, `aria-label="`+label+`"`)
		if i < 0 || !strings.Contains(body[i:i+200], `value="`+want+`"`) {
			t.Errorf("%s isn't %s: %s", label, want, oneLine(body[max(i, 0):max(i, 0)+200]))
		}
	}
}
