package tree

import (
	"errors"
	"math/rand/v2"
	"slices"
	"strconv"
	"strings"
	"testing"

	"openplot/core/doc"
)

// site is a tree of a few pages: home, fares, islands with skarva and langey, crew.
func site() Tree {
	return Sorted([]Page{
		{"h", "", "", "Home"},
		{"f", "", "fares", "Fares"},
		{"i", "", "islands", "Islands"},
		{"c", "", "crew", "Crew"},
		{"s", "i", "islands/skarva", "Skarva"},
		{"l", "i", "islands/langey", "Langey"},
	})
}

// shape writes a tree as "id:address" with a dot for each page it stands under.
func shape(t Tree) string {
	var b []string
	depths := t.Depths()
	for i, p := range t {
		if t.Depth(p.ID) != depths[i] {
			panic("depths of one page differ")
		}
		b = append(b, strings.Repeat(".", depths[i])+p.ID+":"+p.Address)
	}
	return strings.Join(b, " ")
}

func TestTree(t *testing.T) {
	for _, tt := range []struct {
		name string
		do   func(Tree) (Tree, error)
		want string // the tree, or what the problem says
	}{
		{"as it is", func(t Tree) (Tree, error) { return t, nil }, "h: f:fares i:islands .s:islands/skarva .l:islands/langey c:crew"},
		{"to the end of another", func(t Tree) (Tree, error) { return t.Move("f", "i", "l") }, "h: i:islands .s:islands/skarva .l:islands/langey .f:islands/fares c:crew"},
		{"to the beginning of another", func(t Tree) (Tree, error) { return t.Move("c", "i", "") }, "h: f:fares i:islands .c:islands/crew .s:islands/skarva .l:islands/langey"},
		{"out again", func(t Tree) (Tree, error) { return t.Move("l", "", "h") }, "h: l:langey f:fares i:islands .s:islands/skarva c:crew"},
		{"with what is under it", func(t Tree) (Tree, error) { return t.Move("i", "c", "") }, "h: f:fares c:crew .i:crew/islands ..s:crew/islands/skarva ..l:crew/islands/langey"},
		{"under itself", func(t Tree) (Tree, error) { return t.Move("i", "i", "") }, "under itself"},
		{"under its own child", func(t Tree) (Tree, error) { return t.Move("i", "s", "") }, "under itself"},
		{"home under another", func(t Tree) (Tree, error) { return t.Move("h", "i", "") }, "home page"},
		{"under home", func(t Tree) (Tree, error) { return t.Move("f", "h", "") }, "under the home page"},
		{"nowhere", func(t Tree) (Tree, error) { return t.Move("f", "x", "") }, "isn't on this site"},
		{"behind what isn't there", func(t Tree) (Tree, error) { return t.Move("f", "", "s") }, "moved since"},
		{"up", func(t Tree) (Tree, error) { return t.Step("c", Up) }, "h: f:fares c:crew i:islands .s:islands/skarva .l:islands/langey"},
		{"up to the front", func(t Tree) (Tree, error) { return t.Step("f", Up) }, "f:fares h: i:islands .s:islands/skarva .l:islands/langey c:crew"},
		{"up at the front", func(t Tree) (Tree, error) { return t.Step("h", Up) }, "h: f:fares i:islands .s:islands/skarva .l:islands/langey c:crew"},
		{"down over a branch", func(t Tree) (Tree, error) { return t.Step("f", Down) }, "h: i:islands .s:islands/skarva .l:islands/langey f:fares c:crew"},
		{"in", func(t Tree) (Tree, error) { return t.Step("c", In) }, "h: f:fares i:islands .s:islands/skarva .l:islands/langey .c:islands/crew"},
		{"out", func(t Tree) (Tree, error) { return t.Step("s", Out) }, "h: f:fares i:islands .l:islands/langey s:skarva c:crew"},
		{"another word", func(t Tree) (Tree, error) { return t.SetAddress("i", "isles") }, "h: f:fares i:isles .s:isles/skarva .l:isles/langey c:crew"},
		{"a word of a sibling", func(t Tree) (Tree, error) { return t.SetAddress("i", "crew") }, "“Crew” is already"},
		{"a word that is reserved", func(t Tree) (Tree, error) { return t.SetAddress("i", "assets") }, "means something else"},
		{"reserved words are free deeper", func(t Tree) (Tree, error) { return t.SetAddress("s", "media") }, "h: f:fares i:islands .s:islands/media .l:islands/langey c:crew"},
		{"home's own", func(t Tree) (Tree, error) { return t.SetAddress("h", "start") }, "home page"},
		{"another home", func(t Tree) (Tree, error) { return t.MakeHome("f") }, "f: h:home-2 i:islands .s:islands/skarva .l:islands/langey c:crew"},
		{"one from below", func(t Tree) (Tree, error) { return t.MakeHome("s") }, "s: h:home-2 f:fares i:islands .l:islands/langey c:crew"},
		{"one that has pages", func(t Tree) (Tree, error) { return t.MakeHome("i") }, "has pages under it"},
		{"removed with its branch", func(t Tree) (Tree, error) { return t.Remove("i") }, "h: f:fares c:crew"},
		{"home removed", func(t Tree) (Tree, error) { return t.Remove("h") }, "can't be deleted"},
		{"added", func(t Tree) (Tree, error) { return t.Add(Page{ID: "n", Parent: "i", Name: "Inner Holm"}, "") }, "h: f:fares i:islands .s:islands/skarva .l:islands/langey .n:islands/inner-holm c:crew"},
		{"added twice", func(t Tree) (Tree, error) { return t.Add(Page{ID: "n", Name: "Crew"}, "") }, "h: f:fares i:islands .s:islands/skarva .l:islands/langey c:crew n:crew-2"},
		{"added where one is", func(t Tree) (Tree, error) { return t.Add(Page{ID: "n", Name: "Crew"}, "crew") }, "is already"},
	} {
		before := site()
		got, err := tt.do(before)
		if shape(before) != shape(site()) {
			t.Errorf("%s: the tree given was changed: %s", tt.name, shape(before))
		}
		if err != nil {
			var p *doc.Problem
			if !errors.As(err, &p) || !strings.Contains(p.Sentence(), tt.want) {
				t.Errorf("%s: %v", tt.name, err)
			}
			continue
		}
		if shape(got) != tt.want {
			t.Errorf("%s:\n%s, want\n%s", tt.name, shape(got), tt.want)
		}
	}
}

// Names in every script give addresses, or the problem shows one that would do.
func TestAddresses(t *testing.T) {
	free := func(string) bool { return false }
	for name, want := range map[string]string{
		"Fährpläne & Preise": "fahrplane-and-preise", "Расписание": "raspisanie", "時刻表": "shi-ke-biao", "Ωράριο": "orario", "جدول": "jdwl", "🛥️": "page",
		"": "page", strings.Repeat("winter ", 60): strings.TrimSuffix(strings.Repeat("winter-", 8), "-"),
	} {
		if got := Fresh(name, "page", free); got != want &&
			(want == "page" || !segmentPattern.MatchString(got) || len(got) > maxSegment) {
			t.Errorf("%q: %q, want %q", name, got, want)
		}
	}
	taken := map[string]bool{"fares": true, "fares-2": true}
	for name, want := range map[string]string{
		"Über uns": "uber-uns", "  Winter  weekend! ": "winter-weekend", "Fares": "fares-3", "Цены": "tseny", "Crème brûlée & tea": "creme-brulee-and-tea", "!?": "",
	} {
		if got := Slug(name, func(s string) bool { return taken[s] }); got != want {
			t.Errorf("%q gives %q, want %q", name, got, want)
		}
	}
	for _, name := range []string{"Assets", "Home", "Try", "Media"} {
		if got := Fresh(name, "page", site().Taken("")); doc.PageReserved(got) {
			t.Errorf("the name gives the address %s", got)
		}
	}
	for _, s := range []string{"", "-", "a--b", "A", "a b", "a/b", "..", "fähre", "日本", "%2e%2e", "a\x00", "\xff", strings.Repeat("a", 300), "a.html", "-a", "a-"} {
		var p *doc.Problem
		if err := CheckSegment(s); !errors.As(err, &p) || p.Field != "Address" {
			t.Errorf("%q: %v", s, err)
		}
	}
	for _, s := range []string{"a", "2026", "winter-fares", strings.Repeat("a", 60)} {
		if err := CheckSegment(s); err != nil {
			t.Errorf("%q: %v", s, err)
		}
	}
}

// Whatever is done, each page is there once, behind the one that it stands under, with an
// address of its own that begins with that one's; and there is one home page.
func TestTreeStaysOne(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 4))
	tr := site()
	done := 0
	for n := range 4000 {
		id, other := tr[r.IntN(len(tr))].ID, append(tr, Page{})[r.IntN(len(tr)+1)].ID
		var next Tree
		var err error
		switch r.IntN(7) {
		case 0:
			next, err = tr.Add(Page{ID: "n" + strconv.Itoa(n), Parent: other, Name: "Page " + strconv.Itoa(n%7)}, "")
		case 1:
			next, err = tr.SetAddress(id, "w"+strconv.Itoa(r.IntN(9)))
		case 2:
			next, err = tr.MakeHome(id)
		case 3:
			if len(tr) > 8 {
				next, err = tr.Remove(id)
			} else {
				next = tr
			}
		case 4:
			next, err = tr.Step(id, []Direction{Up, Down, In, Out}[r.IntN(4)])
		default:
			after := ""
			if under := tr.Children(other); len(under) > 0 {
				after = under[r.IntN(len(under))].ID
			}
			next, err = tr.Move(id, other, after)
		}
		if err != nil {
			var p *doc.Problem
			if !errors.As(err, &p) {
				t.Fatal(err)
			}
			continue
		}
		done++
		seen, addresses := map[string]string{}, map[string]bool{}
		for _, p := range next {
			_, twice := seen[p.ID]
			above, there := seen[p.Parent]
			if twice || addresses[p.Address] ||
				p.Parent != "" && (!there || !strings.HasPrefix(p.Address, above+"/") || above == "") {
				t.Fatalf("%d: %s", n, shape(next))
			}
			seen[p.ID], addresses[p.Address] = p.Address, true
		}
		if !addresses[""] || !slices.Equal(next, Sorted(next)) {
			t.Fatalf("%d: %s", n, shape(next))
		}
		tr = next
	}
	if done < 1500 {
		t.Errorf("only %d of 4000 did anything", done)
	}
}

func TestMoved(t *testing.T) {
	was := site()
	next, err := was.SetAddress("i", "isles")
	if err != nil {
		t.Fatal(err)
	}
	moved := was.Moved(next)
	if len(moved) != 3 || moved["islands"] != "isles" || moved["islands/skarva"] != "isles/skarva" {
		t.Errorf("%v", moved)
	}
}

func TestRedirects(t *testing.T) {
	tr := site()
	r := Redirects{"a": "b", "b": "fares"}
	for _, tt := range []struct{ from, to, want string }{
		{"/old", "/fares", "fares"},
		{"old/prices/", "/fares/?x=1#top", "fares?x=1#top"},
		{"/old", "https://example.org/x", "https://example.org/x"},
		{"/old", "/a", "a"},
		{"/fares", "/crew", "a page that is there"},
		{"/b", "/a", "leads back"},
		{"/x", "/x", "leads back"},
		{"/x", "crew", "begin one of this site"},
		{"/x", "javascript:1", "begin one of this site"},
		{"/x", "//elsewhere.example", "another host"},
		{"/x", "///elsewhere.example", "another host"},
		{"/x", "/crew\r\nSet-Cookie: a=b", "line breaks"},
		{"/x", "https://example.org/\n", "https://example.org/"},
		{"/x", "https://example.org/a\nb", "line breaks"},
		{"/x", "https://", "write it as"},
		{"/x", "https://somebody@example.org/", "write it as"},
		{"/x", "https://example.org/" + strings.Repeat("x", 1500), "at most"},
		{"/x\ny", "/crew", "as it stood"},
		{"", "/crew", "as it stood"},
		{"/a b", "/crew", "as it stood"},
	} {
		got, err := r.Add(tr, tt.from, tt.to)
		if err != nil {
			if !strings.Contains(err.Error(), tt.want) {
				t.Errorf("%s to %s: %v", tt.from, tt.to, err)
			}
			continue
		}
		if to := got[strings.Trim(tt.from, "/")]; to != tt.want || len(r) != 2 {
			t.Errorf("%s to %s: %q", tt.from, tt.to, to)
		}
	}
}
