package web

import (
	"bytes"
	"errors"
	"image"
	"image/color"
	"image/png"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/at-wat/ebml-go"
	"github.com/at-wat/ebml-go/webm"

	"openplot/core/doc"
	"openplot/core/edit"
	"openplot/jobs"
	"openplot/media"
	"openplot/store"
)

const libraryPath = "/sites/skerry/library"

// noise is a picture that isn't trivial to encode.
func noise(t *testing.T, w, h int) []byte {
	t.Helper()
	img := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			img.Set(x, y, color.NRGBA{uint8(x / 3), uint8(y / 2), uint8((x*y)>>7) & 63, 255})
		}
	}
	return encoded(t, img)
}

func encoded(t *testing.T, img image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func film(t *testing.T) []byte {
	t.Helper()
	var b bytes.Buffer
	file := struct {
		Header  webm.EBMLHeader `ebml:"EBML"`
		Segment struct {
			Info   webm.Info   `ebml:"Info"`
			Tracks webm.Tracks `ebml:"Tracks"`
		} `ebml:"Segment"`
	}{Header: *webm.DefaultEBMLHeader}
	file.Segment.Info = *webm.DefaultSegmentInfo
	file.Segment.Tracks.TrackEntry = []webm.TrackEntry{
		{
			TrackNumber: 1,
			TrackUID:    1,
			CodecID:     "V_VP8",
			TrackType:   1,
			Video:       &webm.Video{PixelWidth: 320, PixelHeight: 180},
		},
	}
	if err := ebml.Marshal(&file, &b); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func (p *studio) media() []*store.Medium {
	p.t.Helper()
	ms, err := p.store.Media.List(p.t.Context(), "w1")
	if err != nil {
		p.t.Fatal(err)
	}
	return ms
}

// Copies are made in the background, and a page that was published before gets them, just
// as it was published.
func TestCopiesAreMadeInTheBackground(t *testing.T) {
	p := begin(t)
	p.server.Pictures = media.NewKeeper(p.store, p.server.MediaDir, media.DefaultQuota) // in AVIF too
	d := p.as("designer@example.org")
	if status, body := upload(
		t, d, libraryPath, "hills.png", noise(t, 1000, 600), nil,
	); status != http.StatusOK || !strings.Contains(body, "copy 1 of") {
		t.Fatalf("%d %s", status, body)
	}
	m := p.media()[0]
	if len(m.Variants) != 1 || m.CopiesLeft != 13 {
		t.Fatalf("%+v", m)
	}
	if err := p.server.Pictures.Finish(
		t.Context(), store.MakeCopies{Site: "w1", Medium: m.ID, Original: m.Original, Modern: true},
	); err != nil || p.media()[0].CopiesLeft != 13 {
		t.Errorf("AVIF before WebP: %v, %d left", err, p.media()[0].CopiesLeft)
	}
	sec := p.page.Sections[0].ID
	if status, body := d.edit(edit.Command{Op: "section.picture", Node: sec, Value: m.ID}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	if _, body, _ := d.post("/sites/skerry/pages/home/publish", nil); !strings.Contains(
		body,
		"Copies of pictures are still being made",
	) {
		t.Errorf("published with one copy, and didn't say so: %.300s", body)
	}
	published := func() (files map[string]bool, html string) {
		_, html, _ = p.visit(http.MethodGet, "/", nil)
		_, sheet, _ := strings.Cut(html, `rel="stylesheet" href="`)
		sheet, _, _ = strings.Cut(sheet, `"`)
		_, css, _ := p.visit(http.MethodGet, "/"+sheet, nil)
		files = map[string]bool{}
		for _, name := range regexp.MustCompile(
			regexp.QuoteMeta(strings.TrimSuffix(m.Original, media.OriginalMark))+`-\d+\.(webp|avif)`,
		).FindAllString(html+css, -1) {
			files[name] = true
		}
		return files, html
	}
	if files, _ := published(); len(files) != 1 {
		t.Errorf("published with %v", files)
	}
	// What is changed here afterwards stays here.
	if status, body := d.edit(edit.Command{Op: "page.set", Setting: "description", Value: "Not yet for visitors"}); status != http.StatusOK {
		t.Fatal(status, body)
	}
	if status, _ := d.change(p, url.Values{"op": {"colour.set"}, "token": {"words"}, "value": {"#010203"}}); status != http.StatusOK {
		t.Fatal(status)
	}
	stop, err := jobs.Run(t.Context(), p.tasks())
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = stop(t.Context()) }()
	for m = p.media()[0]; m.CopiesLeft > 0; m = p.media()[0] {
		time.Sleep(100 * time.Millisecond)
	}
	var files map[string]bool
	var html string
	widest := m.Variants[len(m.Variants)-1].File
	for range 600 { // the page follows a moment after the last copy
		if files, html = published(); files[widest] {
			break
		}
		time.Sleep(100 * time.Millisecond)
	}
	for _, v := range m.Variants {
		if v.Width != 720 && v.Width != 1000 { // the others suit no zone
			continue
		}
		if !files[v.File] {
			t.Errorf("the page lacks %s of %d", v.File, len(m.Variants))
		}
		if status, _, _ := p.visit(http.MethodGet, "/assets/media/"+v.File, nil); status != http.StatusOK {
			t.Errorf("%s: %d", v.File, status)
		}
	}
	if strings.Contains(html, "Not yet for visitors") {
		t.Error("what was edited since is published")
	}
	if !strings.Contains(html, "<style>") || strings.Contains(html, "#010203") {
		t.Error("the house style's change is published")
	}

	webps, avifs := 0, 0
	for i, v := range m.Variants {
		if v.Modern() {
			avifs++
		} else if webps++; avifs > 0 || i > 0 && m.Variants[i-1].Width >= v.Width {
			t.Errorf("out of order: %+v", m.Variants)
		}
		if _, err := os.Stat(filepath.Join(p.server.MediaDir, v.File)); err != nil {
			t.Error(err)
		}
	}
	if webps != 7 || m.CopiesLeft != 0 {
		t.Errorf("%d copies in WebP, %d left", webps, m.CopiesLeft)
	}
	if _, body, _ := d.get(libraryPath + "/" + m.ID + "/copies"); strings.Contains(body, "hx-get") ||
		!strings.Contains(body, "copies") {
		t.Errorf("still asks for more: %s", body)
	}
	// What is done twice changes nothing, and a job of another original does nothing.
	for _, original := range []string{m.Original, "another"} {
		if err := p.server.Pictures.Finish(t.Context(), store.MakeCopies{Site: "w1", Medium: m.ID, Original: original}); err != nil {
			t.Error(err)
		}
	}
	if err := p.store.Releases.Renew(t.Context(), "w1", m.Original, true, func([]byte) ([]byte, error) { return nil, errors.New("an edition is left") }, store.Change{}); err != nil {
		t.Error(err)
	}
	if again := p.media()[0]; len(again.Variants) != len(m.Variants) {
		t.Errorf("%d variants, then %d", len(m.Variants), len(again.Variants))
	}
}

func TestStockPicturesAreTaken(t *testing.T) {
	p := begin(t)
	d := p.as("writer@example.org")
	if status, body, _ := d.get("/stock/meadow.png"); status != http.StatusOK || !strings.HasPrefix(body, "\x89PNG") {
		t.Errorf("%d", status)
	}
	if status, _, _ := d.get("/stock/none.png"); status != http.StatusNotFound {
		t.Errorf("what doesn't ship: %d", status)
	}
	// From the Bench one comes with the command that shows it, and chosen again it is the same one.
	for _, sec := range p.page.Sections[:2] {
		status, body := p.as("designer@example.org").edit(edit.Command{
			Op: "section.picture", Node: sec.ID, Value: edit.StockPrefix + "discs",
		})
		if ms := p.media(); status != http.StatusOK || len(ms) != 1 || ms[0].Alt == "" || ms[0].Width != 1600 {
			t.Fatalf("%d %.200s %+v", status, body, ms)
		}
	}
	status, _, _ := d.post(libraryPath+"/stock", url.Values{"id": {"discs"}})
	if ms := p.media(); status != http.StatusOK || len(ms) != 1 {
		t.Fatalf("%d %+v", status, ms)
	}
	if status, body, _ := d.post(
		libraryPath+"/stock",
		url.Values{"id": {"paper"}},
	); status != http.StatusOK || !strings.Contains(body, "library-item") {
		t.Errorf("%d", status)
	}
	if status, _, _ := d.post(libraryPath+"/stock", url.Values{"id": {"gold"}}); status != http.StatusUnprocessableEntity {
		t.Errorf("what doesn't ship: %d", status)
	}
}

func TestVideos(t *testing.T) {
	p := begin(t)
	d := p.as("designer@example.org")
	if status, body := upload(t, d, libraryPath, "film.webm", film(t), nil); status != http.StatusOK ||
		!strings.Contains(body, "<video") {
		t.Fatalf("%d %s", status, body)
	}
	m := p.media()[0]
	_, pictures, _ := d.get("/sites/skerry/media")
	_, videos, _ := d.get("/sites/skerry/media?sort=video")
	if strings.Contains(pictures, m.ID) || !strings.Contains(videos, m.ID) {
		t.Error("videos and pictures are chosen apart")
	}
	sec := p.page.Sections[0].ID
	for _, c := range []edit.Command{{Op: "section.picture", Node: sec, Value: m.ID}, {Op: "section.video", Node: sec, Value: "m-none"}} {
		if status, body := d.edit(c); status != http.StatusUnprocessableEntity {
			t.Errorf("%s: %d %.200s", c.Op, status, body)
		}
	}
	if status, body := d.edit(edit.Command{
		Op: "section.video", Node: sec, Value: m.ID,
	}); status != http.StatusOK || !strings.Contains(body, "video") {
		t.Errorf("%d %.200s", status, body)
	}
	if status, body := d.edit(edit.Command{Op: "block.add", Node: sec, Zone: "desktop", Kind: doc.Video}); status != http.StatusOK {
		t.Fatalf("%d %.200s", status, body)
	}
	page, err := p.store.Pages.At(t.Context(), "w1", "")
	if err != nil {
		t.Fatal(err)
	}
	blocks := page.Doc.Sections[0].Blocks
	id := blocks[len(blocks)-1].ID
	for name, value := range map[string]string{"video": m.ID, "plays": "loop"} {
		if page, err = p.store.Pages.At(t.Context(), "w1", ""); err != nil {
			t.Fatal(err)
		}
		if status, body := d.edit(edit.Command{Op: "block.content", Node: id, Setting: name, Value: value, Base: page.Seq}); status != http.StatusOK {
			t.Fatalf("%s: %d %.200s", name, status, body)
		}
	}
	if status, _, _ := d.post("/sites/skerry/pages/home/publish", nil); status != http.StatusOK {
		t.Fatal(status)
	}
	_, html, h := p.visit(http.MethodGet, "/", nil)
	if strings.Count(html, "<video") != 2 || strings.Count(html, `hidden="">Pause<`) != 2 ||
		!strings.Contains(html, "assets/video-") {
		t.Errorf("published: %s", html)
	}
	if csp := h.Get("Content-Security-Policy"); !strings.Contains(csp, "media-src 'self'") ||
		strings.Contains(csp, "'unsafe") {
		t.Errorf("policy %s", csp)
	}
	if status, _, h := p.visit(
		http.MethodGet, "/assets/media/"+m.Variants[0].File, nil,
	); status != http.StatusOK || h.Get("Content-Type") != "video/webm" {
		t.Errorf("the file: %d %s", status, h.Get("Content-Type"))
	}
}
