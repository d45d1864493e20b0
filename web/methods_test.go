package web

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"
)

// mostMethods is how many methods a type has at most, so that one head holds it.
const mostMethods = 25

// No type anywhere has more methods than one head holds.
func TestNoTypeHasTooManyMethods(t *testing.T) {
	t.Parallel()
	methods := map[string]int{}
	err := filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		switch {
		case err != nil:
			return err
		case d.IsDir() && (d.Name() == "node_modules" || len(d.Name()) > 2 && d.Name()[0] == '.'):
			return fs.SkipDir
		case d.IsDir() || filepath.Ext(path) != ".go" || strings.HasSuffix(path, "_test.go"):
			return nil
		}
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.SkipObjectResolution)
		if err != nil {
			return err
		}
		for _, decl := range f.Decls {
			fn, ok := decl.(*ast.FuncDecl)
			if !ok || fn.Recv == nil {
				continue
			}
			of := fn.Recv.List[0].Type
			if star, ok := of.(*ast.StarExpr); ok {
				of = star.X
			}
			if name, ok := of.(*ast.Ident); ok {
				methods[filepath.Dir(path)+"."+name.Name]++
			}
		}
		return nil
	})
	if err != nil || len(methods) < 100 {
		t.Fatalf("%d types with methods, %v", len(methods), err)
	}
	for name, n := range methods {
		if n > mostMethods {
			t.Errorf("%s has %d methods; %d at most", name, n, mostMethods)
		}
	}
}
