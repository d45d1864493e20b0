package web

import (
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// A comment that begins with the name of a function stands on that one.
func TestCommentsStandOnWhatTheyName(t *testing.T) {
	files := 0
	err := filepath.WalkDir("..", func(name string, e os.DirEntry, err error) error {
		if err != nil || e.IsDir() && (e.Name() == "node_modules" || e.Name() == ".git" || e.Name() == ".data") {
			if err == nil {
				err = filepath.SkipDir
			}
			return err
		}
		if e.IsDir() || filepath.Ext(name) != ".go" {
			return nil
		}
		fset := token.NewFileSet()
		f, err := parser.ParseFile(fset, name, nil, parser.ParseComments|parser.SkipObjectResolution)
		if err != nil {
			return err
		}
		files++
		named := map[string]bool{}
		for _, d := range f.Decls {
			if fn, ok := d.(*ast.FuncDecl); ok {
				named[fn.Name.Name] = true
			}
		}
		for _, d := range f.Decls {
			fn, ok := d.(*ast.FuncDecl)
			if !ok || fn.Doc == nil {
				continue
			}
			lines := strings.Split(strings.TrimSpace(fn.Doc.Text()), "\n")
			for i, line := range lines {
				first, _, _ := strings.Cut(line, " ")
				if first != fn.Name.Name && named[first] &&
					(i == 0 || strings.HasSuffix(lines[i-1], ".")) { // where a sentence begins
					t.Errorf("%s: what is said of %s stands on %s", fset.Position(fn.Pos()), first, fn.Name.Name)
				}
			}
		}
		return nil
	})
	if err != nil || files < 400 {
		t.Fatal(files, err)
	}
}
