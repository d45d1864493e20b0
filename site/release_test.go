package site

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"image/png"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"openplot/core/doc"
	"openplot/core/tree"
	"openplot/postgres/postgrestest"
	"openplot/store"
)

// published is a site with three pages: home, fares and islands/skarva.
type published struct {
	*Publisher
	t  *testing.T
	st *store.Store
}

func begin(t *testing.T) *published {
	t.Helper()
	ctx := t.Context()
	st, err := store.Open(ctx, postgrestest.Database(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	p := &published{&Publisher{Dir: t.TempDir(), MediaDir: t.TempDir(), Hosts: Hosts{"http", "localhost:8081"}}, t, st}
	p.must(
		st.Sites.Add(
			ctx,
			&doc.Site{ID: "w", Slug: "skerry", Name: "Skerry", House: doc.StandardHouse(), Zones: doc.StandardZones()},
		),
	)
	for i, at := range []tree.Page{{ID: "h", Name: "Home"}, {ID: "f", Name: "Fares"}, {ID: "i", Name: "Islands"}, {ID: "s", Name: "Skarva", Parent: "i"}} {
		page := &doc.Page{
			ID:          at.ID,
			Name:        at.Name,
			Title:       at.Name + " title",
			Description: "About " + at.Name,
			Sections: []*doc.Section{{ID: "s" + at.ID, Blocks: []*doc.Block{
				{
					ID:   "m" + at.ID,
					Kind: "menu",
				}, {ID: "t" + at.ID, Kind: doc.Text, Content: doc.Content{Words: doc.Words{{{Text: "Go", Link: "/islands/skarva"}}}}},
			}}},
		}
		if i == 0 {
			p.must(st.Pages.Add(ctx, "w", "", 0, page))
			continue
		}
		p.must(st.Tree.Put(ctx, "w", page, func(t tree.Tree) (tree.Tree, error) { return t.Add(at, "") }))
	}
	return p
}

func (p *published) must(err error) {
	p.t.Helper()
	if err != nil {
		p.t.Fatal(err)
	}
}

func (p *published) source() Source {
	p.t.Helper()
	s, err := p.st.Sites.ByID(p.t.Context(), "w")
	p.must(err)
	src, err := ReadSource(p.t.Context(), p.st, s)
	p.must(err)
	return src
}

// order publishes pages by id, and withdraws those that begin with "-".
func (p *published) order(note string, ids ...string) error {
	p.t.Helper()
	o := Order{Note: note}
	for _, id := range ids {
		if gone, ok := strings.CutPrefix(id, "-"); ok {
			o.Withdraw = append(o.Withdraw, gone)
			continue
		}
		page, err := p.st.Pages.ByID(p.t.Context(), "w", id)
		p.must(err)
		o.Pages = append(o.Pages, page)
	}
	_, err := p.Publish(p.t.Context(), p.st, p.source(), o)
	return err
}

// shows is what the host shows: addresses of pages with their ids, and redirects.
func (p *published) shows() string {
	p.t.Helper()
	r, err := ReadRelease(os.DirFS(filepath.Join(p.Dir, "w")))
	p.must(err)
	var out []string
	for at, e := range r.Pages {
		out = append(out, "/"+at+"="+e.Page)
	}
	for from, to := range r.Moved {
		out = append(out, "/"+from+">/"+to)
	}
	slices.Sort(out)
	return strings.Join(out, " ")
}

func (p *published) read(address string) string {
	p.t.Helper()
	b, err := Read(os.DirFS(filepath.Join(p.Dir, "w")), address)
	p.must(err)
	return string(b)
}

func TestReleases(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	p.must(p.order("First", "h", "f"))
	if got := p.shows(); got != "/=h /fares=f" {
		t.Fatal(got)
	}
	if home := p.read(""); strings.Contains(home, ">Skarva<") || !strings.Contains(home, ">Fares<") {
		t.Error("the menu has a page that isn't published, or lacks one that is")
	}
	p.must(p.order("The islands", "i", "s"))
	home := p.read("")
	if got := p.shows(); got != "/=h /fares=f /islands/skarva=s /islands=i" || strings.Contains(home, "Skarva") {
		t.Errorf("publishing two pages changed another: %s", got)
	}
	infos, err := p.st.Pages.List(ctx, "w")
	p.must(err)
	if infos[0].PublishedSeq == nil || infos[3].PublishedLook == nil {
		t.Errorf("%+v", infos[0])
	}
	// A page that moves is where it was until it is published, and its address leads to it then.
	p.must(p.st.Tree.Rearrange(ctx, "w", func(t tree.Tree) (tree.Tree, error) { return t.SetAddress("i", "isles") }))
	if got := p.shows(); got != "/=h /fares=f /islands/skarva=s /islands=i" {
		t.Error(got)
	}
	p.must(p.order("Moved", "i"))
	if got := p.shows(); got != "/=h /fares=f /islands/skarva=s /islands>/isles /isles=i" {
		t.Error(got)
	}
	p.must(p.order("And the other", "s"))
	if got := p.shows(); got != "/=h /fares=f /islands/skarva>/isles/skarva /islands>/isles /isles/skarva=s /isles=i" {
		t.Error(got)
	}
	if !strings.Contains(p.read("isles/skarva"), `href="../../isles/"`) ||
		!strings.Contains(p.read("isles/skarva"), `"position":3`) {
		t.Error("addresses of a page two deep, or where it stands, are wrong")
	}
	var set struct {
		URLs []struct {
			Loc string `xml:"loc"`
		} `xml:"url"`
	}
	p.must(xml.Unmarshal([]byte(p.read("sitemap.xml")), &set))
	if len(set.URLs) != 4 || set.URLs[0].Loc != "http://skerry.localhost:8081/" ||
		set.URLs[3].Loc != "http://skerry.localhost:8081/isles/skarva/" {
		t.Errorf("site map: %+v", set)
	}
	p.must(p.order("Fewer", "-f", "-s"))
	if got := p.shows(); got != "/=h /islands>/isles /isles=i" {
		t.Error(got)
	}
	if found, err := p.st.Visible.Search(ctx, "w", "fares", 9); err != nil || len(found) != 0 {
		t.Errorf("what is withdrawn is found: %+v, %v", found, err)
	}
	// Back to the first, in one step; from there forward again.
	p.must(p.Back(ctx, p.st, p.source(), 1, ""))
	if got := p.shows(); got != "/=h /fares=f" || strings.Contains(p.read(""), ">Skarva<") {
		t.Error(got)
	}
	if infos, _ = p.st.Pages.List(ctx, "w"); infos[1].PublishedSeq == nil || infos[2].PublishedSeq != nil {
		t.Error("the pages don't say what is published")
	}
	rs, err := p.st.Releases.List(ctx, "w", 9)
	if err != nil || len(rs) != 6 || rs[0].Number != 6 || rs[0].Note != "Back to publication 1" ||
		rs[5].Note != "First" {
		t.Errorf("%+v, %v", rs, err)
	}
	p.must(p.Back(ctx, p.st, p.source(), 4, ""))
	if got := p.shows(); got != "/=h /fares=f /islands/skarva>/isles/skarva /islands>/isles /isles/skarva=s /isles=i" {
		t.Error(got)
	}
	// What was being shown when the program was stopped is put right by what the database says.
	folder := filepath.Join(p.Dir, "w")
	want := p.shows()
	p.must(os.WriteFile(filepath.Join(folder, releaseFile), []byte(`{"pages":{}}`), 0o600))
	p.must(p.Mend(ctx, p.st))
	if p.shows() != want {
		t.Errorf("not mended: %s", p.shows())
	}
}

// Where the disk has no room, or anything else fails, visitors see what they saw.
func TestFailedPublication(t *testing.T) {
	p := begin(t)
	p.must(p.order("First", "h"))
	was := p.shows()
	folder := filepath.Join(p.Dir, "w", contentFolder)
	p.must(os.Rename(folder, folder+"-away"))
	p.must(os.WriteFile(folder, nil, 0o600)) // nothing can be written there
	if err := p.order("Second", "f"); err == nil {
		t.Fatal("published into a file")
	}
	p.must(os.Remove(folder))
	p.must(os.Rename(folder+"-away", folder))
	if p.shows() != was {
		t.Errorf("%s", p.shows())
	}
	if infos, err := p.st.Pages.List(t.Context(), "w"); err != nil || infos[1].PublishedSeq != nil {
		t.Error("a page says that it is published that isn't")
	}
}

func TestExport(t *testing.T) {
	p := begin(t)
	var b bytes.Buffer
	if err := p.Export(&b, p.source()); err == nil {
		t.Error("nothing was exported")
	}
	p.must(p.order("All", "h", "f", "i", "s"))
	p.must(p.st.Tree.AddRedirect(t.Context(), "w", "/old/prices", "/fares"))
	p.must(p.Refresh(t.Context(), p.st, p.source()))
	b.Reset()
	p.must(p.Export(&b, p.source()))
	z, err := zip.NewReader(bytes.NewReader(b.Bytes()), int64(b.Len()))
	p.must(err)
	for _, name := range []string{"index.html", "fares/index.html", "islands/skarva/index.html", "old/prices/index.html", "404.html", "sitemap.xml", "robots.txt", "favicon.ico", "favicon.svg", "README.txt"} {
		f, err := z.Open(name)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		text, err := io.ReadAll(f)
		p.must(err)
		if name == "old/prices/index.html" && !bytes.Contains(text, []byte(`url=../../fares`)) {
			t.Errorf("%s", text)
		}
	}
	// All that the pages name is there.
	page, err := fs.ReadFile(z, "fares/index.html")
	p.must(err)
	for part := range strings.SplitSeq(string(page), `"../assets/`) {
		name, _, ok := strings.Cut(part, `"`)
		if ok && strings.Contains(name, ".woff2") {
			if _, err := z.Open("assets/" + name); err != nil {
				t.Errorf("assets/%s: %v", name, err)
			}
		}
	}
}

// A site that moves says where it went, until somebody takes its address.
func TestRename(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	p.must(p.order("All", "h", "f"))
	p.must(p.st.Sites.Rename(ctx, "w", "sound"))
	p.must(p.Again(ctx, p.st, "w"))
	if at, err := p.st.Hosts.AtAddress(ctx, "skerry"); err != nil || at.Site != "w" || at.Slug != "sound" {
		t.Errorf("%+v, %v", at, err)
	}
	if home := p.read(""); !strings.Contains(home, `href="http://sound.localhost:8081/"`) {
		t.Errorf("%.300s", home)
	}
	p.must(
		p.st.Sites.Add(
			ctx,
			&doc.Site{ID: "w2", Slug: "skerry", Name: "Other", House: doc.StandardHouse(), Zones: doc.StandardZones()},
		),
	)
	if at, err := p.st.Hosts.AtAddress(ctx, "skerry"); err != nil || at.Site != "w2" {
		t.Errorf("%+v, %v", at, err)
	}
}

// What was published in folders that were named by addresses is there after the first start, and
// old addresses lead on.
func TestFoldersByAddress(t *testing.T) {
	p := begin(t)
	ctx := t.Context()
	p.must(p.order("All", "h", "f"))
	was := p.read("fares")
	p.must(os.Rename(filepath.Join(p.Dir, "w"), filepath.Join(p.Dir, "skerry")))
	p.must(os.MkdirAll(filepath.Join(p.Dir, "boats"), 0o700))
	p.must(os.WriteFile(filepath.Join(p.Dir, "boats", "moved"), []byte("skerry"), 0o600))
	for range 2 {
		p.must(p.Mend(ctx, p.st))
		if p.read("fares") != was {
			t.Error("what was published is another, or gone")
		}
		if at, err := p.st.Hosts.AtAddress(ctx, "boats"); err != nil || at.Slug != "skerry" {
			t.Errorf("%+v, %v", at, err)
		}
	}
}

// Every icon is as large as it says, and drawn in two colours at least.
func TestIcons(t *testing.T) {
	p := begin(t)
	for _, icon := range []doc.SiteIcon{{}, {Letter: "Æ", Colour: "line"}, {Letter: "Sk"}, {Icon: "tsunami"}, {Letter: "水"}} {
		src := p.source()
		src.Site.Icon = icon
		files, err := siteIcons{p.Publisher}.iconFiles(src)
		p.must(err)
		for name, px := range iconSizes {
			img, err := png.Decode(bytes.NewReader(files[name]))
			p.must(err)
			if b := img.Bounds(); b.Dx() != px || b.Dy() != px {
				t.Errorf("%+v: %s has %v", icon, name, b)
			}
			r, g, b, _ := img.At(px/2, 3).RGBA()
			other := 0
			for x := range px {
				for y := range px {
					if r2, g2, b2, a := img.At(x, y).RGBA(); a > 60000 &&
						(r2>>12 != r>>12 || g2>>12 != g>>12 || b2>>12 != b>>12) {
						other++
					}
				}
			}
			if share := float64(other) / float64(px*px); share < 0.02 || share > 0.6 {
				t.Errorf("%+v: %.3f of %s is drawn on", icon, share, name)
			}
		}
		if ico := files[icoFile]; len(ico) < 30 || ico[2] != 1 || ico[6] != 32 ||
			!bytes.Equal(ico[22:26], []byte("\x89PNG")) {
			t.Errorf("%+v: favicon.ico begins %x", icon, ico[:26])
		}
	}
}

// What several people publish at the same time is all there afterwards.
func TestPublishedAtOnce(t *testing.T) {
	p := begin(t)
	src := p.source()
	for range 5 {
		p.must(p.order("None", "-h", "-f", "-i", "-s"))
		errs := make(chan error)
		for _, info := range src.Pages {
			go func() {
				page, err := p.st.Pages.ByID(t.Context(), "w", info.ID)
				if err == nil {
					_, err = p.Publish(t.Context(), p.st, src, Order{Pages: []*store.Page{page}, Note: info.Name})
				}
				errs <- err
			}()
		}
		for range src.Pages {
			p.must(<-errs)
		}
		if got := p.shows(); got != "/=h /fares=f /islands/skarva=s /islands=i" {
			t.Fatal(got)
		}
	}
}
