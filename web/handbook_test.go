package web

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"maps"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"openplot/docs"
	"openplot/web/model"
)

// ids are the identifiers that an HTML document gives its elements.
var ids = regexp.MustCompile(` id="([^"]+)"`)

// Every chapter is shown, and what it leads to is there: chapters, headings in them, and pictures;
// likewise what the Tray leads to.
func TestHandbookLeadsToWhatIsThere(t *testing.T) {
	s := begin(t).as("designer@example.org")
	files, err := fs.Glob(docs.Files, "handbook/*.md")
	if err != nil || len(files) != 14 {
		t.Fatalf("%d chapters, %v", len(files), err)
	}
	anchors := map[string][]string{} // by chapter
	var links []string
	for _, file := range files {
		at := "/handbook/" + strings.TrimSuffix(filepath.Base(file), ".md")
		status, body, _ := s.get(at)
		if status != http.StatusOK {
			t.Fatalf("%s answers %d", at, status)
		}
		anchors[at] = []string{""}
		for _, m := range ids.FindAllStringSubmatch(body, -1) {
			anchors[at] = append(anchors[at], m[1])
		}
		_, article, _ := strings.Cut(body, "<article>")
		article, _, _ = strings.Cut(article, "</article>")
		for _, m := range regexp.MustCompile(`(?:href|src)="([^"]+)"`).FindAllStringSubmatch(article, -1) {
			links = append(links, m[1])
		}
	}
	if len(links) < 20 {
		t.Fatalf("only %d links", len(links))
	}
	for _, link := range slices.Concat(links, model.Helps()) {
		at, anchor, _ := strings.Cut(link, "#")
		if status, _, _ := s.get(at); status != http.StatusOK {
			t.Errorf("%s answers %d", link, status)
		}
		if there, is := anchors[at]; is && !slices.Contains(there, anchor) {
			t.Errorf("%s leads to no heading of %s", link, at)
		}
	}
	for _, of := range []struct{ path, want string }{
		{"/handbook?q=focal+point", `href="/handbook/pictures#focal-point-and-shape"`},
		{"/handbook?q=%3Cb%3Exyzzy", "Nothing in the handbook has “&lt;b&gt;xyzzy”"},
		{"/handbook/parts", `"address":"/handbook/widths#zones"`},
		{"/handbook", "Your first page"},
	} {
		if _, body, _ := s.get(of.path); !strings.Contains(body, of.want) {
			t.Errorf("%s doesn't have %s", of.path, of.want)
		}
	}
	for _, path := range []string{"/handbook/nowhere", "/handbook/pictures/nowhere.png", "/handbook/pictures/..%2fdocs.go"} {
		if status, _, _ := s.get(path); status != http.StatusNotFound {
			t.Errorf("%s answers %d", path, status)
		}
	}
}

// labels are all texts of the interface: what stands between the tags of templates and in their
// attributes, and the strings of the code that makes parts of it.
func labels(t *testing.T) map[string]bool {
	t.Helper()
	all := map[string]bool{}
	add := func(text string) {
		text = regexp.MustCompile(`\{\{[^}]*\}\}`).ReplaceAllString(text, "\x00")
		for part := range strings.SplitSeq(text, "\x00") {
			part = strings.TrimRight(strings.Join(strings.Fields(part), " "), ":… ")
			all[part] = true
		}
	}
	inHTML := regexp.MustCompile(`>([^<>]+)<|(?:aria-label|title|placeholder)="([^"]+)"`)
	inJS := regexp.MustCompile("['`]([^'`\n]+)['`]")
	for _, root := range []string{".", "../core", "../store"} {
		err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || strings.HasSuffix(path, "_test.go") || strings.Contains(path, "vendor") ||
				strings.Contains(path, "handbook") {
				return err
			}
			source, err := os.ReadFile(path)
			if err != nil {
				return err
			}
			switch filepath.Ext(path) {
			case ".html":
				plain := regexp.MustCompile(`\{\{[^}]*\}\}`).ReplaceAllString(string(source), "\x00")
				for _, m := range inHTML.FindAllStringSubmatch(plain, -1) {
					add(m[1])
					add(m[2])
				}
			case ".js":
				for _, m := range inJS.FindAllStringSubmatch(string(source), -1) {
					add(m[1])
				}
			case ".go":
				f, err := parser.ParseFile(token.NewFileSet(), path, source, 0)
				if err != nil {
					return err
				}
				ast.Inspect(f, func(n ast.Node) bool {
					if lit, ok := n.(*ast.BasicLit); ok && lit.Kind == token.STRING {
						if text, err := strconv.Unquote(lit.Value); err == nil {
							add(text)
						}
					}
					return true
				})
			}
			return nil
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	return all
}

// What the handbook calls a label (in bold) is one, letter by letter.
func TestHandbookNamesWhatIsThere(t *testing.T) {
	t.Parallel()
	there := labels(t)
	files, err := fs.Glob(docs.Files, "handbook/*.md")
	if err != nil {
		t.Fatal(err)
	}
	named := map[string]string{}
	for _, file := range files {
		source, err := docs.Files.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		for _, m := range regexp.MustCompile(`(?s)\*\*(.+?)\*\*`).FindAllStringSubmatch(string(source), -1) {
			named[strings.TrimRight(strings.Join(strings.Fields(m[1]), " "), ".")] = file
		}
	}
	if len(named) < 40 {
		t.Fatalf("only %d labels", len(named))
	}
	for _, label := range slices.Sorted(maps.Keys(named)) {
		if !there[label] {
			t.Errorf("%s names %q, which nothing in the interface is called", named[label], label)
		}
	}
}
