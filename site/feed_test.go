package site

import (
	"encoding/json"
	"encoding/xml"
	"slices"
	"testing"
	"time"

	"openplot/core/doc"
	"openplot/store"
)

// The feed has, newest first, the pages in categories that everybody may read and that visitors see,
// with what RFC 4287 §4.1 asks of a feed and its entries; pages that list others lead to it.
func TestNewsAreAFeed(t *testing.T) {
	day := func(n int) time.Time { return time.Date(2027, 3, n, 8, 0, 0, 0, time.UTC) }
	news := []string{"News"}
	src := Source{Site: skerry(), Pages: []*store.PageInfo{
		{ID: "fog", Name: "Fog at <noon>", Description: "No boat till two.", Categories: news},
		{ID: "ice", Name: "Ice", Categories: news}, {ID: "draft", Name: "Not yet", Categories: news},
		{ID: "locked", Name: "Secret", Categories: news, Lock: "x"}, {ID: "fares", Name: "Fares"},
		{ID: "unlisted", Name: "Unlisted", Categories: news},
	}}
	r := &Release{Pages: map[string]*Entry{
		"news/fog": {Page: "fog", Since: day(1)}, "news/ice": {Page: "ice", Since: day(2)},
		"secret": {Page: "locked", Since: day(3)}, "fares": {Page: "fares", Since: day(4)},
		"hidden": {Page: "unlisted", Since: day(5), Hidden: true},
	}}
	text, err := src.feed(r, "https://skerry.example")
	if err != nil {
		t.Fatal(err)
	}
	var got struct {
		XMLName xml.Name `xml:"http://www.w3.org/2005/Atom feed"`
		ID      string   `xml:"id"`
		Title   string   `xml:"title"`
		Updated string   `xml:"updated"`
		Author  string   `xml:"author>name"`
		Entries []struct {
			ID      string `xml:"id"`
			Title   string `xml:"title"`
			Updated string `xml:"updated"`
			Summary string `xml:"summary"`
		} `xml:"entry"`
	}
	if err := xml.Unmarshal([]byte(text), &got); err != nil {
		t.Fatalf("%v in\n%s", err, text)
	}
	var told []string
	for _, e := range got.Entries {
		told = append(told, e.Title+" "+e.ID+" "+e.Updated+" "+e.Summary)
	}
	want := []string{
		"Ice https://skerry.example/news/ice/ 2027-03-02T08:00:00Z ",
		"Fog at <noon> https://skerry.example/news/fog/ 2027-03-01T08:00:00Z No boat till two.",
	}
	if !slices.Equal(told, want) {
		t.Errorf("the feed tells\n%q, want\n%q", told, want)
	}
	if got.ID != "https://skerry.example/" || got.Title != "Skerry Line" || got.Author != "Skerry Line" ||
		got.Updated != "2027-03-02T08:00:00Z" {
		t.Errorf("the feed is %+v", got)
	}
	lists := &doc.Page{Sections: []*doc.Section{{Blocks: []*doc.Block{{Kind: doc.PageList}}}}}
	if l := src.feedLink(lists, "../"); len(l) != 1 || l[0].Href != "../feed.xml" || l[0].Rel != "alternate" {
		t.Errorf("a page that lists others leads to %+v", l)
	}
	if l := src.feedLink(&doc.Page{}, "../"); l != nil {
		t.Errorf("a page that lists none leads to %+v", l)
	}
	src.Pages = src.Pages[3:5]
	if l := src.feedLink(lists, "../"); l != nil {
		t.Errorf("where there are no news, %+v leads to them", l)
	}
}

// A page tells what it is about by https://schema.org: an Event has a name, a time and a place, an
// Article a headline and who publishes it; others tell nothing.
func TestPagesTellWhatTheyAreAbout(t *testing.T) {
	site := skerry()
	site.Facts.Address = "1 North Steps"
	src := Source{Site: site}
	counts := func(until string) []*doc.Section {
		return []*doc.Section{{Blocks: []*doc.Block{{
			Kind: doc.Countdown, Content: doc.Content{Values: map[string]string{"until": until, "zone": "Europe/Berlin"}},
		}}}}
	}
	for _, c := range []struct {
		page doc.Page
		want string
	}{
		{
			doc.Page{Name: "Regatta", Description: "Boats race.", Sections: counts("2027-06-01T18:00")},
			`{"@type":"Event","description":"Boats race.","location":{"@type":"Place","address":"1 North Steps","name":"Skerry Line"},` +
				`"name":"Regatta","startDate":"2027-06-01T18:00+02:00","url":"https://skerry.example/p/"}`,
		},
		{
			doc.Page{Name: "Fog", Categories: []string{"News"}},
			`{"@type":"Article","articleSection":["News"],"headline":"Fog","inLanguage":"en",` +
				`"publisher":{"@type":"Organization","name":"Skerry Line"},"url":"https://skerry.example/p/"}`,
		},
		{doc.Page{Name: "Fares", Sections: counts("soon")}, "null"},
	} {
		got, err := json.Marshal(src.about("p", &c.page, Addresses{Self: "https://skerry.example/p/"}))
		if err != nil || string(got) != c.want {
			t.Errorf("%s is %s, want %s (%v)", c.page.Name, got, c.want, err)
		}
	}
}
